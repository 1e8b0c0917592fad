import { patchXyz } from '../cgats/patchColours.ts';
import { readPatchSet } from '../cgats/patchSetFromCgats.ts';
import { deltaE2000Rows } from '../colour/deltaE2000.ts';
import { deltaEAb } from '../colour/deltaEAb.ts';
import type { Lab } from '../colour/lab.ts';
import { labAt } from '../colour/labAt.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { xyzRowsToLab } from '../colour/xyzToLab.ts';
import { deviceToLab, labToDevice } from '../icc/profileTransform.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { summariseErrors } from '../numerics/statistics.ts';
import type { ErrorSummary } from '../numerics/statistics.ts';

/** What can be said of an output profile from its tables alone. */
export interface ProfileFigures {
  readonly channels: number;
  /** ΔE00 of its table to the characterisation data it carries; absent where it carries none. */
  readonly fit?: ErrorSummary;
  /** Lab of bare paper and of the darkest neutral, absolute. */
  readonly white: readonly number[];
  readonly black: readonly number[];
  readonly blackDevice: readonly number[];
  /** Largest |a*|, |b*| of asked greys above the black point, relative. */
  readonly cast: number;
  /** Greys asked for from L* 0 to 100 and the device values they get. */
  readonly greys: readonly { readonly asked: number; readonly device: readonly number[] }[];
  /** Most total ink along the greys, 1 = 100 %; ink devices only. */
  readonly totalInk?: number;
}

const STEPS = 21;

/** Figures of a profile, or undefined where it has no tables both ways between a device and Lab. */
export function profileFigures(profile: IccProfile): ProfileFigures | undefined {
  const toLab = deviceToLab(profile, 'relative');
  const toLabAbsolute = deviceToLab(profile, 'absolute');
  const toDevice = labToDevice(profile, 'relative');
  if (!toLab.ok || !toDevice.ok || !toLabAbsolute.ok) return undefined;
  const channels = toDevice.value.outputs;
  const asked = Float64Array.from({ length: STEPS * 3 }, (_, i) =>
    i % 3 === 0 ? (100 * Math.floor(i / 3)) / (STEPS - 1) : 0,
  );
  const device = new Float64Array(STEPS * channels);
  const back = new Float64Array(STEPS * 3);
  const absolute = new Float64Array(STEPS * 3);
  toDevice.value.apply(asked, device);
  toLab.value.apply(device, back);
  toLabAbsolute.value.apply(device, absolute);
  const greys = Array.from({ length: STEPS }, (_, i) => ({
    asked: asked[3 * i],
    device: [...device.subarray(channels * i, channels * (i + 1))],
  }));
  const reached = Array.from({ length: STEPS }, (_, i) => i).filter((i) => asked[3 * i] > back[0] + 2);
  return {
    channels,
    fit: fitOf(profile),
    white: [...absolute.subarray(3 * (STEPS - 1))],
    black: [...absolute.subarray(0, 3)],
    blackDevice: greys[0].device,
    cast: Math.max(0, ...reached.flatMap((i) => [Math.abs(back[3 * i + 1]), Math.abs(back[3 * i + 2])])),
    greys,
    totalInk:
      channels === 3 ? undefined : Math.max(...greys.map((grey) => grey.device.reduce((a, b) => a + b, 0))),
  };
}

function fitOf(profile: IccProfile): ErrorSummary | undefined {
  const tag = profile.tags.get('targ');
  if (tag?.type !== 'text') return undefined;
  const set = readPatchSet(tag.text);
  if (!set.ok || set.value.device === undefined) return undefined;
  const xyz = patchXyz(set.value);
  const table = deviceToLab(profile, 'absolute');
  if (xyz === undefined || !table.ok || table.value.inputs * set.value.ids.length !== set.value.device.length)
    return undefined;
  const measured = new Float64Array(xyz.length);
  const predicted = new Float64Array(xyz.length);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, measured);
  table.value.apply(set.value.device, predicted);
  return summariseErrors(deltaE2000Rows(measured, predicted));
}

/** What two profiles predict at a grid of device values. */
interface PredictedGrid {
  readonly inputs: number;
  /** Row-major × channel. */
  readonly device: Float64Array;
  /** Lab, row-major × 3. */
  readonly a: Float64Array;
  readonly b: Float64Array;
}

function predictedGrid(a: IccProfile, b: IccProfile): PredictedGrid | undefined {
  const [first, second] = [deviceToLab(a, 'absolute'), deviceToLab(b, 'absolute')];
  if (!first.ok || !second.ok || first.value.inputs !== second.value.inputs) return undefined;
  const { inputs } = first.value;
  const points = inputs === 3 ? 13 : 7;
  const rows = points ** inputs;
  const device = Float64Array.from({ length: rows * inputs }, (_, i) => {
    const row = Math.floor(i / inputs);
    return (Math.floor(row / points ** (i % inputs)) % points) / (points - 1);
  });
  const [labA, labB] = [new Float64Array(rows * 3), new Float64Array(rows * 3)];
  first.value.apply(device, labA);
  second.value.apply(device, labB);
  return { inputs, device, a: labA, b: labB };
}

/** ΔE00 between what two profiles of the same channels predict, at a grid of device values. */
export function profileDifference(a: IccProfile, b: IccProfile): ErrorSummary | undefined {
  const grid = predictedGrid(a, b);
  return grid === undefined ? undefined : summariseErrors(deltaE2000Rows(grid.a, grid.b));
}

/** A device value that two profiles predict apart. */
export interface PredictedApart {
  readonly device: readonly number[];
  /** Lab by the first profile and by the second, absolute D50. */
  readonly a: Lab;
  readonly b: Lab;
  readonly deltaE: number;
}

/** Colours that are listed are this far from each other, ΔE*ab: neighbours would tell the same. */
const LISTED_APART = 25;

/** Device values that two profiles predict farthest apart, the farthest first, each another colour. */
export function farthestApart(a: IccProfile, b: IccProfile, most: number): PredictedApart[] {
  const grid = predictedGrid(a, b);
  if (grid === undefined) return [];
  const errors = deltaE2000Rows(grid.a, grid.b);
  const out: PredictedApart[] = [];
  for (const row of [...errors.keys()].sort((i, j) => errors[j] - errors[i])) {
    if (out.length === most) break;
    const own = labAt(grid.a, row);
    if (out.some((listed) => deltaEAb(listed.a, own) < LISTED_APART)) continue;
    const device = [...grid.device.subarray(row * grid.inputs, (row + 1) * grid.inputs)];
    out.push({ device, a: own, b: labAt(grid.b, row), deltaE: errors[row] });
  }
  return out;
}
