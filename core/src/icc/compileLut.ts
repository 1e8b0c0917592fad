import { fourRows, manyRows, multilinearRows, tetrahedralRows, trilinearRows } from './clutRows.ts';
import { compileCurve, compileTable } from './evaluateCurve.ts';
import type { CurveFunction } from './evaluateCurve.ts';
import type { Stage } from '../transform/stage.ts';
import type { IccClut, IccCurve, LutAbTag, LutTag } from './iccTypes.ts';

/** A table tag that is ready for many rows. */
export interface CompiledLut {
  readonly inputs: number;
  readonly outputs: number;
  /** Length of a row in the buffer: the larger of inputs and outputs, 3 at least. */
  readonly stride: number;
  /** Maps rows of normalised values in place. */
  readonly run: Stage;
}

/** How a table of three inputs is interpolated. */
export type Interpolation = 'tetrahedral' | 'multilinear';

/**
 * Compiles a table tag into a function of rows 0..1, in the order of elements that its type defines.
 * @param interpolation of three inputs: tetrahedral where they are device values, multilinear where they are Lab,
 * whose neutral axis runs along an edge of the cells and not along their diagonal. Four inputs are linear along
 * the first and tetrahedral over the others, more are multilinear.
 */
export function compileLut(tag: LutTag | LutAbTag, interpolation: Interpolation): CompiledLut {
  const { inputs, outputs } = tag;
  const stride = Math.max(inputs, outputs, 3);
  const stages =
    'clut' in tag && 'inputTables' in tag
      ? lutStages(tag, interpolation, stride)
      : lutAbStages(tag, interpolation, stride);
  return {
    ...{ inputs, outputs, stride },
    run(rows, count) {
      for (const stage of stages) stage(rows, count);
    },
  };
}

function lutStages(tag: LutTag, interpolation: Interpolation, stride: number): Stage[] {
  // The matrix applies to XYZ input only; profiles with Lab or device input carry the identity (ICC.1:2022, 10.10).
  const identity = tag.matrix.every((value, i) => value === (i % 4 === 0 ? 1 : 0));
  return [
    ...(tag.inputs === 3 && !identity ? [matrixStage([...tag.matrix, 0, 0, 0], stride)] : []),
    ...tableStages(tag.inputTables, stride),
    clutStage(tag.clut, interpolation, stride),
    ...tableStages(tag.outputTables, stride),
  ];
}

function lutAbStages(tag: LutAbTag, interpolation: Interpolation, stride: number): Stage[] {
  const curves = (own: readonly IccCurve[] | undefined): Stage[] =>
    (own ?? []).flatMap((curve, channel) => curveStage(curve, channel, stride));
  const matrix = tag.matrix === undefined ? [] : [matrixStage(tag.matrix, stride)];
  const clut = tag.clut === undefined ? [] : [clutStage(tag.clut, interpolation, stride)];
  const [a, b, m] = [curves(tag.aCurves), curves(tag.bCurves), curves(tag.mCurves)];
  return tag.type === 'mAB' ? [...a, ...clut, ...m, ...matrix, ...b] : [...b, ...matrix, ...m, ...clut, ...a];
}

/** One curve for one channel; none where it changes nothing. */
export function curveStage(curve: IccCurve, channel: number, stride: number): Stage[] {
  if (curve.kind === 'identity') return [];
  return curve.kind === 'table'
    ? tableStages([curve.values], stride, channel)
    : [ofCurve(compileCurve(curve), channel, stride)];
}

function ofCurve(curve: CurveFunction, channel: number, stride: number): Stage {
  return (rows, count) => {
    for (let at = channel, end = count * stride; at < end; at += stride) rows[at] = curve(rows[at]);
  };
}

function tableStages(tables: readonly Uint16Array[], stride: number, first = 0): Stage[] {
  return tables.flatMap((values, i) => {
    const channel = first + i;
    if (values.length < 2) return [ofCurve(compileTable(values), channel, stride)];
    if (isStraight(values)) return [clipStage(channel, stride)];
    const last = values.length - 1;
    const nodes = Float64Array.from(values, (value) => value / 65535);
    return [
      (rows: Float64Array, count: number): void => {
        for (let at = channel, end = count * stride; at < end; at += stride) {
          const position = Math.min(1, Math.max(0, rows[at])) * last;
          const cell = Math.min(position | 0, last - 1);
          rows[at] = nodes[cell] + (position - cell) * (nodes[cell + 1] - nodes[cell]);
        }
      },
    ];
  });
}

/** From nothing to all in two nodes. */
const isStraight = (values: Uint16Array): boolean =>
  values.length === 2 && values[0] === 0 && values[1] === 65535;

function clipStage(channel: number, stride: number): Stage {
  return (rows, count) => {
    for (let at = channel, end = count * stride; at < end; at += stride)
      rows[at] = Math.min(1, Math.max(0, rows[at]));
  };
}

/** 3×3 row-major, then three offsets. */
export function matrixStage(m: readonly number[], stride: number): Stage {
  return (rows, count) => {
    for (let at = 0, end = count * stride; at < end; at += stride) {
      const x = rows[at];
      const y = rows[at + 1];
      const z = rows[at + 2];
      rows[at] = m[0] * x + m[1] * y + m[2] * z + m[9];
      rows[at + 1] = m[3] * x + m[4] * y + m[5] * z + m[10];
      rows[at + 2] = m[6] * x + m[7] * y + m[8] * z + m[11];
    }
  };
}

function clutStage(clut: IccClut, interpolation: Interpolation, stride: number): Stage {
  const scale = 1 / 65535;
  const { grid, outputs } = clut;
  const table = {
    nodes: clut.values instanceof Uint16Array ? clut.values : Uint16Array.from(clut.values, (v) => v * 257),
    grid,
    outputs,
    stride,
  };
  const kernel =
    grid.length === 4
      ? fourRows
      : grid.length > 4
        ? manyRows
        : grid.length !== 3
          ? multilinearRows
          : interpolation === 'tetrahedral'
            ? tetrahedralRows
            : trilinearRows;
  const interpolate = kernel(table);
  return (rows, count) => {
    interpolate(rows, count);
    for (let at = 0, end = count * stride; at < end; at += stride)
      for (let o = 0; o < outputs; o++) rows[at + o] *= scale;
  };
}
