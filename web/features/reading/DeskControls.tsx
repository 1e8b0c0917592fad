'use client';

import { FormControlLabel, MenuItem, Switch, TextField } from '@mui/material';
import type { HandMovement, MeasurementMode } from '@melto/core/device/instrument';
import type { useDesk } from './useDesk';
import { MEASURED_FILES } from './measuredFiles';

const HANDS: readonly (readonly [HandMovement, string])[] = [
  ['steady', 'steady'],
  ['too-fast', 'too fast'],
  ['off-row', 'off the row'],
  ['started-late', 'started late'],
  ['backwards', 'backwards'],
  ['other-strip', 'the next strip'],
];
/** Choices at the desk: mode, passes, the simulated hand, a file instead, keys. */
export function DeskControls({
  desk,
  keys,
  onKeys,
  onFile,
}: {
  desk: ReturnType<typeof useDesk>;
  keys: boolean;
  onKeys: (on: boolean) => void;
  onFile: (file: File | undefined) => void;
}) {
  return (
    <div className="row" style={{ flexWrap: 'wrap' }}>
      <TextField
        select
        label="Mode"
        value={desk.mode}
        onChange={(event) => desk.setMode(event.target.value as MeasurementMode)}
        sx={{ width: 90 }}
        disabled={desk.state.readingId !== null}
      >
        {(desk.state.instrument?.modes ?? []).map((name) => (
          <MenuItem key={name} value={name}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
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
      <TextField
        select
        label="Simulated hand"
        value={desk.hand}
        onChange={(event) => desk.setHand(event.target.value as HandMovement)}
        sx={{ width: 150 }}
      >
        {HANDS.map(([value, words]) => (
          <MenuItem key={value} value={value}>
            {words}
          </MenuItem>
        ))}
      </TextField>
      <label className="plain small">
        <u>Take it from a file</u>
        <input
          type="file"
          accept={MEASURED_FILES}
          className="visually-hidden"
          onChange={(event) => {
            onFile(event.target.files?.[0]);
            // The same file can be given again.
            event.target.value = '';
          }}
        />
      </label>
      <FormControlLabel
        sx={{ ml: 0 }}
        control={<Switch size="small" checked={keys} onChange={(_, on) => onKeys(on)} />}
        label={<span className="small">keys act</span>}
      />
    </div>
  );
}
