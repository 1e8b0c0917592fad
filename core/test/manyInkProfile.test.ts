import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fitInks, inkModelLab } from '@melto/core/characterise/inkModel';
import type { InkModel } from '@melto/core/characterise/inkModel';
import { expectedExtraInks, makeManyInkChart } from '@melto/core/charts/manyInkChart';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { measuredLabRows } from '@melto/core/colour/measuredLabRows';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { deviceToLab, labToDevice } from '@melto/core/icc/profileTransform';
import type { IccProfile, IccTag } from '@melto/core/icc/iccTypes';
import { readIcc } from '@melto/core/icc/readIcc';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { deviceLink } from '@melto/core/link/deviceLink';
import type { LinkChoice } from '@melto/core/link/deviceLink';
import { createRandom } from '@melto/core/numerics/random';
import { summariseErrors } from '@melto/core/numerics/statistics';
import { inspectProfile } from '@melto/core/profile/inspectProfile';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { unwrap } from '@melto/core/result';
import { inkFamilies } from '@melto/core/separate/extraInks';
import { placedSeparation, separationIssue } from '@melto/core/separate/placedSeparation';
import { separationOf } from '@melto/core/separate/separation';
import { inkProcess } from '@melto/core/device/process';
import { conversion } from '@melto/core/transform/conversion';
import { transformed } from '@melto/core/transform/transform';
import { deviceTruthXyz } from '@melto/simulator/deviceTruth';
import { simulatedDevice } from '@melto/simulator/devices';
import { transicc } from './transicc.ts';

const TOTAL_INK = 2.8;
const PAIR = { inks: [0, 4] as const, most: 1.2 };
const GREEN = { ink: 5, most: 0.85 };
const tern = simulatedDevice('tern');
const { process } = tern;
const extra = expectedExtraInks(process);
const truth = (device: ArrayLike<number>): Float64Array =>
  deviceTruthXyz(tern, 'quay-proof-200', 'fine', device);
let folder = '';
let path = '';
let model: Parameters<typeof buildInkProfile>[0];
let profile: IccProfile;

/** Values that a separation may use, under the limits. */
function separable(count: number, seed: number): Float64Array {
  const random = createRandom(seed);
  const families = inkFamilies(extra);
  const out = new Float64Array(count * 6);
  for (let i = 0; i < count;) {
    const values = new Array<number>(6).fill(0);
    for (const ink of families[i % families.length])
      values[ink] = random.uniform() < 0.3 ? 0 : random.uniform() ** (ink === 3 ? 2 : 1);
    const total = values.reduce((sum, value) => sum + value, 0);
    if (total > TOTAL_INK || values[5] > GREEN.most || values[0] + values[4] > PAIR.most) continue;
    out.set(values, 6 * i++);
  }
  return out;
}

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'melto-six-'));
  const { device } = makeManyInkChart(600, 3, 6, extra, TOTAL_INK);
  const xyz = truth(device);
  const paperXyz = meanPaperXyz(process, device, xyz);
  if (paperXyz === undefined) throw new Error('no paper');
  model = {
    ...fitInks(device, 6, xyz),
    crossValidation: undefined as unknown as InkModel['crossValidation'],
    committee: [],
  };
  const built = buildInkProfile(model, {
    ...{ version: 4, tableSize: 'small', description: 'six', copyright: '', createdMs: 0, paperXyz, process },
    separation: {
      ...separationOf('medium', TOTAL_INK, 6),
      inkLimits: [1, 1, 1, 1, 1, GREEN.most],
      pairLimits: [PAIR],
    },
  });
  path = join(folder, 'six.icc');
  const bytes = writeIcc(built.profile);
  writeFileSync(path, bytes);
  profile = unwrap(readIcc(bytes));
});

afterAll(() => rmSync(folder, { recursive: true }));

