import { scaleBlackPoint } from '../colour/scaleBlackPoint.ts';
import type { Xyz } from '../colour/xyz.ts';
import { compileLut } from '../icc/compileLut.ts';
import { compileTable } from '../icc/evaluateCurve.ts';
import type { LutTag } from '../icc/iccTypes.ts';
import { labDecoder, labEncoder } from '../icc/pcsEncoding.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';

const WHOLE = 65535;
const STRAIGHT = Uint16Array.of(0, WHOLE);
const BISECTIONS = 40;

const straight = (channels: number): Uint16Array[] => new Array<Uint16Array>(channels).fill(STRAIGHT);

/** A table from the device with another black of its Lab: each node's colour is scaled (ISO 18619); blacks with Y = 1. */
export function shiftForwardBlack(tag: LutTag, from: Xyz, to: Xyz): LutTag {
  const nodes = tag.clut.values.length / 3;
  const scale = tag.clut.values instanceof Uint16Array ? WHOLE : 255;
  const curves = tag.outputTables.map(compileTable);
  const rows = Float64Array.from(tag.clut.values, (code, i) => curves[i % 3](code / scale));
  labDecoder(tag, 3)(rows, nodes);
  for (let at = 0; at < rows.length; at += 3)
    rows.set(scaleBlackPoint([rows[at], rows[at + 1], rows[at + 2]], from, to), at);
  const made: LutTag = { ...tag, type: 'lut16', outputTables: straight(3) };
  labEncoder(made, 3)(rows, nodes);
  return {
    ...made,
    clut: { ...tag.clut, values: Uint16Array.from(rows, (value) => Math.round(WHOLE * value)) },
  };
}

/**
 * A table from Lab that is asked with another black: its nodes are worked out anew at their places on the same axes.
 * @param from the black it was made for, `to` the one it is asked with from now on; Y = 1.
 * @returns an issue where an axis turns back, so that places on it have no single colour.
 */
export function shiftInverseBlack(tag: LutTag, from: Xyz, to: Xyz): Result<LutTag> {
  const axes: Float64Array[] = [];
  for (const [i, table] of tag.inputTables.entries()) {
    if (table.some((value, at) => at > 0 && value < table[at - 1]))
      return failure({
        ...{ code: 'profile.version', path: 'input curves' },
        ...{ expected: 'curves that never fall', found: `a fall in the curve of ${['L*', 'a*', 'b*'][i]}` },
      });
    axes.push(
      Float64Array.from({ length: tag.clut.grid[i] }, (_, node) =>
        placeOf(table, node / (tag.clut.grid[i] - 1)),
      ),
    );
  }
  const [l, a, b] = axes;
  const { outputs } = tag;
  const stride = Math.max(3, outputs);
  const nodes = l.length * a.length * b.length;
  const rows = new Float64Array(nodes * stride);
  let at = 0;
  for (const first of l)
    for (const second of a)
      for (const third of b) {
        rows.set([first, second, third], at);
        at += stride;
      }
  labDecoder(tag, stride)(rows, nodes);
  for (at = 0; at < rows.length; at += stride)
    rows.set(scaleBlackPoint([rows[at], rows[at + 1], rows[at + 2]], to, from), at);
  labEncoder(tag, stride)(rows, nodes);
  compileLut({ ...tag, outputTables: straight(outputs) }, 'multilinear').run(rows, nodes);
  const values = new Uint16Array(nodes * outputs);
  for (let node = 0; node < nodes; node++)
    for (let o = 0; o < outputs; o++)
      values[node * outputs + o] = Math.round(WHOLE * rows[node * stride + o]);
  return success({ ...tag, type: 'lut16', clut: { ...tag.clut, values } });
}

/** The value 0..1 that a curve which never falls takes to a place 0..1. */
function placeOf(table: Uint16Array, place: number): number {
  const curve = compileTable(table);
  let [low, high] = [0, 1];
  for (let i = 0; i < BISECTIONS; i++) {
    const middle = (low + high) / 2;
    if (curve(middle) < place) low = middle;
    else high = middle;
  }
  return high;
}
