import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { chainCause } from '@melto/core/chain/chainCause';
import type { ChainFinding } from '@melto/core/chain/chainCause';
import { chainChart, whiteRows } from '@melto/core/chain/chainChart';
import { chainHypotheses } from '@melto/core/chain/chainHypotheses';
import { CHAIN_INTENTS } from '@melto/core/chain/chainIntent';
import { convertAsJob } from '@melto/core/chain/convertAsJob';
import { BLACK } from '@melto/core/chain/jobSource';
import { RGB } from '@melto/core/device/process';
import type { ChainIntent } from '@melto/core/chain/chainIntent';
import { chainSentence } from '@melto/core/chain/chainWords';
import { OTHER_SPACES, sourceToLab, SRGB } from '@melto/core/chain/sourceSpaces';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { deviceToLab } from '@melto/core/icc/profileTransform';
import { readIcc } from '@melto/core/icc/readIcc';
import { createRandom } from '@melto/core/numerics/random';
import { summariseErrors } from '@melto/core/numerics/statistics';
import { unwrap } from '@melto/core/result';
import { noisyLab } from '@melto/simulator/readingNoise';
import { wrenTruthXyz } from '@melto/simulator/wrenTruth';
import { JOB_OPTIONS } from './jobOptions.ts';
import { transicc } from './transicc.ts';
import { wrenModel, wrenProfileBytes } from './wrenProfile.ts';

const STOCK = 'quay-proof-200';
const { device: rgb, names } = chainChart();
const SRGB_JOB = { values: rgb, source: 'sRGB' } as const;
const whites = whiteRows(rgb, RGB);
const WAYS = Object.keys(JOB_OPTIONS) as ChainIntent[];

let folder = '';
const profiles = new Map<number, { readonly path: string; readonly profile: IccProfile }>();

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'melto-chain-'));
  const fitted = wrenModel();
  for (const version of [2, 4] as const) {
    const bytes = wrenProfileBytes(version, fitted);
    const path = join(folder, `v${version}.icc`);
    writeFileSync(path, bytes);
    profiles.set(version, { path, profile: unwrap(readIcc(bytes)) });
  }
});
afterAll(() => rmSync(folder, { recursive: true }));

function own(version = 4): { readonly path: string; readonly profile: IccProfile } {
  const found = profiles.get(version);
  if (found === undefined) throw new Error('no profile was built');
  return found;
}

/** What LittleCMS makes of rows of sRGB, 0..1. */
function littleCms(
  values: Float64Array,
  output: string,
  options: readonly string[],
  scale: number,
): Float64Array {
  const rows = values.map((value) => 255 * value);
  return transicc(rows, 3, [...options, '-i*sRGB', `-o${output}`]).map((value) => value / scale);
}

/** A sheet of the simulated printer, read with its noise. */
function sheet(
  values: Float64Array,
  seed = 1,
  stock: Parameters<typeof wrenTruthXyz>[0] = STOCK,
): Float64Array {
  const xyz = wrenTruthXyz(stock, 'fine', values);
  const lab = new Float64Array(xyz.length);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
  const random = createRandom(seed);
  for (let i = 0; i < lab.length; i += 3) lab.set(noisyLab([lab[i], lab[i + 1], lab[i + 2]], 0.2, random), i);
  return lab;
}

const judge = (lab: Float64Array, intent: ChainIntent = 'relative-black', version = 4): ChainFinding =>
  chainCause(lab, chainHypotheses({ ...SRGB_JOB, profile: own(version).profile, intent }), whites);

describe('the picture of a job', () => {
  it('has an even cube, more greys, and its white three times', () => {
    expect(names).toHaveLength(64 + 12 + 2);
    expect(whites.map((row) => names[row])).toEqual(Array(3).fill('sRGB 255 255 255'));
    for (const value of rgb) expect(255 * value).toBeCloseTo(Math.round(255 * value), 9);
  });

  it('is taken for sRGB as LittleCMS takes it', () => {
    const theirs = littleCms(rgb, '*Lab4', ['-t1'], 1);
    expect(summariseErrors(deltaE2000Rows(sourceToLab(SRGB, rgb), theirs)).largest).toBeLessThan(0.05);
  });

  it('is another colour in each of the wider spaces, and the same white', () => {
    for (const space of OTHER_SPACES) {
      const apart = deltaE2000Rows(sourceToLab(SRGB, rgb), sourceToLab(space, rgb));
      expect(summariseErrors(apart).mean).toBeGreaterThan(1);
      for (const row of whites) expect(apart[row]).toBeLessThan(0.02);
    }
  });
});

describe.each([2, 4])('a job through a profile of version %i', (version) => {
  it.each(WAYS)('is converted as LittleCMS does it, %s', (way) => {
    const { path, profile } = own(version);
    const theirs = littleCms(rgb, path, JOB_OPTIONS[way], 255);
    const lab = (device: Float64Array): Float64Array => {
      const out = new Float64Array(device.length);
      unwrap(deviceToLab(profile, 'relative')).apply(device, out);
      return out;
    };
    const apart = convertAsJob({ lab: sourceToLab(SRGB, rgb), blacks: [BLACK] }, profile, way).map(
      (device) => summariseErrors(deltaE2000Rows(lab(device), lab(theirs))).mean,
    );
    // Two ways are given where programs differ; LittleCMS goes one of them.
    expect(Math.min(...apart)).toBeLessThan(0.15);
  });
});

