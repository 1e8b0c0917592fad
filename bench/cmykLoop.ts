import { CMYK } from '@melto/core/device/process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fitInkModel } from '@melto/core/characterise/inkModel';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { deltaE2000Of, deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { readIcc } from '@melto/core/icc/readIcc';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { createRandom } from '@melto/core/numerics/random';
import { largest, mean, summariseErrors } from '@melto/core/numerics/statistics';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { inkProfileReport } from '@melto/core/profile/inkReport';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { unwrap } from '@melto/core/result';
import { separationOf } from '@melto/core/separate/separation';
import { cmykConditions, labOf, noisyXyz, unprinted } from './cmykConditions.ts';
import { transicc } from '../core/test/transicc.ts';
import { printTable } from './table.ts';

const SEEDS = Number(process.env.SEEDS ?? 3);
const TOTAL_INK = 3;
const PROBES = 20_000;
const EDGE = 1;

/** Closed loop and round trip through the written file by LittleCMS, 800 patches. */
export function cmykLoop(patches = 800): void {
  const rows: string[][] = [];
  const folder = mkdtempSync(join(tmpdir(), 'melto-loop-'));
  for (const { name, truth } of cmykConditions())
    for (let seed = 1; seed <= SEEDS; seed++) {
      const random = createRandom(77 * seed + patches);
      const { device } = makeCmykChart(patches, seed, TOTAL_INK);
      const xyz = noisyXyz(truth(device), 0.2, random);
      const paper = meanPaperXyz(CMYK, device, xyz);
      if (paper === undefined) throw new Error('no paper');
      const started = performance.now();
      const model = fitInkModel(device, 4, xyz, seed);
      const { profile } = buildInkProfile(model, {
        ...{ version: 4, tableSize: 'normal', description: name, copyright: '', createdMs: 0 },
        paperXyz: paper,
        separation: separationOf('medium', TOTAL_INK),
      });
      const bytes = writeIcc(profile);
      const seconds = (performance.now() - started) / 1000;
      const path = join(folder, 'p.icc');
      writeFileSync(path, bytes);
      const report = inkProfileReport(model, unwrap(readIcc(bytes)), device, xyz, { totalInk: TOTAL_INK });
      const probes = unprinted(PROBES, TOTAL_INK, random);
      const targets = labOf(truth(probes));
      const inks = transicc(targets, 3, ['-t3', '-i*Lab', `-o${path}`]).map((value) => value / 100);
      const printed = labOf(truth(inks));
      const back = transicc(
        inks.map((value) => 100 * value),
        4,
        ['-t3', `-i${path}`, '-o*Lab'],
      );
      const edge = surface(truth);
      const errors = deltaE2000Rows(targets, printed);
      const trips = deltaE2000Rows(targets, back);
      const inside = Array.from({ length: PROBES }, (_, i) => i).filter((i) => !nearEdge(targets, i, edge));
      const closed = summariseErrors(inside.map((i) => errors[i]));
      const rest = summariseErrors(errors);
      let over = 0;
      for (let i = 0; i < PROBES; i++)
        over = Math.max(over, inks[4 * i] + inks[4 * i + 1] + inks[4 * i + 2] + inks[4 * i + 3]);
      const axis = report.neutralAxis.filter(({ asked }) => asked >= report.neutralAxis[0].lab[0] + 1);
      const cast = largest(axis.flatMap(({ lab }) => [Math.abs(lab[1]), Math.abs(lab[2])]));
      rows.push([
        `${name}, seed ${seed}`,
        `${closed.mean.toFixed(3)} / ${closed.p95.toFixed(2)}`,
        `${rest.mean.toFixed(3)} / ${rest.p95.toFixed(2)}`,
        `${(100 * (1 - inside.length / PROBES)).toFixed(0)} %`,
        `${report.roundTrip.mean.toFixed(3)} / ${report.roundTrip.p95.toFixed(2)}`,
        mean(trips).toFixed(2),
        (100 * over).toFixed(2),
        cast.toFixed(2),
        String(report.reversals),
        seconds.toFixed(1),
        `${(process.memoryUsage().rss / 1e6).toFixed(0)}`,
      ]);
    }
  rmSync(folder, { recursive: true });
  printTable(
    `Through the written profile by LittleCMS, ${patches} patches, ΔE00 mean / 95 %`,
    [
      'device',
      'closed loop',
      'with edges',
      'edges',
      'round trip',
      'incl. model',
      'ink %',
      'cast of greys',
      'reversals',
      's',
      'MB',
    ],
    rows,
  );
}

/** Points on the surface of the gamut: two of C, M, Y at most without black; one empty and one full with black; the darks. */
function surface(truth: (cmyk: Float64Array) => Float64Array): Float64Array {
  const random = createRandom(5);
  const values: number[] = [];
  while (values.length < 4 * 9000) {
    const kind = random.below(3);
    const own = [random.uniform(), random.uniform(), random.uniform(), 0];
    own[random.below(3)] = 0;
    if (kind === 1) {
      const full = random.below(3);
      own[full] = 1;
      own[3] = random.uniform();
    }
    if (kind === 2) {
      own[3] = 1;
      const room = TOTAL_INK - 1;
      const sum = own[0] + own[1] + own[2];
      if (sum > room) for (let i = 0; i < 3; i++) own[i] *= room / sum;
    }
    if (own.reduce((a, b) => a + b, 0) <= TOTAL_INK + 1e-9) values.push(...own);
  }
  return labOf(truth(Float64Array.from(values)));
}

function nearEdge(lab: Float64Array, i: number, edge: Float64Array): boolean {
  const [l, a, b] = [lab[3 * i], lab[3 * i + 1], lab[3 * i + 2]];
  for (let k = 0; k < edge.length; k += 3) {
    if (Math.abs(edge[k] - l) > 2.5 || Math.abs(edge[k + 1] - a) > 6 || Math.abs(edge[k + 2] - b) > 6)
      continue;
    if (deltaE2000Of(l, a, b, edge[k], edge[k + 1], edge[k + 2]) < EDGE) return true;
  }
  return false;
}
