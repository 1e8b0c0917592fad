import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { chainCause } from '@melto/core/chain/chainCause';
import type { ChainFinding } from '@melto/core/chain/chainCause';
import { inkChainChart, whiteRows } from '@melto/core/chain/chainChart';
import { chainHypotheses } from '@melto/core/chain/chainHypotheses';
import { CHAIN_INTENTS } from '@melto/core/chain/chainIntent';
import type { ChainIntent } from '@melto/core/chain/chainIntent';
import { convertAsJob } from '@melto/core/chain/convertAsJob';
import { askedColours } from '@melto/core/chain/jobSource';
import type { InkSource } from '@melto/core/chain/jobSource';
import { fitInkModel } from '@melto/core/characterise/inkModel';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { CMYK } from '@melto/core/device/process';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { deviceToLab } from '@melto/core/icc/profileTransform';
import { readIcc } from '@melto/core/icc/readIcc';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { createRandom } from '@melto/core/numerics/random';
import { summariseErrors } from '@melto/core/numerics/statistics';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { unwrap } from '@melto/core/result';
import { separationOf } from '@melto/core/separate/separation';
import { deviceTruthXyz } from '@melto/simulator/deviceTruth';
import { simulatedDevice } from '@melto/simulator/devices';
import { noisyLab } from '@melto/simulator/readingNoise';
import { wrenTruthXyz } from '@melto/simulator/wrenTruth';
import { JOB_OPTIONS } from './jobOptions.ts';
import { transicc } from './transicc.ts';
import { wrenModel, wrenProfileBytes } from './wrenProfile.ts';

const TOTAL_INK = 3;
const { device: values, names } = inkChainChart();
const whites = whiteRows(values, CMYK);
/** A profile, and what its device prints of values 0..1. */
interface Printed {
  readonly path: string;
  readonly profile: IccProfile;
  readonly truth: (device: Float64Array) => Float64Array;
}
const WAYS = Object.keys(JOB_OPTIONS) as ChainIntent[];

let folder = '';
const kept = new Map<string, Printed>();
const printedBy = (name: string): Printed => {
  const found = kept.get(name);
  if (found === undefined) throw new Error(`no profile ${name}`);
  return found;
};
const sourceOf = (name: string): InkSource => ({ name, profile: printedBy(name).profile });

function keep(name: string, bytes: Uint8Array, truth: Printed['truth']): void {
  const path = join(folder, `${name}.icc`);
  writeFileSync(path, bytes);
  kept.set(name, { path, profile: unwrap(readIcc(bytes)), truth });
}

function keepInks(
  id: string,
  stock: Parameters<typeof deviceTruthXyz>[1],
  mode: string,
  versions: readonly (2 | 4)[],
): void {
  const press = simulatedDevice(id);
  const truth = (inks: Float64Array): Float64Array => deviceTruthXyz(press, stock, mode, inks);
  const { device } = makeCmykChart(300, 3, TOTAL_INK);
  const xyz = truth(device);
  const model = fitInkModel(device, 4, xyz);
  for (const version of versions) {
    const { profile } = buildInkProfile(model, {
      ...{ version, tableSize: 'small', description: id, copyright: 'none', createdMs: 0 },
      paperXyz: [xyz[0], xyz[1], xyz[2]],
      separation: separationOf('medium', TOTAL_INK),
    });
    keep(`${id} v${version}`, writeIcc(profile), truth);
  }
}

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'melto-ink-job-'));
  keepInks('heron', 'lantern-gloss-150', 'standard', [2, 4]);
  keepInks('osprey', 'fenland-smooth-120', '175 lpi', [4]);
  keep('wren', wrenProfileBytes(4, wrenModel()), (rgb) => wrenTruthXyz('quay-proof-200', 'fine', rgb));
});
afterAll(() => rmSync(folder, { recursive: true }));

/** What LittleCMS makes of inks, 0..1. */
function littleCms(inks: Float64Array, from: string, to: string, way: ChainIntent): Float64Array {
  const scale = to === 'wren' ? 255 : 100;
  const rows = inks.map((value) => 100 * value);
  const options = [...JOB_OPTIONS[way], `-i${printedBy(from).path}`, `-o${printedBy(to).path}`];
  return transicc(rows, 4, options).map((value) => Math.min(1, Math.max(0, value / scale)));
}

/** A sheet of a simulated device, read with its noise. */
function sheet(to: string, device: Float64Array): Float64Array {
  const xyz = printedBy(to).truth(device);
  const lab = new Float64Array(xyz.length);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
  const random = createRandom(5);
  for (let i = 0; i < lab.length; i += 3) lab.set(noisyLab([lab[i], lab[i + 1], lab[i + 2]], 0.2, random), i);
  return lab;
}

