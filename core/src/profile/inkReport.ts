import { isPrimary } from '../characterise/fitReport.ts';
import { repeatability } from '../characterise/repeatability.ts';
import type { InkModel } from '../characterise/inkModel.ts';
import { deltaE2000Rows } from '../colour/deltaE2000.ts';
import { deviceToLab, labToDevice } from '../icc/profileTransform.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { createRandom } from '../numerics/random.ts';
import { largest, summariseErrors } from '../numerics/statistics.ts';
import type { ErrorSummary } from '../numerics/statistics.ts';
import { unwrap } from '../result.ts';
import { inkFamilies } from '../separate/extraInks.ts';
import type { Separation } from '../separate/separation.ts';
import type { Transform } from '../transform/transform.ts';

/** What a person looks at before trusting a profile of inks. */
export interface InkProfileReport {
  readonly patches: number;
  readonly distinct: number;
  /** Cross-validated ΔE00, reading noise included. */
  readonly summary: ErrorSummary;
  readonly repeatability?: ErrorSummary;
  /** Yule-Nielsen factor of the model. */
  readonly nu: number;
  /** Rows of the reading, no primaries, whose error is over five medians and 1 ΔE00: worth another reading. */
  readonly outliers: readonly number[];
  /** Lab to inks and back through the file, of colours in gamut. */
  readonly roundTrip: ErrorSummary;
  /** Largest sum of inks that the colorimetric table gives, 1 = 100 %. */
  readonly totalInk: number;
  /** Greys asked for, their inks and what the table prints, from black to white. */
  readonly neutralAxis: readonly NeutralPoint[];
  /** Falls of K, and of L*, along the neutral axis towards black, where there should be none. */
  readonly reversals: number;
}

export interface NeutralPoint {
  readonly asked: number;
  readonly inks: readonly number[];
  readonly lab: readonly number[];
}

const OUTLIER_MEDIANS = 5;
const OUTLIER_LEAST = 1;
const AXIS_STEPS = 101;
const PROBES = 4000;
/** Steps of the axis smaller than this are rounding. */
const REVERSAL = 0.002;

export function inkProfileReport(
  model: InkModel,
  profile: IccProfile,
  device: Float64Array,
  xyz: Float64Array,
  { totalInk: totalInkLimit, extra }: Pick<Separation, 'totalInk' | 'extra'>,
): InkProfileReport {
  const { errors, summary } = model.crossValidation;
  const toInks = unwrap(labToDevice(profile, 'relative'));
  const toLab = unwrap(deviceToLab(profile, 'relative'));
  const n = toInks.outputs;
  const black = extra?.black ?? 3;
  const random = createRandom(1);
  const probes = new Float64Array(PROBES * n);
  const families = extra === undefined ? [[0, 1, 2, 3]] : inkFamilies(extra);
  let totalInk = 0;
  for (let i = 0; i < PROBES;) {
    const values = new Array<number>(n).fill(0);
    for (const ink of families[i % families.length])
      values[ink] = ink === black ? random.uniform() ** 2 : random.uniform();
    if (values.reduce((a, b) => a + b, 0) > totalInkLimit) continue;
    probes.set(values, n * i++);
  }
  const asked = new Float64Array(PROBES * 3);
  const inks = new Float64Array(PROBES * n);
  const back = new Float64Array(PROBES * 3);
  toLab.apply(probes, asked);
  toInks.apply(asked, inks);
  toLab.apply(inks, back);
  for (let i = 0; i < PROBES; i++)
    totalInk = Math.max(
      totalInk,
      inks.subarray(n * i, n * (i + 1)).reduce((sum, value) => sum + value, 0),
    );
  const neutralAxis = neutralPoints(toInks, toLab);
  totalInk = Math.max(totalInk, largest(neutralAxis.map((point) => point.inks.reduce((a, b) => a + b, 0))));
  return {
    patches: device.length / n,
    distinct: errors.length,
    summary,
    repeatability: repeatability(device, n, xyz),
    nu: model.physics.nu,
    outliers: [...errors.keys()]
      .filter(
        (row) =>
          errors[row] > Math.max(OUTLIER_LEAST, OUTLIER_MEDIANS * summary.median) &&
          !isPrimary(model.patches.device.subarray(n * row, n * (row + 1))),
      )
      .flatMap((row) => model.patches.sources[row]),
    roundTrip: summariseErrors(deltaE2000Rows(asked, back)),
    totalInk,
    neutralAxis,
    reversals: countReversals(neutralAxis, black),
  };
}

function neutralPoints(toInks: Transform, toLab: Transform): NeutralPoint[] {
  const asked = Float64Array.from({ length: AXIS_STEPS * 3 }, (_, i) =>
    i % 3 === 0 ? (100 * Math.floor(i / 3)) / (AXIS_STEPS - 1) : 0,
  );
  const n = toInks.outputs;
  const inks = new Float64Array(AXIS_STEPS * n);
  const lab = new Float64Array(AXIS_STEPS * 3);
  toInks.apply(asked, inks);
  toLab.apply(inks, lab);
  return Array.from({ length: AXIS_STEPS }, (_, i) => ({
    asked: asked[3 * i],
    inks: [...inks.subarray(n * i, n * (i + 1))],
    lab: [...lab.subarray(3 * i, 3 * i + 3)],
  }));
}

function countReversals(axis: readonly NeutralPoint[], black: number): number {
  let count = 0;
  for (let i = 1; i < axis.length; i++) {
    if (axis[i].inks[black] > axis[i - 1].inks[black] + REVERSAL) count++;
    if (axis[i].lab[0] < axis[i - 1].lab[0] - 100 * REVERSAL) count++;
  }
  return count;
}
