import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';

const ROOT = join(import.meta.dirname, '../..');
let folder = '';
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'melto-cli-'));
});
afterAll(() => rmSync(folder, { recursive: true }));

function melto(...args: string[]): { status: number | null; out: string; err: string } {
  const { status, stdout, stderr } = spawnSync(join(ROOT, 'melto'), args, { cwd: folder, encoding: 'utf8' });
  return { status, out: stdout, err: stderr };
}

describe('melto', () => {
  it('goes from a chart to a profile and looks into it', () => {
    expect(melto('chart', 'make', '--process', 'rgb', '--patches', '150', '--out', 'c.txt')).toMatchObject({
      status: 0,
      err: '',
    });
    const pages = melto('chart', 'pages', 'c.txt', '--pdf', 'c.pdf', '--tiff', 'c.tif', '--json');
    expect(JSON.parse(pages.out)).toEqual({ pages: 1, written: ['c.pdf', 'c.tif'] });
    expect(readFileSync(join(folder, 'c.pdf'), 'latin1').startsWith('%PDF')).toBe(true);
    expect(
      melto(
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
      ).status,
    ).toBe(0);
    const built = melto(
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
    const inspected = JSON.parse(melto('profile', 'inspect', 'p.icc', '--json').out) as {
      version: string;
      tags: { signature: string }[];
    };
    expect(inspected.version).toBe('2.4');
    expect(inspected.tags.map(({ signature }) => signature)).toEqual(
      expect.arrayContaining(['A2B0', 'A2B1', 'A2B2', 'B2A0', 'B2A1', 'B2A2', 'gamt', 'wtpt', 'targ']),
    );
    // The same seed reads the same numbers; what convert writes is what it reads.
    melto(
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
    expect(melto('convert', 'm.txt', 'm3.txt').status).toBe(0);
    expect(readFileSync(join(folder, 'm3.txt'), 'utf8')).toBe(readFileSync(join(folder, 'm.txt'), 'utf8'));
  });

  it('builds from another program’s file: per cent, Lab only, no layout', () => {
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
    const built = melto(
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
    expect(built.out).toContain('per cent');
  });

  it.each([
    [['chart', 'make', '--process', 'rgb', '--patches', '5', '--out', 'x'], '--patches: found "5"'],
    [['chart', 'make', '--process', 'rgb'], "required option '--patches"],
    [['profile', 'build', '--measured', 'none.txt', '--out', 'x'], 'none.txt: cannot be read'],
    [['profile', 'inspect', 'c.txt'], 'c.txt: '],
    [
      ['simulate', 'read', '--device', 'plover', '--stock', 'x', '--chart', 'c.txt', '--out', 'x'],
      '--device: found "plover"',
    ],
    [['nonsense'], "unknown command 'nonsense'"],
  ])('%j is refused in one line with exit code 2', (args, words) => {
    const { status, err } = melto(...args);
    expect(status).toBe(2);
    expect(err).toContain(words);
    expect(
      err
        .trim()
        .split('\n')
        .filter((line) => !line.startsWith('(')).length,
    ).toBe(1);
  });

  it('names the line of a damaged file', () => {
    writeFileSync(
      join(folder, 'bad.txt'),
      'CGATS.17\nBEGIN_DATA_FORMAT\nRGB_R RGB_G RGB_B LAB_L\nEND_DATA_FORMAT\nBEGIN_DATA\n1 2 3 x\nEND_DATA\n',
    );
    const { status, err } = melto('profile', 'build', '--measured', 'bad.txt', '--out', 'x');
    expect(status).toBe(2);
    expect(err).toContain('line 6: LAB_L: found x, expected a number');
  });
});
