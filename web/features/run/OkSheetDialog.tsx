import { Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import type { RunView } from '@melto/services/press/runView';
import { MARK_OK_SHEET } from '@/endpoints/runs';
import { send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';

/** Chooses the sheet that was approved, and whether the run is judged by it from now on. */
export function OkSheetDialog({ run: { id, strips }, onClose }: { run: RunView; onClose: () => void }) {
  const [impression, setImpression] = useState(strips.at(-1)?.impression ?? 0);
  const [lock, setLock] = useState(false);
  const open = strips.find((strip) => strip.impression === impression)?.openPatches ?? 0;
  return (
    <FormDialog
      title="OK sheet"
      act="Mark it"
      ready={open === 0}
      problem={
        open > 0
          ? `${open} ${open === 1 ? 'patch of this sheet is' : 'patches of this sheet are'} open: read what is missing first.`
          : undefined
      }
      onSubmit={async () => {
        await send(MARK_OK_SHEET, { params: { id }, body: { impression, lock } });
        onClose();
      }}
      onClose={onClose}
    >
      <TextField
        select
        label="Sheet"
        value={impression}
        onChange={(event) => setImpression(Number(event.target.value))}
      >
        {[...strips].reverse().map((strip) => (
          <MenuItem key={strip.id} value={strip.impression}>
            {strip.impression.toLocaleString('en-GB')}{' '}
            <span className="quiet small">
              {strip.outside === 0 ? 'all within' : `${strip.outside} of ${strip.judged} outside`}
            </span>
          </MenuItem>
        ))}
      </TextField>
      <FormControlLabel
        control={<Checkbox checked={lock} onChange={(event) => setLock(event.target.checked)} />}
        label="Judge the run by this sheet from now on"
      />
      <p className="quiet small">
        Locked, its own colours and tone values are the aims: sheets that were read before keep their verdict.
        Left open, the run goes on by its aim set, and only the variation is told against this sheet.
      </p>
    </FormDialog>
  );
}
