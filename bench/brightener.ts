import { makeRgbChart } from '@melto/core/charts/rgbChart';
import { deltaE2000Of } from '@melto/core/colour/deltaE2000';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzToLab } from '@melto/core/colour/xyzToLab';
import { fitRgbModel } from '@melto/core/characterise/rgbModel';
import { RGB } from '@melto/core/device/process';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { labToDevice } from '@melto/core/icc/profileTransform';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { estimateUvShare, studyFields, STUDY_ROUNDS } from '@melto/core/light/brightenerStudy';
import type { StudyPick } from '@melto/core/light/brightenerStudy';
import { adaptationOf, coloursUnder } from '@melto/core/light/colourUnder';
import type { SeenIn } from '@melto/core/light/colourUnder';
import { predictStudyPage } from '@melto/core/light/predictStudyPage';
import { createRandom } from '@melto/core/numerics/random';
import type { Random } from '@melto/core/numerics/random';
import { mean, percentile } from '@melto/core/numerics/statistics';
import { buildRgbProfile } from '@melto/core/profile/buildRgbProfile';
import { unwrap } from '@melto/core/result';
import { blackBodyIlluminant, daylightIlluminant, tableIlluminant } from '@melto/core/spectral/illuminant';
import type { Illuminant } from '@melto/core/spectral/illuminant';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { deviceTruthSpectra } from '@melto/simulator/deviceTruth';
import { simulatedDevice } from '@melto/simulator/devices';
import { addReadingNoise } from '@melto/simulator/readingNoise';
import { printTable } from './table.ts';

const STOCKS = ['lantern-gloss-150', 'marsh-silk-130', 'fenland-smooth-120', 'chalk-rag-310'] as const;
type Stock = (typeof STOCKS)[number];
const LIGHTS = Number(process.env['MELTO_LIGHTS'] ?? 50);
const PATCHES = 400;
const NOISE = 0.2;
const BANDS = GRID_380_730_10.count;
/** What the eye scatters by in a* and b*. */
const EYE = 0.4;
const SEED = Number(process.env['MELTO_SEED'] ?? 81);

/** Greys, and light tints of twelve hues. */
const GREYS = [92, 86, 80, 72, 64, 56, 48, 40].map((lightness) => [lightness, 0, 0] as const);
const TINTS = Array.from(
  { length: 12 },
  (_, i) => [86, 9 * Math.cos((i * Math.PI) / 6), 9 * Math.sin((i * Math.PI) / 6)] as const,
);

/**
 * Brightener studies by a simulated eye in lights of any share of ultraviolet, and prints through profiles with and
 * without what the study told, judged under the true light by the simulator's spectra.
 */
export function brightener(): void {
  const rows = STOCKS.map((stock) => paperRow(stock));
  printTable(
    `brightener studies, ${LIGHTS} lights a paper, ΔE00 under the true light`,
    [
      'paper',
      'share within 0.1',
      'mean',
      'largest',
      'in its range',
      'greys without',
      'with',
      'halved or better',
      'tints better',
      'largest change',
    ],
    rows,
  );
}

