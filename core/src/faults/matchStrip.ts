import { correlation } from '../numerics/statistics.ts';

/** Which strip of a sheet a pass looks like, and in which direction. */
export interface StripMatch {
  readonly strip: number;
  readonly reversed: boolean;
  /** Mean correlation of L*, a*, b* with what the strip should give, −1..1. */
  readonly score: number;
  /** Score of the strip that was asked for, read forwards. */
  readonly asked: number;
}

/** Another strip must match better by this much before Melto believes it. */
const LEAST_MARGIN = 0.2;
const LEAST_SCORE = 0.6;
const SAME_STRIP = 0.03;

/**
 * Compares a pass with all strips of its length, forwards and backwards.
 * @param measured row-major patch × 3, Lab.
 * @param expected for each strip row-major patch × 3, Lab.
 * @param asked index of the strip that the person was asked to read.
 */
export function matchStrip(
  measured: Float64Array,
  expected: readonly Float64Array[],
  asked: number,
): StripMatch {
  const askedScore = likeness(measured, expected[asked], false);
  let best: StripMatch = { strip: asked, reversed: false, score: askedScore, asked: askedScore };
  const turned = likeness(measured, expected[asked], true);
  if (turned > askedScore) best = { strip: asked, reversed: true, score: turned, asked: askedScore };
  expected.forEach((strip, index) => {
    if (strip.length !== measured.length || index === asked) return;
    for (const reversed of [false, true]) {
      const score = likeness(measured, strip, reversed);
      // A mirrored copy of the strip elsewhere on the sheet is no better explanation than the strip itself.
      if (score > best.score + (best.strip === asked ? SAME_STRIP : 0))
        best = { strip: index, reversed, score, asked: askedScore };
    }
  });
  const believed = best.score >= LEAST_SCORE && best.score - askedScore >= LEAST_MARGIN;
  return believed ? best : { strip: asked, reversed: false, score: askedScore, asked: askedScore };
}

/** Mean correlation over L*, a*, b*, lightness counted twice. */
function likeness(measured: Float64Array, expected: Float64Array, reversed: boolean): number {
  if (measured.length !== expected.length) return -1;
  const count = measured.length / 3;
  let sum = 0;
  for (let axis = 0; axis < 3; axis++) {
    const a = new Float64Array(count);
    const b = new Float64Array(count);
    for (let i = 0; i < count; i++) {
      a[i] = measured[3 * (reversed ? count - 1 - i : i) + axis];
      b[i] = expected[3 * i + axis];
    }
    sum += (axis === 0 ? 2 : 1) * correlation(a, b);
  }
  return sum / 4;
}
