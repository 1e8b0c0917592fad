'use client';

import { Button, Checkbox, FormControlLabel, TextField } from '@mui/material';
import { useState } from 'react';
import type { SettingsPoint } from '@melto/services/ledger/conditions';

/** Points that a settings record may have. */
export const MOST_POINTS = 40;

/** Adds a point of the house's own to a settings record. */
export function OwnPoint({
  taken,
  onPoint,
}: {
  /** Labels that are there already. */
  taken: readonly string[];
  onPoint: (point: SettingsPoint) => void;
}) {
  const [label, setLabel] = useState('');
  const [tick, setTick] = useState(false);
  const name = label.trim();
  const twice = taken.some((other) => other.toLowerCase() === name.toLowerCase());
  const full = taken.length >= MOST_POINTS;
  return (
    <div
      style={{ display: 'grid', gridTemplateColumns: '1fr auto auto', gap: '0 12px', alignItems: 'start' }}
    >
      <TextField
        label="Another point"
        value={label}
        error={twice}
        helperText={twice ? 'The record has it already.' : ' '}
        onChange={(event) => setLabel(event.target.value)}
        slotProps={{ htmlInput: { maxLength: 120 } }}
      />
      <FormControlLabel
        control={<Checkbox checked={tick} onChange={(_, checked) => setTick(checked)} />}
        label="ticked"
        title="ticked at each print"
      />
      <Button
        sx={{ whiteSpace: 'nowrap' }}
        disabled={name === '' || twice || full}
        onClick={() => {
          onPoint({ label: name, value: '', tickAtPrint: tick });
          setLabel('');
          setTick(false);
        }}
      >
        Add
      </Button>
      {full && <span className="quiet small">A record has {MOST_POINTS} points at most.</span>}
    </div>
  );
}
