import { spawnSync } from 'node:child_process';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { unwrap } from '@melto/core/result';
import { transicc } from '../../core/test/transicc.ts';
import { samplePressProfile } from '@melto/core/icc/testing/samplePressProfile';
import { REFERENCE_COLOURS } from '@melto/core/eye/referenceColours';
import { readIcc } from '@melto/core/icc/readIcc';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { melto } from './testing/melto.ts';
import type { Said } from './testing/melto.ts';

const ROOT = join(import.meta.dirname, '../..');
let folder = '';
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'melto-cli-'));
  vi.stubEnv('MELTO_ROOT', ROOT);
  process.chdir(folder);
});
afterAll(() => {
  process.chdir(ROOT);
  vi.unstubAllEnvs();
  rmSync(folder, { recursive: true });
});

describe('melto', () => {
  it('goes from a chart to a profile and looks into it', async () => {
    expect(
      await melto('chart', 'make', '--process', 'rgb', '--patches', '150', '--out', 'c.txt'),
    ).toMatchObject({
      status: 0,
      err: '',
    });
    const pages = await melto('chart', 'pages', 'c.txt', '--pdf', 'c.pdf', '--tiff', 'c.tif', '--json');
    expect(JSON.parse(pages.out)).toEqual({ pages: 1, written: ['c.pdf', 'c.tif'] });
    expect(readFileSync(join(folder, 'c.pdf'), 'latin1').startsWith('%PDF')).toBe(true);
    expect(
      (
        await melto(
          'simulate',
          'read',
          '--device',
          'wren',
          '--stock',
          'chalk-rag-310',
          '--chart',
          'c.txt',
          '--seed',
          '7',
          '--out',
          'm.txt',
        )
      ).status,
    ).toBe(0);
    const built = await melto(
      'profile',
      'build',
      '--measured',
      'm.txt',
      '--out',
      'p.icc',
      '--icc',
      '2',
      '--tables',
      'small',
      '--report',
      'r.json',
      '--json',
    );
    expect(built.status).toBe(0);
    expect(JSON.parse(built.out).summary.mean).toBeLessThan(1.2);
    expect(JSON.parse(readFileSync(join(folder, 'r.json'), 'utf8')).worst).toHaveLength(12);
    const inspected = JSON.parse((await melto('profile', 'inspect', 'p.icc', '--json')).out) as {
      version: string;
      tags: { signature: string }[];
    };
    expect(inspected.version).toBe('2.4');
    expect(inspected.tags.map(({ signature }) => signature)).toEqual(
      expect.arrayContaining(['A2B0', 'A2B1', 'A2B2', 'B2A0', 'B2A1', 'B2A2', 'gamt', 'wtpt', 'targ']),
    );
    // The same seed reads the same numbers; what convert writes is what it reads.
    await melto(
      'simulate',
      'read',
      '--device',
      'wren',
      '--stock',
      'chalk-rag-310',
      '--chart',
      'c.txt',
      '--seed',
      '7',
      '--out',
      'm2.txt',
    );
    expect(readFileSync(join(folder, 'm2.txt'), 'utf8')).toBe(readFileSync(join(folder, 'm.txt'), 'utf8'));
    expect((await melto('convert', 'm.txt', 'm3.txt')).status).toBe(0);
    expect(readFileSync(join(folder, 'm3.txt'), 'utf8')).toBe(readFileSync(join(folder, 'm.txt'), 'utf8'));
  });

  it('tells what lights are like, and builds for one with a share of ultraviolet', async () => {
    const rows = Array.from({ length: 41 }, (_, i) => `${380 + 10 * i},${1 + i}`);
    writeFileSync(join(folder, 'warm.csv'), ['nm,Warm wall', ...rows].join('\n'));
    const { out } = await melto('light', 'F2', 'warm.csv');
    expect(out).toContain(
      'F2; x 0.3721 y 0.3751; 4225 K, Duv 0.0018; Ra 64.2 (R1 to R14: 56 77 90 57 59 67 74 33 -84',
    );
    expect(out).toContain('Warm wall; ');
    expect(out).toContain('ultraviolet not shown');
    const read = async (mode: string, file: string): Promise<void> => {
      const { status } = await melto(
        ...['simulate', 'read', '--device', 'wren', '--stock', 'lantern-gloss-150', '--chart', 'c.txt'],
        ...['--seed', '7', '--mode', mode, '--out', file],
      );
      expect(status).toBe(0);
    };
    await read('m1', 'lit.txt');
    await read('m2', 'dark.txt');
    const build = ['profile', 'build', '--measured', 'lit.txt', '--tables', 'small', '--out', 'own.icc'];
    const tagOf = async (name: 'wtpt' | 'chad', ...more: readonly string[]): Promise<number[]> => {
      const { status, err } = await melto(...build, ...more);
      expect(status, err).toBe(0);
      const profile = unwrap(readIcc(readFileSync(join(folder, 'own.icc'))));
      const tag = profile.tags.get(name);
      return tag?.type === 'XYZ' ? [...tag.values[0]] : tag?.type === 'sf32' ? [...tag.values] : [];
    };
    const whiteOf = (...more: readonly string[]): Promise<number[]> => tagOf('wtpt', ...more);
    const plain = await whiteOf();
    const lit = await whiteOf('--without-uv', 'dark.txt', '--uv', '1');
    const dark = await whiteOf('--without-uv', 'dark.txt', '--uv', '0');
    lit.forEach((value, axis) => expect(value).toBeCloseTo(plain[axis], 4));
    // Blue is what a brightener adds.
    expect(dark[2]).toBeLessThan(lit[2] - 0.02);
    expect(await tagOf('chad')).toEqual([1, 0, 0, 0, 1, 0, 0, 0, 1]);
    // From a warm light to D50 blue is raised.
    expect((await tagOf('chad', '--light', 'warm.csv', '--observer', '10'))[8]).toBeGreaterThan(1.2);
    // A study: what is neutral in D50 is picked, so all of its ultraviolet acts.
    await whiteOf();
    const page = await melto('study', 'page', '--profile', 'own.icc', '--out', 'greys.pdf');
    expect(page.status, page.err).toBe(0);
    expect(readFileSync(join(folder, 'greys.pdf')).subarray(0, 5).toString()).toBe('%PDF-');
    const tell = async (picks: string, ...more: readonly string[]) => {
      writeFileSync(join(folder, 'picks.csv'), picks);
      return melto(
        ...['study', 'tell', 'picks.csv', '--profile', 'own.icc', '--measured', 'lit.txt'],
        ...['--without-uv', 'dark.txt', '--light', 'D50', ...more],
      );
    };
    const rounds = (field: number, eye = ''): string =>
      Array.from({ length: 4 }, () => ['A', 'B', 'C'].map((row) => `${row},${field}${eye}`))
        .flat()
        .join('\n');
    const told = JSON.parse((await tell(rounds(12), '--json')).out);
    expect(told.tells).toBe(true);
    expect(Math.abs(told.share - 1)).toBeLessThan(0.15);
    const bluer = JSON.parse((await tell(`${rounds(9)}\n${rounds(9, ',2')}`, '--json')).out);
    expect(bluer.share).toBeLessThan(told.share - 0.15);
    expect((await tell('A,12\nE,3')).err).toContain('picks.csv: line 2');
    expect((await tell(rounds(12), '--without-uv', 'c.txt')).err).toContain('c.txt');
    // An eye's check: all the same is printed as it should be; all lighter and duller wants ink.
    const sheet = await melto('eye', 'page', '--profile', 'own.icc', '--out', 'eye.pdf', '--json');
    expect(sheet.status, sheet.err).toBe(0);
    const { colours: names } = JSON.parse(sheet.out);
    expect(names).toHaveLength(REFERENCE_COLOURS.length);
    const look = async (said: (name: string, i: number) => string, ...more: readonly string[]) => {
      writeFileSync(join(folder, 'notes.txt'), names.map(said).join('\n'));
      return melto(...['eye', 'tell', 'notes.txt', '--profile', 'own.icc', ...more]);
    };
    const same = await look((name) => `${name}: same`, '--measured', 'lit.txt', '--without-uv', 'dark.txt');
    expect(same.out).toContain('printed as it should be');
    const pale = await look((_, i) => `${i + 1}: lighter duller`, '--json');
    expect(JSON.parse(pale.out).points[0].cause).toBe('ink');
    expect((await look(() => '1: odd')).err).toContain('notes.txt: line 1');
    expect((await look((name) => `${name}: same`, '--without-uv', 'dark.txt')).err).toContain(
      'no --measured',
    );
    for (const [more, words] of [
      [['--uv', '0.5'], '--without-uv and --uv belong together'],
      [['--without-uv', 'dark.txt', '--uv', '1.3'], 'found 1.3, expected 0 to 1.2'],
      [['--light', 'none.csv'], 'neither a standard light'],
      [['--observer', '5'], '--observer'],
      [['--without-uv', 'c.txt', '--uv', '1'], 'c.txt'],
    ] as const) {
      const { status, err } = await melto(...build, ...more);
      expect(status).not.toBe(0);
      expect(err).toContain(words);
    }
  });

  it('builds from another program’s file: per cent, Lab only, no layout', async () => {
    const rows: string[] = [];
    for (let i = 0; i < 6; i++)
      for (let j = 0; j < 6; j++)
        for (let k = 0; k < 6; k++)
          rows.push(
            `${i}${j}${k} ${i * 20} ${j * 20} ${k * 20} ${10 + 5 * (i + j + k) + i} ${8 * (i - j)} ${8 * (j - k)}`,
          );
    writeFileSync(
      join(folder, 'foreign.txt'),
      `Some data\r\nNUMBER_OF_SETS ${rows.length}\r\nBEGIN_DATA_FORMAT\r\nSampleID RGB_R RGB_G RGB_B LAB_L LAB_A LAB_B\r\nEND_DATA_FORMAT\r\nBEGIN_DATA\r\n${rows.join('\r\n')}\r\nEND_DATA\r\n`,
    );
    const built = await melto(
      'profile',
      'build',
      '--measured',
      'foreign.txt',
      '--out',
      'f.icc',
      '--tables',
      'small',
    );
    expect(built.status).toBe(0);
    expect(built.err).toContain('(foreign.txt: RGB values count from 0 to 100.)');
    expect(built.err).toContain('taken for D50 and the 2° observer');
  });

  it.each([
    [['chart', 'make', '--process', 'rgb', '--patches', '5', '--out', 'x'], '--patches: found "5"'],
    [['chart', 'make', '--process', 'rgb'], "required option '--out"],
    [['profile', 'build', '--measured', 'none.txt', '--out', 'x'], 'none.txt: cannot be read'],
    [['profile', 'inspect', 'c.txt'], 'c.txt: '],
    [
      ['simulate', 'read', '--device', 'plover', '--stock', 'x', '--chart', 'c.txt', '--out', 'x'],
      '--device: found "plover"',
    ],
    [['nonsense'], "unknown command 'nonsense'"],
  ])('%j is refused in one line with exit code 2', async (args, words) => {
    const { status, err } = await melto(...args);
    expect(status).toBe(2);
    expect(err).toContain(words);
    expect(
      err
        .trim()
        .split('\n')
        .filter((line) => !line.startsWith('(')).length,
    ).toBe(1);
  });

  it('names the line of a damaged file', async () => {
    writeFileSync(
      join(folder, 'bad.txt'),
      'CGATS.17\nBEGIN_DATA_FORMAT\nRGB_R RGB_G RGB_B LAB_L\nEND_DATA_FORMAT\nBEGIN_DATA\n1 2 3 x\nEND_DATA\n',
    );
    const { status, err } = await melto('profile', 'build', '--measured', 'bad.txt', '--out', 'x');
    expect(status).toBe(2);
    expect(err).toContain('line 6: found LAB_L is x');
  });

  it('brings a press to a known state', async () => {
    const read = async (chart: string, seed: number, out: string, ...more: string[]): Promise<void> =>
      expect(
        await melto(
          'simulate',
          'read',
          '--device',
          'heron',
          '--stock',
          'lantern-gloss-150',
          '--chart',
          chart,
          '--seed',
          String(seed),
          '--out',
          out,
          ...more,
        ),
      ).toMatchObject({ status: 0, err: '' });
    expect(
      (await melto('chart', 'make', '--process', 'cmyk', '--kind', 'ramps', '--out', 'ramps.txt')).status,
    ).toBe(0);
    expect(
      (await melto('chart', 'make', '--process', 'cmyk', '--kind', 'near-neutral', '--out', 'greys.txt'))
        .status,
    ).toBe(0);
    expect(
      (await melto('chart', 'pages', 'ramps.txt', '--pdf', 'ramps.pdf', '--tiff', 'ramps.tif')).status,
    ).toBe(0);
    await read('ramps.txt', 1, 'm1.txt');
    const first = await melto(
      'curves',
      'linearise',
      '--measured',
      'm1.txt',
      '--out',
      'c1.csv',
      '--link',
      'c1.icc',
      '--within',
      '1.5',
      '--json',
    );
    expect(first.status).toBe(1);
    expect(JSON.parse(first.out).largest).toBeGreaterThan(5);
    expect(JSON.parse((await melto('profile', 'inspect', 'c1.icc', '--json')).out)).toMatchObject({
      class: 'link',
    });
    await read('greys.txt', 2, 'm2.txt', '--curves', 'c1.csv');
    expect((await melto('curves', 'balance', '--measured', 'm2.txt', '--curves', 'c1.csv')).status).toBe(1);
    expect(
      (await melto('curves', 'balance', '--measured', 'm2.txt', '--curves', 'c1.csv', '--out', 'c2.csv'))
        .status,
    ).toBe(0);
    await read('greys.txt', 3, 'm3.txt', '--curves', 'c2.csv');
    const reached = await melto('curves', 'balance', '--measured', 'm3.txt', '--curves', 'c2.csv', '--json');
    expect(JSON.parse(reached.out)).toMatchObject({ verdict: 'conforms', extrapolated: false });
  });

  it('profiles a press', async () => {
    expect(
      await melto('chart', 'make', '--process', 'cmyk', '--patches', '300', '--out', 'p.txt'),
    ).toMatchObject({
      status: 0,
      err: '',
    });
    await melto(
      'simulate',
      'read',
      '--device',
      'osprey',
      '--stock',
      'marsh-silk-130',
      '--chart',
      'p.txt',
      '--out',
      'pm.txt',
    );
    const built = await melto(
      'profile',
      'build',
      '--measured',
      'pm.txt',
      '--out',
      'press.icc',
      '--tables',
      'small',
      '--black',
      'heavy',
      '--tac',
      '280',
      '--json',
    );
    expect(built).toMatchObject({ status: 0, err: '' });
    const report = JSON.parse(built.out);
    expect(report.totalInk).toBeLessThanOrEqual(2.801);
    expect(report.summary.mean).toBeLessThan(1.2);
    expect(JSON.parse((await melto('profile', 'inspect', 'press.icc', '--json')).out)).toMatchObject({
      class: 'prtr',
      version: '4.4',
    });
    const same = JSON.parse((await melto('profile', 'compare', 'press.icc', 'press.icc', '--json')).out);
    expect(same.difference.largest).toBe(0);
    expect(same.a.totalInk).toBeLessThanOrEqual(2.801);
    expect(same.a.fit.mean).toBeLessThan(report.summary.mean);
    expect(same.a.blackDevice[3]).toBeGreaterThan(0.95);
    const other = await melto('profile', 'compare', 'press.icc', 'p.icc');
    expect(other.status).toBe(0);
    expect(other.out).toContain('different channels');
  });

  it('refines a profile: colours of a list come out nearer, and it says what it cannot read', async () => {
    writeFileSync(join(folder, 'house.csv'), 'name,L,a,b\nSeed red,46,58,34\nTide blue,38,0,-34\n');
    const chart = await melto(
      ...['chart', 'refine', '--measured', 'pm.txt', '--profile', 'press.icc', '--colours', 'house.csv'],
      ...['--unsure', '10', '--readings', '2', '--out', 'more.txt', '--json'],
    );
    expect(chart).toMatchObject({ status: 0, err: '' });
    expect(JSON.parse(chart.out).patches).toBeGreaterThanOrEqual(6 + 14 + 4 + 10);
    const read = ['simulate', 'read', '--device', 'osprey', '--stock', 'marsh-silk-130', '--seed', '3'];
    expect((await melto(...read, '--chart', 'more.txt', '--out', 'more-m.txt')).status).toBe(0);
    const build = ['profile', 'build', '--measured', 'pm.txt', '--tables', 'small', '--out', 'more.icc'];
    const built = await melto(
      ...build,
      '--added',
      'more-m.txt',
      '--colours',
      'house.csv',
      '--black-shape',
      '2',
    );
    expect(built).toMatchObject({ status: 0, err: '' });
    const inspected = JSON.parse((await melto('profile', 'compare', 'press.icc', 'more.icc', '--json')).out);
    expect(inspected.difference.mean).toBeGreaterThan(0);
    writeFileSync(join(folder, 'bad.csv'), 'name,L,a,b\nred,x,1,2\n');
    for (const [args, words] of [
      [[...build, '--colours', 'bad.csv'], 'bad.csv: line 2'],
      [[...build, '--ink-limits', '100,90'], 'per cent for C,M,Y,K'],
      [[...build, '--black-shape', '9'], 'expected a number from 0.3 to 5'],
    ] as const) {
      const { status, err } = await melto(...args);
      expect(status).toBe(2);
      expect(err).toContain(words);
    }
  });

  it('compares gamuts, ranks devices by a list, and links two of them', async () => {
    const gamut = JSON.parse(
      (await melto('gamut', '/usr/share/color/icc/sRGB.icc', 'press.icc', '--json')).out,
    );
    expect(gamut.a.volume / 832_000).toBeCloseTo(1, 2);
    expect(gamut.b).toMatchObject({ white: 'paper' });
    expect(gamut.shared).toBeLessThan(gamut.b.volume);
    expect(gamut.sectors).toHaveLength(12);
    // The reading that it was built from has the same body, but for the inks over the limit that a chart has.
    const measured = JSON.parse((await melto('gamut', 'pm.txt', 'press.icc', '--json')).out);
    expect(measured.a).toMatchObject({ white: 'paper' });
    expect(measured.a.patches).toBeGreaterThan(150);
    expect(measured.a.volume / measured.b.volume).toBeGreaterThan(0.98);
    expect(measured.a.volume / measured.b.volume).toBeLessThan(1.03);
    expect(measured.shared / measured.b.volume).toBeGreaterThan(0.98);
    const said = await melto('gamut', 'press.icc', 'press.icc');
    expect(said.out).toContain('press.icc holds no colour that press.icc does not.');

    const { ranked } = JSON.parse(
      (await melto('rank', '--colours', 'house.csv', '--profiles', 'p.icc', 'press.icc', '--json')).out,
    );
    expect(ranked.map(({ mean }: { mean: number }) => mean)).toEqual(
      [...ranked.map(({ mean }: { mean: number }) => mean)].sort((a: number, b: number) => a - b),
    );
    expect(ranked[0].worst.length).toBeGreaterThan(0);

    const on = ['colours', 'house.csv', '--profile'];
    const { colours } = JSON.parse(
      (await melto(...on, 'press.icc', '--recipes', '--report', 'list.html', '--json')).out,
    );
    expect(readFileSync(join(folder, 'list.html'), 'utf8')).toContain(`${colours[0].name}</td>`);
    for (const { deltaE, reached, tints, recipes } of colours) {
      expect(reached).toBe(deltaE <= 1 ? 'yes' : deltaE <= 3 ? 'nearly' : 'no');
      expect(tints.map(({ share }: { share: number }) => share)).toEqual([0.25, 0.5, 0.75]);
      // What the profile brings near stays as it is; of the rest no recipe is nearer than the nearest.
      for (const recipe of recipes)
        expect(recipe.deltaE).toBeGreaterThan(deltaE > 0.4 ? deltaE - 0.1 : -1e-9);
      expect(recipes.length).toBeGreaterThan(0);
    }
    expect((await melto(...on, 'press.icc')).out).toContain(`${colours[0].name}: `);

    const way = ['link', '--from', 'press.icc', '--to', 'more.icc', '--out', 'l.icc'];
    expect((await melto(...way, '--keep', 'black,inks')).out).toContain('keeps black and inks alone');
    // LittleCMS reads it: black stays black.
    const black = transicc(Float64Array.of(0, 0, 0, 100), 4, [`-l${join(folder, 'l.icc')}`]);
    expect([...black]).toEqual([0, 0, 0, 100]);
    const data = await melto('profile', 'inspect', 'press.icc', '--data', 'carried.txt');
    expect(data.out).toContain('carries its characterisation data');
    expect(readFileSync(join(folder, 'carried.txt'), 'utf8')).toContain('BEGIN_DATA');
    expect((await melto('profile', 'version', 'press.icc', '--out', 'other.icc')).out).toContain(
      'version 2,',
    );
    const other = JSON.parse((await melto('profile', 'compare', 'press.icc', 'other.icc', '--json')).out);
    expect(other.difference.largest).toBeLessThan(0.01);
    for (const [args, words] of [
      [['profile', 'version', 'l.icc', '--out', 'x.icc'], 'expected an output profile of Lab'],
      [[...way, '--keep', 'white'], '--keep: found "white"'],
      [[...way, '--total-ink', 'all'], '--total-ink: found "all"'],
      [[...way, '--total-ink', '90'], 'total ink: found 90 %'],
      [['link', '--from', 'p.icc', '--to', 'press.icc', '--out', 'x.icc'], 'from: found RGB'],
      [['gamut', 'press.icc', '/usr/share/color/icc/Gray.icc'], '3 to 8 channels'],
      [['gamut', 'press.icc', 'house.csv'], 'house.csv: '],
      [['rank', '--colours', 'house.csv', '--profiles', 'l.icc'], 'l.icc: it does not lead'],
      [[...on, 'l.icc'], 'l.icc: it does not lead'],
      [[...on, 'p.icc', '--recipes'], 'recipes are for C, M, Y and K, found 3 channels'],
      [[...on, 'p.icc', '--report', 'x.doc'], 'ends in .pdf or .html'],
      [['profile', 'inspect', 'l.icc', '--data', 'x.txt'], 'it carries no characterisation data'],
    ] as const) {
      const { status, err } = await melto(...args);
      expect(err).toContain(words);
      expect(status).toBe(2);
    }
  });

  it('compares papers by one chart on each', async () => {
    const { papers } = JSON.parse((await melto('papers', 'pm.txt', 'pm.txt', '--json')).out);
    expect(papers).toHaveLength(2);
    expect(papers[0].volume).toBeGreaterThan(100_000);
    expect(papers[1].volume).toBe(papers[0].volume);
    expect(papers[0].white[0]).toBeGreaterThan(80);
    expect((await melto('papers', 'pm.txt')).out).toMatch(
      /^pm.txt: white \d.*; Dmax \d\.\d\d, .*lost ΔE00: Seed catalogue \d/,
    );
    const refused = await melto('papers', 'house.csv');
    expect([refused.status, refused.err.includes('house.csv: ')]).toEqual([2, true]);
  });

  it('checks a reading, and its exit code is the verdict', async () => {
    const against = (...args: string[]): Promise<Said> =>
      melto('check', '--measured', 'pm.txt', '--tolerances', 'iso12647-7-proof', ...args);
    // A reading agrees with itself in all that it has patches for.
    const same = JSON.parse((await against('--aims', 'pm.txt', '--json')).out);
    for (const { value, count } of same.metrics) if (count > 0) expect(value).toBeLessThan(1e-9);
    const profile = await against('--aims', 'press.icc', '--json');
    const judged = JSON.parse(profile.out);
    const all = judged.metrics.find(
      ({ group, statistic }: { group: string; statistic: string }) => group === 'all' && statistic === 'mean',
    );
    expect(all.value).toBeGreaterThan(0.1);
    expect(all.value).toBeLessThan(2.5);
    const dark = readFileSync(join(folder, 'pm.txt'), 'utf8');
    writeFileSync(join(folder, 'm2.cgats'), dark.replace(/M1/g, 'M2'));
    const otherwise = await against('--aims', 'm2.cgats');
    expect(otherwise.status).toBe(1);
    expect(otherwise.out).toContain('not judged (');
    expect(otherwise.out).toContain('read in M1, the aims are for M2');
    // A press that nobody made for a published condition, by its name; with its substrate corrected it says so.
    const published = await against('--aims', 'FOGRA39L', '--substrate-corrected');
    expect(published.status).toBe(1);
    expect(published.out).toContain('substrate-corrected; ');
    expect(published.out).toContain('read in M1, the aims do not tell their mode');
    // A published characterisation conforms to itself by its name, which finds it on this machine.
    for (const set of ['iso12647-7-proof', 'iso12647-8-validation', 'iso12647-2-production']) {
      const file = '/usr/share/color/icc/FOGRA39L.ti3';
      const own = await melto('check', '--measured', file, '--aims', 'fogra39l', '--tolerances', set);
      expect(own).toMatchObject({ status: 0 });
      expect(own.out).toMatch(/^conforms \(\d+ patches\)/);
    }
    const said = await against('--aims', 'FOGRA39L', '--aims-mode', 'm1');
    expect(said.out).not.toContain('do not tell their mode');
    expect((await against('--aims', 'FOGRA39L', '--aims-mode', 'M7')).err).toContain(
      '--aims-mode: found "M7"',
    );
    expect((await against('--aims', 'm2.cgats', '--aims-mode', 'M1')).err).toContain('are for M2');
    expect(await against('--aims', 'ramps.txt')).toMatchObject({ status: 2 });
    expect(
      (await melto('check', '--measured', 'pm.txt', '--aims', 'pm.txt', '--tolerances', 'x')).err,
    ).toContain('--tolerances: found "x"');
  });

  it('takes a reading in other forms, and asks what they do not tell', async () => {
    const text = readFileSync(join(folder, 'pm.txt'), 'utf8');
    /** The reading with the ink columns changed. */
    const inks = (change: (value: number) => number): string => {
      const fields = (/BEGIN_DATA_FORMAT\s+(.*)/.exec(text)?.[1] ?? '').split('\t');
      return text.replace(
        /(BEGIN_DATA\n)([\s\S]*)(\nEND_DATA)/,
        (_, begin: string, rows: string, end: string) => {
          const changed = rows.split('\n').map((row) =>
            row
              .split('\t')
              .map((cell, i) =>
                fields[i]?.startsWith('CMYK_') === true ? String(change(Number(cell))) : cell,
              )
              .join('\t'),
          );
          return `${begin}${changed.join('\n')}${end}`;
        },
      );
    };
    const judge = async (name: string, content: string, ...more: string[]) => {
      writeFileSync(join(folder, name), content);
      return melto(
        'check',
        '--measured',
        name,
        '--aims',
        'pm.txt',
        '--tolerances',
        'house-photo',
        '--json',
        ...more,
      );
    };
    for (const scale of [1, 255, 65535]) {
      const { out, err } = await judge(
        'scaled.txt',
        inks((value) => (value / 100) * scale),
      );
      for (const { value, count } of JSON.parse(out).metrics) if (count > 0) expect(value).toBeLessThan(1e-6);
      expect(err).toContain(`CMYK values count from 0 to ${scale}.`);
    }
    const part = inks((value) => 0.9 * value);
    expect((await judge('part.txt', part)).err).toContain('may count to 100 or 255; say --measured-as 100');
    expect((await judge('part.txt', part, '--measured-as', 'M1, 100')).status).not.toBe(2);
    const two = `${text}${text.replace(/M1/g, 'M2')}`;
    expect((await judge('two.txt', two)).err).toContain('found the modes M1, M2; say --measured-as M1');
    expect((await judge('two.txt', two, '--measured-as', 'm1')).status).not.toBe(2);
    expect((await judge('two.txt', two, '--measured-as', 'D50')).err).toContain('--measured-as: found "D50"');
    const doubled = await judge('same.txt', `${text}${text}`);
    expect(doubled.err).toContain('say --measured-as "table 1"');
    expect((await judge('same.txt', `${text}${text}`, '--measured-as', 'table 2')).status).not.toBe(2);
    const light = 'C,M,Y,K,L,a,b\n0,0,0,0,95,0,0\n';
    writeFileSync(join(folder, 'd65.csv'), `Illuminant: D65\n${light}`);
    expect(
      (await melto('check', '--measured', 'd65.csv', '--aims', 'pm.txt', '--tolerances', 'house-photo')).err,
    ).toContain('found colours for D65');
  });

  it('is a program of its own, whose exit code says how it went', () => {
    const start = (...args: string[]) =>
      spawnSync(join(ROOT, 'melto'), args, { cwd: folder, encoding: 'utf8' });
    expect(start('profile', 'compare', 'press.icc', 'press.icc', '--json')).toMatchObject({
      status: 0,
      stderr: '',
    });
    const refused = start('profile', 'inspect', 'none.icc');
    expect(refused).toMatchObject({ status: 2, stdout: '' });
    expect(refused.stderr).toContain('none.icc: cannot be read');
  });

  it.each([
    [['curves', 'balance', '--measured', 'm1.txt'], 'found no near-neutral scales'],
    [['curves', 'linearise', '--measured', 'greys.txt'], 'found no colours'],
    [['curves', 'linearise', '--measured', 'm1.txt', '--curves', 'greys.txt'], 'greys.txt: line'],
    [['curves', 'linearise', '--measured', 'm1.txt', '--limits', '95,100'], '--limits: found "95,100"'],
    [['curves', 'linearise', '--measured', 'm1.txt', '--measure', 'tvi'], '--aim: found ""'],
    [
      ['chart', 'make', '--process', 'cmyk', '--kind', 'ramps', '--steps', '99', '--out', 'x'],
      '--steps: found "99"',
    ],
    [['chart', 'pages', 'ramps.txt', '--png', 'x.png'], 'a chart of inks has no PNG'],
    [
      [
        'simulate',
        'read',
        '--device',
        'wren',
        '--stock',
        'quay-proof-200',
        '--chart',
        'ramps.txt',
        '--out',
        'x',
      ],
      'found CMYK values, expected RGB',
    ],
  ])('%j is refused in one line', async (args, words) => {
    const { status, err } = await melto(...args);
    expect(status).toBe(2);
    expect(err).toContain(words);
    expect(err.trim().split('\n')).toHaveLength(1);
  });

  it('converts values by profiles, black points and curves as LittleCMS does', async () => {
    writeFileSync(join(folder, 'press.icc'), writeIcc(samplePressProfile('coarse press')));
    await melto('chart', 'make', '--process', 'cmyk', '--kind', 'job', '--out', 'asked.txt');
    const convert = (...more: string[]): Promise<Said> =>
      melto('transform', 'asked.txt', '--from', 'press.icc', '--out', 'converted.txt', ...more);
    const asked = unwrap(readPatchSet(readFileSync(join(folder, 'asked.txt'), 'utf8')));
    const rows = (asked.device ?? new Float64Array()).map((value) => 100 * value);
    for (const [options, theirs] of [
      [[], ['-t1']],
      [['--black-point'], ['-t1', '-b']],
      [['--intent', 'absolute'], ['-t3']],
    ] as const) {
      expect(await convert('--to', 'p.icc', ...options)).toMatchObject({ status: 0 });
      const ours = unwrap(readPatchSet(readFileSync(join(folder, 'converted.txt'), 'utf8')));
      const other = transicc(rows, 4, [
        ...theirs,
        `-i${join(folder, 'press.icc')}`,
        `-o${join(folder, 'p.icc')}`,
      ]);
      const apart = [...other].map((value, i) => Math.abs(value / 255 - (ours.device?.[i] ?? NaN)));
      expect(Math.max(...apart)).toBeLessThan(0.012);
    }
    expect((await convert()).status).toBe(0);
    expect(unwrap(readPatchSet(readFileSync(join(folder, 'converted.txt'), 'utf8'))).lab).toHaveLength(
      (rows.length / 4) * 3,
    );
    for (const [more, words] of [
      [['--black-point'], 'two profiles'],
      [['--from', 'p.icc'], 'the profile is for 3 channels'],
      [['--intent', 'warm'], '--intent'],
    ] as const)
      expect(await convert(...more)).toMatchObject({ status: 2, err: expect.stringContaining(words) });
  });

  it('says how a job of inks was converted by the profile that they are meant by', async () => {
    writeFileSync(join(folder, 'source.icc'), writeIcc(samplePressProfile('coarse press')));
    const { header, tags } = samplePressProfile('one way');
    const oneWay = { header, tags: new Map([...tags].filter(([tag]) => !tag.startsWith('B2A'))) };
    writeFileSync(join(folder, 'one-way.icc'), writeIcc(oneWay));
    await melto('chart', 'make', '--process', 'cmyk', '--kind', 'job', '--out', 'ink-job.txt');
    await melto(
      ...['simulate', 'read', '--device', 'heron', '--stock', 'lantern-gloss-150', '--seed', '5'],
      ...['--chart', 'ink-job.txt', '--out', 'ink-plain.txt'],
    );
    const job = (...more: string[]): Promise<Said> =>
      melto(
        ...['job', '--measured', 'ink-plain.txt', '--profile', 'source.icc', '--intent', 'relative'],
        ...more,
      );
    const without = await job();
    expect([without.status, without.err]).toEqual([2, expect.stringContaining('--source with the profile')]);
    const lacking = { status: 2, err: expect.stringMatching(/one-way\.icc: B2A0: found none/) };
    expect(await job('--source', 'one-way.icc')).toMatchObject(lacking);
    expect(await job('--source', 'source.icc', '--profile', 'one-way.icc')).toMatchObject(lacking);
    const found = await job('--source', 'source.icc', '--json');
    expect(JSON.parse(found.out)).toMatchObject({ cause: expect.any(String) });
    expect([0, 1]).toContain(found.status);
    const pages = ['chart', 'pages', 'ink-job.txt', '--tiff', 'ink-job.tif'];
    expect((await melto(...pages, '--source', 'source.icc')).status).toBe(0);
    expect(readFileSync(join(folder, 'ink-job.tif')).includes('coarse press')).toBe(true);
    expect((await melto(...pages, '--source', 'p.icc')).err).toContain('found a profile of RGB');
  });

  it('says how a job was converted, and refuses what is no picture of one', async () => {
    const make = ['chart', 'make', '--process', 'rgb', '--out'];
    await melto(...make, 'p.txt', '--patches', '150');
    await melto(...make, 'job.txt', '--kind', 'job');
    const read = (chart: string, out: string): Promise<Said> =>
      melto(
        ...['simulate', 'read', '--device', 'wren', '--stock', 'quay-proof-200', '--noise', 'accuracy'],
        ...['--chart', chart, '--out', out],
      );
    await read('p.txt', 'pr.txt');
    await melto('profile', 'build', '--measured', 'pr.txt', '--out', 'p.icc', '--tables', 'small');
    // Its values as they are: the job went without a profile.
    await read('job.txt', 'plain.txt');
    const job = (measured: string, ...more: string[]): Promise<Said> =>
      melto('job', '--measured', measured, '--profile', 'p.icc', '--intent', 'perceptual', ...more);
    const plain = await job('plain.txt');
    expect([plain.status, plain.err]).toEqual([1, '']);
    expect(plain.out).toMatch(/^The sheet looks as if the values went to the device without any profile/);
    expect(JSON.parse((await job('plain.txt', '--papers', 'p.icc', '--json')).out)).toMatchObject({
      cause: 'no-profile',
    });
    expect(await job('pr.txt', '--intent', 'warm')).toMatchObject({ status: 2 });
    const pages = await melto('chart', 'pages', 'job.txt', '--srgb', '--png', 'job.png');
    expect([pages.status, readFileSync(join(folder, 'job.png')).includes('iCCP')]).toEqual([0, true]);
    expect((await melto('chart', 'pages', 'job.txt', '--srgb', '--pdf', 'x.pdf')).status).toBe(0);
    expect(readFileSync(join(folder, 'x.pdf')).toString('latin1')).toContain('ICCBased');
    expect((await melto(...make, 'x.txt', '--kind', 'ramps')).status).toBe(2);
  });
});