const judge = (to: string, device: Float64Array, intent: ChainIntent, from = 'heron v2'): ChainFinding =>
  chainCause(
    sheet(to, device),
    chainHypotheses({
      ...{ values, source: sourceOf(from), profile: printedBy(to).profile, intent },
      otherInks: [sourceOf('osprey v4')].filter(({ name }) => name !== to),
    }),
    whites,
  );

describe('the picture of inks', () => {
  it('has an even cube, black and greys in whole levels, no more than 300 % but where all three are full', () => {
    expect(new Set(names).size).toBe(names.length - 2);
    expect(whites).toHaveLength(3);
    let sum = 0;
    for (let i = 0; i < values.length; i++) {
      expect(255 * values[i]).toBeCloseTo(Math.round(255 * values[i]), 9);
      sum = i % 4 === 0 ? values[i] : sum + values[i];
      expect(sum).toBeLessThanOrEqual(3.01);
    }
  });
});

describe.each(['wren', 'osprey v4'])('a job of inks to %s', (to) => {
  it.each(WAYS.flatMap((way) => ['heron v2', 'heron v4'].map((from) => [way, from] as const)))(
    'is converted as LittleCMS does it, %s from %s',
    (way, from) => {
      const { profile } = printedBy(to);
      const seen = unwrap(deviceToLab(profile, 'relative'));
      const lab = (device: Float64Array): Float64Array => {
        const out = new Float64Array((device.length / seen.inputs) * 3);
        seen.apply(device, out);
        return out;
      };
      const theirs = lab(littleCms(values, from, to, way));
      const apart = convertAsJob(askedColours(sourceOf(from), values, way), profile, way).map(
        (device) => summariseErrors(deltaE2000Rows(lab(device), theirs)).mean,
      );
      // Several are given where programs find blacks differently; LittleCMS goes one of these ways.
      expect(Math.min(...apart)).toBeLessThan(0.3);
    },
  );

  it.each(WAYS)('is found right where it was, %s', (way) => {
    const finding = judge(to, littleCms(values, 'heron v2', to, way), way);
    expect(finding).toMatchObject({ cause: 'right' });
    expect(finding.fromRight).toBeLessThan(2);
  });

  it('is found to use another intent', () => {
    // Papers that are nearly alike print both colorimetric intents within what prints differ by.
    const used = to === 'wren' ? 'saturation' : 'absolute';
    const finding = judge(to, littleCms(values, 'heron v2', to, used), 'relative-black');
    expect(finding.cause).toBe('intent');
    expect(finding.says.join()).toContain(CHAIN_INTENTS[used].words);
  });
});

describe('a white that another intent explains', () => {
  it('is no other paper’s, though both print within what prints differ by', () => {
    // The tint of the source's paper is printed, 1.01 ΔE00 from bare paper.
    const finding = judge('wren', littleCms(values, 'heron v2', 'wren', 'absolute'), 'relative-black');
    expect(finding.white).toBeGreaterThan(1);
    expect(finding.tried[0]?.says).toContain(CHAIN_INTENTS.absolute.words);
    expect(finding.cause).toBe('right');
    // The same white with colours that no other way explains is one.
    const right = chainHypotheses({
      ...{ values, source: sourceOf('heron v2'), profile: printedBy('wren').profile },
      intent: 'relative-black',
    });
    const tinted = right[0].lab.map((value, i) => (i % 3 === 2 ? value - 2 : value));
    expect(chainCause(tinted, right, whites).cause).toBe('paper');
  });
});

describe('inks that went another way', () => {
  it('are found as they are on a press, and across from them on a device of light', () => {
    expect(judge('osprey v4', values, 'relative').cause).toBe('no-profile');
    const light = new Float64Array((values.length / 4) * 3);
    for (let i = 0; i < values.length; i += 4)
      for (let c = 0; c < 3; c++) light[(3 * i) / 4 + c] = Math.max(0, 1 - values[i + c] - values[i + 3]);
    expect(judge('wren', light, 'relative').cause).toBe('no-profile');
  });

  it('are found converted twice', () => {
    const once = littleCms(values, 'heron v2', 'osprey v4', 'relative-black');
    const again = littleCms(once, 'heron v2', 'osprey v4', 'relative-black');
    expect(judge('osprey v4', again, 'relative-black').cause).toBe('twice');
  });

  it('are found taken for those of another press', () => {
    const finding = judge('wren', littleCms(values, 'osprey v4', 'wren', 'relative'), 'relative');
    expect(finding).toMatchObject({
      ...{ cause: 'source', says: ['its values were taken for osprey v4 in place of heron v2'] },
    });
  });
});
