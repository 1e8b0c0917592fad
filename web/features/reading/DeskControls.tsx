'use client';

import { useRef } from 'react';
import { FormControlLabel, MenuItem, Switch, TextField } from '@mui/material';
import { InstrumentField, ModeField } from '@/features/bridge/InstrumentFields';
import { FileLink } from '@/ui/FileButton';
import type { useDesk } from './useDesk';
import { MEASURED_FILES } from './measuredFiles';

const MOVEMENT_WORDS: Readonly<Record<string, string>> = {
  'too-fast': 'too fast',
  'off-row': 'off the row',
  'started-late': 'started late',
  'other-strip': 'the next strip',
};

/** Choices at the desk: instrument, mode, passes, the hand of a simulated instrument, a file instead, keys. */
export function DeskControls({
  desk,
  keys,
  onKeys,
  onFile,
  onPatches,
}: {
  desk: ReturnType<typeof useDesk>;
  keys: boolean;
  onKeys: (on: boolean) => void;
  onFile: (file: File | undefined) => void;
  onPatches: () => void;
}) {
  const movements = desk.instrument?.info.movements ?? [];
  const row = useRef<HTMLDivElement>(null);
  // After a choice the keys are the desk's again: Space would open the list once more.
  const backToDesk = {
    onClose: () => setTimeout(() => row.current?.closest<HTMLElement>('.desk')?.focus()),
  };
  return (
    <div ref={row} className="row" style={{ flexWrap: 'wrap' }}>
      <InstrumentField
        instruments={desk.readable}
        serial={desk.instrument?.info.serial ?? ''}
        onChoose={desk.choose}
        select={backToDesk}
      />
      <ModeField
        modes={desk.instrument?.info.modes ?? []}
        mode={desk.mode}
        disabled={desk.modeKept}
        onChoose={desk.setMode}
        select={backToDesk}
      />
      <TextField
        select
        slotProps={{ select: backToDesk }}
        label="Passes"
        value={desk.passes}
        onChange={(event) => desk.setPasses(Number(event.target.value))}
        sx={{ width: 84 }}
      >
        {[1, 2, 3, 5].map((count) => (
          <MenuItem key={count} value={count}>
            {count}
          </MenuItem>
        ))}
      </TextField>
      {movements.length > 0 && (
        <TextField
          select
          slotProps={{ select: backToDesk }}
          label="Simulated hand"
          value={desk.movement}
          onChange={(event) => desk.setMovement(event.target.value)}
          sx={{ width: 150 }}
        >
          {movements.map((value) => (
            <MenuItem key={value} value={value}>
              {MOVEMENT_WORDS[value] ?? value}
            </MenuItem>
          ))}
        </TextField>
      )}
      <FileLink label="Take it from a file" accept={MEASURED_FILES} onFile={onFile} />
      <button type="button" className="plain small" onClick={onPatches}>
        <u>Patch by patch</u>
      </button>
      <FormControlLabel
        sx={{ ml: 0 }}
        control={<Switch size="small" checked={keys} onChange={(_, on) => onKeys(on)} />}
        label={<span className="small">keys act</span>}
      />
    </div>
  );
}
