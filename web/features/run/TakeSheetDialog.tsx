import { Checkbox, FormControlLabel, TextField } from '@mui/material';
import { useState } from 'react';
import { MOST_IMPRESSIONS } from '@melto/core/press/incomingSheet';
import type { RunView } from '@melto/services/press/runView';
import type { SheetTaken } from '@melto/services/press/sheets';
import { PULL_SHEET, TAKE_SHEET_FILE } from '@/endpoints/runs';
import { send } from '@/ui/api';
import { FileButton } from '@/ui/FileButton';
import { FormDialog } from '@/ui/FormDialog';
import { isWhole } from '@/ui/numberOf';
import { nextImpression } from './moveWords';

/** A sheet by the counter of the press: read by a simulated sensor, or taken from a file of measurements. */
export function TakeSheetDialog({ run, onClose }: { run: RunView; onClose: () => void }) {
  const { id, settings, simulated, lastImpression } = run;
  const [impression, setImpression] = useState(String(nextImpression(lastImpression, settings.settle)));
  const [file, setFile] = useState<File>();
  const [modeTold, setModeTold] = useState(false);
  const [taken, setTaken] = useState<SheetTaken>();
  const right = isWhole(impression, 0, MOST_IMPRESSIONS);
  const take = async (): Promise<void> => {
    const at = Number(impression);
    const answer =
      file === undefined
        ? await send(PULL_SHEET, { params: { id }, body: { impression: at } })
        : await send(TAKE_SHEET_FILE, {
            params: { id },
            query: { impression: at, modeTold: modeTold ? 'true' : 'false' },
            body: file,
          });
    if (answer.open === 0 || file === undefined) onClose();
    else setTaken(answer);
  };
  return (
    <FormDialog
      title="Take a sheet"
      act={file === undefined && simulated ? 'Read it' : 'Take the file'}
      ready={right && (simulated || file !== undefined)}
      onSubmit={taken === undefined ? take : onClose}
      onClose={onClose}
    >
      <TextField
        label="Counter of the press"
        autoFocus
        value={impression}
        error={!right}
        helperText={
          lastImpression === null
            ? 'Impressions when the sheet was taken'
            : `The last sheet was taken at ${lastImpression.toLocaleString('en-GB')}; the same number completes it`
        }
        onChange={(event) => setImpression(event.target.value)}
        slotProps={{ htmlInput: { inputMode: 'numeric' } }}
      />
      <div className="row">
        <FileButton
          label={simulated ? 'A file instead' : 'File of measurements'}
          accept=".txt,.cgats,.ti3,.csv,.cxf,.xml"
          onFile={setFile}
        />
        <span className="quiet small">
          {file?.name ?? 'CGATS, CxF or CSV, with spectra; either way round'}
        </span>
      </div>
      {file !== undefined && (
        <FormControlLabel
          control={<Checkbox checked={modeTold} onChange={(event) => setModeTold(event.target.checked)} />}
          label={`It was measured in ${settings.mode}, where the file does not tell`}
        />
      )}
      {taken !== undefined && (
        <p role="status">
          Taken. {taken.open} {taken.open === 1 ? 'patch is' : 'patches are'} open: read them on the same
          sheet and give that file with the same counter.
        </p>
      )}
    </FormDialog>
  );
}
