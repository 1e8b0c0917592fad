import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { OTHER_SPACES, sourceToLab, SRGB } from '@melto/core/chain/sourceSpaces';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { multilinearRows, fourRows, tetrahedralRows, trilinearRows } from '@melto/core/icc/clutRows';
import type { RowsTable } from '@melto/core/icc/clutRows';
import type { IccCurve, IccProfile, IccTag } from '@melto/core/icc/iccTypes';
import { deviceToLab, labToDevice } from '@melto/core/icc/profileTransform';
import type { RenderingIntent } from '@melto/core/icc/profileTransform';
import { readIcc } from '@melto/core/icc/readIcc';
import { sampleProfile } from '@melto/core/icc/testing/sampleProfile';
import { sourceProfile } from '@melto/core/icc/testing/sourceProfile';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { createRandom } from '@melto/core/numerics/random';
import { largest } from '@melto/core/numerics/statistics';
import { unwrap } from '@melto/core/result';
import { transicc } from './transicc.ts';

const ROWS = 1300; // more than two blocks, and not a whole number of them
let folder = '';
beforeAll(() => (folder = mkdtempSync(join(tmpdir(), 'melto-engine-'))));
afterAll(() => rmSync(folder, { recursive: true }));

function uniform(count: number, seed: number): Float64Array {
  const random = createRandom(seed);
  return Float64Array.from({ length: count }, () => random.uniform());
}

function kept(profile: IccProfile, name: string): { readonly path: string; readonly profile: IccProfile } {
  const bytes = writeIcc(profile);
  const path = join(folder, `${name}.icc`);
  writeFileSync(path, bytes);
  return { path, profile: unwrap(readIcc(bytes)) };
}

function grey(curve: IccCurve, pcs: 'XYZ ' | 'Lab '): IccProfile {
  const { header, tags } = sourceProfile(SRGB);
  const own = new Map<string, IccTag>([...tags].filter(([name]) => !/^[rgb]/.test(name)));
  own.set('kTRC', { type: 'curve', curve });
  return { header: { ...header, colourSpace: 'GRAY', pcs }, tags: own };
}

describe('profiles of curves and a matrix', () => {
  it.each([SRGB, ...OTHER_SPACES])('are read as LittleCMS reads them, $name', (space) => {
    const { path, profile } = kept(sourceProfile(space), 'matrix');
    const rgb = uniform(3 * ROWS, 4);
    const own = new Float64Array(3 * ROWS);
    unwrap(deviceToLab(profile, 'relative')).apply(rgb, own);
    const theirs = transicc(
      rgb.map((v) => 255 * v),
      3,
      ['-t1', `-i${path}`, '-o*Lab4'],
    );
    expect(largest(deltaE2000Rows(own, theirs))).toBeLessThan(0.02);
    expect(largest(deltaE2000Rows(own, sourceToLab(space, rgb)))).toBeLessThan(0.02);
    const back = new Float64Array(3 * ROWS);
    unwrap(labToDevice(profile, 'relative')).apply(own, back);
    back.forEach((value, i) => expect(Math.abs(value - rgb[i])).toBeLessThan(2e-4));
  });

  it('say which part is missing, and refuse primaries that are one', () => {
    const whole = sourceProfile(SRGB);
    const without = (name: string): IccProfile => ({
      ...whole,
      tags: new Map([...whole.tags].filter(([own]) => own !== name)),
    });
    for (const name of ['rXYZ', 'gTRC', 'bXYZ'])
      expect(deviceToLab(without(name), 'relative')).toMatchObject({ ok: false, issues: [{ path: name }] });
    const tags = new Map(whole.tags);
    const red = whole.tags.get('rXYZ');
    if (red !== undefined) tags.set('gXYZ', red);
    expect(labToDevice({ ...whole, tags }, 'relative')).toMatchObject({
      ok: false,
      issues: [{ code: 'icc.no-inverse' }],
    });
  });
});

describe('profiles of grey', () => {
  const table = Uint16Array.from({ length: 33 }, (_, i) => Math.round(65535 * (i / 32) ** 1.8));
  it.each([
    ['a gamma', { kind: 'gamma', gamma: 2.19921875 } as const, 'XYZ '],
    ['a table', { kind: 'table', values: table } as const, 'XYZ '],
    ['a table of L*', { kind: 'table', values: table } as const, 'Lab '],
  ] as const)('with %s are read as LittleCMS reads them', (_, curve, pcs) => {
    const { path, profile } = kept(grey(curve, pcs), 'grey');
    const values = uniform(ROWS, 5);
    const own = new Float64Array(3 * ROWS);
    unwrap(deviceToLab(profile, 'relative')).apply(values, own);
    const theirs = transicc(
      values.map((v) => 255 * v),
      1,
      ['-t1', `-i${path}`, '-o*Lab4'],
    );
    expect(largest(deltaE2000Rows(own, theirs))).toBeLessThan(0.02);
    const back = new Float64Array(ROWS);
    unwrap(labToDevice(profile, 'relative')).apply(own, back);
    back.forEach((value, i) => expect(Math.abs(value - values[i])).toBeLessThan(1e-3));
  });
});