function paperRow(stock: Stock): (string | number)[] {
  const device = simulatedDevice('wren');
  const { rgb } = { rgb: makeRgbChart(PATCHES, 3).device };
  const truth = (values: Float64Array, mode: 'M1' | 'M2'): Float64Array =>
    deviceTruthSpectra(device, stock as never, 'fine', values, mode);
  const random = createRandom(SEED + STOCKS.indexOf(stock));
  const read = (mode: 'M1' | 'M2'): Float64Array => {
    const spectra = truth(rgb, mode);
    for (let at = 0; at < spectra.length; at += BANDS) addReadingNoise(spectra, at, NOISE, random);
    return spectra;
  };
  const [lit, dark] = [read('M1'), read('M2')];
  const at = (share: number): Float64Array => dark.map((value, i) => value + share * (lit[i] - value));
  const xyzIn = (share: number, seen: SeenIn): Float64Array =>
    coloursUnder({ grid: GRID_380_730_10, values: at(share) }, seen);
  const profileFor = (share: number, seen: SeenIn): IccProfile => {
    const xyz = xyzIn(share, seen);
    const paperXyz = meanPaperXyz(RGB, rgb, xyz);
    if (paperXyz === undefined) throw new Error('no paper');
    const about = {
      version: 4,
      description: '',
      copyright: '',
      createdMs: 0,
      paperXyz,
      adaptation: adaptationOf(seen),
      tableSize: 'small',
    } as const;
    return buildRgbProfile(fitRgbModel(rgb, xyz), about).profile;
  };
  const d50 = { light: tableIlluminant('D50'), observer: '2deg' } as const;
  const printed = (profile: IccProfile, wanted: readonly (readonly number[])[]): Float64Array => {
    const device8 = new Float64Array(3 * wanted.length);
    unwrap(labToDevice(profile, 'absolute')).apply(Float64Array.from(wanted.flat()), device8);
    return device8.map((value) => Math.round(255 * value) / 255);
  };
  const fields = studyFields();
  const page = printed(
    profileFor(1, d50),
    fields.map(({ lab }) => lab),
  );
  const errors: number[] = [];
  const greys: [number, number][] = [];
  const tints: [number, number][] = [];
  let [within, change] = [0, 0];
  for (let k = 0; k < LIGHTS; k++) {
    const share = (1.2 * (k + random.uniform())) / LIGHTS;
    const seen = { light: lightOf(random), observer: '2deg' } as const;
    const seenAs = (values: Float64Array): number[][] => {
      const [a, b] = [truth(values, 'M1'), truth(values, 'M2')];
      const xyz = coloursUnder(
        { grid: GRID_380_730_10, values: b.map((value, i) => value + share * (a[i] - value)) },
        seen,
      );
      return Array.from({ length: values.length / 3 }, (_, i) => [
        ...xyzToLab([xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2]], WHITE_D50_MEASURED),
      ]);
    };
    const picks = picksOf(fields, seenAs(page), random);
    const data = {
      channels: 3,
      device: rgb,
      without: xyzIn(0, seen),
      lit: xyzIn(1, seen),
      fields: page,
    } as const;
    const told = estimateUvShare(predictStudyPage(data), fields, picks);
    errors.push(Math.abs(told.share - share));
    if (told.range[0] <= share && share <= told.range[1]) within++;
    const used = told.tells ? told.share : 1;
    const [without, withIt] = [profileFor(1, seen), profileFor(used, seen)];
    const away = (profile: IccProfile, wanted: readonly (readonly [number, number, number])[]): number =>
      mean(
        seenAs(printed(profile, wanted)).map((lab, i) => deltaE2000Of(...wanted[i], lab[0], lab[1], lab[2])),
      );
    greys.push([away(without, GREYS), away(withIt, GREYS)]);
    tints.push([away(without, TINTS), away(withIt, TINTS)]);
    const [one, other] = [seenAs(printed(without, GREYS)), seenAs(printed(withIt, GREYS))];
    one.forEach(
      (lab, i) =>
        (change = Math.max(
          change,
          deltaE2000Of(lab[0], lab[1], lab[2], other[i][0], other[i][1], other[i][2]),
        )),
    );
  }
  const count = (of: readonly [number, number][], is: (a: number, b: number) => boolean): string =>
    `${of.filter(([a, b]) => is(a, b)).length} of ${LIGHTS}`;
  return [
    stock,
    `${errors.filter((error) => error <= 0.1).length} of ${LIGHTS}`,
    mean(errors).toFixed(3),
    percentile(errors, 100).toFixed(2),
    `${within} of ${LIGHTS}`,
    mean(greys.map(([a]) => a)).toFixed(2),
    mean(greys.map(([, b]) => b)).toFixed(2),
    count(greys, (a, b) => b <= a / 2),
    count(tints, (a, b) => b < a),
    change.toFixed(2),
  ];
}

function lightOf(random: Random): Illuminant {
  const kelvin = 2600 + 4600 * random.uniform();
  const smooth = kelvin < 5000 ? blackBodyIlluminant(kelvin) : daylightIlluminant(kelvin);
  if (random.uniform() < 0.5) return smooth;
  // A lamp with a band of its own.
  const [at, height] = [430 + 200 * random.uniform(), 0.6 * random.uniform()];
  const most = Math.max(...smooth.power);
  return {
    name: 'banded',
    power: smooth.power.map(
      (value, i) => value + height * most * Math.exp(-(((380 + 5 * i - at) / 14) ** 2)),
    ),
  };
}

function picksOf(fields: readonly StudyPick[], lab: readonly number[][], random: Random): StudyPick[] {
  return Array.from({ length: STUDY_ROUNDS }, () =>
    [...new Set(fields.map(({ row }) => row))].map((row) => {
      const [a, b] = [EYE * random.normal(), EYE * random.normal()];
      const away = (i: number): number => Math.hypot(lab[i][1] - a, lab[i][2] - b);
      const own = fields.flatMap((field, i) => (field.row === row ? [i] : []));
      return fields[own.reduce((best, i) => (away(i) < away(best) ? i : best))];
    }),
  ).flat();
}
