'use client';

import { TextField } from '@mui/material';
import { useQueries } from '@tanstack/react-query';
import { useState } from 'react';
import { MOST_UV } from '@melto/core/light/ultraviolet';
import type { LightChoice } from '@melto/services/ledger/kinds/profileKind';
import { SHEET_BRIGHTENER } from '@/endpoints/light';
import { ask } from '@/ui/api';
import { numberOf } from '@/ui/numberOf';

/** What a profile's light takes of ultraviolet. */
export type Ultraviolet = NonNullable<LightChoice['uv']>;

/** The share of ultraviolet that acts in a light, where each sheet was read with it and without; else a word on that. */
export function UltravioletField({
  known,
  readingIds,
  value,
  onChange,
}: {
  /** What a brightener study told of the light. */
  known?: number;
  readingIds: readonly number[];
  value: Ultraviolet | undefined;
  /** Undefined: as the readings have it. */
  onChange: (value: Ultraviolet | undefined) => void;
}) {
  const [typed, setTyped] = useState(value === undefined ? '' : String(value.share));
  const pairs = useQueries({
    queries: readingIds.map((id) => ({
      queryKey: ['brightener', id],
      queryFn: () => ask(SHEET_BRIGHTENER, { params: { id } }),
    })),
  });
  const without = pairs.flatMap(({ data }, i) =>
    data != null && data.withMode === 'M1' && data.withId === readingIds[i] ? [data.withoutId] : [],
  );
  if (pairs.some(({ isPending }) => isPending)) return null;
  if (without.length < readingIds.length)
    return (
      <p className="quiet small">
        Ultraviolet is taken as it was read. Read each sheet in M1 and in M2, and its share can be told.
      </p>
    );
  const share = numberOf(typed);
  const right = typed.trim() === '' || (share >= 0 && share <= MOST_UV);
  return (
    <TextField
      label="Share of ultraviolet"
      value={typed}
      error={!right}
      helperText={right ? helpFor(known) : `A number from 0 to ${MOST_UV}`}
      onChange={({ target }) => {
        setTyped(target.value);
        const next = numberOf(target.value);
        const usable = target.value.trim() !== '' && next >= 0 && next <= MOST_UV;
        onChange(usable ? { share: next, withoutReadingIds: without } : undefined);
      }}
    />
  );
}

const helpFor = (known: number | undefined): string =>
  known === undefined
    ? '0 behind glass or under diodes, 1 as in D50; empty: as it was read. A brightener study tells it.'
    : `A study told ${known.toFixed(2)} of this light; empty: as it was read`;
