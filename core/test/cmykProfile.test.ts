import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { patchXyz } from '@melto/core/cgats/patchColours';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { srgbToLab } from '@melto/core/colour/srgb';
import { hueTurned } from './printedHue.ts';
import { fillOf, printedBy } from './screenFill.ts';
import { cubicBasis } from '@melto/core/characterise/cubicBasis';
import { fitInkModel, inkModelLab } from '@melto/core/characterise/inkModel';
import type { InkModel } from '@melto/core/characterise/inkModel';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { deviceToLab, labToDevice } from '@melto/core/icc/profileTransform';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { readIcc } from '@melto/core/icc/readIcc';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import { createRandom, shuffle } from '@melto/core/numerics/random';
import { summariseErrors } from '@melto/core/numerics/statistics';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { inkProfileReport } from '@melto/core/profile/inkReport';
import { InkTable } from '@melto/core/profile/inkTable';
import { unwrap } from '@melto/core/result';
import { blackFor, separationOf } from '@melto/core/separate/separation';
import { deviceTruthXyz } from '@melto/simulator/deviceTruth';
import { simulatedDevice } from '@melto/simulator/devices';

const TOTAL_INK = 3;
const heron = simulatedDevice('heron');
const truth = (cmyk: ArrayLike<number>): Float64Array =>
  deviceTruthXyz(heron, 'lantern-gloss-150', 'standard', cmyk);
const { device } = makeCmykChart(400, 3, TOTAL_INK);
const xyz = truth(device);
let model: InkModel;
let folder = '';
const files = new Map<number, { path: string; profile: IccProfile }>();

function labOf(rows: Float64Array): Float64Array {
  const out = new Float64Array(rows.length);
  xyzRowsToLab(rows, WHITE_D50_MEASURED, out);
  return out;
}

function randomInks(count: number, seed: number): Float64Array {
  const random = createRandom(seed);
  const out = new Float64Array(count * 4);
  for (let i = 0; i < count;) {
    const values = [random.uniform(), random.uniform(), random.uniform(), random.uniform()];
    if (values.reduce((a, b) => a + b, 0) <= TOTAL_INK) out.set(values, 4 * i++);
  }
  return out;
}

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'melto-cmyk-'));
  model = fitInkModel(device, 4, xyz);
  for (const version of [2, 4] as const) {
    const { profile } = buildInkProfile(model, {
      ...{ version, tableSize: 'small', description: 'Heron', copyright: 'none', createdMs: 0 },
      paperXyz: [xyz[0], xyz[1], xyz[2]],
      separation: separationOf('medium', TOTAL_INK),
    });
    const bytes = writeIcc(profile);
    const path = join(folder, `v${version}.icc`);
    writeFileSync(path, bytes);
    files.set(version, { path, profile: unwrap(readIcc(bytes)) });
  }
});
afterAll(() => rmSync(folder, { recursive: true }));

function littleCms(rows: Float64Array, width: number, intent: number, ...args: string[]): Float64Array {
  const lines: string[] = [];
  for (let i = 0; i < rows.length; i += width) lines.push(rows.subarray(i, i + width).join(' '));
  const text = execFileSync('transicc', ['-v0', '-n', '-c0', `-t${intent}`, ...args], {
    input: `${lines.join('\n')}\n`,
    encoding: 'utf8',
    maxBuffer: 1e8,
    stdio: ['pipe', 'pipe', 'ignore'],
  });
  const outputs = args[1].startsWith('-o*') ? 3 : 4;
  return Float64Array.from(
    text
      .trim()
      .split(/\s+/)
      .slice(0, (rows.length / width) * outputs),
    Number,
  );
}

describe('tone basis', () => {
  it.each([5, 7, 11])(
    'of %i vanishes at both ends, is nowhere negative and sums to one in the middle',
    (count) => {
      const out = new Float64Array(count);
      for (const end of [0, 1]) {
        cubicBasis(end, out);
        expect(Math.max(...out)).toBe(0);
      }
      for (let t = 0; t <= 1; t += 0.01) {
        cubicBasis(t, out);
        expect(Math.min(...out)).toBeGreaterThanOrEqual(0);
      }
      cubicBasis(0.5, out);
      expect(out.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 12);
    },
  );
});

