import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import UTIF from 'utif2';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { inkProcess } from '@melto/core/device/process';
import { createRandom } from '@melto/core/numerics/random';
import { deviceTiff } from '@melto/core/picture/deviceTiff';
import { samplePicture } from '@melto/core/proof/samplePicture';
import { softProof } from '@melto/core/proof/softProof';
import { transformed } from '@melto/core/transform/transform';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { deviceTruthSpectra } from '@melto/simulator/deviceTruth';
import { simulatedDevice } from '@melto/simulator/devices';
import { readIcc } from '@melto/core/icc/readIcc';
import { unwrap } from '@melto/core/result';
import { inflateSync } from 'node:zlib';
import { melto } from './testing/melto.ts';

let folder = '';
const at = (name: string): string => join(folder, name);

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'melto-six-'));
});

afterAll(() => rmSync(folder, { recursive: true }));

async function refused(...args: string[]): Promise<string> {
  const { status, err } = await melto(...args);
  expect(status).toBe(2);
  return err;
}

async function done(...args: string[]): Promise<string> {
  const { status, out, err } = await melto(...args);
  expect(err.replaceAll(/^\(.*\)$/gm, '').trim()).toBe('');
  expect(status).toBe(0);
  return out;
}

describe('six inks by command', () => {
  it('are charted, with pages that name them, and refused where they are no five to eight with C, M, Y, K', async () => {
    for (const process of ['cmyo', 'cmyog', 'cmykogvrb', 'cmykoo', 'cmyk0g'])
      expect(
        await refused('chart', 'make', '--process', process, '--patches', '450', '--out', at('no.txt')),
      ).toContain('letters of five to eight inks');
    expect(
      await refused('chart', 'make', '--process', 'cmykz', '--patches', '450', '--out', at('no.txt')),
    ).toContain('the colour of Z is not told');
    expect(
      await refused('chart', 'make', '--process', 'cmykog', '--patches', '399', '--out', at('no.txt')),
    ).toContain('from 400 to 3000');
    await done(
      'chart',
      'make',
      '--process',
      'cmykog',
      '--patches',
      '450',
      '--tac',
      '280',
      '--out',
      at('chart.txt'),
    );
    expect(readFileSync(at('chart.txt'), 'utf8')).toContain('CMYKOG_O');
    await done('chart', 'pages', at('chart.txt'), '--pdf', at('chart.pdf'), '--tiff', at('chart.tif'));
    const pdf = readFileSync(at('chart.pdf'));
    expect(pdf.toString('latin1')).toContain('/DeviceN [ /Cyan /Magenta /Yellow /Black /Orange /Green ]');
    const streams = [...pdf.toString('latin1').matchAll(/stream\n([\s\S]*?)\nendstream/g)].flatMap(
      ([, body]) => {
        try {
          return [inflateSync(Buffer.from(body, 'latin1')).toString('latin1')];
        } catch {
          return [];
        }
      },
    );
    // Six values a patch.
    expect(streams.some((text) => /^[\d. ]+ scn$/m.test(text) && /^(?:[\d.]+ ){6}scn$/m.test(text))).toBe(
      true,
    );
    const tiff = readFileSync(at('chart.tif'));
    expect(tiff.includes('Cyan\0Magenta\0Yellow\0Black\0Orange\0Green')).toBe(true);
  });

  it('become a profile with limits of its own; a file that counts its inks has to have them named', async () => {
    const device = ['--device', 'tern', '--stock', 'quay-proof-200', '--noise', 'accuracy'];
    await done('simulate', 'read', ...device, '--chart', at('chart.txt'), '--out', at('read.txt'));
    const build = ['profile', 'build', '--tables', 'small', '--tac', '280'];
    expect(
      await refused(
        ...build,
        '--measured',
        at('read.txt'),
        '--ink-limits',
        '90,90,90,90',
        '--out',
        at('p.icc'),
      ),
    ).toContain('per cent for C,M,Y,K,O,G');
    expect(
      await refused(...build, '--measured', at('read.txt'), '--pair-limits', 'C+V=150', '--out', at('p.icc')),
    ).toContain('two of C,M,Y,K,O,G');
    const counted = readFileSync(at('read.txt'), 'utf8').replaceAll(
      /CMYKOG_([CMYKOG])/g,
      (_, ink: string) => `6CLR_${'CMYKOG'.indexOf(ink) + 1}`,
    );
    writeFileSync(at('counted.txt'), counted);
    expect(await refused(...build, '--measured', at('counted.txt'), '--out', at('p.icc'))).toContain(
      'say --inks C,M,Y,K,O,G in their order',
    );
    expect(
      await refused(...build, '--measured', at('counted.txt'), '--inks', 'C,M,Y,K,O', '--out', at('p.icc')),
    ).toContain('names of 6 inks');
    const out = await done(
      ...build,
      ...['--measured', at('counted.txt'), '--inks', 'C,M,Y,K,O,G', '--ink-limits', '100,100,100,100,90,100'],
      ...['--pair-limits', 'C+M=170', '--replace', '80', '--out', at('p.icc')],
    );
    expect(out).toMatch(/total ink 280\.\d %|total ink 27\d\.\d %/);
    const profile = unwrap(readIcc(readFileSync(at('p.icc'))));
    expect(profile.header.colourSpace).toBe('6CLR');
    const link = ['link', '--from', at('p.icc'), '--to', at('p.icc'), '--out', at('link.icc')];
    expect(await done(...link, '--keep', 'black,inks')).toContain('keeps black and inks alone');
    expect(unwrap(readIcc(readFileSync(at('link.icc')))).header).toMatchObject({
      deviceClass: 'link',
      colourSpace: '6CLR',
      pcs: '6CLR',
    });
    expect(await refused(...link, '--total-ink', '601')).toContain('100 to 600 %');
    // A picture goes to all six inks, which the file names.
    const pixels = samplePicture('Seed catalogue', 40, 30);
    writeFileSync(at('in.tif'), deviceTiff(pixels, { width: 40, height: 30, channels: 3 }, 300));
    await done(
      ...['proof', at('in.tif'), '--source', '/usr/share/color/icc/sRGB.icc', '--profile', at('p.icc')],
      ...['--values', at('six.tif')],
    );
    const six = readFileSync(at('six.tif'));
    const [directory] = UTIF.decode(six);
    expect(directory['t277']).toEqual([6]);
    expect((directory['t333'] as string[]).join().split('\0')).toEqual([
      ...['Cyan', 'Magenta', 'Yellow', 'Black', 'Orange', 'Green'],
    ]);
    UTIF.decodeImage(six, directory);
    const { toDevice } = unwrap(
      softProof(unwrap(readIcc(readFileSync('/usr/share/color/icc/sRGB.icc'))), profile, {
        ...{ intent: 'relative', blackPoint: false, paperWhite: true, inkBlack: true },
      }),
    );
    const first = transformed(
      toDevice,
      [...pixels.subarray(0, 3)].map((value) => value / 255),
    );
    expect([...(directory.data ?? []).subarray(0, 6)]).toEqual(
      [...first].map((own) => Math.round(255 * own)),
    );
    const few = readFileSync(at('read.txt'), 'utf8').split('\n');
    const begin = few.indexOf('BEGIN_DATA');
    const short = [...few.slice(0, begin + 350), 'END_DATA', '']
      .join('\n')
      .replace(/NUMBER_OF_SETS\s+\d+/, 'NUMBER_OF_SETS 349');
    writeFileSync(at('short.txt'), short);
    expect(await refused(...build, '--measured', at('short.txt'), '--out', at('no.icc'))).toContain(
      'found 349 patches, expected at least 350',
    );
  });

  it('are linearised by SCTV, not by an aim that is agreed for C, M, Y, K', async () => {
    await done(
      'chart',
      'make',
      '--process',
      'cmykog',
      '--kind',
      'ramps',
      '--steps',
      '16',
      '--copies',
      '1',
      '--out',
      at('ramps.txt'),
    );
    const device = ['--device', 'tern', '--stock', 'quay-proof-200', '--noise', 'accuracy'];
    await done('simulate', 'read', ...device, '--chart', at('ramps.txt'), '--out', at('ramps-read.txt'));
    expect(
      await refused(
        'curves',
        'linearise',
        '--measured',
        at('ramps-read.txt'),
        '--measure',
        'tvi',
        '--aim',
        'A',
      ),
    ).toContain('agreed for C, M, Y, K');
    expect(
      await refused('curves', 'linearise', '--measured', at('ramps-read.txt'), '--link', at('l.icc')),
    ).toContain('device links are of CMYK');
    await done('curves', 'linearise', '--measured', at('ramps-read.txt'), '--out', at('curves.csv'));
    expect(readFileSync(at('curves.csv'), 'utf8').split('\n')[0]).toContain('O,G');
    await done(
      'simulate',
      'read',
      ...device,
      '--chart',
      at('ramps.txt'),
      '--curves',
      at('curves.csv'),
      '--out',
      at('even.txt'),
    );
    const { status } = await melto(
      'curves',
      'linearise',
      '--measured',
      at('even.txt'),
      '--curves',
      at('curves.csv'),
      '--within',
      '2.5',
    );
    expect(status).toBe(0);
    expect(
      await refused('curves', 'join', '--measured', at('ramps-read.txt'), '--light', 'LC', '--full', 'C'),
    ).toContain('found "LC", expected one of C, M, Y, K, O, G');
    expect(
      await refused('curves', 'join', '--measured', at('ramps-read.txt'), '--light', 'O', '--full', 'C'),
    ).toContain('five overprints of both');
  });

  it('are balanced by C, M, Y and K, the curves of other inks left as they are', async () => {
    const chart = ['chart', 'make', '--process', 'cmykog', '--kind', 'near-neutral', '--copies', '2'];
    await done(...chart, '--out', at('greys.txt'));
    expect(readFileSync(at('greys.txt'), 'utf8')).toContain('CMYKOG_G');
    const read = async (curves: string, out: string): Promise<void> => {
      const device = ['--device', 'tern', '--stock', 'quay-proof-200', '--noise', 'accuracy'];
      const files = ['--chart', at('greys.txt'), '--curves', at(curves), '--out', at(out)];
      await done('simulate', 'read', ...device, ...files);
    };
    const balance = async (curves: string, measured: string, ...out: string[]) =>
      JSON.parse(
        (
          await melto(
            ...['curves', 'balance', '--measured', at(measured), '--curves', at(curves), '--json', ...out],
          )
        ).out,
      ) as { verdict: string; figures: { cmyCh: { mean: number }; cmyL: { mean: number } } };
    await read('curves.csv', 'greys-1.txt');
    const before = await balance('curves.csv', 'greys-1.txt', '--out', at('balanced-1.csv'));
    await read('balanced-1.csv', 'greys-2.txt');
    await balance('balanced-1.csv', 'greys-2.txt', '--out', at('balanced-2.csv'));
    await read('balanced-2.csv', 'greys-3.txt');
    const after = await balance('balanced-2.csv', 'greys-3.txt');
    expect(before.verdict).toBe('does-not-conform');
    expect(after.verdict).toBe('conforms');
    expect(after.figures.cmyCh.mean).toBeLessThan(0.3 * before.figures.cmyCh.mean);
    const columns = (name: string) => {
      const [head, ...rows] = readFileSync(at(name), 'utf8').trim().split(/\r?\n/);
      const inks = head.split(',');
      return (ink: string) => rows.map((row) => row.split(',')[inks.indexOf(ink)]);
    };
    const [first, last] = [columns('curves.csv'), columns('balanced-2.csv')];
    for (const ink of ['O', 'G']) expect(last(ink)).toEqual(first(ink));
    for (const ink of ['C', 'M', 'Y']) expect(last(ink)).not.toEqual(first(ink));
    expect(
      await refused(
        ...['curves', 'balance', '--measured', at('greys-1.txt'), '--curves', at('four.csv'), '--out'],
        at('no.csv'),
      ),
    ).toContain('four.csv');
  });

  it('of which one is foretold over four from its tints, with its error where it was measured', async () => {
    const tern = simulatedDevice('tern');
    const file = (name: string, letters: string, rows: readonly (readonly number[])[]): string => {
      const values = rows.map((row) => [...'CMYKOG'].map((ink) => row[letters.indexOf(ink)] ?? 0)).flat();
      const spectra = deviceTruthSpectra(tern, 'quay-proof-200', 'fine', values);
      const set: PatchSet = {
        ids: rows.map((_, i) => String(i + 1)),
        process: inkProcess([...letters]),
        device: Float64Array.from(rows.flat()),
        spectra: { grid: GRID_380_730_10, values: spectra },
        conditions: { mode: 'M1' },
        notes: [],
      };
      writeFileSync(at(name), writeCgats(patchSetToCgats(set)));
      return at(name);
    };
    const { device } = makeCmykChart(250, 2, 3);
    const four = file(
      'four.txt',
      'CMYK',
      Array.from({ length: 250 }, (_, i) => [...device.subarray(4 * i, 4 * i + 4)]),
    );
    const steps = [0, 0.25, 0.5, 0.75, 1];
    const tints = file(
      'tints.txt',
      'KO',
      [0, 1].flatMap((k) => steps.map((tint) => [k, tint])),
    );
    const random = createRandom(3);
    const wanted = Array.from({ length: 60 }, () => [
      ...[0, 0, 0].map(() => random.uniform() * 0.8),
      0.2 * random.uniform(),
      random.uniform(),
    ]);
    const ask = file('ask.txt', 'CMYKO', wanted);
    const given = [
      'spot',
      'over',
      '--process',
      four,
      '--tints',
      tints,
      '--ask',
      ask,
      '--out',
      at('foretold.txt'),
    ];
    const { error } = JSON.parse(await done(...given, '--json')) as { error: { mean: number; p95: number } };
    expect(error.mean).toBeLessThan(2);
    expect(error.p95).toBeLessThan(4);
    expect(unwrap(readPatchSet(readFileSync(at('foretold.txt'), 'utf8'))).spectra?.values).toHaveLength(
      60 * 36,
    );
    const noDark = file(
      'white.txt',
      'KO',
      steps.map((tint) => [0, tint]),
    );
    expect(await refused('spot', 'over', '--process', four, '--tints', noDark, '--ask', ask)).toContain(
      'dark ground',
    );
    expect(await refused('spot', 'over', '--process', four, '--tints', four, '--ask', ask)).toContain(
      'one ink beside',
    );
    expect(await refused('spot', 'over', '--process', four, '--tints', tints, '--ask', four)).toContain(
      'expected C, M, Y, K, O',
    );
  });
});
