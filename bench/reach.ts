import { fitInkModel } from '@melto/core/characterise/inkModel';
import { fitRgbModel } from '@melto/core/characterise/rgbModel';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { makeRgbChart } from '@melto/core/charts/rgbChart';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { CMYK, RGB } from '@melto/core/device/process';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { readIcc } from '@melto/core/icc/readIcc';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { createRandom } from '@melto/core/numerics/random';
import { percentile } from '@melto/core/numerics/statistics';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { buildRgbProfile } from '@melto/core/profile/buildRgbProfile';
import { nearestColours, REACHED } from '@melto/core/proof/placeList';
import { nearestDevice } from '@melto/core/proof/nearestColours';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { unwrap } from '@melto/core/result';
import { separationOf } from '@melto/core/separate/separation';
import type { Transform } from '@melto/core/transform/transform';
import { wrenTruthXyz } from '@melto/simulator/wrenTruth';
import { cmykConditions, noisyXyz } from './cmykConditions.ts';
import { otherDevices } from './otherDevices.ts';
import { printTable } from './table.ts';

const SEED = Number(process.env.SEED ?? 71);
const COLOURS = Number(process.env.COLOURS ?? 2000);
const TOTAL_INK = 3;
const NOISE = 0.2;

interface Source {
  readonly name: string;
  readonly channels: 3 | 4;
  readonly truth: (device: ArrayLike<number>) => Float64Array;
}

/** Reachable or not, and by how much, as profiles of 800 patches say it and as the devices print. */
export function reach(): void {
  const sources: Source[] = [
    ...[...otherDevices(SEED), ...cmykConditions()].map((own) => ({ ...own, channels: 4 as const })),
    ...(['quay-proof-200', 'chalk-rag-310'] as const).map((stock) => ({
      name: `Wren, ${stock}`,
      channels: 3 as const,
      truth: (device: ArrayLike<number>) => wrenTruthXyz(stock, 'fine', Float64Array.from(device)),
    })),
  ];
  printTable(
    `${COLOURS} random colours, a third on the edge and around it; reached = within ${REACHED} ΔE00`,
    ['device', 'reached', 'right, %', 'distance off, mean', '95 %', 'largest', 'ms'],
    sources.map(row),
  );
}

function row({ name, channels, truth }: Source): string[] {
  const random = createRandom(SEED * 7 + name.length);
  const space = channels === 3 ? RGB : CMYK;
  const { device } = channels === 3 ? makeRgbChart(800, SEED) : makeCmykChart(800, SEED, TOTAL_INK);
  const xyz = noisyXyz(truth(device), NOISE, random);
  const paperXyz = meanPaperXyz(space, device, xyz);
  if (paperXyz === undefined) throw new Error('no paper');
  const head = {
    version: 2,
    tableSize: 'normal',
    description: name,
    copyright: '',
    createdMs: 0,
    paperXyz,
  } as const;
  const { profile } =
    channels === 3
      ? buildRgbProfile(fitRgbModel(device, xyz, SEED), head)
      : buildInkProfile(fitInkModel(device, 4, xyz, SEED), {
          ...head,
          separation: separationOf('medium', TOTAL_INK),
        });
  const real: Transform = {
    inputs: channels,
    outputs: 3,
    apply: (values, out) => xyzRowsToLab(truth(values), WHITE_D50_MEASURED, out),
  };
  const lab = colours(real, channels, random);
  const begun = performance.now();
  const placed = unwrap(nearestColours(unwrap(readIcc(writeIcc(profile))), lab));
  const ms = performance.now() - begun;
  if (process.env['ONLY'] === 'speed') return [name, '', '', '', '', '', ms.toFixed(0)];
  const mostInk = channels === 3 ? 3 : TOTAL_INK;
  const start = Float64Array.from(placed.flatMap((one) => [...one.device]));
  const best = nearestDevice({ toLab: real, mostInk }, lab, start);
  const printed = new Float64Array(lab.length);
  real.apply(best, printed);
  const far = deltaE2000Rows(lab, printed);
  const off = placed.map(({ deltaE }, i) => Math.abs(deltaE - far[i]));
  const right = placed.filter(({ deltaE }, i) => deltaE <= REACHED === far[i] <= REACHED).length;
  return [
    name,
    String(far.filter((value) => value <= REACHED).length),
    ((100 * right) / COLOURS).toFixed(2),
    (off.reduce((sum, value) => sum + value, 0) / COLOURS).toFixed(3),
    percentile(off, 95).toFixed(2),
    Math.max(...off).toFixed(2),
    ms.toFixed(0),
  ];
}

/** Two thirds anywhere in a box of Lab, one third around what the device prints at the ends of its channels. */
function colours(real: Transform, channels: number, random: ReturnType<typeof createRandom>): Float64Array {
  const out = new Float64Array(COLOURS * 3);
  const device = new Float64Array(channels);
  const lab = new Float64Array(3);
  for (let i = 0; i < COLOURS; i++) {
    if (i % 3 > 0) {
      out.set([5 + 92 * random.uniform(), 160 * random.uniform() - 80, 160 * random.uniform() - 80], 3 * i);
      continue;
    }
    for (let c = 0; c < channels; c++) device[c] = random.uniform();
    device[random.below(channels)] = random.below(2);
    if (channels === 4) device[3] *= 0.3;
    real.apply(device, lab);
    out.set(
      lab.map((value, axis) => value * (axis === 0 ? 1 : 0.9 + 0.3 * random.uniform())),
      3 * i,
    );
  }
  return out;
}
