import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { spectraToXyz } from '@melto/core/spectral/spectrumToXyz';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';
import { unwrap } from '@melto/core/result';
import { melto } from './testing/melto.ts';

const INKS = 'C,M,Y,K,LC,LM';
const PRINTER = ['--device', 'open-redshank', '--stock', 'lantern-gloss-150'];
let folder = '';
const at = (name: string): string => join(folder, name);
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'melto-light-'));
});
afterAll(() => rmSync(folder, { recursive: true }));

async function done(...args: string[]): Promise<string> {
  const { status, out, err } = await melto(...args);
  expect(err.replaceAll(/^\(.*\)$/gm, '').trim()).toBe('');
  expect(status).toBe(0);
  return out;
}
async function refused(...args: string[]): Promise<string> {
  const { status, err } = await melto(...args);
  expect(status).toBe(2);
  return err;
}
const fileOf = (name: string): PatchSet => unwrap(readPatchSet(readFileSync(at(name), 'utf8')));
const split = (chart: string, out: string, ...joins: string[]) =>
  ['chart', 'split', at(chart), '--inks', INKS, '--join', ...joins.map(at), '--out', at(out)] as const;

describe('light inks by command', () => {
  it('are charted with their full ones, and joined by what was measured', async () => {
    const chart = ['chart', 'light', '--out', at('l.txt'), '--inks'];
    expect(await done(...chart, INKS, '--pairs', 'LC,C', 'LM,M')).toContain('102 patches');
    const { device = new Float64Array(), ids } = fileOf('l.txt');
    expect(ids).toHaveLength(4 + 2 * (12 + 12 + 25));
    // Nothing but a light ink and its own full one.
    for (let row = 0; row < ids.length; row++) {
      const printed = [0, 1, 2, 3, 4, 5].filter((ink) => device[6 * row + ink] > 0).join('');
      expect(['', '0', '4', '04', '1', '5', '15']).toContain(printed);
    }
    for (const pairs of [['LC'], ['LC,LC'], ['LC,C', 'LC,M'], ['LC,O']])
      expect(await refused(...chart, INKS, '--pairs', ...pairs)).toContain('--pairs');
    expect(await refused(...chart, 'C,M,C', '--pairs', 'C,M')).toContain('C is named twice');
    await done('simulate', 'read', ...PRINTER, '--chart', at('l.txt'), '--out', at('lm.txt'));
    for (const ink of ['C', 'M'])
      expect(
        await done(
          ...['curves', 'join', '--measured', at('lm.txt'), '--inks', INKS, '--light', `L${ink}`],
          ...['--full', ink, '--out', at(`${ink}.csv`)],
        ),
      ).toContain(`${ink} begins at`);
  });

  it('print a ramp of both as one ink, dark without a reversal and even', async () => {
    const make = ['chart', 'make', '--process', 'cmyk', '--kind', 'ramps', '--copies', '1'];
    await done(...make, '--steps', '21', '--out', at('r.txt'));
    expect(await done(...split('r.txt', 'r6.txt', 'C.csv', 'M.csv'))).toMatch(
      /as C M Y K LC LM, \d+(\.\d)? % of ink/,
    );
    const [chart, six] = [fileOf('r.txt'), fileOf('r6.txt')];
    expect(six.ids).toEqual(chart.ids);
    await done(
      ...[
        'simulate',
        'read',
        ...PRINTER,
        '--noise',
        'accuracy',
        '--chart',
        at('r6.txt'),
        '--out',
        at('rm6.txt'),
      ],
    );
    await done('chart', 'values', at('r.txt'), '--measured', at('rm6.txt'), '--out', at('rm.txt'));
    const { device = new Float64Array(), spectra } = fileOf('rm.txt');
    expect(device).toEqual(chart.device);
    if (spectra === undefined) throw new Error('no spectra');
    const xyz = new Float64Array((device.length / 4) * 3);
    spectraToXyz(createXyzWeights(spectra.grid, tableIlluminant('D50'), '2deg'), spectra.values, xyz);
    for (const ink of [0, 1]) {
      const ramp = Array.from({ length: device.length / 4 }, (_, row) => row)
        .filter((row) => [0, 1, 2, 3].every((other) => other === ink || device[4 * row + other] === 0))
        .sort((a, b) => device[4 * a + ink] - device[4 * b + ink]);
      const red = ramp.map((row) => xyz[3 * row + ink]);
      for (let i = 1; i < red.length; i++)
        if (device[4 * ramp[i] + ink] - device[4 * ramp[i - 1] + ink] > 0.03)
          expect(red[i], `${ink} ${i}`).toBeLessThan(red[i - 1]);
    }
    const said = await done('curves', 'linearise', '--measured', at('rm.txt'), '--measure', 'sctv');
    for (const ink of ['C', 'M'])
      expect(
        Number(new RegExp(`^${ink}: steps depart from the aim by ([\\d.]+) % on`, 'm').exec(said)?.[1]),
      ).toBeLessThan(1);
  });

  it('are refused where it is not told what each ink is to have', async () => {
    expect(await refused(...split('r.txt', 'x.txt', 'C.csv'))).toContain('nothing is told of LM');
    expect(await refused(...split('r.txt', 'x.txt', 'C.csv', 'C.csv', 'M.csv'))).toContain(
      'an ink stands in two',
    );
    writeFileSync(at('odd.csv'), 'input,C,M\n0,0,0\n100,100,100\n');
    expect(await refused(...split('r.txt', 'x.txt', 'C.csv', 'odd.csv'))).toContain('an ink stands in two');
    writeFileSync(at('far.csv'), 'input,LM,O\n0,0,0\n100,100,100\n');
    expect(await refused(...split('r.txt', 'x.txt', 'C.csv', 'far.csv'))).toContain('found curves of LM, O');
    expect(
      await refused('chart', 'values', at('l.txt'), '--measured', at('rm6.txt'), '--out', at('x.txt')),
    ).toContain('is none of');
    expect(
      await refused('chart', 'values', at('r.txt'), '--measured', at('r6.txt'), '--out', at('x.txt')),
    ).not.toBe('');
  });
});

describe('a front end that splits by itself', () => {
  it('is a device of C, M, Y, K whose tones darken all the way', async () => {
    const chart = at('r.txt');
    await done(
      'simulate',
      'read',
      '--device',
      'redshank',
      '--stock',
      'quay-proof-200',
      '--noise',
      'accuracy',
      '--chart',
      chart,
      '--out',
      at('pm.txt'),
    );
    expect(await done('curves', 'linearise', '--measured', at('pm.txt'), '--measure', 'sctv')).toContain(
      'C: steps',
    );
    expect(
      await refused(
        'simulate',
        'read',
        '--device',
        'redshank',
        '--stock',
        'quay-proof-200',
        '--chart',
        at('r6.txt'),
        '--out',
        at('x.txt'),
      ),
    ).toContain('expected CMYK');
  });
});
