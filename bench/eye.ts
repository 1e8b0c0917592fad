import { fitInkModel } from '@melto/core/characterise/inkModel';
import { fitRgbModel } from '@melto/core/characterise/rgbModel';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { makeRgbChart } from '@melto/core/charts/rgbChart';
import { eightBit } from '@melto/core/charts/namedPatches';
import type { Lab } from '@melto/core/colour/lab';
import { labToScreen } from '@melto/core/colour/srgb';
import { CMYK, RGB } from '@melto/core/device/process';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { eyeHypotheses } from '@melto/core/eye/eyeHypotheses';
import type { EyeNote } from '@melto/core/eye/eyeWords';
import { EYE_CAUSES, pointOut } from '@melto/core/eye/pointOut';
import type { EyeCause, EyeHypothesis } from '@melto/core/eye/pointOut';
import { REFERENCE_COLOURS } from '@melto/core/eye/referenceColours';
import { simulatedNote } from '@melto/simulator/simulatedEye';
import { labToDevice } from '@melto/core/icc/profileTransform';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { readIcc } from '@melto/core/icc/readIcc';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { coloursUnder, labsUnder } from '@melto/core/light/colourUnder';
import type { SeenIn } from '@melto/core/light/colourUnder';
import { createRandom } from '@melto/core/numerics/random';
import type { Random } from '@melto/core/numerics/random';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { buildRgbProfile } from '@melto/core/profile/buildRgbProfile';
import type { ListedColour } from '@melto/core/refine/namedColour';
import { unwrap } from '@melto/core/result';
import { separationOf } from '@melto/core/separate/separation';
import { measuredIlluminant, tableIlluminant } from '@melto/core/spectral/illuminant';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { spectrumLab } from '@melto/core/spectral/spectrumLab';
import { transformed } from '@melto/core/transform/transform';
import { deviceTruthSpectra } from '@melto/simulator/deviceTruth';
import { simulatedDevice } from '@melto/simulator/devices';
import { ROOM_LIGHTS } from '@melto/simulator/roomLights';
import { printTable } from './table.ts';

const SEED = Number(process.env.SEED ?? 5);
const SEEDS = Number(process.env.SEEDS ?? 100);

const D50: SeenIn = { light: tableIlluminant('D50'), observer: '2deg' };
const CONDITIONS = [
  ['wren', 'fenland-smooth-120', 'fine'],
  ['wren', 'lantern-gloss-150', 'fine'],
  ['heron', 'fenland-smooth-120', 'standard'],
  ['osprey', 'lantern-gloss-150', '175 lpi'],
] as const;

interface Ground {
  readonly name: string;
  readonly channels: 3 | 4;
  readonly chart: { device: Float64Array; lit: Float64Array; dark: Float64Array };
  readonly profile: IccProfile;
  readonly spectra: (device: ArrayLike<number>, mode: 'M1' | 'M2') => Float64Array;
}

/** Causes named from what a simulated eye notes, out of so many seeds for each. */
export function eye(): void {
  const grounds = CONDITIONS.map(groundOf);
  const rows = EYE_CAUSES.map((cause) => {
    const random = createRandom(SEED * 1000 + EYE_CAUSES.indexOf(cause));
    const named = new Map<string, number>();
    const by = new Map<string, number>();
    for (let i = 0; i < SEEDS; i++) {
      const ground = grounds[i % grounds.length];
      const found = once(ground, cause, random);
      named.set(found, (named.get(found) ?? 0) + 1);
      if (found === cause) by.set(ground.name, (by.get(ground.name) ?? 0) + 1);
    }
    return [
      cause,
      String(named.get(cause) ?? 0),
      [...named].map(([name, count]) => `${name} ${count}`).join(', '),
      [...by].map(([name, count]) => `${name} ${count}`).join(', '),
    ];
  });
  printTable(`causes named, of ${SEEDS} each`, ['cause', 'right', 'named', 'right by condition'], rows);
}

function groundOf([driver, stock, mode]: (typeof CONDITIONS)[number]): Ground {
  const device = simulatedDevice(driver);
  const channels = driver === 'wren' ? 3 : 4;
  const { device: values } = channels === 3 ? makeRgbChart(200, SEED) : makeCmykChart(200, SEED, 3);
  const spectra: Ground['spectra'] = (rows, measured) =>
    deviceTruthSpectra(device, stock, mode, rows, measured);
  const lit = spectra(values, 'M1');
  const xyz = coloursUnder({ grid: GRID_380_730_10, values: lit }, D50);
  const paperXyz = meanPaperXyz(channels === 3 ? RGB : CMYK, values, xyz);
  if (paperXyz === undefined) throw new Error('no paper');
  const head = {
    version: 2,
    tableSize: 'small',
    description: '',
    copyright: '',
    createdMs: 0,
    paperXyz,
  } as const;
  const { profile } =
    channels === 3
      ? buildRgbProfile(fitRgbModel(values, xyz), head)
      : buildInkProfile(fitInkModel(values, 4, xyz), { ...head, separation: separationOf('medium', 3) });
  return {
    name: `${driver} ${stock}`,
    channels,
    chart: { device: values, lit, dark: spectra(values, 'M2') },
    profile: unwrap(readIcc(writeIcc(profile))),
    spectra,
  };
}

