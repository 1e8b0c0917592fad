import { determinant3, invertMatrix3 } from '../numerics/matrix3.ts';
import type { Matrix3 } from '../numerics/matrix3.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { curveStage, matrixStage } from './compileLut.ts';
import type { Stage } from '../transform/stage.ts';
import { compileCurve } from './evaluateCurve.ts';
import type { CurveFunction } from './evaluateCurve.ts';
import type { IccCurve, IccProfile } from './iccTypes.ts';
import { labToXyzStage, xyzToLabStage } from './pcsEncoding.ts';

/** A profile without tables: curves and a matrix (ICC.1:2022, 8.3.3), or one curve of grey (8.3.4). */
export interface Shaper {
  readonly channels: 1 | 3;
  /** Device rows to Lab of the connection space, in place, and back. */
  readonly toLab: readonly Stage[];
  readonly fromLab: readonly Stage[];
}

const STRIDE = 3;
/** Places at which a curve is inverted; between them it is straight. */
const INVERSE_STEPS = 8192;
/** Volume between the primaries in XYZ, below which they are no three; that of sRGB is 0.2. */
const LEAST_VOLUME = 1e-6;

/** Reads the curves and the matrix of a profile; a failure says which tag is missing. */
export function shaperOf(profile: IccProfile): Result<Shaper> {
  const { colourSpace } = profile.header;
  if (colourSpace === 'GRAY') return greyShaper(profile);
  const curves: IccCurve[] = [];
  const columns: (readonly number[])[] = [];
  for (const letter of ['r', 'g', 'b']) {
    const curve = profile.tags.get(`${letter}TRC`);
    const column = profile.tags.get(`${letter}XYZ`);
    if (curve?.type !== 'curve') return missing(`${letter}TRC`);
    if (column?.type !== 'XYZ' || column.values.length === 0) return missing(`${letter}XYZ`);
    curves.push(curve.curve);
    columns.push(column.values[0]);
  }
  const matrix = [0, 1, 2].flatMap((row) => columns.map((column) => column[row])) as unknown as Matrix3;
  if (!(Math.abs(determinant3(matrix)) > LEAST_VOLUME))
    return failure({
      code: 'icc.no-inverse',
      path: 'rXYZ, gXYZ, bXYZ',
      expected: 'three primaries that differ',
      found: 'a matrix that cannot be inverted',
    });
  const inverse = invertMatrix3(matrix);
  return success({
    channels: 3,
    toLab: [
      ...curves.flatMap((curve, channel) => curveStage(curve, channel, STRIDE)),
      matrixStage([...matrix, 0, 0, 0], STRIDE),
      xyzToLabStage(STRIDE),
    ],
    fromLab: [
      labToXyzStage(STRIDE),
      matrixStage([...inverse, 0, 0, 0], STRIDE),
      ...curves.map((curve, channel) => inverseStage(compileCurve(curve), channel)),
    ],
  });
}

function greyShaper(profile: IccProfile): Result<Shaper> {
  const tag = profile.tags.get('kTRC');
  if (tag?.type !== 'curve') return missing('kTRC');
  const curve = compileCurve(tag.curve);
  const inverse = inverseStage(curve, 0);
  const isLab = profile.header.pcs === 'Lab ';
  const toXyz = labToXyzStage(STRIDE);
  const toLab = xyzToLabStage(STRIDE);
  return success({
    channels: 1,
    toLab: [
      (rows, count) => {
        for (let at = 0, end = count * STRIDE; at < end; at += STRIDE) {
          const value = curve(rows[at]);
          rows[at] = isLab ? 100 * value : 0.9642 * value;
          rows[at + 1] = isLab ? 0 : value;
          rows[at + 2] = isLab ? 0 : 0.8249 * value;
        }
        if (!isLab) toLab(rows, count);
      },
    ],
    fromLab: [
      (rows, count) => {
        if (!isLab) toXyz(rows, count);
        for (let at = 0, end = count * STRIDE; at < end; at += STRIDE)
          rows[at] = isLab ? rows[at] / 100 : rows[at + 1];
      },
      inverse,
    ],
  });
}

function missing(tag: string): Result<never> {
  return failure({
    code: 'icc.no-table',
    path: tag,
    expected: 'a table, or curves and a matrix',
    found: 'none',
  });
}

/** The inverse of a curve that rises; where it stands still or falls, the first place that reaches the value. */
function inverseStage(curve: CurveFunction, channel: number): Stage {
  const values = new Float64Array(INVERSE_STEPS + 1);
  let most = -Infinity;
  for (let i = 0; i <= INVERSE_STEPS; i++) {
    most = Math.max(most, curve(i / INVERSE_STEPS));
    values[i] = most;
  }
  return (rows, count) => {
    for (let at = channel, end = count * STRIDE; at < end; at += STRIDE) {
      const wanted = rows[at];
      let low = 0;
      let high = INVERSE_STEPS;
      while (low < high) {
        const middle = (low + high) >> 1;
        if (values[middle] < wanted) low = middle + 1;
        else high = middle;
      }
      const rise = low === 0 ? 0 : values[low] - values[low - 1];
      const back = rise > 0 ? Math.max(0, (values[low] - wanted) / rise) : 0;
      rows[at] = Math.min(1, Math.max(0, (low - back) / INVERSE_STEPS));
    }
  };
}