describe('the way of a job', () => {
  it.each(WAYS)('is found right where it was, %s', (way) => {
    const finding = judge(sheet(littleCms(rgb, own().path, JOB_OPTIONS[way], 255)), way);
    expect(finding).toMatchObject({ cause: 'right' });
    expect(finding.fromRight).toBeLessThan(1.5);
    expect(chainSentence(finding)).toContain('The job went as it should');
  });

  it('is found to miss the profile, or to meet it twice', () => {
    expect(judge(sheet(rgb)).cause).toBe('no-profile');
    const once = littleCms(rgb, own().path, JOB_OPTIONS['relative-black'], 255);
    const twice = judge(sheet(littleCms(once, own().path, JOB_OPTIONS['relative-black'], 255)));
    expect(twice.cause).toBe('twice');
    expect(chainSentence(twice)).toMatch(/^The sheet looks as if the profile was applied twice: [\d.]+ ΔE00/);
  });

  it.each([
    ['absolute', 'relative-black'],
    ['relative-black', 'absolute'],
    ['perceptual', 'relative-black'],
  ] as const)('is found to use %s for %s', (used, asked) => {
    const finding = judge(sheet(littleCms(rgb, own().path, JOB_OPTIONS[used], 255)), asked);
    expect(finding.cause).toBe('intent');
    expect(finding.says.join()).toContain(CHAIN_INTENTS[used].words);
  });

  it('is found to take sRGB for a wider space', () => {
    for (const space of OTHER_SPACES) {
      const [device] = convertAsJob(
        { lab: sourceToLab(space, rgb), blacks: [BLACK] },
        own().profile,
        'perceptual',
      );
      const finding = judge(sheet(device), 'perceptual');
      expect(finding.cause).toBe('source');
      expect(finding.says.join()).toContain(space.name);
    }
  });

  it('is found to end on another paper, by its name where the house has a profile of it', () => {
    const right = littleCms(rgb, own().path, JOB_OPTIONS.perceptual, 255);
    const lab = sheet(right, 3, 'chalk-rag-310');
    expect(judge(lab, 'perceptual')).toMatchObject({
      cause: 'paper',
      says: ['it was printed on another paper, or another lot of it'],
    });
    const other = wrenModelOf('chalk-rag-310');
    const named = chainCause(
      lab,
      chainHypotheses({
        ...{ ...SRGB_JOB, profile: own().profile, intent: 'perceptual' },
        papers: [{ name: 'Chalk Rag 310', profile: other }],
      }),
      whites,
    );
    expect(named).toMatchObject({ cause: 'paper', says: ['it was printed on Chalk Rag 310'] });
  });
});

describe('what is named', () => {
  const right = (): ReturnType<typeof chainHypotheses> =>
    chainHypotheses({ ...SRGB_JOB, profile: own().profile, intent: 'relative-black' });
  const shifted = (lab: Float64Array, change: (row: number, axis: number) => number): Float64Array =>
    lab.map((value, i) => value + change(Math.floor(i / 3), i % 3));

  it('is no paper by a white that differs a little, and one by a white that differs more', () => {
    const [{ lab }] = right();
    // All colours take on the tint of the paper: b* by so much.
    const tinted = (by: number): ChainFinding =>
      chainCause(
        shifted(lab, (_, axis) => (axis === 2 ? by : 0)),
        right(),
        whites,
      );
    expect(tinted(0.8)).toMatchObject({ cause: 'right' });
    expect(tinted(0.8).white).toBeLessThan(1);
    expect(tinted(1.6)).toMatchObject({ cause: 'paper' });
    expect(tinted(1.6).white).toBeGreaterThan(1);
  });

  it('is nothing where a device has moved by a little, and unknown where a sheet is like none', () => {
    const [{ lab }] = right();
    const darker = (by: number): ChainFinding =>
      chainCause(
        shifted(lab, (row, axis) => (axis === 0 && !whites.includes(row) ? -by : 0)),
        right(),
        whites,
      );
    expect(darker(1)).toMatchObject({ cause: 'right' });
    const far = darker(9);
    expect(far).toMatchObject({ cause: 'unknown', says: [] });
    expect(chainSentence(far)).toContain('nothing that is known explains it');
  });

  it('is nearer to another way than half, else it is the right one', () => {
    const all = right();
    const [{ lab }] = all;
    const other = all.find(({ says }) => says.includes('absolute'));
    if (other === undefined) throw new Error('no absolute way');
    const between = (share: number): string =>
      chainCause(
        lab.map((value, i) => value + share * (other.lab[i] - value)),
        all,
        whites,
      ).cause;
    expect(between(0.9)).toBe('intent');
    expect(between(0.3)).toBe('right');
  });

  it('wants the right way among the ways', () => {
    expect(() => chainCause(new Float64Array(3), [], [0])).toThrow(RangeError);
  });
});

function wrenModelOf(stock: Parameters<typeof wrenTruthXyz>[0]): IccProfile {
  const { model, device } = wrenModel(300, stock);
  return unwrap(readIcc(wrenProfileBytes(4, { model, device, xyz: wrenTruthXyz(stock, 'fine', device) })));
}
