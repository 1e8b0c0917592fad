'use client';

import { MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import { OWN_PAGE_MM, paperMm, paperNamed } from '@melto/core/charts/pageGeometry';
import type { NamedPaper, PaperName } from '@melto/core/charts/pageGeometry';
import { formatLength, lengthText, lengthUnit, typedLength } from '@/ui/units';
import { PAPER_WORDS, paperWords } from './paperWords';

const OWN = 'own';

/** The page that a chart stands on: a known one, one of the device's own, or one by its width and height. */
export function PaperField({
  paper,
  own,
  onPaper,
}: {
  /** Undefined while the sides that are typed make no page. */
  paper: PaperName | undefined;
  /** Pages of the device's own. */
  own: readonly PaperName[];
  onPaper: (paper: PaperName | undefined) => void;
}) {
  const known = [...(Object.keys(PAPER_WORDS) as NamedPaper[]), ...own];
  const [sides, setSides] = useState<{ readonly width: string; readonly height: string }>();
  const take = (next: { readonly width: string; readonly height: string }): void => {
    setSides(next);
    onPaper(paperNamed(`${typedLength(next.width)}x${typedLength(next.height)}`));
  };
  const choose = (value: string): void => {
    if (value !== OWN) {
      setSides(undefined);
      return onPaper(value as PaperName);
    }
    const { width, height } = paperMm(paper ?? 'a4');
    take({ width: lengthText(Math.round(width)), height: lengthText(Math.round(height)) });
  };
  return (
    <>
      <TextField
        select
        label="Paper"
        value={sides === undefined ? paper : OWN}
        onChange={(event) => choose(event.target.value)}
        sx={{ width: 132 }}
      >
        {known.map((name) => (
          <MenuItem key={name} value={name}>
            {paperWords(name)}
          </MenuItem>
        ))}
        <MenuItem value={OWN}>another size</MenuItem>
      </TextField>
      {sides !== undefined &&
        (['width', 'height'] as const).map((side) => (
          <TextField
            key={side}
            label={`${side}, ${lengthUnit()}`}
            value={sides[side]}
            error={paper === undefined}
            helperText={
              paper === undefined
                ? `${formatLength(OWN_PAGE_MM.least)} to ${formatLength(OWN_PAGE_MM.most)}`
                : undefined
            }
            onChange={(event) => take({ ...sides, [side]: event.target.value.trim() })}
            sx={{ width: 92 }}
          />
        ))}
    </>
  );
}