describe('a profile of six inks', () => {
  it('is of a model that knows what was not printed, overprints of no chart included', () => {
    const probes = separable(2000, 8);
    const predicted = new Float64Array(6000);
    inkModelLab(model, probes, predicted);
    const { mean, p95 } = summariseErrors(deltaE2000Rows(measuredLabRows(truth(probes)), predicted));
    expect(mean).toBeLessThan(0.35);
    expect(p95).toBeLessThan(0.9);
    // Orange on green is on no chart: it is told from the two, darker than both.
    const three = new Float64Array(9);
    inkModelLab(model, [0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 1], three);
    expect(three[6]).toBeLessThan(Math.min(three[0], three[3]) - 5);
    expect(three[6]).toBeGreaterThan(5);
  });

  it('prints what is asked through the file by LittleCMS, and says the inks by their names', () => {
    const probes = separable(3000, 9);
    const asked = measuredLabRows(truth(probes));
    const inks = transicc(asked, 3, ['-t3', '-i*Lab', `-o${path}`]).map((value) => value / 100);
    const printed = measuredLabRows(truth(inks));
    const { mean, p95 } = summariseErrors(deltaE2000Rows(asked, printed));
    expect(mean).toBeLessThan(0.6);
    expect(p95).toBeLessThan(1.8);
    const predicted = transicc(
      probes.map((value) => 100 * value),
      6,
      ['-t3', `-i${path}`, '-o*Lab'],
    );
    const forward = summariseErrors(deltaE2000Rows(asked, predicted));
    expect(forward.mean).toBeLessThan(0.6);
    // Our own engine reads the table as LittleCMS does.
    const own = new Float64Array(asked.length);
    unwrap(deviceToLab(profile, 'absolute')).apply(probes, own);
    expect(summariseErrors(deltaE2000Rows(predicted, own)).largest).toBeLessThan(0.05);
    expect(profile.header.colourSpace).toBe('6CLR');
    const colorants = profile.tags.get('clrt');
    expect(colorants?.type === 'clrt' && colorants.colorants.map(({ name }) => name)).toEqual([
      ...['Cyan', 'Magenta', 'Yellow', 'Black', 'Orange', 'Green'],
    ]);
  });

  it('is inspected by what its own tables print, of which combinations that it leaves out are none', () => {
    const { roundTrip, remarks, channels } = inspectProfile(profile);
    expect(channels.slice(4)).toEqual(['orange', 'green']);
    expect(roundTrip?.p95).toBeLessThan(1.5);
    expect(remarks.filter((words) => words.includes('fit each other'))).toEqual([]);
    // Tables that do not fit are found all the same: perceptual ones in the place of colorimetric ones.
    const tags = new Map(profile.tags);
    tags.set('B2A1', profile.tags.get('B2A0') as IccTag);
    expect(inspectProfile({ ...profile, tags }).remarks.join()).toContain('do not fit each other');
  });

  it('keeps every limit to a tenth of a point, of inks, pairs and the sum, in all intents', () => {
    const random = createRandom(12);
    const asked = Float64Array.from({ length: 3 * 20_000 }, (_, i) =>
      i % 3 === 0 ? 100 * random.uniform() : 240 * random.uniform() - 120,
    );
    for (const intent of ['relative', 'perceptual', 'saturation'] as const) {
      const inks = new Float64Array(6 * 20_000);
      unwrap(labToDevice(profile, intent)).apply(asked, inks);
      let [total, green, pair, apart] = [0, 0, 0, 0];
      for (let i = 0; i < inks.length; i += 6) {
        const row = inks.subarray(i, i + 6);
        total = Math.max(
          total,
          row.reduce((sum, value) => sum + value, 0),
        );
        green = Math.max(green, row[GREEN.ink]);
        pair = Math.max(pair, row[PAIR.inks[0]] + row[PAIR.inks[1]]);
        apart = Math.max(apart, Math.min(row[4], row[5]));
      }
      expect(total).toBeLessThan(TOTAL_INK + 0.001);
      expect(total).toBeGreaterThan(TOTAL_INK - 0.05);
      expect(green).toBeLessThan(GREEN.most + 0.001);
      expect(green).toBeGreaterThan(GREEN.most - 0.05);
      expect(pair).toBeLessThan(PAIR.most + 0.001);
      // Only between nodes on two sides of yellow do the two meet, and barely.
      expect(apart).toBeLessThan(0.25);
    }
  });

  it('makes greys of C, M, Y, K alone, black rising, and vivid oranges and greens with their inks', () => {
    const asked = new Float64Array(3 * 101);
    for (let i = 0; i <= 100; i++) asked[3 * i] = i;
    const inks = new Float64Array(6 * 101);
    const toDevice = unwrap(labToDevice(profile, 'relative'));
    toDevice.apply(asked, inks);
    for (let i = 0; i <= 100; i++) {
      expect(inks[6 * i + 4]).toBeLessThan(1e-4);
      expect(inks[6 * i + 5]).toBeLessThan(1e-4);
      if (i > 0) expect(inks[6 * i + 3]).toBeLessThanOrEqual(inks[6 * i - 3] + 0.002);
    }
    const orange = new Float64Array(6);
    toDevice.apply([65, 60, 70], orange);
    expect(orange[4]).toBeGreaterThan(0.6);
    expect(orange[5]).toBe(0);
    const green = new Float64Array(6);
    toDevice.apply([60, -65, 35], green);
    expect(green[5]).toBeGreaterThan(0.6);
    expect(green[4]).toBe(0);
  });

  it('is refused for a separation or a process of another number of inks', () => {
    const about = { version: 2, tableSize: 'small', description: '', copyright: '', createdMs: 0 } as const;
    const paperXyz = [80, 85, 70] as const;
    expect(() =>
      buildInkProfile(model, { ...about, paperXyz, process, separation: separationOf('medium', 3) }),
    ).toThrow('limits of 4 inks for a table of 6');
    expect(() =>
      buildInkProfile(model, { ...about, paperXyz, separation: separationOf('medium', 3, 6) }),
    ).toThrow('a model of 6 inks for CMYK');
  });

  it('needs patches of what its inks are to print together, as they turned out by their colours', () => {
    expect(separationIssue(model, process)).toBeUndefined();
    const [yellow, orange] = [2, 4];
    // Only so many patches keep orange beside yellow.
    const holding = (most: number): typeof model => {
      let kept = 0;
      const device = model.patches.device.slice();
      for (let at = 0; at < device.length; at += 6)
        if (device[at + yellow] > 0 && device[at + orange] > 0 && ++kept > most) device[at + orange] = 0;
      return { ...model, patches: { ...model.patches, device } };
    };
    expect(separationIssue(holding(6), process)).toBeUndefined();
    expect(separationIssue(holding(5), process)).toBe(
      'O has its place between M and Y by its colour, and hardly a patch has it beside Y: the chart is of other inks',
    );
    expect(() => placedSeparation(holding(5), process, separationOf('medium', 3, 6))).toThrow(
      'of other inks',
    );
    expect(separationIssue(model, inkProcess(['C', 'M', 'Y', 'O', 'G', 'V']))).toContain(
      'not all of C, M, Y and K',
    );
  });
});

