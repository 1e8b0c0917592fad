import { deltaE2000 } from '../colour/deltaE2000.ts';
import type { Lab } from '../colour/lab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz, xyzToLab } from '../colour/xyzToLab.ts';
import type { Verdict } from '../judgement/verdict.ts';
import { createRandom } from '../numerics/random.ts';
import type { Random } from '../numerics/random.ts';
import { success } from '../result.ts';
import type { Result } from '../result.ts';
import { judgeSheet } from './checkAgainstAims.ts';
import type { AimCheck, SheetBesideAims } from './checkAgainstAims.ts';
import type { ToleranceSet } from './toleranceSet.ts';

/** How far a reading of a print may be from its prediction, mean ΔE00. */
export interface PredictionError {
  /** Of the model, which is alike in colours that are. */
  readonly model: number;
  /** Of the reading, in each patch by itself. */
  readonly reading: number;
  /** Of all of a sheet together. */
  readonly sheet: number;
}

/** What a check would say of a print that was not made yet. */
export interface PredictedConformity {
  /** Of the print as it is predicted. */
  readonly check: AimCheck;
  /** Share of such prints that would conform, or nearly. */
  readonly chance: number;
  /** Mean ΔE00 to the aims that such prints have, and of nine in ten of them between these. */
  readonly expectedMean: number;
  readonly meanBetween: readonly [number, number];
}

const PRINTS = 100;

/** A check that is predicted before printing. */
export interface PredictedCheck {
  readonly verdict: Verdict;
  /** Share of such prints that would conform, or nearly. */
  readonly chance: number;
  /** Mean ΔE00 to the aims, of nine in ten such prints. */
  readonly meanBetween: readonly [number, number];
  /** The metric that is nearest to its limit, or farthest over it. */
  readonly closest: { readonly words: string; readonly value: number; readonly limit: number } | null;
}

/**
 * Judges a predicted sheet, and as many more that are as far from it as predictions are.
 * @param sheet its colours are those that are predicted.
 */
export function predictConformity(
  sheet: SheetBesideAims,
  tolerances: ToleranceSet,
  corrected: boolean,
  error: PredictionError,
  seed = 1,
): Result<PredictedConformity> {
  const expected = judgeSheet(sheet, tolerances, corrected);
  if (!expected.ok) return expected;
  const random = createRandom(seed);
  const means: number[] = [];
  let conforming = 0;
  for (let print = 0; print < PRINTS; print++) {
    const xyz = misprinted(sheet.read.xyz, error, random);
    const judged = judgeSheet({ ...sheet, read: { ...sheet.read, xyz } }, tolerances, corrected);
    if (!judged.ok) return judged;
    if (judged.value.verdict === 'conforms' || judged.value.verdict === 'near') conforming++;
    means.push(meanOf(judged.value));
  }
  means.sort((a, b) => a - b);
  return success({
    check: expected.value,
    chance: conforming / PRINTS,
    expectedMean: means.reduce((sum, value) => sum + value, 0) / PRINTS,
    meanBetween: [means[Math.floor(0.05 * PRINTS)], means[Math.ceil(0.95 * PRINTS) - 1]],
  });
}

function meanOf({ pairs }: AimCheck): number {
  return pairs.reduce((sum, { aim, measured }) => sum + deltaE2000(aim, measured), 0) / pairs.length;
}

/** A sheet that is off by an error of the model, one of each patch and one that all share. */
function misprinted(
  xyz: Float64Array,
  { model, reading, sheet }: PredictionError,
  random: Random,
): Float64Array {
  const normals = (): number[] => [random.normal(), random.normal(), random.normal()];
  const field = smoothField(random);
  const trueModel = model * Math.exp(CLAIM_SPREAD * random.normal());
  const shared = normals();
  const out = new Float64Array(xyz.length);
  for (let i = 0; i < xyz.length; i += 3) {
    const lab = xyzToLab([xyz[i], xyz[i + 1], xyz[i + 2]], WHITE_D50_MEASURED);
    const own = offBy(offBy(lab, field(lab), trueModel), normals(), reading);
    out.set(labToXyz(offBy(own, shared, sheet), WHITE_D50_MEASURED), i);
  }
  return out;
}

/** How far models claim too much or too little, as a share: 0.7 to 1.4 of the truth over devices of every character. */
const CLAIM_SPREAD = 0.3;
/** ΔE*ab over which errors of a model stay alike. */
const ALIKE_OVER = 40;
const WAVES = 24;

/**
 * Three normal values for each colour, alike in colours that lie within `ALIKE_OVER` of each other: a sum of waves
 * through Lab whose numbers are drawn for a Gaussian correlation (Rahimi and Recht 2007).
 */
function smoothField(random: Random): (lab: Lab) => number[] {
  const waves = Array.from({ length: 3 * WAVES }, () => ({
    number: [random.normal() / ALIKE_OVER, random.normal() / ALIKE_OVER, random.normal() / ALIKE_OVER],
    phase: 2 * Math.PI * random.uniform(),
  }));
  const height = Math.sqrt(2 / WAVES);
  return (lab) =>
    [0, 1, 2].map((axis) => {
      let sum = 0;
      for (let w = axis * WAVES; w < (axis + 1) * WAVES; w++) {
        const { number, phase } = waves[w];
        sum += Math.cos(number[0] * lab[0] + number[1] * lab[1] + number[2] * lab[2] + phase);
      }
      return height * sum;
    });
}

/** Mean length of three normal parts. */
const MEAN_LENGTH = Math.sqrt(8 / Math.PI);

/** A colour moved along a direction in Lab, as far as its length says in means of ΔE00. */
function offBy(lab: Lab, direction: readonly number[], size: number): Lab {
  const length = Math.hypot(direction[0], direction[1], direction[2]);
  if (size === 0 || length === 0) return lab;
  const along = (step: number): Lab => [
    lab[0] + step * direction[0],
    lab[1] + step * direction[1],
    lab[2] + step * direction[2],
  ];
  // ΔE00 is nearly straight over one unit of Lab.
  const unit = deltaE2000(lab, along(1 / length));
  const step = (size * length) / MEAN_LENGTH / Math.max(0.05, unit) / length;
  return along(step);
}
