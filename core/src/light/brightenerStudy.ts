import type { Lab } from '../colour/lab.ts';
import type { Xyz } from '../colour/xyz.ts';
import { xyzToLab } from '../colour/xyzToLab.ts';
import { MOST_UV } from './ultraviolet.ts';

/** Rounds of picks, each through all rows: with four an eye that scatters by 0.4 ΔE*ab is known to 0.1 in share. */
export const STUDY_ROUNDS = 4;
/** Lightnesses of the rows of greys on a study's page. */
export const STUDY_LIGHTNESSES = [90, 80, 68] as const;
/** Fields of a row, from the bluest on. */
export const STUDY_FIELDS = 15;
/** From one field to the next, in b*. */
const STUDY_STEP = 0.6;
/** Fields before the one that is neutral in D50: with less ultraviolet what is neutral lies on the blue side, where most fields are. */
const BLUE_FIELDS = 11;

/** Letter of a row, as it stands on the page and on the screen. */
export const rowLetter = (row: number): string => String.fromCharCode(65 + row);

/** A field of a study's page: its row, its place from the bluest on, and the colour that it is to have in D50. */
export interface StudyField {
  readonly row: number;
  readonly field: number;
  readonly lab: Lab;
}

/** All fields of a study's page, row by row. */
export function studyFields(): StudyField[] {
  return STUDY_LIGHTNESSES.flatMap((lightness, row) =>
    Array.from({ length: STUDY_FIELDS }, (_, field) => ({
      ...{ row, field },
      lab: [lightness, 0, (field - BLUE_FIELDS) * STUDY_STEP] as const,
    })),
  );
}

/** A field that an eye took for the most neutral of its row. */
export interface StudyPick {
  readonly row: number;
  readonly field: number;
  /** Whose eye it was, from 0; one eye where nothing is said. */
  readonly eye?: number;
}

/** Eyes that may look at one page: each is as sure as its own picks show. */
export const MOST_EYES = 4;

export interface StudyEstimate {
  /** Share of the ultraviolet of M1 that acts in the light: mean of what the picks leave possible. */
  readonly share: number;
  /** Nine of ten shares that the picks leave possible lie between these. */
  readonly range: readonly [number, number];
  /** How far apart repeated picks of a row were, in fields: their standard deviation; null without repeats. */
  readonly scatter: number | null;
  /** How far b* of the rows moves from no ultraviolet to that of D50, on average: what the study has to go by. */
  readonly turn: number;
  /** Whether the picks tell anything: on a paper without brightener every share looks the same. */
  readonly tells: boolean;
  /** Rows whose picks lie at an end: what is neutral lies perhaps beyond. */
  readonly atTheEnd: readonly number[];
  /** Chroma of the fields that were picked at that share, on average: far from none, the picks do not fit the readings. */
  readonly leftOver: number;
}

/** The fields of a page in a light: XYZ row-major field × 3. */
export interface StudyPage {
  /** Without any ultraviolet. */
  readonly without: Float64Array;
  /** What the ultraviolet of M1 adds. */
  readonly added: Float64Array;
  /** Of a grey without brightener. */
  readonly white: Xyz;
}

/** Turning less than this, no eye can tell. */
export const LEAST_TURN = 0.6;
/** Left over more than this, the picks were made in another light or beside something that is no grey. */
export const MOST_LEFT_OVER = 2.5;

const SHARE_STEP = 0.005;
/** How sure an eye may be: chroma at which a field is still taken for neutral. */
const EYES = [0.3, 0.5, 0.8, 1.2, 1.8];

/**
 * Estimates from picks which share of ultraviolet acts in a light. Every share makes another field of a row the most
 * neutral; an eye takes fields of chroma C with odds exp(−C²/2σ²), and the σ of each eye is left open. What is neutral is
 * so beside a grey without brightener, in the light's own white. How far the page is beside its prediction is the same
 * for all eyes: several of them do not make that surer.
 * @param page how its fields look in the light.
 */