describe('CMYK chart', () => {
  it.each([200, 800])('of %i patches keeps to its limit, has papers, corners and few repeats', (patches) => {
    const chart = makeCmykChart(patches, 1, TOTAL_INK);
    expect(chart.names).toHaveLength(patches);
    const rows = Array.from({ length: patches }, (_, i) => chart.device.subarray(4 * i, 4 * i + 4));
    for (const row of rows) expect(row.reduce((a, b) => a + b, 0)).toBeLessThanOrEqual(TOTAL_INK + 0.1);
    const distinct = new Set(rows.map((row) => row.join())).size;
    expect(distinct).toBeGreaterThan(0.93 * patches);
    expect(chart.names.filter((name) => name === 'overprint').length).toBeGreaterThanOrEqual(12);
    expect(() => makeCmykChart(patches + 0.5, 1)).toThrow('expected 200 to 3000');
  });
});

describe('ink model', () => {
  it('predicts what was not on the chart, better than its own cross-validation says', () => {
    const probes = randomInks(2000, 5);
    const out = new Float64Array(6000);
    inkModelLab(model, probes, out);
    const errors = summariseErrors(deltaE2000Rows(labOf(truth(probes)), out));
    expect(errors.mean).toBeLessThan(0.3);
    expect(errors.p95).toBeLessThan(0.75);
    expect(model.crossValidation.summary.mean).toBeGreaterThan(errors.mean * 0.8);
  });

  const published = '/usr/share/color/icc/FOGRA39L.ti3';
  it.runIf(existsSync(published))('predicts one half of a published characterisation from the other', () => {
    const set = unwrap(readPatchSet(readFileSync(published, 'utf8')));
    const colours = patchXyz(set) ?? new Float64Array(0);
    const inks = set.device ?? new Float64Array(0);
    const order = shuffle(
      Array.from({ length: inks.length / 4 }, (_, i) => i),
      createRandom(1),
    );
    const [fit, rest] = [order.slice(0, order.length >> 1), order.slice(order.length >> 1)];
    const half = fitInkModel(gatherRows(inks, fit, 4), 4, gatherRows(colours, fit, 3));
    const out = new Float64Array(rest.length * 3);
    inkModelLab(half, gatherRows(inks, rest, 4), out);
    const errors = summariseErrors(deltaE2000Rows(labOf(gatherRows(colours, rest, 3)), out));
    expect(errors.mean).toBeLessThan(0.3);
    expect(errors.p95).toBeLessThan(0.8);
  });
});

describe('separation', () => {
  it('gives more black from light to max, none in the lights, all at the darkest neutral', () => {
    const amounts = (['light', 'medium', 'heavy', 'max'] as const).map((black) => separationOf(black, 3));
    const middle = amounts.map((separation) => blackFor(separation, 12, 40, 0));
    for (let i = 1; i < 4; i++) expect(middle[i]).toBeGreaterThan(middle[i - 1]);
    for (const separation of amounts) {
      expect(blackFor(separation, 12, 99, 0)).toBe(0);
      expect(blackFor(separation, 12, 12, 0)).toBeCloseTo(separation.blackMost, 12);
      expect(blackFor(separation, 12, 30, 80)).toBeLessThan(blackFor(separation, 12, 30, 5));
    }
  });

  it('finds the exact slope of the table it inverts', () => {
    const random = createRandom(8);
    const grid = {
      channels: 4,
      points: 3,
      lab: Float64Array.from({ length: 81 * 3 }, () => 100 * random.uniform()),
    };
    const table = new InkTable(grid);
    const x = [0.21, 0.63, 0.84, 0.17];
    table.evaluate(x);
    const at = [...table.lab];
    const jacobian = [...table.jacobian];
    for (let i = 0; i < 4; i++) {
      const moved = [...x];
      moved[i] += 1e-6;
      table.evaluate(moved);
      for (let o = 0; o < 3; o++) expect((table.lab[o] - at[o]) / 1e-6).toBeCloseTo(jacobian[4 * o + i], 3);
    }
  });
});

