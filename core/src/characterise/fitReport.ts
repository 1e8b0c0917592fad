import type { ErrorSummary } from '../numerics/statistics.ts';
import { baseInks } from '../device/baseInks.ts';
import { inkName } from '../device/inkNames.ts';
import { CMYK, sameProcess } from '../device/process.ts';
import type { Process } from '../device/process.ts';
import { repeatability } from './repeatability.ts';
import { greyMagentaYellow } from '../balance/greyTriplet.ts';
import { inkModelLab } from './inkModel.ts';
import type { InkModel } from './inkModel.ts';
import type { MergedPatches } from './mergeRepeats.ts';
import { rgbModelLab } from './rgbModel.ts';
import type { CrossValidation, RgbModel } from './rgbModel.ts';

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

/** What a device prints, by a model of it or by its profile. */
export interface PrintedDevice extends DeviceShape {
  readonly lab: (device: ArrayLike<number>, out: Float64Array) => void;
}

/** A fitted model as its report needs it. */
export interface ReportedModel extends PrintedDevice {
  readonly patches: MergedPatches;
  readonly crossValidation: CrossValidation;
}

/** Where ramps, greys and corners lie among the device values. */
export interface DeviceShape {
  /** Names of the channels and the device value of a share of one of them alone. */
  readonly channels: readonly string[];
  readonly ramp: (channel: number, share: number) => readonly number[];
  /** Greys from black (0) to paper (1). */
  readonly grey: (t: number) => readonly number[];
  /** Device value of an additive corner of the gamut, R, G, B of 0 or 1 or between. */
  readonly additive: (rgb: readonly number[]) => readonly number[];
}

export function reportedRgb(model: RgbModel): ReportedModel {
  return {
    ...model,
    ...RGB_SHAPE,
    lab: (device, out) => rgbModelLab(model, device, out),
  };
}

export const RGB_SHAPE: DeviceShape = {
  channels: ['red', 'green', 'blue'],
  ramp: (channel, share) => [0, 1, 2].map((other) => (other === channel ? 1 - share : 1)),
  grey: (t) => [t, t, t],
  additive: (rgb) => rgb,
};

export function reportedInks(model: InkModel, process: Process = CMYK): ReportedModel {
  return {
    ...model,
    ...inkShape(process),
    lab: (device, out) => inkModelLab(model, device, out),
  };
}

export const CMYK_SHAPE: DeviceShape = {
  channels: ['cyan', 'magenta', 'yellow', 'black'],
  ramp: (channel, share) => [0, 1, 2, 3].map((other) => (other === channel ? share : 0)),
  grey: (t) => [1 - t, greyMagentaYellow(1 - t), greyMagentaYellow(1 - t), 0],
  additive: (rgb) => [...rgb.map((value) => 1 - value), 0],
};

/** The same of any inks: greys and the outline are those of C, M, Y; a process without them has only its ramps. */
export function inkShape(process: Process): DeviceShape {
  if (sameProcess(process, CMYK)) return CMYK_SHAPE;
  const roles = baseInks(process);
  const count = process.channels.length;
  const spread = (values: readonly number[]): number[] => {
    const all = new Array<number>(count).fill(0);
    roles?.base.forEach((ink, i) => (all[ink] = values[i]));
    return all;
  };
  return {
    channels: process.channels.map(({ name }) => inkName(name).toLowerCase()),
    ramp: (channel, share) => process.channels.map((_, other) => (other === channel ? share : 0)),
    grey: (t) => spread(CMYK_SHAPE.grey(t)),
    additive: (rgb) => spread(CMYK_SHAPE.additive(rgb)),
  };
}

const BIN_WIDTH = 0.05;
const BINS = 40;
const WORST = 12;
const OUTLIER_MEDIANS = 5;
const AXIS_STEPS = 32;

export function fitReport(model: ReportedModel, device: Float64Array, xyz: Float64Array): FitReport {
  const { errors, summary, folds, predicted, measured } = model.crossValidation;
  const counts = new Array<number>(BINS).fill(0);
  for (const error of errors) counts[Math.min(BINS - 1, Math.floor(error / BIN_WIDTH))]++;
  const order = [...errors.keys()].sort((a, b) => errors[b] - errors[a]);
  const three = (values: Float64Array, row: number): number[] => [...values.subarray(3 * row, 3 * row + 3)];
  const { channels } = model.patches;
  return {
    patches: device.length / channels,
    distinct: errors.length,
    summary,
    folds,
    repeatability: repeatability(device, channels, xyz),
    histogram: { binWidth: BIN_WIDTH, counts },
    worst: order
      .filter(
        (index) =>
          channels === 3 ||
          !isPrimary(model.patches.device.subarray(channels * index, channels * (index + 1))),
      )
      .slice(0, WORST)
      .map((index) => ({
        row: model.patches.sources[index][0],
        device: [...model.patches.device.subarray(channels * index, channels * (index + 1))],
        measured: three(measured, index),
        predicted: three(predicted, index),
        deltaE: errors[index],
      })),
    outliers: order
      .filter(
        (index) =>
          errors[index] > OUTLIER_MEDIANS * summary.median &&
          !(
            channels > 3 && isPrimary(model.patches.device.subarray(channels * index, channels * (index + 1)))
          ),
      )
      .flatMap((index) => model.patches.sources[index]),
    neutralAxis: axis(model, model.grey),
    ...printedShape(model),
  };
}

/** Solids and full overprints are the ends of everything: without them the rest says little of them. */
export function isPrimary(device: Float64Array): boolean {
  return device.every((value) => value < 0.01 || value > 0.99);
}

/** Ramps of each channel and the outline of the gamut, as they print. */
export function printedShape(device: PrintedDevice): Pick<FitReport, 'ramps' | 'outline'> {
  return {
    ramps: device.channels.map((channel, c) => ({
      channel,
      points: axis(device, (t) => device.ramp(c, t)),
    })),
    outline: outline(device),
  };
}

function axis(model: PrintedDevice, deviceAt: (t: number) => readonly number[]): AxisPoint[] {
  const device = Float64Array.from({ length: AXIS_STEPS + 1 }, (_, i) => i).reduce<number[]>(
    (rows, i) => [...rows, ...deviceAt(i / AXIS_STEPS)],
    [],
  );
  const lab = new Float64Array((AXIS_STEPS + 1) * 3);
  model.lab(device, lab);
  return Array.from({ length: AXIS_STEPS + 1 }, (_, i) => ({
    value: i / AXIS_STEPS,
    lab: [...lab.subarray(3 * i, 3 * i + 3)],
  }));
}

/** Largest chroma over the saturated edges of the cube, by hue. */
function outline(model: PrintedDevice): [number, number][] {
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
      device.push(...model.additive(corner.map((value, c) => value + ((next[c] - value) * step) / 8)));
  });
  const count = corners.length * 8;
  const lab = new Float64Array(count * 3);
  model.lab(device, lab);
  return Array.from({ length: count }, (_, i) => [lab[3 * i + 1], lab[3 * i + 2]]);
}