describe('values that are none', () => {
  const intent: RenderingIntent = 'relative';
  const toLab = unwrap(deviceToLab(sampleProfile(4), intent));
  const toDevice = unwrap(labToDevice(sampleProfile(4), intent));
  const out = new Float64Array(6);

  it.each([NaN, Infinity, -Infinity, 50, -0.021, 1.021])('are named with their row, device %d', (value) => {
    expect(() => toLab.apply([0, 0, 0, 0, value, 0], out)).toThrow(
      new RangeError(`row 1, value 1: found ${value}, expected 0 to 1`),
    );
  });

  it.each([-0.019, 1.019])('are clipped where rounding explains them, %d', (value) => {
    toLab.apply([value, value, value], out);
    const end = new Float64Array(3);
    toLab.apply(value < 0 ? [0, 0, 0] : [1, 1, 1], end);
    expect(out.subarray(0, 3)).toEqual(end);
  });

  it('are named with their row, Lab', () => {
    expect(() => toDevice.apply([50, NaN, 0], out)).toThrow('row 0, value 1: found NaN');
    toDevice.apply([120, 300, -300], out);
    for (const value of out.subarray(0, 3)) expect(value).toBeCloseTo(0.25, 3);
  });

  it('want room for what comes out', () => {
    expect(() => toLab.apply(new Float64Array(9), out)).toThrow('3 rows of 3 do not fit into 6 values');
  });
});

describe('interpolation of rows', () => {
  const table = (
    inputs: number,
    points: number,
    outputs: number,
    node: (at: readonly number[]) => number[],
  ) => {
    const count = points ** inputs;
    const nodes = new Uint16Array(count * outputs);
    for (let i = 0; i < count; i++) {
      const at = Array.from(
        { length: inputs },
        (_, axis) => Math.floor(i / points ** (inputs - 1 - axis)) % points,
      );
      nodes.set(node(at), i * outputs);
    }
    const grid = Array.from({ length: inputs }, () => points);
    return { nodes, grid, outputs, stride: Math.max(inputs, outputs, 3) } satisfies RowsTable;
  };
  const run = (
    kernel: (own: RowsTable) => (rows: Float64Array, count: number) => void,
    own: RowsTable,
    x: Float64Array,
  ): Float64Array => {
    const { grid, outputs, stride } = own;
    const count = x.length / grid.length;
    const rows = new Float64Array(count * stride);
    for (let r = 0; r < count; r++) rows.set(x.subarray(r * grid.length, (r + 1) * grid.length), r * stride);
    kernel(own)(rows, count);
    return Float64Array.from(
      { length: count * outputs },
      (_, i) => rows[Math.floor(i / outputs) * stride + (i % outputs)],
    );
  };
  const straight = (at: readonly number[]): number[] => [
    at.reduce((sum, value, axis) => sum + (axis + 1) * value, 0),
    7 - at[0],
    at[at.length - 1],
    3,
  ];

  it.each([
    ['tetrahedral over three', tetrahedralRows, 3],
    ['trilinear over three', trilinearRows, 3],
    ['over four', fourRows, 4],
    ['multilinear over three', multilinearRows, 3],
    ['multilinear over five', multilinearRows, 5],
  ] as const)('is exact where all is straight, %s', (_, kernel, inputs) => {
    const x = Float64Array.from([
      ...uniform(inputs * 200, 6),
      ...new Float64Array(inputs),
      ...new Float64Array(inputs).fill(1),
    ]);
    const found = run(kernel, table(inputs, 4, 4, straight), x);
    for (let r = 0; r * inputs < x.length; r++)
      straight([...x.subarray(r * inputs, (r + 1) * inputs)].map((value) => 3 * value)).forEach((value, o) =>
        expect(found[4 * r + o]).toBeCloseTo(value, 5),
      );
  });

  it('keeps to one tetrahedron where shares are equal, in any order', () => {
    const own = table(3, 2, 1, ([a, b, c]) => [100 * a + 10 * b + c + (a * b * c === 1 ? 500 : 0)]);
    // Along the diagonal only the ends count; on a face of three equal shares any order gives the same.
    const found = run(
      tetrahedralRows,
      own,
      Float64Array.of(0.5, 0.5, 0.5, 0.5, 0.5, 0.2, 0.2, 0.5, 0.5, 0.5, 0.2, 0.5),
    );
    expect(found[0]).toBeCloseTo(305.5, 4);
    expect(found[1]).toBeCloseTo(0.2 * 611 + 0.3 * 110, 4);
    expect(found[2]).toBeCloseTo(0.2 * 611 + 0.3 * 11, 4);
    expect(found[3]).toBeCloseTo(0.2 * 611 + 0.3 * 101, 4);
  });

  it('of multilinear and trilinear is the same', () => {
    const own = table(3, 3, 4, (at) => [
      Math.round(9000 * (1 + Math.sin(at[0] + 2 * at[1]))),
      at[1] * at[2],
      at[0] ** 2,
      1,
    ]);
    const x = uniform(900, 8);
    const a = run(trilinearRows, own, x);
    run(multilinearRows, own, x).forEach((value, i) => expect(value).toBeCloseTo(a[i], 5));
  });
});