describe('device links of six inks', () => {
  const choice: LinkChoice = {
    intent: 'relative',
    ...{ blackPoint: false, keepBlack: true, keepInks: true, description: 'six', createdMs: 0 },
  };
  /** Rows of six through a link, by LittleCMS. */
  const through = (link: IccProfile, rows: Float64Array, width = 6): Float64Array => {
    const file = join(folder, 'link.icc');
    writeFileSync(file, writeIcc(link));
    return transicc(
      rows.map((value) => 100 * value),
      width,
      [`-l${file}`],
    ).map((value) => value / 100);
  };
  const alone = (ink: number, tones: readonly number[]): Float64Array =>
    Float64Array.from(tones.flatMap((tone) => [0, 1, 2, 3, 4, 5].map((own) => (own === ink ? tone : 0))));

  it('keep black and each named ink alone, read by LittleCMS, with the inks of both sides named', () => {
    const link = unwrap(deviceLink(profile, profile, choice));
    expect(link.header).toMatchObject({ deviceClass: 'link', colourSpace: '6CLR', pcs: '6CLR' });
    for (const tag of ['clrt', 'clot'] as const) expect(link.tags.get(tag)).toEqual(profile.tags.get('clrt'));
    for (let ink = 0; ink < 6; ink++) {
      const rows = alone(ink, [0, 0.13, 0.5, 0.77, 1]);
      const out = through(link, rows);
      // To itself an ink keeps its tone, to a point between the points of the table.
      rows.forEach((value, i) => expect(Math.abs(out[i] - value)).toBeLessThan(0.01));
    }
    // Not asked to stay, orange and black go the way of the profile.
    const free = unwrap(deviceLink(profile, profile, { ...choice, keepBlack: false, keepInks: false }));
    expect(Math.max(...through(free, alone(3, [1])).subarray(0, 3))).toBeGreaterThan(0.1);
  });

  it('go the way of both profiles where nothing is kept, under the limit that is asked for', () => {
    const link = unwrap(deviceLink(profile, profile, { ...choice, keepBlack: false, keepInks: false }));
    const rows = separable(800, 21);
    const exact = transformed(unwrap(conversion({ from: profile, to: profile, intent: 'relative' })), rows);
    const labOf = (inks: Float64Array): Float64Array =>
      transformed(unwrap(deviceToLab(profile, 'relative')), inks);
    const linked = through(link, rows);
    const { mean, p95 } = summariseErrors(deltaE2000Rows(labOf(exact), labOf(linked)));
    expect(mean).toBeLessThan(0.5);
    expect(p95).toBeLessThan(1.5);
    const less = through(unwrap(deviceLink(profile, profile, { ...choice, totalInk: 2 })), rows);
    for (let at = 0; at < less.length; at += 6)
      expect(less.subarray(at, at + 6).reduce((a, b) => a + b, 0)).toBeLessThan(2.001);
    expect(deviceLink(profile, profile, { ...choice, totalInk: 6 }).ok).toBe(true);
    expect(deviceLink(profile, profile, { ...choice, totalInk: 6.1 }).ok).toBe(false);
  });

  it('are refused for other spaces, and keep no ink whose name is not told', () => {
    const nine = { ...profile, header: { ...profile.header, colourSpace: '9CLR' } };
    const refused = deviceLink(profile, nine, choice);
    expect(!refused.ok && refused.issues[0]).toMatchObject({ path: 'to', found: '9CLR' });
    const tags = new Map(profile.tags);
    tags.delete('clrt');
    const unnamed = deviceLink(profile, { ...profile, tags }, choice);
    expect(!unnamed.ok && unnamed.issues[0]).toMatchObject({
      code: 'link.names',
      found: '6CLR without names',
    });
    const free = { ...choice, keepBlack: false, keepInks: false };
    expect(unwrap(deviceLink({ ...profile, tags }, profile, free)).tags.has('clrt')).toBe(false);
    const colorants = profile.tags.get('clrt');
    if (colorants?.type !== 'clrt') throw new Error('no names');
    const other = new Map(profile.tags).set('clrt', {
      ...colorants,
      colorants: colorants.colorants.map((one, i) => (i === 3 ? { ...one, name: 'Violet' } : one)),
    });
    const none = deviceLink(profile, { ...profile, tags: other }, choice);
    expect(!none.ok && none.issues[0].code).toBe('link.black');
  });
});
