import { bareValues, blackChannel, channelCount, drivenByInks, drivenByLight } from '../device/process.ts';
import type { Process } from '../device/process.ts';
import type { PatchSpectra } from '../cgats/patchSet.ts';
import { deltaE2000Of } from '../colour/deltaE2000.ts';
import { gatherRows } from '../numerics/gatherRows.ts';
import { largest, mean, median } from '../numerics/statistics.ts';
import { conversionEvidence } from './conversionLeftOn.ts';
import type { Fault } from './fault.ts';
import { inkContamination } from './inkContamination.ts';
import { rampResponseFaults } from './rampResponse.ts';
import type { ExpectedRamps } from './rampResponse.ts';
import { matchStrip } from './matchStrip.ts';
import { genericLabRows } from '../charts/expectedColours.ts';

export type StockFinish = 'matt' | 'semi-matt' | 'gloss';

/** A whole sheet or chart as it was read. */
export interface SheetReading {
  readonly process: Process;
  /** Row-major patch × channel, 0..1, as sent. */
  readonly device: Float64Array;
  /** Row-major patch × 3, Y = 100. */
  readonly xyz: Float64Array;
  /** Reflectance factors, where the reading has them. */
  readonly spectra?: PatchSpectra;
  /** Row-major patch × 3, measured Lab D50. */
  readonly lab: Float64Array;
  /** Neutral density of each patch. */
  readonly density: Float64Array;
  /** For each strip the rows of its patches in reading order. */
  readonly strips: readonly (readonly number[])[];
  readonly finish: StockFinish;
  /** Dmax that this stock gave before, where known. */
  readonly usualDmax?: number;
  /** What is known of the single-ink ramps of an ink device. */
  readonly ramps?: ExpectedRamps;
}

/** Densities that pigment on a finish reaches at least on its printing side. */
const USUAL_DMAX: Readonly<Record<StockFinish, number>> = { matt: 1.5, 'semi-matt': 1.75, gloss: 1.85 };
/** The same for the black solid of toner and offset inks. */
const USUAL_BLACK: Readonly<Record<StockFinish, number>> = { matt: 1.15, 'semi-matt': 1.45, gloss: 1.55 };
/** A Dmax below this share of the usual one points to the wrong side. */
const DMAX_SHARE = 0.8;
/**
 * What a conversion leaves: Lab units beside it, and the cast of the greys; see `conversionEvidence`. Both count
 * together, since small charts have few patches inside every gamut, and wrong-side prints have weak casts.
 */
const CONVERSION_RESIDUAL = 6;
const CONVERSION_CAST = 2;
const CONVERSION_SCORE = 1.9;

/**
 * Mean departure of single-ink tints from mixtures of paper and solid (by spectra) that a clean ramp does not reach,
 * and the same by XYZ, where fewer conversions show.
 */
const CONTAMINATION_SPECTRAL = 0.01;
const CONTAMINATION_XYZ = 0.014;

/** Faults of a sheet, judged from its own data, a generic device of its kind and what is known of the condition. */
export function detectFaults(sheet: SheetReading): Fault[] {
  const strips = stripFaults(sheet);
  // A strip in the wrong place or direction says nothing about paper, side or conversion.
  const sound = withoutStrips(sheet, new Set(strips.flatMap((fault) => fault.strips)));
  const conversion = conversionFaults(sound);
  // A conversion may hold the black back: a low Dmax is then no second fault.
  const converted =
    drivenByInks(sheet.process) && conversion.some(({ kind }) => kind === 'colour-management-on');
  return [
    ...strips,
    ...paperFaults(sound),
    ...(converted ? [] : sideFaults(sound)),
    ...conversion,
    ...copyFaults(sheet, strips),
  ];
}