export function estimateUvShare(
  page: StudyPage,
  fields: readonly StudyPick[],
  picks: readonly StudyPick[],
): StudyEstimate {
  if (picks.length === 0) throw new RangeError('no picks');
  const eyes = [...new Set(picks.map(({ eye = 0 }) => eye))];
  if (eyes.length > MOST_EYES) throw new RangeError(`${eyes.length} eyes, expected up to ${MOST_EYES}`);
  const { without, added, white } = page;
  const labAt = (i: number, share: number): Lab => {
    const at = (axis: number): number => without[3 * i + axis] + share * added[3 * i + axis];
    const xyz: Xyz = [at(0), at(1), at(2)];
    return xyzToLab(xyz, white);
  };
  const rows = [...new Set(fields.map(({ row }) => row))];
  const ofRow = rows.map((row) => fields.flatMap((field, i) => (field.row === row ? [i] : [])));
  const pickedAt = picks.map((pick) => {
    const i = fields.findIndex(({ row, field }) => row === pick.row && field === pick.field);
    if (i < 0) throw new RangeError(`no field ${pick.field} in row ${pick.row}`);
    return i;
  });
  const pickedBy = eyes.map((eye) =>
    ofRow.map((own) =>
      pickedAt.flatMap((i, k) => ((picks[k].eye ?? 0) === eye && own.includes(i) ? [own.indexOf(i)] : [])),
    ),
  );
  const shares = Array.from({ length: Math.round(MOST_UV / SHARE_STEP) + 1 }, (_, k) => k * SHARE_STEP);
  const logs = shares.map((share) =>
    logLikelihoods(
      fields.map((_, i) => labAt(i, share)),
      ofRow,
      pickedBy,
    ),
  );
  const most = logs.reduce((highest, own) => Math.max(highest, ...own), -Infinity);
  const odds = logs.map((own) => own.reduce((sum, value) => sum + Math.exp(value - most), 0));
  const total = odds.reduce((sum, value) => sum + value, 0);
  const share = odds.reduce((sum, value, k) => sum + (value * shares[k]) / total, 0);
  const turn = fields.reduce(
    (sum, _, i) => sum + Math.abs(labAt(i, 1)[2] - labAt(i, 0)[2]) / fields.length,
    0,
  );
  const ends = (row: number): boolean => {
    const places = fields.filter((field) => field.row === row).map(({ field }) => field);
    const own = picks.filter((pick) => pick.row === row);
    return own.some(({ field }) => field === Math.min(...places) || field === Math.max(...places));
  };
  return {
    ...{ share, turn, tells: turn >= LEAST_TURN },
    range: [quantile(shares, odds, 0.05 * total), quantile(shares, odds, 0.95 * total)],
    scatter: scatterOf(picks),
    atTheEnd: rows.filter(ends),
    leftOver: pickedAt.reduce((sum, i) => {
      const [, a, b] = labAt(i, share);
      return sum + Math.hypot(a, b) / pickedAt.length;
    }, 0),
  };
}

/**
 * How far a row may lie beside what the models tell of it, in b*: all its fields alike, since they are made of nearly the
 * same inks. Without it a page that is predicted wrongly would be told with too narrow a range.
 */
const ROW_ERROR = 0.3;
const ROW_SHIFTS = [-2, -1, 0, 1, 2].map((steps) => ({
  b: steps * ROW_ERROR,
  log: -(steps * steps) / 2,
}));

/**
 * Log odds of all picks at a share, for each kind that the eyes may be of (row-major over the eyes), over how far each row
 * may lie beside its prediction.
 * @param pickedBy what each eye picked, row by row, as places within the row.
 */
function logLikelihoods(
  lab: readonly Lab[],
  ofRow: readonly (readonly number[])[],
  pickedBy: readonly (readonly (readonly number[])[])[],
): number[] {
  // By eye, kind of eye, row and shift.
  const told = pickedBy.map(() => EYES.map(() => ofRow.map(() => new Array<number>(ROW_SHIFTS.length))));
  EYES.forEach((kind, k) =>
    ofRow.forEach((own, row) =>
      ROW_SHIFTS.forEach(({ b }, shift) => {
        const odds = own.map((i) => -(lab[i][1] ** 2 + (lab[i][2] + b) ** 2) / (2 * kind * kind));
        const all = logSum(odds);
        pickedBy.forEach((rows, eye) => {
          told[eye][k][row][shift] = rows[row].reduce((sum, place) => sum + odds[place] - all, 0);
        });
      }),
    ),
  );
  return Array.from({ length: EYES.length ** pickedBy.length }, (_, kinds) =>
    ofRow.reduce((sum, _own, row) => {
      const shifted = ROW_SHIFTS.map(({ log }, shift) => {
        let total = log;
        for (let eye = 0, rest = kinds; eye < told.length; eye++, rest = Math.floor(rest / EYES.length))
          total += told[eye][rest % EYES.length][row][shift];
        return total;
      });
      return sum + logSum(shifted);
    }, 0),
  );
}

/** Logarithm of the sum of what has these logarithms. */
function logSum(logs: readonly number[]): number {
  const highest = Math.max(...logs);
  return highest + Math.log(logs.reduce((sum, value) => sum + Math.exp(value - highest), 0));
}

function quantile(values: readonly number[], odds: readonly number[], wanted: number): number {
  let sum = 0;
  for (let k = 0; k < values.length; k++) {
    sum += odds[k];
    if (sum >= wanted) return values[k];
  }
  return values[values.length - 1];
}

/** Pooled over the rows of each eye; null where none was picked twice by one. */
function scatterOf(picks: readonly StudyPick[]): number | null {
  const keyOf = ({ row, eye = 0 }: StudyPick): string => `${row} ${eye}`;
  let [squares, free] = [0, 0];
  for (const key of new Set(picks.map(keyOf))) {
    const own = picks.filter((pick) => keyOf(pick) === key).map(({ field }) => field);
    const middle = own.reduce((sum, field) => sum + field, 0) / own.length;
    squares += own.reduce((sum, field) => sum + (field - middle) ** 2, 0);
    free += own.length - 1;
  }
  return free === 0 ? null : Math.sqrt(squares / free);
}
