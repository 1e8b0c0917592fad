'use client';

import { MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import { OWN_PAGE_MM, paperMm, paperNamed } from '@melto/core/charts/pageGeometry';
import type { NamedPaper, PaperName } from '@melto/core/charts/pageGeometry';

const NAMES: Readonly<Record<NamedPaper, string>> = { a4: 'A4', letter: 'Letter', a3: 'A3' };
const OWN = 'own';

/** A page as it is called: by its name, or by its sides. */
export function paperWords(paper: PaperName): string {
  if (Object.hasOwn(NAMES, paper)) return NAMES[paper as NamedPaper];
  const { width, height } = paperMm(paper);
  return `${width} × ${height} mm`;
}

/** The page that a chart stands on: a known one, or one's own by width and height. */
export function PaperField({ paper, onPaper }: { paper: PaperName; onPaper: (paper: PaperName) => void }) {
  const named = Object.hasOwn(NAMES, paper);
  const { width, height } = paperMm(paper);
  // What is typed and is no page yet stays in its field; the page is the one before.
  const [sides, setSides] = useState({ width: String(width), height: String(height) });
  const take = (next: typeof sides): void => {
    setSides(next);
    const own = paperNamed(`${next.width}x${next.height}`);
    if (own !== undefined) onPaper(own);
  };
  const right = paperNamed(`${sides.width}x${sides.height}`) !== undefined;
  return (
    <>
      <TextField
        select
        label="Paper"
        value={named ? paper : OWN}
        onChange={({ target: { value } }) => {
          if (value !== OWN) return onPaper(value as PaperName);
          const whole = { width: String(Math.round(width)), height: String(Math.round(height)) };
          take(whole);
        }}
        sx={{ width: 120 }}
      >
        {Object.entries(NAMES).map(([value, name]) => (
          <MenuItem key={value} value={value}>
            {name}
          </MenuItem>
        ))}
        <MenuItem value={OWN}>own size</MenuItem>
      </TextField>
      {!named &&
        (['width', 'height'] as const).map((side) => (
          <TextField
            key={side}
            label={`${side}, mm`}
            value={sides[side]}
            error={!right}
            helperText={right ? undefined : `${OWN_PAGE_MM.least} to ${OWN_PAGE_MM.most}`}
            onChange={(event) => take({ ...sides, [side]: event.target.value.trim() })}
            sx={{ width: 92 }}
          />
        ))}
    </>
  );
}
