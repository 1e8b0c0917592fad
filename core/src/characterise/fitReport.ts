import type { ErrorSummary } from '../numerics/statistics.ts';
import { repeatability } from './repeatability.ts';
import { rgbModelLab } from './rgbModel.ts';
import type { RgbModel } from './rgbModel.ts';

/** What a person looks at before trusting a profile. */
export interface FitReport {
  readonly patches: number;
  readonly distinct: number;
  /** Cross-validated ΔE00, reading noise included. */
  readonly summary: ErrorSummary;
  readonly folds: number;
  /** ΔE00 of repeated patches to the mean of their group; absent without repeats. */
  readonly repeatability?: ErrorSummary;
  /** Counts of errors in bins of `binWidth` from 0; the last bin takes what lies beyond. */
  readonly histogram: { readonly binWidth: number; readonly counts: readonly number[] };
  readonly worst: readonly WorstPatch[];
  /** Rows of the reading whose error is more than five medians. */
  readonly outliers: readonly number[];
  /** Neutral axis and ramps as the model has them. */
  readonly neutralAxis: readonly AxisPoint[];
  readonly ramps: readonly { readonly channel: string; readonly points: readonly AxisPoint[] }[];
  /** a*b* outline of the gamut: the corners of the device cube in hue order. */
  readonly outline: readonly (readonly [a: number, b: number])[];
}

export interface WorstPatch {
  /** Row of the reading, from 0. */
  readonly row: number;
  readonly device: readonly number[];
  readonly measured: readonly number[];
  readonly predicted: readonly number[];
  readonly deltaE: number;
}

export interface AxisPoint {
  /** Device value 0..1. */
  readonly value: number;
  readonly lab: readonly number[];
}

const BIN_WIDTH = 0.05;
const BINS = 40;
const WORST = 12;
const OUTLIER_MEDIANS = 5;
const AXIS_STEPS = 32;

export function fitReport(model: RgbModel, device: Float64Array, xyz: Float64Array): FitReport {
  const { errors, summary, folds, predicted, measured } = model.crossValidation;
  const counts = new Array<number>(BINS).fill(0);
  for (const error of errors) counts[Math.min(BINS - 1, Math.floor(error / BIN_WIDTH))]++;
  const order = [...errors.keys()].sort((a, b) => errors[b] - errors[a]);
  const three = (values: Float64Array, row: number): number[] => [...values.subarray(3 * row, 3 * row + 3)];
  return {
    patches: device.length / 3,
    distinct: errors.length,
    summary,
    folds,
    repeatability: repeatability(device, 3, xyz),
    histogram: { binWidth: BIN_WIDTH, counts },
    worst: order.slice(0, WORST).map((index) => ({
      row: model.patches.sources[index][0],
      device: three(model.patches.device, index),
      measured: three(measured, index),
      predicted: three(predicted, index),
      deltaE: errors[index],
    })),
    outliers: order
      .filter((index) => errors[index] > OUTLIER_MEDIANS * summary.median)
      .flatMap((index) => model.patches.sources[index]),
    neutralAxis: axis(model, (t) => [t, t, t]),
    ramps: ['red', 'green', 'blue'].map((channel, c) => ({
      channel,
      points: axis(model, (t) => [0, 1, 2].map((other) => (other === c ? 1 - t : 1))),
    })),
    outline: outline(model),
  };
}

function axis(model: RgbModel, deviceAt: (t: number) => readonly number[]): AxisPoint[] {
  const device = Float64Array.from({ length: AXIS_STEPS + 1 }, (_, i) => i).reduce<number[]>(
    (rows, i) => [...rows, ...deviceAt(i / AXIS_STEPS)],
    [],
  );
  const lab = new Float64Array(device.length);
  rgbModelLab(model, device, lab);
  return Array.from({ length: AXIS_STEPS + 1 }, (_, i) => ({
    value: i / AXIS_STEPS,
    lab: [...lab.subarray(3 * i, 3 * i + 3)],
  }));
}

/** Largest chroma over the saturated edges of the cube, by hue. */
function outline(model: RgbModel): [number, number][] {
  const corners = [
    [1, 0, 0],
    [1, 1, 0],
    [0, 1, 0],
    [0, 1, 1],
    [0, 0, 1],
    [1, 0, 1],
  ];
  const device: number[] = [];
  corners.forEach((corner, i) => {
    const next = corners[(i + 1) % 6];
    for (let step = 0; step < 8; step++)
      device.push(...corner.map((value, c) => value + ((next[c] - value) * step) / 8));
  });
  const lab = new Float64Array(device.length);
  rgbModelLab(model, device, lab);
  return Array.from({ length: device.length / 3 }, (_, i) => [lab[3 * i + 1], lab[3 * i + 2]]);
}