describe('the mapped intents', () => {
  it('let a screen’s colours fill what prints, saturation more of it than perceptual', () => {
    const profile = files.get(4)?.profile;
    if (profile === undefined) throw new Error('no profile of version 4');
    const [perceptual, saturation] = (['perceptual', 'saturation'] as const).map((intent) =>
      fillOf(profile, printedBy(profile, intent)),
    );
    // Of small tables; normal ones fill 92 and 97 % (bench fill).
    expect(perceptual).toBeGreaterThan(0.9);
    expect(saturation).toBeGreaterThan(0.95);
    expect(saturation).toBeLessThanOrEqual(1);
  });
});

describe.each([2, 4] as const)('CMYK profile of version %i', (version) => {
  const get = (): { path: string; profile: IccProfile } => {
    const found = files.get(version);
    if (found === undefined) throw new Error('no profile was built');
    return found;
  };

  it.each(['perceptual', 'relative', 'saturation', 'absolute'] as const)(
    'agrees with LittleCMS both ways, %s',
    (intent) => {
      const { path, profile } = get();
      const number = ['perceptual', 'relative', 'saturation', 'absolute'].indexOf(intent);
      const inks = randomInks(2000, 9);
      const own = new Float64Array(6000);
      unwrap(deviceToLab(profile, intent)).apply(inks, own);
      // Compensation that version 4 asks for in these intents is LittleCMS's own; it is tested with RGB.
      if (version === 2 || intent === 'relative' || intent === 'absolute') {
        const theirs = littleCms(
          inks.map((value) => 100 * value),
          4,
          number,
          `-i${path}`,
          '-o*Lab4',
        );
        const difference = summariseErrors(deltaE2000Rows(own, theirs));
        expect(difference.mean).toBeLessThan(0.05);
        expect(difference.largest).toBeLessThan(0.3);
        const back = new Float64Array(8000);
        unwrap(labToDevice(profile, intent)).apply(own, back);
        const theirBack = littleCms(own, 3, number, '-i*Lab4', `-o${path}`);
        const off = Math.max(...theirBack.map((value, i) => Math.abs(value - 100 * back[i])));
        expect(off).toBeLessThan(0.2);
      }
    },
  );

  it.each(['relative', 'perceptual', 'saturation'] as const)(
    'prints the blue of a screen blue, not purple: %s',
    (intent) => {
      for (const { profile } of files.values())
        expect(hueTurned(profile, intent, srgbToLab([0, 0, 1]))).toBeLessThan(6);
    },
  );

  it('keeps its limits everywhere, has smooth neutral greys and comes back from a round trip', () => {
    const { profile } = get();
    const report = inkProfileReport(model, profile, device, xyz, { totalInk: TOTAL_INK });
    expect(report.totalInk).toBeLessThanOrEqual(TOTAL_INK + 0.001);
    expect(report.reversals).toBe(0);
    expect(report.roundTrip.mean).toBeLessThan(0.6);
    expect(report.outliers.length).toBeLessThan(5);
    const steps = report.neutralAxis.length - 1;
    report.neutralAxis.forEach(({ asked }, i) => expect(asked).toBeCloseTo((100 * i) / steps, 12));
    const black = report.neutralAxis[0].lab[0];
    for (const { asked, lab } of report.neutralAxis.filter((point) => point.asked > black + 3)) {
      expect(Math.abs(lab[0] - asked)).toBeLessThan(1);
      expect(Math.max(Math.abs(lab[1]), Math.abs(lab[2]))).toBeLessThan(1);
    }
    const random = createRandom(2);
    const anywhere = Float64Array.from({ length: 3000 }, (_, i) =>
      i % 3 === 0 ? 100 * random.uniform() : 220 * random.uniform() - 110,
    );
    for (const intent of ['perceptual', 'relative', 'saturation'] as const) {
      const inks = new Float64Array(4000);
      unwrap(labToDevice(profile, intent)).apply(anywhere, inks);
      for (let i = 0; i < 4000; i += 4)
        expect(inks[i] + inks[i + 1] + inks[i + 2] + inks[i + 3]).toBeLessThanOrEqual(TOTAL_INK + 0.001);
    }
  });
});
