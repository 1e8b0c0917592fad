import { WATCH_PLACES } from '../charts/controlWedge.ts';
import type { Lab } from '../colour/lab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { measuredLabRows } from '../colour/measuredLabRows.ts';
import { labToXyz, xyzToLab } from '../colour/xyzToLab.ts';
import { inkEffects } from '../conformity/inkEffects.ts';
import type { ColourPair } from '../conformity/judgeColours.ts';
import { standardDeviation } from '../numerics/statistics.ts';
import { meanFigures, WATCH_PATCHES, watchLab } from './watchFigures.ts';

export type CauseKind = 'ink' | 'dot gain' | 'zone' | 'all inks' | 'stock' | 'instrument';

/** What a change of a watch looks most like. */
export interface WatchCause {
  readonly kind: CauseKind;
  /** 0 C … 3 K; −1 where it is not an ink. */
  readonly ink: number;
  /** 0 left … 2 right; −1 where it is the whole width. */
  readonly place: number;
  /** Share of the ink's density (0.05 = 5 % more) or of the midtone's gain; of the white for stock and instrument. */
  readonly size: number;
  /** Share of the change that it explains, 0..1. */
  readonly explains: number;
  /** The next best of another kind explains nearly as much. */
  readonly orElse: Pick<WatchCause, 'kind' | 'ink' | 'place'> | null;
}

/** Most of the latest checks that the change is taken from. */
export const RECENT_CHECKS = 3;
/** Least scatter of a colour value of one patch, whatever the baseline says. */
const LEAST_SCATTER = 0.12;
/** What each free size has to explain in squares of scatter before it is believed. */
const PENALTY = 12;
/** Two causes whose scores are nearer than this share cannot be told apart. */
const TOO_NEAR = 0.03;
const STEP = 0.02;

interface Candidate {
  readonly kind: CauseKind;
  readonly ink: number;
  readonly place: number;
  /** Change of all values by one unit of each free size. */
  readonly patterns: readonly Float64Array[];
}

/**
 * Names what moved: the change of the latest checks from the baseline, in L*, a*, b* of each patch at each place, is
 * laid beside what each cause would do to them by the sheet's own solids; the one that leaves least is named.
 * @param checks figures of all checks, the baseline first.
 * @param baseline how many of them are the baseline.
 */
export function watchCause(checks: readonly Float64Array[], baseline: number): WatchCause | undefined {
  const first = checks.slice(0, baseline);
  if (first.length < 2 || checks.length <= baseline) return undefined;
  const zero = meanFigures(first);
  const { change, scatter } = latestChange(first, zero, checks.slice(baseline));
  // A run tells most patches at one place of its width only: what is not told says nothing of any cause.
  const told = [...change.keys()].filter((i) => !Number.isNaN(change[i]));
  const target = Float64Array.from(told, (i) => change[i]);
  const total = squares(target);
  const scored = candidates(zero)
    .map((candidate) => {
      const fit = leastSquares(
        candidate.patterns.map((pattern) => Float64Array.from(told, (i) => pattern[i] / scatter[i])),
        target,
      );
      return { candidate, ...fit, score: fit.explained - PENALTY * candidate.patterns.length };
    })
    .sort((a, b) => b.score - a.score);
  const [best] = scored;
  const next = scored.find(({ candidate }) => candidate.kind !== best.candidate.kind);
  const { kind, ink, place } = best.candidate;
  return {
    kind,
    ink,
    place,
    size: best.sizes[0],
    explains: total > 0 ? best.explained / total : 0,
    orElse:
      next !== undefined && best.score - next.score < TOO_NEAR * Math.max(best.score, 1)
        ? { kind: next.candidate.kind, ink: next.candidate.ink, place: next.candidate.place }
        : null,
  };
}

/** The change of the latest one, two or three checks, whichever stands out most, in σ of its mean. */
function latestChange(
  first: readonly Float64Array[],
  zero: Float64Array,
  later: readonly Float64Array[],
): { readonly change: Float64Array; readonly scatter: Float64Array } {
  const before = measuredLabRows(zero);
  const baseline = first.map(measuredLabRows);
  const tried = Array.from({ length: Math.min(RECENT_CHECKS, later.length) }, (_, i) => {
    const scatter = scatterOf(baseline, i + 1);
    const after = measuredLabRows(meanFigures(later.slice(-(i + 1))));
    return { scatter, change: after.map((value, k) => (value - before[k]) / scatter[k]) };
  });
  const size = ({ change }: { readonly change: Float64Array }): number =>
    squares(change.filter((value) => !Number.isNaN(value)));
  return tried.reduce((best, each) => (size(each) > size(best) ? each : best));
}

/** σ of the mean of so many checks, with that of the baseline's mean. */
function scatterOf(baseline: readonly Float64Array[], recent: number): Float64Array {
  const share = Math.sqrt(1 / recent + 1 / baseline.length);
  return Float64Array.from(
    baseline[0],
    (_, i) => share * Math.hypot(LEAST_SCATTER, standardDeviation(baseline.map((row) => row[i]))),
  );
}

