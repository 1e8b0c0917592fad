import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { mean } from '@melto/core/numerics/statistics';
import { printTable } from './table.ts';

const SEEDS = Number(process.env.SEEDS ?? 10);
const MELTO = join(import.meta.dirname, '../melto');
/** One stock deep enough for the fitted aim, one whose aim is extrapolated. */
const STOCKS = ['lantern-gloss-150', 'fenland-smooth-120'];

interface Balance {
  readonly verdict: string;
  readonly extrapolated: boolean;
  readonly figures: Readonly<Record<string, { readonly mean: number; readonly largest: number }>>;
}

/** The whole calibration by command line: two rounds of curves, three of balance, each judged on a fresh sheet. */
export function calibrateByCommand(): void {
  const folder = mkdtempSync(join(tmpdir(), 'melto-calibrate-'));
  const melto = (...args: string[]): string => {
    const { status, stdout, stderr } = spawnSync(MELTO, args, { cwd: folder, encoding: 'utf8' });
    if (status === 2 || status === null) throw new Error(`${args.join(' ')}: ${stderr}`);
    return stdout;
  };
  const rows: string[][] = [];
  for (const device of ['heron', 'osprey'])
    for (const stock of STOCKS) {
      const before: number[] = [];
      const after: number[] = [];
      const sctv: number[] = [];
      const means: number[] = [];
      const largest: number[] = [];
      const verdicts = new Map<string, number>();
      for (let seed = 1; seed <= SEEDS; seed++) {
        let sheet = 1000 * seed;
        const chart = (kind: string, out: string, order: number): void => {
          melto(
            'chart',
            'make',
            '--process',
            'cmyk',
            '--kind',
            kind,
            '--copies',
            kind === 'ramps' ? '6' : '2',
            '--seed',
            String(order),
            '--out',
            out,
          );
        };
        const read = (chartFile: string, out: string, curves?: string): void => {
          melto(
            ...['simulate', 'read', '--device', device, '--stock', stock, '--chart', chartFile],
            ...['--seed', String(sheet++), '--out', out],
            ...(curves === undefined ? [] : ['--curves', curves]),
            ...zones,
          );
        };
        melto('chart', 'make', '--process', 'cmyk', '--kind', 'evenness', '--out', 'even.txt');
        let zones: string[] = [];
        const widths: number[] = [];
        for (let round = 1; round <= 3; round++) {
          melto(
            ...['simulate', 'read', '--device', device, '--stock', stock, '--chart', 'even.txt'],
            ...['--seed', String(sheet++), '--out', 'e.txt', ...zones],
          );
          const json = JSON.parse(
            melto('evenness', 'correct', '--measured', 'e.txt', ...zones, '--out', `z${round}.csv`, '--json'),
          ) as { mean: number };
          widths.push(json.mean);
          if (round < 3) zones = ['--zones', `z${round}.csv`];
        }
        before.push(widths[0]);
        after.push(widths[1]);
        let curves: string | undefined;
        const present = (): string[] => (curves === undefined ? [] : ['--curves', curves]);
        for (let round = 1; round <= 3; round++) {
          chart('ramps', 'ramps.txt', seed + round);
          read('ramps.txt', 'm.txt', curves);
          const out = `c${round}.csv`;
          const json = JSON.parse(
            melto(
              'curves',
              'linearise',
              '--measured',
              'm.txt',
              ...present(),
              '--json',
              ...(round < 3 ? ['--out', out] : []),
            ),
          ) as { largest: number };
          if (round === 3) sctv.push(json.largest);
          else curves = out;
        }
        for (let round = 1; round <= 4; round++) {
          chart('near-neutral', 'greys.txt', seed + 10 + round);
          read('greys.txt', 'm.txt', curves);
          const out = `b${round}.csv`;
          const json = JSON.parse(
            melto(
              'curves',
              'balance',
              '--measured',
              'm.txt',
              ...present(),
              '--json',
              ...(round < 4 ? ['--out', out] : []),
            ),
          ) as Balance;
          if (round < 4) curves = out;
          else {
            means.push(Math.max(...Object.values(json.figures).map(({ mean }) => mean)));
            largest.push(Math.max(...Object.values(json.figures).map((figures) => figures.largest)));
            const words = `${json.verdict}${json.extrapolated ? ', extrapolated' : ''}`;
            verdicts.set(words, (verdicts.get(words) ?? 0) + 1);
          }
        }
      }
      rows.push([
        `${device} ${stock}`,
        `${mean(before).toFixed(2)} → ${mean(after).toFixed(2)}`,
        sctv.map((value) => value.toFixed(2)).join(' '),
        Math.max(...means).toFixed(2),
        Math.max(...largest).toFixed(2),
        [...verdicts].map(([words, count]) => `${count} ${words}`).join('; '),
      ]);
    }
  rmSync(folder, { recursive: true });
  printTable(
    `By command line, ${SEEDS} seeds: largest SCTV error by seed, worst weighted differences`,
    [
      'device, stock',
      'width ΔE00, one correction',
      'SCTV off %, after two rounds',
      'mean',
      'largest',
      'verdicts',
    ],
    rows,
  );
}
