import type { IccClut, IccCurve, LutAbTag, LutTag } from '../icc/iccTypes.ts';
import { abToAxis, lightnessToAxis } from './labAxis.ts';
import type { LabAxes } from './labAxis.ts';
import type { ForwardGrid } from './forwardGrid.ts';

export type IccVersion = 2 | 4;

const IDENTITY: IccCurve = { kind: 'identity' };
const UNIT_MATRIX = [1, 0, 0, 0, 1, 0, 0, 0, 1] as const;
const STRAIGHT = Uint16Array.of(0, 65535);
const AXIS_ENTRIES = 4096;

/** 16-bit codes of one unit of L* and of a*, b* (ICC.1:2022, tables 12 and 42). */
function codesPer(version: IccVersion): readonly [number, number] {
  return version === 2 ? [65280 / 100, 256] : [655.35, 257];
}

/** 16-bit Lab of a table: `lut16` keeps the older scale in both versions (ICC.1:2022, tables 12 and 42). */
export function encodeLab(lab: ArrayLike<number>, version: IccVersion): Uint16Array {
  const [perL, perAb] = codesPer(version);
  const out = new Uint16Array(lab.length);
  for (let i = 0; i < lab.length; i += 3) {
    out[i] = clip16(lab[i] * perL);
    out[i + 1] = clip16((lab[i + 1] + 128) * perAb);
    out[i + 2] = clip16((lab[i + 2] + 128) * perAb);
  }
  return out;
}

/** What a table's Lab is after rounding to 16 bits and back: the inverse is made of this, not of the model. */
export function quantiseLab(lab: Float64Array, version: IccVersion): Float64Array {
  const [perL, perAb] = codesPer(version);
  const codes = encodeLab(lab, version);
  const out = new Float64Array(codes.length);
  for (let i = 0; i < codes.length; i++) out[i] = i % 3 === 0 ? codes[i] / perL : codes[i] / perAb - 128;
  return out;
}

/** Device to Lab: `lut16` in version 2, `mAB` in version 4. */
export function forwardTag(grid: ForwardGrid, version: IccVersion): LutTag | LutAbTag {
  const clut: IccClut = {
    grid: new Array<number>(grid.channels).fill(grid.points),
    outputs: 3,
    values: encodeLab(grid.lab, version),
  };
  if (version === 2)
    return {
      type: 'lut16',
      inputs: grid.channels,
      outputs: 3,
      matrix: UNIT_MATRIX,
      inputTables: axisCurves(grid) ?? new Array<Uint16Array>(grid.channels).fill(STRAIGHT),
      clut,
      outputTables: new Array<Uint16Array>(3).fill(STRAIGHT),
    };
  return {
    type: 'mAB',
    inputs: grid.channels,
    outputs: 3,
    aCurves:
      axisCurves(grid)?.map((values) => ({ kind: 'table', values })) ??
      new Array<IccCurve>(grid.channels).fill(IDENTITY),
    clut,
    mCurves: [IDENTITY, IDENTITY, IDENTITY],
    matrix: [...UNIT_MATRIX, 0, 0, 0],
    bCurves: [IDENTITY, IDENTITY, IDENTITY],
  };
}

/** Where device values lie among the nodes of each channel; undefined where all are evenly spread. */
function axisCurves({ nodes, points }: ForwardGrid): Uint16Array[] | undefined {
  return nodes?.map((places) =>
    axisTable((code) => {
      const value = code / 65535;
      let cell = 0;
      while (cell < points - 2 && value >= places[cell + 1]) cell++;
      return (cell + (value - places[cell]) / (places[cell + 1] - places[cell])) / (points - 1);
    }),
  );
}

/** Lab (on its axes) to device values or any other outputs 0..1: `lut16` or `mBA`. */
export function inverseTag(
  outputs: number,
  points: number,
  values: Float64Array,
  version: IccVersion,
  axes: LabAxes,
): LutTag | LutAbTag {
  const clut: IccClut = {
    grid: [points, points, points],
    outputs,
    values: Uint16Array.from(values, (value) => clip16(value * 65535)),
  };
  // L* = 100 is FF00h in version 2: what is over it lies at the end of the axis.
  const [perL, perAb] = codesPer(version);
  const lightness = axisTable((code) => lightnessToAxis(code / perL, axes));
  const ab = axisTable((code) => abToAxis(code / perAb - 128, axes));
  if (version === 2)
    return {
      type: 'lut16',
      inputs: 3,
      outputs,
      matrix: UNIT_MATRIX,
      inputTables: [lightness, ab, ab],
      clut,
      outputTables: new Array<Uint16Array>(outputs).fill(STRAIGHT),
    };
  return {
    type: 'mBA',
    inputs: 3,
    outputs,
    bCurves: [lightness, ab, ab].map((values) => ({ kind: 'table', values })),
    matrix: [...UNIT_MATRIX, 0, 0, 0],
    mCurves: [IDENTITY, IDENTITY, IDENTITY],
    clut,
    aCurves: new Array<IccCurve>(outputs).fill(IDENTITY),
  };
}

/** Positions 0..1 of 16-bit codes on an axis, as an input curve. */
function axisTable(position: (code: number) => number): Uint16Array {
  return Uint16Array.from({ length: AXIS_ENTRIES }, (_, i) =>
    clip16(position((i / (AXIS_ENTRIES - 1)) * 65535) * 65535),
  );
}

function clip16(value: number): number {
  return Math.min(65535, Math.max(0, Math.round(value)));
}
