import type { TrialFigures } from '@melto/core/stock/trialFigures';
import { BRIGHTENER_WORDS } from '@melto/core/stock/stockFacts';
import type { PaperTrial } from '@melto/services/house/paperTrials';
import { formatFigure, formatLab } from '@/ui/format';

type TrialPrint = PaperTrial['prints'][number];

/** A stock of a trial with what its sheet told, as far as it was read. */
export interface TrialRow {
  readonly print: TrialPrint;
  readonly figures: TrialFigures | undefined;
  /** b* of the stock with ultraviolet less b* without; undefined where it was not read both ways. */
  readonly brightened: number | undefined;
}

interface TrialColumn {
  readonly name: string;
  readonly help: string;
  readonly digits: number;
  /** Which end wins; undefined where taste does. */
  readonly best?: 'most' | 'least';
  readonly value: (row: TrialRow) => number | undefined;
}

/** Figures by which stocks are compared. */
export const TRIAL_COLUMNS: readonly TrialColumn[] = [
  {
    name: 'Dmax',
    help: 'visual density of the darkest patch above the stock',
    digits: 2,
    best: 'most',
    value: ({ figures }) => figures?.density,
  },
  {
    name: 'darkest L*',
    help: 'of all patches',
    digits: 1,
    best: 'least',
    value: ({ figures }) => figures?.darkest[0],
  },
  {
    name: 'gamut, thousand',
    help: 'cubic ΔE*ab, with the stock',
    digits: 0,
    best: 'most',
    value: ({ figures }) => (figures === undefined ? undefined : figures.volume / 1000),
  },
  {
    name: 'greys, ΔCh',
    help: 'plain greys from those that follow the stock',
    digits: 1,
    best: 'least',
    value: ({ figures }) => figures?.greys,
  },
  {
    name: 'noise, ΔE00',
    help: 'repeated patches to their mean',
    digits: 2,
    best: 'least',
    value: ({ figures }) => figures?.noise ?? undefined,
  },
  {
    name: 'brightener, b*',
    help: 'of the stock, with ultraviolet less without',
    digits: 1,
    value: ({ brightened }) => brightened,
  },
  {
    name: 'price of a m²',
    help: 'as the library has it',
    digits: 2,
    best: 'least',
    value: ({ print }) => print.facts.pricePerM2,
  },
];

/** Places of the rows that win a column; none where nobody else is there to be better than. */
export function bestIn(
  column: Pick<TrialColumn, 'best' | 'value' | 'digits'>,
  rows: readonly TrialRow[],
): ReadonlySet<number> {
  const { best, value, digits } = column;
  const known = rows.flatMap((row, i) => {
    const own = value(row);
    return own === undefined ? [] : [{ i, shown: Number(own.toFixed(digits)) }];
  });
  if (best === undefined || known.length < 2) return new Set();
  const end = (best === 'most' ? Math.max : Math.min)(...known.map(({ shown }) => shown));
  const winners = known.filter(({ shown }) => shown === end);
  return new Set(winners.length === known.length ? [] : winners.map(({ i }) => i));
}

/** ΔE00 by which one stock must lose less of a picture than another for that to be said. */
const TELLS = 0.2;

/** Who loses least of each kind of picture, in sentences. */
export function pictureSentences(rows: readonly TrialRow[]): string[] {
  const known = rows.flatMap(({ print, figures }) =>
    figures === undefined ? [] : [{ stock: print.stock, figures }],
  );
  if (known.length < 2) return [];
  return known[0].figures.pictures.map(({ name }, i) => {
    const own = known.map(({ stock, figures }) => ({ stock, lost: figures.pictures[i].lost }));
    const least = Math.min(...own.map(({ lost }) => lost));
    const most = Math.max(...own.map(({ lost }) => lost));
    const winners = own.filter(({ lost }) => lost < least + TELLS).map(({ stock }) => stock);
    return winners.length === own.length
      ? `${name}: none of them loses more than another, ${least.toFixed(1)} ΔE00 on average.`
      : `${name}: ${winners.join(' and ')} ${winners.length === 1 ? 'loses' : 'lose'} least, ${least.toFixed(1)} ΔE00 on average; the most is ${most.toFixed(1)}.`;
  });
}

/** How far the sheets of a stock are. */
export function stateWords(
  { readingId, strips, stripsRead, restUntilMs }: TrialPrint,
  nowMs: number,
): string {
  if (readingId !== null) return 'read';
  if (stripsRead > 0) return `${stripsRead} of ${strips} strips read`;
  return restUntilMs > nowMs ? 'rests' : 'ready to read';
}

/** The table, to open in a spreadsheet. */
export function trialTable(rows: readonly TrialRow[]): {
  readonly head: string[];
  readonly rows: string[][];
} {
  const pictures = rows.find(({ figures }) => figures !== undefined)?.figures?.pictures ?? [];
  return {
    head: [
      'stock',
      'sheet',
      'white L* a* b*',
      ...TRIAL_COLUMNS.map(({ name }) => name),
      ...pictures.map(({ name }) => `${name}, ΔE00 lost`),
    ],
    rows: rows.map((row) => [
      row.print.stock,
      row.print.code,
      row.figures === undefined ? '' : formatLab(row.figures.white),
      ...TRIAL_COLUMNS.map(({ value, digits }) => value(row)?.toFixed(digits) ?? ''),
      ...pictures.map((_, i) => (row.figures === undefined ? '' : row.figures.pictures[i].lost.toFixed(2))),
    ]),
  };
}

export const figureWords = (value: number | undefined, digits: number): string =>
  value === undefined ? '–' : formatFigure(value, digits);

/** Of a stock's brightener as the library has it. */
export const brightenerWords = ({ facts }: TrialPrint): string =>
  facts.brightener === undefined ? '' : BRIGHTENER_WORDS[facts.brightener];
