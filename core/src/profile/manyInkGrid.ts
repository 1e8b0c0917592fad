import { inkModelLab, inkModelXyz } from '../characterise/inkModel.ts';
import type { FittedInks } from '../characterise/inkModel.ts';
import { fitSpaceToXyz } from '../characterise/fitSpace.ts';
import { inkPhysicsFit } from '../characterise/inkPhysics.ts';
import type { Xyz } from '../colour/xyz.ts';
import { inkFamilies } from '../separate/extraInks.ts';
import type { ExtraInks } from '../separate/extraInks.ts';
import { axisNodes, axisRamp } from './axisNodes.ts';
import { buildForwardGrid } from './forwardGrid.ts';
import type { ForwardGrid } from './forwardGrid.ts';

/** Nodes of the colorimetric table, at most: 13 MB of 16 bits a value. */
const MOST_NODES = 2.2e6;
/** Nodes of the tables as mapped intents see them: a file of all three stays below 25 MB. */
const MOST_SEEN_NODES = 4e5;
const MOST_POINTS: Readonly<Record<'small' | 'normal' | 'large', number>> = {
  small: 7,
  normal: 10,
  large: 11,
};
/** Other inks beside which an ink's ramp is looked at for its nodes. */
const BESIDE = [0, 0.5] as const;
const CHUNK = 4096;

/** Points along each axis of the colorimetric table of so many inks. */
export function manyInkPoints(channels: number, size: keyof typeof MOST_POINTS): number {
  return Math.min(MOST_POINTS[size], pointsOf(channels, MOST_NODES));
}

/** The same of tables that mapped intents see. */
export function seenPoints(channels: number): number {
  return pointsOf(channels, MOST_SEEN_NODES);
}

function pointsOf(channels: number, most: number): number {
  return Math.floor(most ** (1 / channels) + 1e-9);
}

/**
 * The forward table of a model of more than four inks. Where inks that never print together meet, it is filled by the
 * physics of mixing alone, since no chart has such patches.
 */
export function manyInkGrid(
  model: FittedInks,
  points: number,
  extra: ExtraInks | undefined,
  onProgress: (fraction: number) => void = () => {},
): ForwardGrid {
  const { inks } = model;
  if (extra === undefined) throw new RangeError(`a table of ${inks} inks without their places`);
  const paper = new Float64Array(3);
  inkModelXyz(model, new Float64Array(inks), paper);
  const families = inkFamilies(extra);
  const nodes = Array.from({ length: inks }, (_, ink) => axisNodes(points, rampsOf(model, ink, extra)));
  return buildForwardGrid(
    inks,
    points,
    (device, out) => fill(model, families, device, out, onProgress),
    paper as unknown as Xyz,
    nodes,
  );
}

function fill(
  model: FittedInks,
  families: readonly (readonly number[])[],
  device: Float64Array,
  out: Float64Array,
  onProgress: (fraction: number) => void,
): void {
  const { inks } = model;
  const rows = device.length / inks;
  const together = families.map((family) => family.reduce((bits, ink) => bits | (1 << ink), 0));
  const known: number[] = [];
  for (let from = 0; from < rows; from += CHUNK) {
    const to = Math.min(rows, from + CHUNK);
    const part = out.subarray(3 * from, 3 * to);
    inkPhysicsFit(model.physics, device.subarray(inks * from, inks * to), part);
    fitSpaceToXyz(part, part);
    known.length = 0;
    for (let row = from; row < to; row++) {
      let bits = 0;
      for (let ink = 0; ink < inks; ink++) if (device[inks * row + ink] > 0) bits |= 1 << ink;
      if (together.some((family) => (bits & ~family) === 0)) known.push(row);
    }
    const values = new Float64Array(known.length * inks);
    known.forEach((row, i) => values.set(device.subarray(inks * row, inks * (row + 1)), inks * i));
    const xyz = new Float64Array(known.length * 3);
    inkModelXyz(model, values, xyz);
    known.forEach((row, i) => out.set(xyz.subarray(3 * i, 3 * i + 3), 3 * row));
    onProgress(to / rows);
  }
}

function rampsOf(model: FittedInks, ink: number, extra: ExtraInks): Float64Array[] {
  const family = inkFamilies(extra).find((own) => own.includes(ink)) ?? [];
  return family
    .filter((other) => other !== ink)
    .flatMap((other) =>
      BESIDE.map((amount) => {
        const beside = new Float64Array(model.inks);
        beside[other] = amount;
        const device = axisRamp(model.inks, ink, beside);
        const lab = new Float64Array((device.length / model.inks) * 3);
        inkModelLab(model, device, lab);
        return lab;
      }),
    );
}
