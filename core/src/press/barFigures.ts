import type { Lab } from '../colour/lab.ts';
import { labAt } from '../colour/labAt.ts';
import { inkSignal } from '../tone/toneMeasure.ts';
import { spotColourToneValue } from '../tone/sctv.ts';
import { mean } from '../numerics/statistics.ts';
import type { BarReading } from './barReading.ts';
import type { ColourBar } from './colourBar.ts';
import { FILTERS, isProcessUnit } from './pressUnit.ts';
import type { PressUnit } from './pressUnit.ts';
import { labInLight, readingInLight } from './runLight.ts';
import type { ToldColours } from './runLight.ts';
import { differenceOf } from './runSettings.ts';
import type { RunSettings } from './runSettings.ts';

/** What a bar is judged by: of colours NaN where there is no aim, spectra where they are those of a sheet. */
export interface BarAims extends ToldColours {
  /** Tone value 0..1 that each tint is to have; NaN elsewhere and where there is no aim. */
  readonly tone: Float64Array;
}

/** Figures of the patches of one sheet; NaN where a patch was not read or has no such figure. */
export interface BarFigures {
  /** Colour difference to the aim. */
  readonly deltaE: Float64Array;
  /** Density of solids and tints through their ink's filter, from the white base that was asked for. */
  readonly density: Float64Array;
  /**
   * What else is told of a patch by its kind: tone value minus its aim of tints, in per cent; ΔCh of greys; trapping of
   * overprints in per cent (Preucil); slur of the lines across, in per cent of tone.
   */
  readonly other: Float64Array;
  /** Print contrast of the 75 % tints: (Ds − D75) / Ds. */
  readonly contrast: Float64Array;
  /** Midtone spread of each zone in per cent, by ISO 12647-2, over the sheet where zones have not all the tints. */
  readonly spread: number;
}

const MIDTONE = 0.5;
const THREE_QUARTER = 0.75;

/** All figures of a bar: colour differences in the run's light, tone values as their standards count them, under D50. */
export function barFigures(
  bar: ColourBar,
  units: readonly PressUnit[],
  reading: BarReading,
  aims: BarAims,
  settings: Pick<RunSettings, 'formula' | 'white' | 'light' | 'observer'>,
): BarFigures {
  const { patches } = bar;
  const count = patches.length;
  const lab = readingInLight(reading, settings);
  const wanted = labInLight(aims, settings);
  const difference = differenceOf[settings.formula];
  const blank = (): Float64Array => new Float64Array(count).fill(NaN);
  const [deltaE, density, other, contrast] = [blank(), blank(), blank(), blank()];
  const paper = paperOf(bar, reading);
  const solidOf = solids(bar, reading);
  const over = (patch: number, unit: number): number => {
    const filter = FILTERS.indexOf(units[unit].filter);
    return reading.density[4 * patch + filter] - paper.density[filter];
  };
  patches.forEach(({ kind, zone, tones }, patch) => {
    deltaE[patch] = difference(labAt(lab, patch), labAt(wanted, patch));
    const inks = units.flatMap((_, unit) => (tones[unit] > 0 ? [unit] : []));
    const [unit] = inks;
    if (kind === 'grey') other[patch] = chromaticity(labAt(lab, patch), labAt(wanted, patch));
    if (kind === 'overprint' && inks.length === 2) {
      // The second ink's filter sees both: what the second adds over the first, as a share of what it has on paper.
      const [first, second] = inks;
      const through = (row: number): number => over(row, second);
      const [under, upon] = [solidOf(first, zone), solidOf(second, zone)];
      if (under >= 0 && upon >= 0) other[patch] = (100 * (through(patch) - through(under))) / through(upon);
    }
    if (kind !== 'solid' && kind !== 'tint') return;
    const overPaper = over(patch, unit);
    density[patch] =
      settings.white === 'paper'
        ? overPaper
        : reading.density[4 * patch + FILTERS.indexOf(units[unit].filter)];
    if (kind === 'solid') return;
    const solid = solidOf(unit, zone);
    if (solid < 0) return;
    other[patch] = 100 * (toneOf(units[unit], reading, patch, solid, paper) - aims.tone[patch]);
    if (tones[unit] === THREE_QUARTER) contrast[patch] = 1 - overPaper / over(solid, unit);
  });
  slur(bar, units, reading, paper, other);
  return { deltaE, density, other, contrast, spread: midtoneSpread(bar, units, other) };
}