function candidates(zero: Float64Array): Candidate[] {
  const pairs = WATCH_PATCHES.map(({ device }, patch): ColourPair => {
    const lab = watchLab(zero, patch);
    return { device, aim: lab, measured: lab };
  });
  const effects = inkEffects(pairs);
  const paper = labToXyz(pairs[0].measured, WHITE_D50_MEASURED);
  const everywhere = (move: (pair: ColourPair) => Lab, at = -1): Float64Array => {
    const out = new Float64Array(zero.length);
    pairs.forEach((pair, patch) => {
      const moved = move(pair);
      for (let place = 0; place < WATCH_PLACES; place++)
        if (at < 0 || at === place)
          for (let axis = 0; axis < 3; axis++)
            out[3 * (patch * WATCH_PLACES + place) + axis] = (moved[axis] - pair.measured[axis]) / STEP;
    });
    return out;
  };
  const scaled =
    (factor: (pair: ColourPair) => readonly [number, number, number]) =>
    (pair: ColourPair): Lab => {
      const xyz = labToXyz(pair.measured, WHITE_D50_MEASURED);
      const by = factor(pair);
      return xyzToLab([xyz[0] * by[0], xyz[1] * by[1], xyz[2] * by[2]], WHITE_D50_MEASURED);
    };
  const level = everywhere(scaled(() => [1 + STEP, 1 + STEP, 1 + STEP]));
  // Along the spectrum from blue to red.
  const tilt = everywhere(scaled(() => [1 + 0.4 * STEP, 1, 1 - STEP]));
  const brightener = everywhere((pair) => {
    const xyz = labToXyz(pair.measured, WHITE_D50_MEASURED);
    const light = STEP * paper[2] * reachedByUv(pair.device) * Math.sqrt(Math.max(0, xyz[2] / paper[2]));
    return xyzToLab([xyz[0] + 0.2 * light, xyz[1] + 0.02 * light, xyz[2] + light], WHITE_D50_MEASURED);
  });
  const out: Candidate[] = [
    { kind: 'stock', ink: -1, place: -1, patterns: [brightener, tilt] },
    { kind: 'instrument', ink: -1, place: -1, patterns: [level, tilt] },
  ];
  if (effects === undefined) return out;
  const { withDensity, withGain } = effects;
  const density = (ink: number, at = -1): Float64Array =>
    everywhere((pair) => withDensity(pair, ink, STEP), at);
  const gain = (ink: number, at = -1): Float64Array => everywhere((pair) => withGain(pair, ink, STEP), at);
  const inks = [0, 1, 2, 3];
  for (const ink of inks) {
    out.push({ kind: 'ink', ink, place: -1, patterns: [density(ink), gain(ink)] });
    out.push({ kind: 'dot gain', ink, place: -1, patterns: [gain(ink)] });
    for (let place = 0; place < WATCH_PLACES; place++)
      out.push({ kind: 'zone', ink, place, patterns: [density(ink, place), gain(ink, place)] });
  }
  const sum = (columns: readonly Float64Array[]): Float64Array =>
    columns.reduce((all, column) => all.map((value, i) => value + column[i]));
  out.push({
    kind: 'all inks',
    ink: -1,
    place: -1,
    patterns: [sum(inks.map((ink) => density(ink))), sum(inks.map((ink) => gain(ink)))],
  });
  return out;
}

/** Share of ultraviolet light that the inks of a patch let through to the paper, roughly. */
function reachedByUv(device: ArrayLike<number>): number {
  let share = 1;
  for (let ink = 0; ink < 4; ink++) share *= 1 - 0.7 * Math.min(1, device[ink] * 1.15);
  return share;
}

function squares(values: Float64Array): number {
  return values.reduce((sum, value) => sum + value * value, 0);
}

/** Sizes of one or two patterns, and how much of the squares they explain. */
function leastSquares(
  patterns: readonly Float64Array[],
  target: Float64Array,
): { readonly sizes: readonly number[]; readonly explained: number } {
  const dot = (a: Float64Array, b: Float64Array): number =>
    a.reduce((sum, value, i) => sum + value * b[i], 0);
  const [first, second] = patterns;
  const aa = dot(first, first);
  const at = dot(first, target);
  const alone = { sizes: [at / aa], explained: (at * at) / aa };
  // Nothing that was read would show it.
  if (!(aa > 0)) return { sizes: [0], explained: 0 };
  if (second === undefined) return alone;
  const ab = dot(first, second);
  const bb = dot(second, second);
  const bt = dot(second, target);
  const determinant = aa * bb - ab * ab;
  if (!(determinant > 1e-9 * aa * bb)) return alone;
  const a = (at * bb - bt * ab) / determinant;
  const b = (bt * aa - at * ab) / determinant;
  return { sizes: [a, b], explained: a * at + b * bt };
}
