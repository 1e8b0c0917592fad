import type { Stage } from './stage.ts';

/** A map of rows of some channels to rows of others, for many rows at once. */
export interface Transform {
  readonly inputs: number;
  readonly outputs: number;
  /** Writes a row for each whole row of the input; a RangeError names the row that is none. */
  apply(input: ArrayLike<number>, output: Float64Array): void;
}

/** Rows through a transform, as rows of their own. */
export function transformed(link: Transform, rows: ArrayLike<number>): Float64Array {
  const out = new Float64Array((rows.length / link.inputs) * link.outputs);
  link.apply(rows, out);
  return out;
}

/** Rows that go through all stages together, so that they stay in the first cache. */
export const BLOCK = 512;

interface Stages {
  readonly inputs: number;
  readonly outputs: number;
  /** Length of a row between the stages: at least inputs and outputs. */
  readonly stride: number;
  readonly stages: readonly Stage[];
  /** Values that are taken; ends included. */
  readonly least?: number;
  readonly most?: number;
  /** What is said of a value that is not. */
  readonly expected?: string;
}

/** Runs stages over any number of rows, a block at a time and without allocation; each transform has rows of its own. */
export function ofStages({
  inputs,
  outputs,
  stride,
  stages,
  least = -Infinity,
  most = Infinity,
  expected = 'a number',
}: Stages): Transform {
  const block = new Float64Array(BLOCK * stride);
  return {
    inputs,
    outputs,
    apply(values, out) {
      const total = rowsOf(values, inputs, out, outputs);
      for (let first = 0; first < total; first += BLOCK) {
        const count = Math.min(BLOCK, total - first);
        for (let r = 0, read = first * inputs; r < count; r++)
          for (let i = 0, at = r * stride; i < inputs; i++) {
            const value = values[read++];
            // Not a number is neither above the least nor below the most.
            if (!(value >= least && value <= most))
              throw new RangeError(`row ${first + r}, value ${i}: found ${value}, expected ${expected}`);
            block[at++] = value;
          }
        for (const stage of stages) stage(block, count);
        for (let r = 0, write = first * outputs; r < count; r++)
          for (let o = 0, at = r * stride; o < outputs; o++) out[write++] = block[at++];
      }
    },
  };
}

/** Transforms one after the other as one; each takes as many channels as the one before gives. */
export function chain(first: Transform, ...rest: readonly Transform[]): Transform {
  const links = [first, ...rest];
  for (const [i, next] of rest.entries())
    if (links[i].outputs !== next.inputs)
      throw new RangeError(
        `link ${i + 2} of a chain takes ${next.inputs} channels, the one before gives ${links[i].outputs}`,
      );
  const last = links[links.length - 1];
  const between = links.slice(0, -1).map(({ outputs }) => new Float64Array(BLOCK * outputs));
  return {
    inputs: first.inputs,
    outputs: last.outputs,
    apply(values, out) {
      const total = rowsOf(values, first.inputs, out, last.outputs);
      for (let from = 0; from < total; from += BLOCK) {
        const count = Math.min(BLOCK, total - from);
        const end = from + count;
        let rows = part(values, from * first.inputs, end * first.inputs);
        links.forEach((link, i) => {
          const own =
            i < between.length
              ? between[i].subarray(0, count * link.outputs)
              : out.subarray(from * last.outputs, end * last.outputs);
          link.apply(rows, own);
          rows = own;
        });
      }
    },
  };
}

function part(values: ArrayLike<number>, from: number, to: number): ArrayLike<number> {
  return values instanceof Float64Array
    ? values.subarray(from, to)
    : Array.prototype.slice.call(values, from, to);
}

function rowsOf(values: ArrayLike<number>, inputs: number, out: Float64Array, outputs: number): number {
  const total = Math.floor(values.length / inputs);
  if (out.length < total * outputs)
    throw new RangeError(`${total} rows of ${outputs} do not fit into ${out.length} values`);
  return total;
}