/** The bare stock of a sheet. */
export interface Paper {
  readonly xyz: readonly number[];
  readonly density: readonly number[];
}

/** Mean of the bare patches; NaN where none was read. */
export function paperOf({ patches }: ColourBar, { xyz, density }: BarReading): Paper {
  const bare = patches.flatMap(({ kind }, patch) => (kind === 'paper' ? [patch] : []));
  const means = (rows: Float64Array, width: number): number[] =>
    Array.from({ length: width }, (_, i) =>
      mean(bare.map((patch) => rows[width * patch + i]).filter(Number.isFinite)),
    );
  return { xyz: means(xyz, 3), density: means(density, 4) };
}

/** Nearest zone's solid of a unit that was read. */
function solids(
  { patches, zones }: ColourBar,
  { density }: BarReading,
): (unit: number, zone: number) => number {
  const places = new Map<string, number>();
  patches.forEach(({ kind, zone, tones }, patch) => {
    if (kind === 'solid' && Number.isFinite(density[4 * patch + 3]))
      places.set(`${tones.findIndex((tone) => tone > 0)}:${zone}`, patch);
  });
  return (unit, zone) => {
    for (let far = 0; far < zones; far++)
      for (const place of [zone - far, zone + far]) {
        const found = places.get(`${unit}:${place}`);
        if (found !== undefined) return found;
      }
    return -1;
  };
}

/** Tone value 0..1: of process inks by the colorimetric signal that curves are made with, of spot colours by ISO 20654. */
function toneOf(
  unit: PressUnit,
  { xyz, density }: BarReading,
  patch: number,
  solid: number,
  paper: Paper,
): number {
  const own = xyz.subarray(3 * patch, 3 * patch + 3);
  const full = xyz.subarray(3 * solid, 3 * solid + 3);
  if (!Number.isFinite(own[1]) || !Number.isFinite(full[1])) {
    // A densitometer tells no more: Murray and Davies by density.
    const filter = FILTERS.indexOf(unit.filter);
    const area = (row: number): number => 1 - 10 ** -(density[4 * row + filter] - paper.density[filter]);
    return area(patch) / area(solid);
  }
  if (!isProcessUnit(unit)) return spotColourToneValue(own, paper.xyz, full);
  const bare = inkSignal(unit.ink, paper.xyz);
  return (bare - inkSignal(unit.ink, own)) / (bare - inkSignal(unit.ink, full));
}

function chromaticity(a: Lab, b: Lab): number {
  return Math.hypot(a[1] - b[1], a[2] - b[2]);
}

/** Lines across minus the nearest lines along, in per cent of tone, told at the lines across. */
function slur(
  { patches }: ColourBar,
  units: readonly PressUnit[],
  { density }: BarReading,
  paper: Paper,
  other: Float64Array,
): void {
  const along = patches.flatMap(({ kind }, patch) => (kind === 'slur along' ? [patch] : []));
  patches.forEach(({ kind, tones }, patch) => {
    if (kind !== 'slur across' || along.length === 0) return;
    const unit = tones.findIndex((tone) => tone > 0);
    const filter = FILTERS.indexOf(units[unit].filter);
    const covered = (row: number): number => 1 - 10 ** -(density[4 * row + filter] - paper.density[filter]);
    const nearest = along.reduce((a, b) => (Math.abs(b - patch) < Math.abs(a - patch) ? b : a));
    other[patch] = 100 * (covered(patch) - covered(nearest));
  });
}

/** Greatest minus least of the mean deviations of the C, M and Y midtones; NaN where one of them is not known. */
function midtoneSpread({ patches }: ColourBar, units: readonly PressUnit[], other: Float64Array): number {
  const means = ['C', 'M', 'Y'].map((ink) => {
    const unit = units.findIndex((one) => one.ink === ink);
    const values = patches.flatMap(({ kind, tones }, patch) =>
      kind === 'tint' && unit >= 0 && tones[unit] === MIDTONE && Number.isFinite(other[patch])
        ? [other[patch]]
        : [],
    );
    return mean(values);
  });
  return Math.max(...means) - Math.min(...means);
}
