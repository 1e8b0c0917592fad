'use client';

import { MenuItem, TextField } from '@mui/material';
import type { SelectProps } from '@mui/material';
import type { MeasurementMode } from '@melto/core/device/instrument';
import type { Connected } from './BridgeContext';

type Shared = { readonly select?: Partial<SelectProps> };

/** Which of the instruments that are connected; nothing where there is no choice. */
export function InstrumentField({
  instruments,
  serial,
  onChoose,
  select,
}: Shared & {
  instruments: readonly Connected[];
  serial: string;
  onChoose: (serial: string) => void;
}) {
  if (instruments.length < 2) return null;
  return (
    <TextField
      select
      slotProps={{ select }}
      label="Instrument"
      value={serial}
      onChange={(event) => onChoose(event.target.value)}
      sx={{ width: 170 }}
    >
      {instruments.map(({ info, name }) => (
        <MenuItem key={info.serial} value={info.serial}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** The measurement mode (ISO 13655), among those that the instrument has. */
export function ModeField({
  modes,
  mode,
  disabled,
  onChoose,
  select,
}: Shared & {
  modes: readonly MeasurementMode[];
  /** Undefined until one is chosen. */
  mode: MeasurementMode | undefined;
  disabled?: boolean;
  onChoose: (mode: MeasurementMode) => void;
}) {
  return (
    <TextField
      select
      slotProps={{ select }}
      label="Mode"
      value={mode ?? ''}
      onChange={(event) => onChoose(event.target.value as MeasurementMode)}
      disabled={disabled}
      sx={{ width: 90 }}
    >
      {/* One that is kept for a reading is shown, whatever the instrument has. */}
      {[...new Set([...modes, ...(mode === undefined ? [] : [mode])])].sort().map((name) => (
        <MenuItem key={name} value={name}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}
