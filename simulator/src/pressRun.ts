import type { ColourBar } from '@melto/core/press/colourBar';
import type { MeasurementMode } from '@melto/core/device/instrument';
import { evaluateToneCurve } from '@melto/core/tone/toneCurve';
import { createRandom, seedFrom } from '@melto/core/numerics/random';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { SIMULATED_STOCKS } from './data/stocks.ts';
import type { SimulatedStockId } from './data/stocks.ts';
import { addReadingNoise } from './readingNoise.ts';
import { simulatedDevice } from './devices.ts';
import { SpectralPrinter } from './spectralPrinter.ts';

/** Keys of one unit that were moved: changes of density that were asked for, by zone. */
export interface KeyMove {
  readonly unit: number;
  readonly impression: number;
  readonly changes: readonly number[];
}

/** Something that happens in a run, from an impression on. */
export interface PressEvent {
  readonly fromImpression: number;
  readonly unit: number;
  /** Share by which the ink's density changes, over all zones. */
  readonly density: number;
}

/** A run on a simulated offset press; all that it prints follows from this. */
export interface SimulatedRun {
  readonly device: string;
  readonly stock: SimulatedStockId;
  readonly mode: string;
  readonly seed: number;
  readonly bar: ColourBar;
  /** Channel (C, M, Y, K) of the ink in each unit of the bar, in the order of printing. */
  readonly channels: readonly number[];
  /** How far the keys begin off, as shares of density (standard deviation). */
  readonly unevenStart: number;
  readonly events?: readonly PressEvent[];
  /** How far inks wander over thousands of impressions, as a share of density. */
  readonly wander?: number;
  /** Curves of the plates, by channel; straight where absent. */
  readonly curves?: readonly (readonly number[])[];
  /** Share of patches that a sensor misses. */
  readonly missing?: number;
}

/** Density of a solid that a share of ink is told by at the console; the inks' own differ. */
const CONSOLE_DENSITY = 1.4;
/** Relative spread of the keys' gains over the zones of one unit. */
const KEY_SPREAD = 0.12;
/** Variation from sheet to sheet, and of one patch to the other, as shares of density. */
const SHEET_NOISE = 0.004;
const PATCH_NOISE = 0.004;
/** Mean ΔE00 of the sensor's own noise. */
const READING_NOISE = 0.06;
/** Lines across the travel print wider by this area. */
const SLUR = 0.01;

interface UnitCharacter {
  /** Share of density that a share of key travel brings. */
  readonly gain: readonly number[];
  readonly neighbour: number;
  readonly delay: number;
  readonly lag: number;
  readonly ceiling: number;
  readonly start: readonly number[];
}

function characterOf({ device, seed, bar, unevenStart }: SimulatedRun, unit: number): UnitCharacter {
  const random = createRandom(seedFrom(device, 'keys', seed, unit));
  const all = 0.65 + 0.8 * random.uniform();
  const offset = unevenStart * 0.7 * random.normal();
  return {
    neighbour: 0.05 + 0.17 * random.uniform(),
    delay: 10 + 20 * random.uniform(),
    lag: 25 + 30 * random.uniform(),
    ceiling: 0.45 + 0.3 * random.uniform(),
    gain: Array.from({ length: bar.zones }, () => all * (1 + KEY_SPREAD * random.normal())),
    start: Array.from({ length: bar.zones }, () => offset + unevenStart * random.normal()),
  };
}

/** Share by which each zone of a unit is denser than the mean press, free of noise, at an impression. */
export function zoneDensities(
  run: SimulatedRun,
  moves: readonly KeyMove[],
  unit: number,
  impression: number,
): Float64Array {
  const { gain, neighbour, delay, lag, ceiling, start } = characterOf(run, unit);
  const { zones } = run.bar;
  const keys = Float64Array.from(start);
  for (const move of moves) {
    if (move.unit !== unit) continue;
    const since = impression - move.impression - delay;
    if (since <= 0) continue;
    const arrived = 1 - Math.exp(-since / lag);
    for (let zone = 0; zone < zones; zone++)
      keys[zone] += (arrived * gain[zone] * (move.changes[zone] ?? 0)) / CONSOLE_DENSITY;
  }
  let happened = wandered(run, unit, impression);
  for (const event of run.events ?? [])
    if (event.unit === unit && impression >= event.fromImpression) happened += event.density;
  return Float64Array.from({ length: zones }, (_, zone) => {
    let film = keys[zone];
    if (zone > 0) film += neighbour * (keys[zone - 1] - keys[zone]);
    if (zone + 1 < zones) film += neighbour * (keys[zone + 1] - keys[zone]);
    // More ink brings ever less, less ink takes off ever more.
    return happened + ceiling * (1 - Math.exp(-film / ceiling));
  });
}

/** Slow waves that temperature and water bring, over a thousand to some thousands of impressions. */
function wandered({ device, seed, wander = 0 }: SimulatedRun, unit: number, impression: number): number {
  const random = createRandom(seedFrom(device, 'wander', seed, unit));
  let sum = 0;
  for (const period of [1300, 3100, 7700])
    sum += Math.sin((2 * Math.PI * impression) / period + 2 * Math.PI * random.uniform());
  return (wander * sum) / Math.sqrt(1.5);
}

/**
 * Spectra of the bar on one sheet as a sensor reads them, row-major patch × band; rows of patches that it missed hold NaN.
 * The same run, moves and impression give the same numbers.
 */
export function readPressSheet(
  run: SimulatedRun,
  moves: readonly KeyMove[],
  impression: number,
  measurement: MeasurementMode = 'M1',
  noise: 'instrument' | 'none' = 'instrument',
): Float64Array {
  const device = simulatedDevice(run.device);
  const random = createRandom(seedFrom(run.device, 'sheet', run.seed, impression));
  const shares = run.channels.map((_, unit) => zoneDensities(run, moves, unit, impression));
  const sheet = shares.map(() => SHEET_NOISE * random.normal());
  const noisy = noise === 'instrument';
  const curves = run.curves?.map((curve) => Float64Array.from(curve));
  const bands = GRID_380_730_10.count;
  const { patches } = run.bar;
  const out = new Float64Array(patches.length * bands);
  let printer: SpectralPrinter | undefined;
  patches.forEach(({ kind, zone, tones }, row) => {
    if (printer === undefined || noisy || patches[row - 1].zone !== zone) {
      const density = [1, 1, 1, 1];
      const area = [0, 0, 0, 0];
      shares.forEach((share, unit) => {
        const off = noisy ? sheet[unit] + PATCH_NOISE * random.normal() : 0;
        density[run.channels[unit]] = Math.max(0.1, 1 + share[zone] + off);
        area[run.channels[unit]] = 0.25 * share[zone];
      });
      const stock = SIMULATED_STOCKS[run.stock];
      printer = new SpectralPrinter(device.printer, stock, measurement, 'printing', { density, area });
    }
    const values = [0, 0, 0, 0];
    tones.forEach((plate, unit) => {
      const curve = curves?.[run.channels[unit]];
      const tone = curve === undefined ? plate : evaluateToneCurve(curve, plate);
      values[run.channels[unit]] = tone + (kind === 'slur across' && tone > 0 ? SLUR : 0);
    });
    printer.print(device.inks(values, 0, run.mode), out, row * bands);
    if (noisy) addReadingNoise(out, row * bands, READING_NOISE, random);
    if (noisy && random.uniform() < (run.missing ?? 0)) out.fill(NaN, row * bands, (row + 1) * bands);
  });
  return out;
}
