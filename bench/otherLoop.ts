import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fitInkModel, inkModelLab } from '@melto/core/characterise/inkModel';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { CMYK } from '@melto/core/device/process';
import { readIcc } from '@melto/core/icc/readIcc';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { createRandom } from '@melto/core/numerics/random';
import { summariseErrors } from '@melto/core/numerics/statistics';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { inkProfileReport } from '@melto/core/profile/inkReport';
import { unwrap } from '@melto/core/result';
import { limitsWithTurns, turningInks } from '@melto/core/separate/turningInks';
import { separationOf } from '@melto/core/separate/separation';
import { labOf, noisyXyz, unprinted } from './cmykConditions.ts';
import { transicc } from '../core/test/transicc.ts';
import { otherDevices } from './otherDevices.ts';
import { printTable } from './table.ts';

const SEEDS = (process.env['SEEDS'] ?? '1,2').split(',').map(Number);
const ONLY = process.env['ONLY'];
const TOTAL_INK = 3;
const PROBES = 10_000;

/** Devices of other character, 800 patches: model, and the loop of all printable colours through the file by LittleCMS. */
export function otherLoop(patches = 800): void {
  const folder = mkdtempSync(join(tmpdir(), 'melto-others-'));
  const rows: string[][] = [];
  for (const seed of SEEDS)
    for (const { name, truth } of otherDevices(seed)) {
      if (ONLY !== undefined && !name.includes(ONLY)) continue;
      const random = createRandom(99 * seed + patches);
      const { device } = makeCmykChart(patches, seed, TOTAL_INK);
      const xyz = noisyXyz(truth(device), 0.2, random);
      const paperXyz = meanPaperXyz(CMYK, device, xyz);
      if (paperXyz === undefined) throw new Error('no paper');
      const model = fitInkModel(device, 4, xyz, seed);
      const started = performance.now();
      const turning = turningInks(model);
      const separation = separationOf('medium', TOTAL_INK);
      const { profile } = buildInkProfile(model, {
        ...{ version: 4, tableSize: 'normal', description: name, copyright: '', createdMs: 0, paperXyz },
        separation: { ...separation, inkLimits: limitsWithTurns(separation.inkLimits, turning) },
      });
      const seconds = (performance.now() - started) / 1000;
      const bytes = writeIcc(profile);
      const path = join(folder, 'p.icc');
      writeFileSync(path, bytes);
      const report = inkProfileReport(model, unwrap(readIcc(bytes)), device, xyz, { totalInk: TOTAL_INK });
      const probes = unprinted(PROBES, TOTAL_INK, random);
      const targets = labOf(truth(probes));
      const predicted = new Float64Array(targets.length);
      inkModelLab(model, probes, predicted);
      const inks = transicc(targets, 3, ['-t3', '-i*Lab', `-o${path}`]).map((value) => value / 100);
      const told = (errors: Float64Array): string => {
        const { mean, p95, largest } = summariseErrors(errors);
        const beyond = errors.filter((error) => error > 1).length / errors.length;
        return `${mean.toFixed(2)} / ${p95.toFixed(2)} / ${largest.toFixed(1)} (${(100 * beyond).toFixed(1)} % over 1)`;
      };
      rows.push([
        `${name}, seed ${seed}`,
        told(deltaE2000Rows(targets, predicted)),
        told(deltaE2000Rows(targets, labOf(truth(inks)))),
        turning.map(({ ink, limit }) => `${'CMYK'[ink]} ${(100 * limit).toFixed(0)}`).join(' ') || '–',
        String(report.reversals),
        seconds.toFixed(1),
      ]);
    }
  rmSync(folder, { recursive: true });
  printTable(
    `Devices of other character, ${patches} patches, ΔE00 mean / 95 % / largest of all that prints`,
    ['device', 'forward', 'closed loop', 'limits', 'reversals', 's'],
    rows,
  );
}
