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
import { deviceSurface } from '@melto/core/gamut/deviceSurface';
import { bodyFrom, bodyVolume, gamutBody } from '@melto/core/gamut/gamutBody';
import { labToDevice } from '@melto/core/icc/profileTransform';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import type { Vector3 } from '@melto/core/numerics/matrix3';
import { unwrap } from '@melto/core/result';
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
            ...bordersAndVolume(profile, truth, extra, totalInk, random),
          );
        }
        rows.push(row);
        console.log(row.join('  |  '));
      }
  rmSync(folder, { recursive: true });
  printTable(
    'More than four inks, ΔE00 mean / 95 % / largest at separable values that were not printed',
    [
      'device',
      'model',
      'cross-validated',
      'table',
      'closed loop',
      'ink %',
      's',
      'MB',
      'memory',
      'steps over 1',
      'largest',
      'volume %',
    ],
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

const PATHS = 200;
const PATH_STEPS = 160;

/**
 * Steps over 1 ΔE00 along paths of even hue steps across the hues where one extra ink gives way to another, of colours
 * that print; and the share of the gamut of all allowed mixtures that the colorimetric table reaches.
 */
function bordersAndVolume(
  profile: IccProfile,
  truth: (device: ArrayLike<number>) => Float64Array,
  extra: ExtraInks,
  totalInk: number,
  random: Random,
): string[] {
  const toInks = unwrap(labToDevice(profile, 'absolute'));
  const n = toInks.outputs;
  const printed = (lab: Float64Array): Float64Array => {
    const inks = new Float64Array((lab.length / 3) * n);
    toInks.apply(lab, inks);
    return labOf(truth(inks));
  };
  const solids = new Float64Array(3 * n);
  extra.base.forEach((ink, i) => (solids[n * i + ink] = 1));
  const solidLab = labOf(truth(solids));
  let [over, largest] = [0, 0];
  for (let path = 0; path < PATHS; path++) {
    const at = path % 3;
    const border = Math.atan2(solidLab[3 * at + 2], solidLab[3 * at + 1]);
    const [lightness, chroma] = [30 + 55 * random.uniform(), 8 + 60 * random.uniform()];
    const asked = Float64Array.from({ length: 3 * (PATH_STEPS + 1) }, (_, i) => {
      const hue = border + ((Math.floor(i / 3) / PATH_STEPS - 0.5) * 80 * Math.PI) / 180;
      return i % 3 === 0 ? lightness : chroma * (i % 3 === 1 ? Math.cos(hue) : Math.sin(hue));
    });
    const own = printed(asked);
    const missed = deltaE2000Rows(asked, own);
    const steps = deltaE2000Rows(own.slice(3), own.slice(0, -3));
    steps.forEach((step, i) => {
      if (missed[i] > 1 || missed[i + 1] > 1) return;
      largest = Math.max(largest, step);
      if (step > 1) over++;
    });
  }
  return [String(over), largest.toFixed(2), volumeShare(printed, truth, extra, n, totalInk).toFixed(1)];
}

const SIDE = 41;

function volumeShare(
  printed: (lab: Float64Array) => Float64Array,
  truth: (device: ArrayLike<number>) => Float64Array,
  extra: ExtraInks,
  n: number,
  totalInk: number,
): number {
  const allowed = inkFamilies(extra).flatMap((family) =>
    deviceSurface(
      {
        inputs: family.length,
        outputs: 3,
        apply: (rows, out) => {
          const device = new Float64Array((rows.length / family.length) * n);
          for (let i = 0; i * family.length < rows.length; i++)
            family.forEach((ink, place) => (device[n * i + ink] = rows[family.length * i + place]));
          out.set(labOf(truth(device)));
        },
      },
      totalInk,
    ),
  );
  // What is asked beyond all colours prints on the surface.
  const reached: Vector3[][] = [];
  for (let axis = 0; axis < 3; axis++)
    for (const end of [0, 1]) {
      const asked = new Float64Array(3 * SIDE * SIDE);
      for (let i = 0; i < SIDE; i++)
        for (let j = 0; j < SIDE; j++) {
          const at = [i / (SIDE - 1), j / (SIDE - 1)];
          at.splice(axis, 0, end);
          asked.set([100 * at[0], 256 * at[1] - 128, 256 * at[2] - 128], 3 * (i * SIDE + j));
        }
      const lab = printed(asked);
      const point = (k: number): Vector3 => [lab[3 * k], lab[3 * k + 1], lab[3 * k + 2]];
      for (let i = 0; i + 1 < SIDE; i++)
        for (let j = 0; j + 1 < SIDE; j++) {
          const [a, b, c, d] = [i * SIDE + j, (i + 1) * SIDE + j, i * SIDE + j + 1, (i + 1) * SIDE + j + 1];
          reached.push([point(a), point(b), point(c)], [point(b), point(c), point(d)]);
        }
    }
  const volume = (triangles: Vector3[][]): number => bodyVolume(bodyFrom(gamutBody('', triangles), 50));
  return (100 * volume(reached)) / volume(allowed);
}