/** The sheet without some of its strips, counted from 1; all of it where nothing else would be left. */
function withoutStrips(sheet: SheetReading, left: ReadonlySet<number>): SheetReading {
  const out = new Set(sheet.strips.flatMap((rows, i) => (left.has(i + 1) ? rows : [])));
  const rows = Array.from(sheet.density.keys()).filter((row) => !out.has(row));
  if (out.size === 0 || rows.length === 0) return sheet;
  return {
    ...sheet,
    device: gatherRows(sheet.device, rows, channelCount(sheet.process)),
    xyz: gatherRows(sheet.xyz, rows, 3),
    spectra:
      sheet.spectra === undefined
        ? undefined
        : {
            grid: sheet.spectra.grid,
            values: gatherRows(sheet.spectra.values, rows, sheet.spectra.grid.count),
          },
    lab: gatherRows(sheet.lab, rows, 3),
    density: gatherRows(sheet.density, rows, 1),
    strips: [],
  };
}

function paperRows(sheet: SheetReading): number[] {
  const bare = bareValues(sheet.process);
  return Array.from(sheet.density.keys()).filter((row) =>
    valuesOf(sheet, row).every((value, channel) => Math.abs(value - bare[channel]) < 3e-4),
  );
}

function valuesOf(sheet: SheetReading, row: number): Float64Array {
  const channels = channelCount(sheet.process);
  return sheet.device.subarray(row * channels, (row + 1) * channels);
}

function paperFaults(sheet: SheetReading): Fault[] {
  const rows = paperRows(sheet);
  if (rows.length === 0) return [];
  const lightness = mean(rows.map((i) => sheet.lab[3 * i]));
  const chroma = mean(rows.map((i) => Math.hypot(sheet.lab[3 * i + 1], sheet.lab[3 * i + 2])));
  if (lightness > 80 && chroma < 16) return [];
  return [{ kind: 'paper-unlikely', confidence: 0.9, strips: [], figures: { lightness, chroma } }];
}

function sideFaults(sheet: SheetReading): Fault[] {
  const rgb = drivenByLight(sheet.process);
  const black = blackChannel(sheet.process);
  // Judged only where the chart asks for a dark colour at all: RGB black, or the black solid alone.
  const dark = Array.from(sheet.density.keys()).filter((row) => {
    const values = valuesOf(sheet, row);
    return rgb
      ? values[0] + values[1] + values[2] <= 0.15
      : black !== undefined &&
          values[black] > 0.99 &&
          values.every((value, channel) => channel === black || value < 0.01);
  });
  if (dark.length === 0) return [];
  const dmax = rgb ? largest(sheet.density) : mean(dark.map((row) => sheet.density[row]));
  const usual = sheet.usualDmax ?? (rgb ? USUAL_DMAX : USUAL_BLACK)[sheet.finish];
  if (dmax >= DMAX_SHARE * usual) return [];
  return [
    {
      kind: 'wrong-side',
      confidence: Math.min(0.99, 0.6 + 2 * (DMAX_SHARE - dmax / usual)),
      strips: [],
      figures: { dmax, usual },
    },
  ];
}

function conversionFaults(sheet: SheetReading): Fault[] {
  if (drivenByInks(sheet.process)) return inkFaults(sheet);
  const evidence = conversionEvidence(sheet.device, sheet.lab);
  if (evidence === undefined) return [];
  const { residual, greyCast } = evidence;
  // Greys are missing on some charts: then the rest beside a conversion must be small by itself.
  const score = Number.isFinite(greyCast)
    ? (residual / CONVERSION_RESIDUAL + greyCast / CONVERSION_CAST) / CONVERSION_SCORE
    : residual / CONVERSION_RESIDUAL;
  if (score >= 1) return [];
  const confidence = Math.min(0.99, 0.6 + 0.6 * (1 - score));
  return [{ kind: 'colour-management-on', confidence, strips: [], figures: { residual, greyCast } }];
}