function once(ground: Ground, cause: EyeCause, random: Random): string {
  const { channels, profile, spectra } = ground;
  const colours = coloursFor(cause, random);
  const asked = Float64Array.from(colours.flatMap(({ lab }) => [...lab]));
  const page = transformed(unwrap(labToDevice(profile, 'absolute')), asked).map(eightBit);
  const lights = ROOM_LIGHTS.filter(({ name }) => name !== 'Proofing booth');
  const room = lights[random.below(lights.length)];
  const measured = measuredIlluminant(
    room.name,
    { startNm: room.startNm, stepNm: room.stepNm, count: room.power.length },
    room.power,
  );
  const seen: SeenIn =
    cause === 'light'
      ? { light: random.below(2) === 0 ? tableIlluminant('F11') : measured, observer: '2deg' }
      : D50;
  const sent =
    cause === 'profile' ? raw(colours, channels) : cause === 'ink' ? inked(page, channels, random) : page;
  const lit = spectra(sent, 'M1');
  const uv = cause === 'brightener' ? 0.4 * random.uniform() : 1;
  const dark = spectra(sent, 'M2');
  const printed = dark.map((value, i) => value + uv * (lit[i] - value));
  const own = labsUnder({ grid: GRID_380_730_10, values: printed }, seen);
  const notes: EyeNote[] = colours.map(({ lab, spectrum }, i) => {
    const reference =
      cause === 'light' && spectrum !== undefined ? labsUnder(spectrum, seen) : Float64Array.from(lab);
    return simulatedNote(
      i,
      [...reference] as unknown as Lab,
      [...own.subarray(3 * i, 3 * i + 3)] as unknown as Lab,
      random,
    );
  });
  const { chart } = ground;
  const hypotheses: EyeHypothesis[] = unwrap(
    eyeHypotheses({
      ...{ colours, device: page, profile, dark: chart.dark, seen },
      chart: { channels, device: chart.device, grid: GRID_380_730_10, spectra: chart.lit },
    }),
  );
  return pointOut(
    colours.map(({ lab }) => lab),
    notes,
    hypotheses,
  )[0].cause;
}

/** The reference set, or colours of a brand: with spectra where a light is the cause. */
function coloursFor(cause: EyeCause, random: Random): ListedColour[] {
  if (cause !== 'light' && random.below(2) === 0) return [...REFERENCE_COLOURS];
  const vivid = cause === 'reach' ? 1.25 : 1;
  return Array.from({ length: 16 }, (_, i) => {
    const at = 420 + 250 * random.uniform();
    const high = 0.15 + 0.6 * random.uniform();
    const low = (0.04 + 0.1 * random.uniform()) / vivid ** 3;
    const over = 8 + 25 * random.uniform();
    const second = 460 + 200 * random.uniform();
    const by = 0.3 * random.uniform() - 0.1;
    const values = Array.from({ length: 36 }, (_, band) => {
      const nm = 380 + 10 * band;
      const value = low + high / (1 + Math.exp((at - nm) / over)) + by / (1 + Math.exp((nm - second) / 20));
      return Math.min(0.95, Math.max(0.02, value));
    });
    return {
      name: String(i),
      lab: spectrumLab(GRID_380_730_10, values),
      spectrum: { grid: GRID_380_730_10, values },
    };
  });
}

function raw(colours: readonly ListedColour[], channels: number): Float64Array {
  return Float64Array.from(
    colours.flatMap(({ lab }) => {
      const rgb = labToScreen(lab).rgb.map((level) => level / 255);
      // The press's own idea of inks: half of the grey in black.
      const black = 0.5 * (1 - Math.max(...rgb)) ** 1.5;
      return channels === 3 ? rgb : [...rgb.map((value) => Math.max(0, 1 - value - black)), black];
    }),
  );
}

function inked(page: Float64Array, channels: number, random: Random): Float64Array {
  const share = random.below(3) === 0 ? 1.1 + 0.15 * random.uniform() : 0.68 + 0.2 * random.uniform();
  return page.map((value, i) => {
    const own = share * (1 + 0.04 * random.normal() * Number(i % 7 === 0));
    return channels === 3 ? Math.max(0, 1 - own * (1 - value)) : Math.min(1, own * value);
  });
}
