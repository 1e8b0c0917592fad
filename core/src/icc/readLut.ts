import type { ByteReader } from './byteReader.ts';
import type { IccClut, IccCurve, LutAbTag, LutTag } from './iccTypes.ts';
import { ICC_LIMITS } from './iccLimits.ts';

/** Parameters of each `para` function type (ICC.1:2022, 10.18). */
const PARAMETRIC_COUNTS = [1, 3, 4, 5, 7] as const;

function checkChannels(reader: ByteReader, inputs: number, outputs: number): void {
  if (inputs < 1 || inputs > 15 || outputs < 1 || outputs > 15)
    reader.fail('icc.bad-channels', 'channels', '1 to 15 in and out', `${inputs} in, ${outputs} out`);
}

function clutSize(reader: ByteReader, grid: readonly number[], outputs: number, width: number): number {
  let size = outputs;
  for (const points of grid) {
    if (points < 2) reader.fail('icc.bad-grid', 'grid points', '2 or more', `${points}`);
    size *= points;
    if (size > ICC_LIMITS.clutValues || size * width > reader.remaining)
      reader.fail(
        'icc.bad-grid',
        'table size',
        `at most ${Math.floor(reader.remaining / width)} values`,
        `${size} or more`,
      );
  }
  return size;
}

/** lut8Type and lut16Type (ICC.1:2022, 10.10 and 10.11). */
export function readLut(reader: ByteReader, type: 'lut8' | 'lut16'): LutTag {
  const inputs = reader.u8('inputs');
  const outputs = reader.u8('outputs');
  checkChannels(reader, inputs, outputs);
  const points = reader.u8('grid points');
  reader.skip(1, 'padding');
  const matrix = Array.from({ length: 9 }, () => reader.s15Fixed16('matrix'));
  const [inputEntries, outputEntries] =
    type === 'lut8' ? [256, 256] : [reader.u16('input entries'), reader.u16('output entries')];
  if (inputEntries < 2 || outputEntries < 2 || inputEntries > 4096 || outputEntries > 4096)
    reader.fail('icc.bad-count', 'table entries', '2 to 4096', `${inputEntries} and ${outputEntries}`);
  const wide = type === 'lut16';
  const table = (count: number, field: string): Uint16Array =>
    wide ? reader.u16Array(count, field) : Uint16Array.from(reader.u8Array(count, field), (v) => v * 257);
  const inputTables = Array.from({ length: inputs }, () => table(inputEntries, 'input table'));
  const grid = new Array<number>(inputs).fill(points);
  const size = clutSize(reader, grid, outputs, wide ? 2 : 1);
  const values = wide ? reader.u16Array(size, 'table') : reader.u8Array(size, 'table');
  const outputTables = Array.from({ length: outputs }, () => table(outputEntries, 'output table'));
  return { type, inputs, outputs, matrix, inputTables, clut: { grid, outputs, values }, outputTables };
}

/** lutAToBType and lutBToAType (ICC.1:2022, 10.12 and 10.13). */
export function readLutAb(reader: ByteReader, type: 'mAB' | 'mBA'): LutAbTag {
  const inputs = reader.u8('inputs');
  const outputs = reader.u8('outputs');
  checkChannels(reader, inputs, outputs);
  reader.skip(2, 'padding');
  const [b, matrix, m, clut, a] = ['B curves', 'matrix', 'M curves', 'table', 'A curves'].map((field) => ({
    field,
    offset: reader.u32(field),
  }));
  const deviceSide = type === 'mAB' ? inputs : outputs;
  const pcsSide = type === 'mAB' ? outputs : inputs;
  const curves = (
    { field, offset }: { field: string; offset: number },
    count: number,
  ): IccCurve[] | undefined => {
    if (offset === 0) return undefined;
    reader.seek(offset, field);
    return Array.from({ length: count }, () => {
      const curve = readCurve(reader);
      reader.position = Math.min(reader.bytes.length, (reader.position + 3) & ~3);
      return curve;
    });
  };
  const bCurves = curves(b, pcsSide);
  if (bCurves === undefined) reader.fail('icc.missing-element', 'B curves', 'an offset', '0');
  let table: IccClut | undefined;
  if (clut.offset !== 0) {
    reader.seek(clut.offset, clut.field);
    table = readClut(reader, inputs, outputs);
  } else if (inputs !== outputs)
    reader.fail('icc.missing-element', 'table', 'a table where channels in and out differ', 'none');
  let numbers: number[] | undefined;
  if (matrix.offset !== 0) {
    if (pcsSide !== 3) reader.fail('icc.bad-channels', 'matrix', '3 channels', `${pcsSide}`);
    reader.seek(matrix.offset, matrix.field);
    numbers = Array.from({ length: 12 }, () => reader.s15Fixed16('matrix'));
  }
  return {
    type,
    inputs,
    outputs,
    bCurves,
    matrix: numbers,
    mCurves: curves(m, pcsSide),
    clut: table,
    aCurves: curves(a, deviceSide),
  };
}

function readClut(reader: ByteReader, inputs: number, outputs: number): IccClut {
  const grid = Array.from(reader.u8Array(16, 'grid points').subarray(0, inputs));
  const precision = reader.u8('precision');
  reader.skip(3, 'padding');
  if (precision !== 1 && precision !== 2)
    reader.fail('icc.bad-precision', 'precision', '1 or 2', `${precision}`);
  const size = clutSize(reader, grid, outputs, precision);
  return {
    grid,
    outputs,
    values: precision === 1 ? reader.u8Array(size, 'table') : reader.u16Array(size, 'table'),
  };
}

/** curveType and parametricCurveType (ICC.1:2022, 10.6 and 10.18), from their type signature on. */
export function readCurve(reader: ByteReader): IccCurve {
  const type = reader.signature('curve type');
  reader.skip(4, 'reserved');
  if (type === 'curv') {
    const count = reader.u32('curve entries');
    if (count === 0) return { kind: 'identity' };
    if (count === 1) return { kind: 'gamma', gamma: reader.u16('gamma') / 256 };
    if (count > 65536) reader.fail('icc.bad-count', 'curve entries', 'at most 65536', `${count}`);
    return { kind: 'table', values: reader.u16Array(count, 'curve') };
  }
  if (type === 'para') {
    const functionType = reader.u16('function type');
    reader.skip(2, 'reserved');
    const count = PARAMETRIC_COUNTS[functionType];
    if (count === undefined) reader.fail('icc.bad-function', 'function type', '0 to 4', `${functionType}`);
    return {
      kind: 'parametric',
      functionType,
      parameters: Array.from({ length: count }, () => reader.s15Fixed16('parameter')),
    };
  }
  return reader.fail('icc.bad-curve', 'curve type', 'curv or para', JSON.stringify(type));
}
