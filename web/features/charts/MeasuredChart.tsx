'use client';

import { Checkbox, FormControlLabel } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { MeasuredFileDialog } from '@/features/reading/ImportDialog';
import { PREVIEW_MEASURED_CHART, TAKE_MEASURED_CHART } from '@/endpoints/reading';
import { send } from '@/ui/api';
import { FileLink } from '@/ui/FileButton';
import { MEASURED_FILES } from '@/features/reading/measuredFiles';

/** Takes a chart that was made, printed and measured elsewhere: its file holds device values and colours together. */
export function MeasuredChart({ conditionId }: { conditionId: number }) {
  const router = useRouter();
  const [file, setFile] = useState<File>();
  const [recorded, setRecorded] = useState(false);
  const params = { id: conditionId };
  return (
    <>
      <span style={{ marginTop: 10 }}>
        <FileLink
          label="Take one that was measured elsewhere"
          accept={MEASURED_FILES}
          onFile={(given) => {
            setFile(given);
            setRecorded(false);
          }}
        />
      </span>
      {file !== undefined && (
        <MeasuredFileDialog
          file={file}
          ready={recorded}
          preview={(query) => send(PREVIEW_MEASURED_CHART, { params, query, body: file })}
          onTake={async (answers) => {
            const query = { ...answers, name: file.name.slice(0, 120), asRecorded: 'yes' } as const;
            const { readingId } = await send(TAKE_MEASURED_CHART, { params, query, body: file });
            router.push(`/readings/${readingId}`);
          }}
          onClose={() => setFile(undefined)}
        >
          <FormControlLabel
            control={<Checkbox checked={recorded} onChange={(_, on) => setRecorded(on)} />}
            label="It was printed as the settings record says, without colour management"
          />
        </MeasuredFileDialog>
      )}
    </>
  );
}
