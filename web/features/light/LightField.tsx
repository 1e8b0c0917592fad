'use client';

import { MenuItem, TextField } from '@mui/material';
import { OBSERVERS, observerWords } from '@melto/core/spectral/xyzWeights';
import { DAYLIGHT, shortName, useLights } from './useLights';
import type { SeenInKey } from './useLights';

/** Chooses a light of the library, and who looks. */
export function LightField({
  label,
  value,
  onChange,
  help,
  width,
}: {
  label: string;
  value: SeenInKey;
  onChange: (value: SeenInKey) => void;
  help?: string;
  width?: number;
}) {
  const lights = useLights();
  const choices = lights.flatMap((light) =>
    OBSERVERS.map((observer) => ({
      value: `${light.key}/${observer}` as SeenInKey,
      words: `${shortName(light)}, ${observerWords(observer)}`,
    })),
  );
  // Until the lights have come there is the one that needs none.
  const shown = choices.some((choice) => choice.value === value)
    ? choices
    : [{ value: DAYLIGHT, words: 'D50, 2°' }];
  return (
    <TextField
      select
      label={label}
      value={shown.some((choice) => choice.value === value) ? value : DAYLIGHT}
      onChange={(event) => onChange(event.target.value as SeenInKey)}
      helperText={help}
      sx={width === undefined ? undefined : { width }}
    >
      {shown.map((choice) => (
        <MenuItem key={choice.value} value={choice.value}>
          {choice.words}
        </MenuItem>
      ))}
    </TextField>
  );
}
