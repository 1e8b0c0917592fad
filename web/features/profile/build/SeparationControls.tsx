'use client';

import { Checkbox, FormControlLabel, MenuItem, Slider, TextField } from '@mui/material';
import { useState } from 'react';
import { USUAL_REPLACE } from '@melto/core/separate/placedSeparation';
import { BLACK_FOR, separationOf } from '@melto/core/separate/separation';
import { PAIR_PERCENT, pairLimitsFrom, pairLimitsText } from '@melto/core/separate/pairLimits';
import type { BlackAmount, PairLimit, Separation } from '@melto/core/separate/separation';

export const BLACK_WORDS: Readonly<Record<BlackAmount, string>> = {
  light: 'Black in the depths only: no dots of it in skin and sky.',
  medium: 'Black from the three-quarter tones on: photographs and text.',
  heavy: 'Black from the lights on: greys that hold when the press moves.',
  max: 'As much black as can be: the steadiest greys with the least ink.',
};

/** Black generation and ink limits by word or by slider. */
export function SeparationControls({
  names,
  black,
  separation,
  onBlack,
  onChange,
  onRight,
}: {
  /** Of the inks. */
  names: readonly string[];
  black: BlackAmount;
  separation: Separation;
  onBlack: (black: BlackAmount) => void;
  onChange: (changed: Partial<Separation>) => void;
  /** Whether what is typed as the most of an ink can be taken. */
  onRight: (ink: string, right: boolean) => void;
}) {
  const preset = separationOf(black, separation.totalInk);
  const changed = (['blackStart', 'blackMost', 'blackShape', 'blackChroma'] as const).some(
    (name) => preset[name] !== separation[name],
  );
  return (
    <>
      <TextField
        select
        label="Black for"
        value={black}
        onChange={(event) => onBlack(event.target.value as BlackAmount)}
        helperText={changed ? 'Changed below; choose again to go back.' : BLACK_WORDS[black]}
      >
        {(Object.keys(BLACK_WORDS) as BlackAmount[]).map((name) => (
          <MenuItem key={name} value={name}>
            {BLACK_FOR[name]}
          </MenuItem>
        ))}
      </TextField>
      <Setting
        name="Begins at L*"
        value={separation.blackStart}
        range={[20, 100]}
        onChange={(blackStart) => onChange({ blackStart })}
      />
      <Setting
        name="Most black, %"
        value={100 * separation.blackMost}
        range={[0, 100]}
        onChange={(value) => onChange({ blackMost: value / 100 })}
      />
      <Setting
        name="Rise: even to late"
        value={separation.blackShape}
        range={[0.5, 4]}
        step={0.05}
        decimals={2}
        onChange={(blackShape) => onChange({ blackShape })}
      />
      <Setting
        name="Reaches to C*"
        value={separation.blackChroma}
        range={[6, 100]}
        onChange={(blackChroma) => onChange({ blackChroma })}
      />
      <Setting
        name="Total ink, %"
        value={100 * separation.totalInk}
        range={[160, 100 * Math.max(4, names.length)]}
        onChange={(value) => onChange({ totalInk: value / 100 })}
      />
      {names.length > 4 && (
        <Setting
          name={`${names.filter((ink) => !'CMYK'.includes(ink)).join(', ')} in place of overprints, %`}
          value={100 * (separation.replace ?? USUAL_REPLACE)}
          range={[0, 100]}
          onChange={(value) => onChange({ replace: value / 100 })}
        />
      )}
      <fieldset className="bare">
        <legend className="small quiet">Most of each ink, %</legend>
        <div className="row" style={{ gap: 8 }}>
          {names.map((ink, i) => (
            <InkLimit
              key={ink}
              ink={ink}
              value={separation.inkLimits[i]}
              onChange={(value) => {
                onChange({ inkLimits: separation.inkLimits.map((own, j) => (i === j ? value : own)) });
              }}
              onRight={(right) => onRight(ink, right)}
            />
          ))}
        </div>
      </fieldset>
      <PairLimits
        names={names}
        value={separation.pairLimits ?? []}
        onChange={(pairLimits) => onChange({ pairLimits })}
        onRight={(right) => onRight('of two inks', right)}
      />
      <FormControlLabel
        control={
          <Checkbox
            checked={separation.pureBlack ?? false}
            onChange={(_, pureBlack) => onChange({ pureBlack })}
          />
        }
        label="Greys of the saturation intent in black alone, for text"
      />
    </>
  );
}

function Setting({
  name,
  value,
  range: [min, max],
  step = 1,
  decimals = 0,
  onChange,
}: {
  name: string;
  value: number;
  range: readonly [number, number];
  step?: number;
  decimals?: number;
  onChange: (value: number) => void;
}) {
  return (
    <div>
      <div className="row small" style={{ justifyContent: 'space-between' }}>
        <span>{name}</span>
        <b>{value.toFixed(decimals)}</b>
      </div>
      <Slider
        size="small"
        aria-label={name}
        value={value}
        min={min}
        max={max}
        step={step}
        onChange={(_, next) => onChange(next as number)}
        sx={{ py: '8px', color: 'var(--text)' }}
      />
    </div>
  );
}

/** What two inks may lay down together, as it is written on the command line. */
function PairLimits({
  names,
  value,
  onChange,
  onRight,
}: {
  names: readonly string[];
  value: readonly PairLimit[];
  onChange: (limits: PairLimit[]) => void;
  onRight: (right: boolean) => void;
}) {
  const [text, setText] = useState(() => pairLimitsText(value, names));
  const right = pairLimitsFrom(text, names) !== undefined;
  return (
    <TextField
      label="Most of two inks, %"
      value={text}
      error={!right}
      placeholder="C+M=180"
      helperText={
        right
          ? 'Pairs parted by commas, as C+M=180'
          : `Two of ${names.join(', ')} and ${PAIR_PERCENT.least} to ${PAIR_PERCENT.most} %, as C+M=180`
      }
      onChange={(event) => {
        setText(event.target.value);
        const limits = pairLimitsFrom(event.target.value, names);
        onRight(limits !== undefined);
        if (limits !== undefined) onChange(limits);
      }}
    />
  );
}

/** A whole per cent from 30 to 100; what lies outside is marked and not taken. */
function InkLimit({
  ink,
  value,
  onChange,
  onRight,
}: {
  ink: string;
  value: number;
  onChange: (value: number) => void;
  onRight: (right: boolean) => void;
}) {
  const [text, setText] = useState(String(Math.round(100 * value)));
  const right = isLimit(text);
  return (
    <TextField
      label={ink}
      size="small"
      value={text}
      error={!right}
      onChange={(event) => {
        setText(event.target.value);
        onRight(isLimit(event.target.value));
        if (isLimit(event.target.value)) onChange(Number(event.target.value) / 100);
      }}
      slotProps={{
        htmlInput: {
          inputMode: 'numeric',
          'aria-label': `most ${ink}, 30 to 100 %`,
          style: { padding: '8px 6px', textAlign: 'right' },
        },
      }}
    />
  );
}

function isLimit(text: string): boolean {
  const value = Number(text);
  return /^\d+$/.test(text.trim()) && value >= 30 && value <= 100;
}
