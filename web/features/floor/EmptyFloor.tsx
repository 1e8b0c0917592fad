'use client';

import { NEW_CONDITION } from '@/endpoints/conditions';
import { Button } from '@mui/material';
import { Link } from '@/ui/Link';
import { useSnackbar } from 'notistack';
import { LOAD_SAMPLE } from '@/endpoints/house';
import { MEASURED_FILES } from '@/features/reading/measuredFiles';
import { problemWords, send } from '@/ui/api';
import { May } from '@/ui/May';
import { FileLink } from '@/ui/FileButton';

/** A house without a condition: the ways to its first one. */
export function EmptyFloor({
  sampleOffered,
  onFile,
}: {
  sampleOffered: boolean;
  onFile: (file: File | undefined) => void;
}) {
  const { enqueueSnackbar } = useSnackbar();
  const load = (): void => {
    send(LOAD_SAMPLE, {}).then(
      () => enqueueSnackbar('The sample house is being loaded; the header shows how far it is.'),
      (error: unknown) => enqueueSnackbar(problemWords(error), { variant: 'error' }),
    );
  };
  return (
    <div className="floor" style={{ alignItems: 'flex-start', padding: 32, gap: 20 }}>
      <p style={{ fontSize: 20 }}>
        No condition yet: a condition is one device with one stock, one ink set and one print mode.
      </p>
      <div className="row">
        <May act={NEW_CONDITION}>
          <Button variant="contained" component={Link} href="/conditions/new">
            New condition
          </Button>
        </May>
        <Button component={Link} href="/library/house">
          Name your house
        </Button>
        {/* A way for the keyboard to what can be dropped on the floor as well. */}
        <FileLink label="take a measured file" accept={MEASURED_FILES} onFile={onFile} />
        {sampleOffered && <Button onClick={load}>Load the sample house</Button>}
      </div>
    </div>
  );
}
