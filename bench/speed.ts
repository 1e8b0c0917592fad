import { CMYK, RGB } from '@melto/core/device/process';
import { fitInkModel } from '@melto/core/characterise/inkModel';
import { CMYK_CHART_PATCHES, makeCmykChart } from '@melto/core/charts/cmykChart';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { deviceToLab, labToDevice } from '@melto/core/icc/profileTransform';
import { unwrap } from '@melto/core/result';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { inkProfileReport } from '@melto/core/profile/inkReport';
import { separationOf } from '@melto/core/separate/separation';
import { makeRgbChart } from '@melto/core/charts/rgbChart';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { fitRgbModel } from '@melto/core/characterise/rgbModel';
import { createRandom } from '@melto/core/numerics/random';
import { wrenTruthXyz } from '@melto/simulator/wrenTruth';
import { cmykConditions, noisyXyz, unprinted } from './cmykConditions.ts';
import { printTable } from './table.ts';

async function milliseconds(work: () => unknown): Promise<number> {
  const started = performance.now();
  await work();
  return performance.now() - started;
}

export async function speed(): Promise<void> {
  const random = createRandom(1);
  const patches = 6000;
  const text = writeCgats(
    patchSetToCgats({
      ids: Array.from({ length: patches }, (_, i) => String(i + 1)),
      process: RGB,
      device: Float64Array.from({ length: patches * 3 }, () => random.uniform()),
      spectra: {
        grid: { startNm: 380, stepNm: 10, count: 36 },
        values: Float64Array.from({ length: patches * 36 }, () => random.uniform()),
      },
      conditions: {},
      notes: [],
    }),
  );
  readPatchSet(text);
  const { device } = makeRgbChart(3000, 1);
  const xyz = wrenTruthXyz('quay-proof-200', 'fine', device);
  const cmyk = ofInks(patches);
  const fifteen = ofInks(1500);
  const large = writeCgats(
    patchSetToCgats({
      ids: Array.from({ length: 3000 }, (_, i) => String(i + 1)),
      process: CMYK,
      device: cmyk.device.slice(0, 12_000),
      spectra: {
        grid: { startNm: 380, stepNm: 10, count: 36 },
        values: Float64Array.from({ length: 3000 * 36 }, () => random.uniform()),
      },
      conditions: {},
      notes: [],
    }),
  );
  let built: IccProfile | undefined;
  printTable(
    'Speed, one core',
    ['what', 'ms'],
    [
      ['CGATS of 6,000 × 36 read', await milliseconds(() => readPatchSet(text))],
      ['chart of 3,000 patches', await milliseconds(() => makeRgbChart(3000, 2))],
      ['layout of 3,000 patches', await milliseconds(() => layoutChart(RGB, device, 'a4', 2))],
      ['model of 3,000 patches', await milliseconds(() => fitRgbModel(device, xyz))],
      ['CGATS of 3,000 × 36 CMYK read', await milliseconds(() => readPatchSet(large))],
      ['CMYK chart of 800 patches', await milliseconds(() => makeCmykChart(800, 1, 3))],
      ['CMYK chart of 3,000 patches', await milliseconds(() => makeCmykChart(3000, 1, 3))],
      ['CMYK model of 6,000 patches', await milliseconds(() => fitInkModel(cmyk.device, 4, cmyk.xyz))],
      [
        'CMYK profile of 1,500 patches, 17⁴ and 33³, three intents, v4',
        await milliseconds(() => (built = buildFrom(fifteen))),
      ],
      ...(built === undefined ? [] : conversions(built)),
      ['most memory by now, MB', process.resourceUsage().maxRSS / 1024],
    ],
  );
}

/** A reading of a chart, or for more patches than a chart has of random values. */
function ofInks(patches: number): { device: Float64Array; xyz: Float64Array } {
  const random = createRandom(patches);
  const device =
    patches <= CMYK_CHART_PATCHES.most
      ? makeCmykChart(patches, 1, 3).device
      : Float64Array.from([0, 0, 0, 0, ...unprinted(patches - 1, 3, random)]);
  return { device, xyz: noisyXyz(cmykConditions()[1].truth(device), 0.2, random) };
}

function buildFrom({ device, xyz }: { device: Float64Array; xyz: Float64Array }): IccProfile {
  const paperXyz = meanPaperXyz(CMYK, device, xyz);
  if (paperXyz === undefined) throw new Error('no paper');
  const model = fitInkModel(device, 4, xyz);
  const { profile } = buildInkProfile(model, {
    ...{ version: 4, tableSize: 'normal', description: 'speed', copyright: '', createdMs: 0 },
    paperXyz,
    separation: separationOf('medium', 3),
  });
  inkProfileReport(model, profile, device, xyz, { totalInk: 3 });
  writeIcc(profile);
  return profile;
}

const COLOURS = 1_000_000;
const ROUNDS = 4;

/** Conversions of colours at random, which are in no cache: the best of some rounds. */
function conversions(profile: IccProfile): (readonly [string, number])[] {
  const random = createRandom(3);
  const inks = Float64Array.from({ length: 4 * COLOURS }, () => random.uniform());
  const lab = new Float64Array(3 * COLOURS);
  const toLab = unwrap(deviceToLab(profile, 'relative'));
  const toInks = unwrap(labToDevice(profile, 'relative'));
  const best = (work: () => void): number => {
    let least = Infinity;
    for (let round = 0; round < ROUNDS; round++) {
      const started = performance.now();
      work();
      least = Math.min(least, performance.now() - started);
    }
    return COLOURS / 1000 / least;
  };
  return [
    ['CMYK to Lab, million colours a second', best(() => toLab.apply(inks, lab))],
    ['Lab to CMYK, million colours a second', best(() => toInks.apply(lab, inks))],
  ];
}