/** Ink devices: other inks in single-ink ramps, else ramps through other curves than asked for. */
function inkFaults(sheet: SheetReading): Fault[] {
  const { spectra, device, xyz, process } = sheet;
  const found =
    spectra !== undefined
      ? inkContamination(process, device, spectra.values, spectra.grid.count)
      : inkContamination(
          process,
          device,
          xyz.map((value) => value / 100),
          3,
        );
  if (found === undefined) return [];
  const limit = spectra !== undefined ? CONTAMINATION_SPECTRAL : CONTAMINATION_XYZ;
  if (found.mean > limit)
    return [
      {
        kind: 'colour-management-on',
        confidence: Math.min(0.99, 0.5 + 0.3 * (found.mean / limit)),
        strips: [],
        figures: { contamination: 100 * found.mean, usual: 50 * limit },
      },
    ];
  return rampResponseFaults(process, device, xyz, sheet.ramps ?? {});
}

function stripFaults(sheet: SheetReading): Fault[] {
  const expectedAll = genericLabRows(sheet.process, sheet.device, channelCount(sheet.process));
  const expected = sheet.strips.map((rows) => gatherRows(expectedAll, rows, 3));
  const swapped: number[] = [];
  const backwards: number[] = [];
  sheet.strips.forEach((rows, index) => {
    if (rows.length < 5) return;
    const match = matchStrip(gatherRows(sheet.lab, rows, 3), expected, index);
    if (match.strip !== index) swapped.push(index + 1);
    else if (match.reversed) backwards.push(index + 1);
  });
  const faults: Fault[] = [];
  if (swapped.length > 0)
    faults.push({
      kind: 'strips-swapped',
      confidence: 0.97,
      strips: swapped,
      figures: { count: swapped.length },
    });
  if (backwards.length > 0)
    faults.push({
      kind: 'strip-backwards',
      confidence: 0.97,
      strips: backwards,
      figures: { count: backwards.length },
    });
  return faults;
}

/** Copies of a patch that lie further (ΔE00) from the median of all copies than a sheet's own unevenness explains. */
const COPY_DIFFERENCE = 3;
/** Presses and toner devices are less even across their width. */
const COPY_DIFFERENCE_INK = 6;

function copyFaults(sheet: SheetReading, found: readonly Fault[]): Fault[] {
  const misplaced = new Set(found.flatMap(({ strips }) => strips));
  const stripOf = new Map(sheet.strips.flatMap((rows, i) => rows.map((row) => [row, i + 1] as const)));
  const groups = new Map<string, number[]>();
  for (let row = 0; row < sheet.density.length; row++) {
    if (misplaced.has(stripOf.get(row) ?? 0)) continue;
    const key = valuesOf(sheet, row).join();
    const group = groups.get(key);
    if (group === undefined) groups.set(key, [row]);
    else group.push(row);
  }
  const strips = new Set<number>();
  let worst = 0;
  const most = drivenByLight(sheet.process) ? COPY_DIFFERENCE : COPY_DIFFERENCE_INK;
  for (const rows of groups.values()) {
    if (rows.length < 2) continue;
    const middle = [0, 1, 2].map((axis) => median(rows.map((row) => sheet.lab[3 * row + axis])));
    for (const row of rows) {
      const strip = stripOf.get(row);
      if (strip === undefined) continue;
      const [l, a, b] = [sheet.lab[3 * row], sheet.lab[3 * row + 1], sheet.lab[3 * row + 2]];
      // Two copies lie at the same distance from their middle: their full difference counts.
      const difference = deltaE2000Of(middle[0], middle[1], middle[2], l, a, b) * (rows.length === 2 ? 2 : 1);
      if (difference <= most) continue;
      strips.add(strip);
      worst = Math.max(worst, difference);
    }
  }
  if (strips.size === 0) return [];
  return [
    {
      kind: 'outlier-patches',
      confidence: Math.min(0.95, 0.5 + worst / 20),
      strips: [...strips].sort((x, y) => x - y),
      figures: { deltaE: worst },
    },
  ];
}
