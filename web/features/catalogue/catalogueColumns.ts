import { BRIGHTENERS } from '@melto/core/stock/stockFacts';
import type { CatalogueRow } from '@melto/services/overview/catalogue';
import { formatDay } from '@/ui/format';

/** A column of the catalogue: how it reads, and by what its rows are put in order. */
export interface CatalogueColumn {
  readonly name: string;
  readonly numeric?: true;
  readonly words: (row: CatalogueRow) => string;
  /** Undefined where it is not known: such rows come last, whichever way. */
  readonly by: (row: CatalogueRow) => number | string | undefined;
}

const figure = (
  name: string,
  value: (row: CatalogueRow) => number | null | undefined,
  words: (value: number) => string,
): CatalogueColumn => ({
  name,
  numeric: true,
  words: (row) => {
    const own = value(row);
    return own === null || own === undefined ? '–' : words(own);
  },
  by: (row) => value(row) ?? undefined,
});
const text = (name: string, value: (row: CatalogueRow) => string): CatalogueColumn => ({
  ...{ name, words: value, by: value },
});

export const CATALOGUE_COLUMNS: readonly CatalogueColumn[] = [
  text('Stock', ({ stock }) => stock),
  text('Device', ({ device }) => device),
  text('Mode', ({ mode }) => mode),
  text('Inks', ({ inkSet }) => inkSet),
  figure(
    'Gamut',
    ({ gamut }) => gamut?.volume,
    (volume) => (volume / 1000).toFixed(0),
  ),
  figure(
    'Dmax',
    ({ gamut }) => gamut?.density,
    (density) => density.toFixed(2),
  ),
  figure(
    'Darkest L*',
    ({ gamut }) => gamut?.darkest,
    (l) => l.toFixed(1),
  ),
  figure(
    'Paper L*',
    ({ gamut }) => gamut?.white[0],
    (l) => l.toFixed(1),
  ),
  figure(
    'Paper b*',
    ({ gamut }) => gamut?.white[2],
    (b) => b.toFixed(1),
  ),
  {
    name: 'Brightener',
    words: ({ brightener }) => brightener ?? '–',
    by: ({ brightener }) => (brightener === null ? undefined : BRIGHTENERS.indexOf(brightener ?? 'free')),
  },
  figure(
    'Best ΔE00',
    ({ best }) => best?.mean,
    (mean) => mean.toFixed(2),
  ),
  figure('Profile', ({ profile }) => profile.madeMs, formatDay),
];

/** Rows by a column; those that do not have it come last. */
export function sortRows(
  rows: readonly CatalogueRow[],
  { by }: CatalogueColumn,
  falling: boolean,
): CatalogueRow[] {
  return [...rows].sort((one, other) => {
    const [a, b] = [by(one), by(other)];
    if (a === undefined || b === undefined) return (a === undefined ? 1 : 0) - (b === undefined ? 1 : 0);
    const order = typeof a === 'number' && typeof b === 'number' ? a - b : String(a).localeCompare(String(b));
    return falling ? -order : order;
  });
}
