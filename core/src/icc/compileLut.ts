import { compileCurve, compileTable } from './evaluateCurve.ts';
import type { CurveFunction } from './evaluateCurve.ts';
import type { IccClut, LutAbTag, LutTag } from './iccTypes.ts';
import { interpolateFour, interpolateMultilinear, interpolateTetrahedral } from './interpolateClut.ts';

/** Maps one row of normalised values to another; both buffers hold at least 16 values. */
export type RowFunction = (input: Float64Array, output: Float64Array) => void;

type Stage = (values: Float64Array) => void;

/** How a table of three inputs is interpolated. */
export type Interpolation = 'tetrahedral' | 'multilinear';

/**
 * Compiles a table tag into a function of rows 0..1, in the order of elements that its type defines.
 * @param interpolation of three inputs: tetrahedral where they are device values, multilinear where they are Lab,
 * whose neutral axis runs along an edge of the cells and not along their diagonal. Four inputs are linear along
 * the first and tetrahedral over the others, more are multilinear.
 */
export function compileLut(tag: LutTag | LutAbTag, interpolation: Interpolation): RowFunction {
  const stages =
    'clut' in tag && 'inputTables' in tag ? lutStages(tag, interpolation) : lutAbStages(tag, interpolation);
  return (input, output) => {
    for (let i = 0; i < tag.inputs; i++) output[i] = input[i];
    for (const stage of stages) stage(output);
  };
}

function lutStages(tag: LutTag, interpolation: Interpolation): Stage[] {
  // The matrix applies to XYZ input only; profiles with Lab or device input carry the identity (ICC.1:2022, 10.10).
  const identity = tag.matrix.every((value, i) => value === (i % 4 === 0 ? 1 : 0));
  return [
    ...(tag.inputs === 3 && !identity ? [matrixStage([...tag.matrix, 0, 0, 0])] : []),
    curveStage(tag.inputTables.map(compileTable)),
    clutStage(tag.clut, interpolation),
    curveStage(tag.outputTables.map(compileTable)),
  ];
}

function lutAbStages(tag: LutAbTag, interpolation: Interpolation): Stage[] {
  const b = curveStage(tag.bCurves.map(compileCurve));
  const matrix = tag.matrix === undefined ? [] : [matrixStage(tag.matrix)];
  const m = tag.mCurves === undefined ? [] : [curveStage(tag.mCurves.map(compileCurve))];
  const clut = tag.clut === undefined ? [] : [clutStage(tag.clut, interpolation)];
  const a = tag.aCurves === undefined ? [] : [curveStage(tag.aCurves.map(compileCurve))];
  return tag.type === 'mAB' ? [...a, ...clut, ...m, ...matrix, b] : [b, ...matrix, ...m, ...clut, ...a];
}

function curveStage(curves: readonly CurveFunction[]): Stage {
  return (values) => {
    for (let i = 0; i < curves.length; i++) values[i] = curves[i](values[i]);
  };
}

function matrixStage(m: readonly number[]): Stage {
  return (values) => {
    const [x, y, z] = values;
    values[0] = m[0] * x + m[1] * y + m[2] * z + m[9];
    values[1] = m[3] * x + m[4] * y + m[5] * z + m[10];
    values[2] = m[6] * x + m[7] * y + m[8] * z + m[11];
  };
}

function clutStage(clut: IccClut, interpolation: Interpolation): Stage {
  const scale = 1 / (clut.values instanceof Uint16Array ? 65535 : 255);
  const interpolate =
    clut.grid.length === 3 && interpolation === 'tetrahedral'
      ? interpolateTetrahedral
      : clut.grid.length === 4
        ? interpolateFour
        : interpolateMultilinear;
  const result = new Float64Array(clut.outputs);
  return (values) => {
    interpolate(clut.values, clut.grid, clut.outputs, values, 0, result, 0);
    for (let o = 0; o < clut.outputs; o++) values[o] = result[o] * scale;
  };
}
