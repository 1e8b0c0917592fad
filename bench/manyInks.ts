import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fitInkModel, inkModelLab } from '@melto/core/characterise/inkModel';
import { expectedExtraInks, makeManyInkChart } from '@melto/core/charts/manyInkChart';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { createRandom } from '@melto/core/numerics/random';
import type { Random } from '@melto/core/numerics/random';
import { summariseErrors } from '@melto/core/numerics/statistics';
import type { ErrorSummary } from '@melto/core/numerics/statistics';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { inkFamilies } from '@melto/core/separate/extraInks';
import type { ExtraInks } from '@melto/core/separate/extraInks';
import { separationOf } from '@melto/core/separate/separation';
import { transicc } from '../core/test/transicc.ts';
import { labOf, noisyXyz } from './cmykConditions.ts';
import { manyInkDevices } from './manyInkDevices.ts';
import { printTable } from './table.ts';

const SEEDS = (process.env.SEEDS ?? '1,2').split(',').map(Number);
const SIZES = (process.env.SIZES ?? '800,1500').split(',').map(Number);
const ONLY = process.env.ONLY;
const PROBES = 6000;

const three = ({ mean, p95, largest }: ErrorSummary): string =>
  `${mean.toFixed(3)} / ${p95.toFixed(2)} / ${largest.toFixed(1)}`;

/** Profiles of more than four inks: forward, closed loop through the file by LittleCMS, limits, time and memory. */
export function manyInks(): void {
  const rows: string[][] = [];
  const folder = mkdtempSync(join(tmpdir(), 'melto-many-'));
  for (const seed of SEEDS)
    for (const { name, process: inks, totalInk, truth } of manyInkDevices(seed))
      for (const patches of SIZES) {
        if (ONLY !== undefined && !name.includes(ONLY)) continue;
        const n = inks.channels.length;
        const random = createRandom(91 * seed + patches);
        const extra = expectedExtraInks(inks);
        const { device } = makeManyInkChart(patches, seed, n, extra, totalInk);
        const xyz = noisyXyz(truth(device), 0.2, random);
        const paperXyz = meanPaperXyz(inks, device, xyz);
        if (paperXyz === undefined) throw new Error('no paper');
        const begun = performance.now();
        const model = fitInkModel(device, n, xyz, seed);
        const fitted = performance.now();
        const probes = separable(PROBES, n, extra, totalInk, random);
        const wanted = labOf(truth(probes));
        const predicted = new Float64Array(wanted.length);
        inkModelLab(model, probes, predicted);
        const forward = summariseErrors(deltaE2000Rows(wanted, predicted));
        const row = [
          `${name}, ${patches}, seed ${seed}`,
          three(forward),
          model.crossValidation.summary.mean.toFixed(2),
        ];
        if (process.env.FORWARD === undefined) {
          const start = performance.now();
          const { profile } = buildInkProfile(model, {
            ...{ version: 4, tableSize: 'normal', description: name, copyright: '', createdMs: 0 },
            ...{ paperXyz, process: inks, separation: separationOf('medium', totalInk, n) },
          });
          const bytes = writeIcc(profile);
          const built = performance.now();
          const path = join(folder, 'p.icc');
          writeFileSync(path, bytes);
          const asked = transicc(wanted, 3, ['-t3', '-i*Lab', `-o${path}`]).map((value) => value / 100);
          const printed = labOf(truth(asked));
          const back = transicc(
            probes.map((value) => 100 * value),
            n,
            ['-t3', `-i${path}`, '-o*Lab'],
          );
          row.push(
            three(summariseErrors(deltaE2000Rows(wanted, back))),
            three(summariseErrors(deltaE2000Rows(wanted, printed))),
            (100 * mostInk(asked, n)).toFixed(1),
            `${((fitted - begun) / 1000).toFixed(0)} + ${((built - start) / 1000).toFixed(0)}`,
            (bytes.length / 1e6).toFixed(1),
            (process.memoryUsage().rss / 1e6).toFixed(0),
          );
        }
        rows.push(row);
        console.log(row.join('  |  '));
      }
  rmSync(folder, { recursive: true });
  printTable(
    'More than four inks, ΔE00 mean / 95 % / largest at separable values that were not printed',
    ['device', 'model', 'cross-validated', 'table', 'closed loop', 'ink %', 's', 'MB', 'memory'],
    rows,
  );
}

/** Values that separations use: a family of inks each, some of them at none. */
function separable(
  count: number,
  n: number,
  extra: ExtraInks,
  totalInk: number,
  random: Random,
): Float64Array {
  const families = inkFamilies(extra);
  const out = new Float64Array(count * n);
  for (let i = 0; i < count;) {
    const values = new Float64Array(n);
    for (const ink of families[random.below(families.length)])
      values[ink] = random.uniform() < 0.3 ? 0 : random.uniform() ** (ink === extra.black ? 2 : 1);
    if (values.reduce((sum, value) => sum + value, 0) > totalInk) continue;
    out.set(values, n * i++);
  }
  return out;
}

function mostInk(device: Float64Array, n: number): number {
  let most = 0;
  for (let i = 0; i < device.length; i += n)
    most = Math.max(
      most,
      device.subarray(i, i + n).reduce((sum, value) => sum + value, 0),
    );
  return most;
}
