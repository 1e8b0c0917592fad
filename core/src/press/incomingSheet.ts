import { statusDensity } from '../density/density.ts';
import { measuredLabRows } from '../colour/measuredLabRows.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import { failure, success } from '../result.ts';
import type { Issue, Result } from '../result.ts';
import { tableIlluminant } from '../spectral/illuminant.ts';
import type { SpectralGrid } from '../spectral/spectralGrid.ts';
import { spectrumToXyz } from '../spectral/spectrumToXyz.ts';
import { createXyzWeights } from '../spectral/xyzWeights.ts';
import { matchBar } from './barMatch.ts';
import type { BarReading } from './barReading.ts';
import { FILTERS } from './pressUnit.ts';
import type { RunPlan } from './runAdvice.ts';
import { isUsualLight, lightWords } from './runLight.ts';

/** A patch as it was delivered: its spectrum, or densities (red, green, blue, visual) with or without its colour. */
export interface IncomingPatch {
  /** Place on the bar from 1; where none is told for any, the places are found by the colours. */
  readonly patch?: number;
  readonly spectrum?: readonly number[];
  readonly density?: readonly number[];
  /** D50, 2°. */
  readonly lab?: readonly number[];
}

export interface IncomingSheet {
  /** Counter of the press when the sheet was taken. */
  readonly impression: number;
  readonly grid?: SpectralGrid;
  readonly patches: readonly IncomingPatch[];
}

export interface ReadSheet {
  readonly reading: BarReading;
  /** The sheet or the instrument lay the other way round. */
  readonly turned: boolean;
  /** Values that are no patch of the bar. */
  readonly surplus: number;
}

export const MOST_BAR_PATCHES = 1200;
/** What the counter of a press goes to. */
export const MOST_IMPRESSIONS = 100_000_000;
const RANGES = {
  spectrum: { least: -0.05, most: 2.5 },
  density: { least: -0.2, most: 6 },
  lab: { least: -200, most: 200 },
} as const;

/** Puts delivered values where they belong on the bar, with their densities by the run's status. */
export function readIncoming(
  plan: Pick<RunPlan, 'bar' | 'aims' | 'settings'>,
  sheet: IncomingSheet,
): Result<ReadSheet> {
  const { patches } = sheet;
  const count = plan.bar.patches.length;
  if (patches.length === 0 || patches.length > MOST_BAR_PATCHES)
    return failure(bad('patches', `1 to ${MOST_BAR_PATCHES} patches`, String(patches.length)));
  const issues = patches.flatMap((patch, row) => issuesOf(patch, row, sheet.grid));
  if (issues.length > 0) return failure(...issues.slice(0, 5));
  if (!isUsualLight(plan.settings) && patches.some(({ spectrum }) => spectrum === undefined))
    return failure(
      bad(
        'patches',
        `spectra, since this run is judged under ${lightWords(plan.settings)}`,
        'colours or densities alone',
      ),
    );
  const values = valuesOf(plan, sheet);
  const places = placesOf(plan, patches, values);
  if (!places.ok) return places;
  const blank = (width: number): Float64Array => new Float64Array(width * count).fill(NaN);
  const [xyz, density] = [blank(3), blank(4)];
  const { grid } = sheet;
  const spectra = values.spectra === undefined || grid === undefined ? undefined : blank(grid.count);
  let surplus = 0;
  places.value.places.forEach((place, row) => {
    if (place < 0) {
      surplus++;
      return;
    }
    xyz.set(values.xyz.subarray(3 * row, 3 * row + 3), 3 * place);
    density.set(values.density.subarray(4 * row, 4 * row + 4), 4 * place);
    if (spectra !== undefined && grid !== undefined)
      spectra.set(
        values.spectra?.subarray(row * grid.count, (row + 1) * grid.count) ?? [],
        place * grid.count,
      );
  });
  const reading = spectra === undefined ? { xyz, density } : { xyz, density, grid, spectra };
  return success({ reading, turned: places.value.turned, surplus });
}

function bad(path: string, expected: string, found: string): Issue {
  return { code: 'bar.values', path, expected, found };
}

function issuesOf(patch: IncomingPatch, row: number, grid: SpectralGrid | undefined): Issue[] {
  const path = `patches[${row}]`;
  const { spectrum, density, lab } = patch;
  if (spectrum === undefined && density === undefined)
    return [
      bad(
        path,
        'a spectrum or densities, which keys are set by',
        lab === undefined ? 'neither' : 'a colour alone',
      ),
    ];
  if (spectrum !== undefined && grid === undefined)
    return [bad('grid', 'the wavelengths of the spectra', 'none')];
  const parts = [
    ['spectrum', spectrum, grid?.count],
    ['density', density, FILTERS.length],
    ['lab', lab, 3],
  ] as const;
  return parts.flatMap(([name, values, width]) => {
    if (values === undefined) return [];
    if (values.length !== width) return [bad(`${path}.${name}`, `${width} values`, String(values.length))];
    const { least, most } = RANGES[name];
    const odd = values.find((value) => !(value >= least && value <= most));
    return odd === undefined ? [] : [bad(`${path}.${name}`, `values from ${least} to ${most}`, String(odd))];
  });
}

interface Values {
  readonly xyz: Float64Array;
  readonly density: Float64Array;
  readonly spectra: Float64Array | undefined;
}

/** Colours and densities in the order of delivery; NaN where they are not told. */
function valuesOf({ settings }: Pick<RunPlan, 'settings'>, { patches, grid }: IncomingSheet): Values {
  const xyz = new Float64Array(3 * patches.length).fill(NaN);
  const density = new Float64Array(4 * patches.length).fill(NaN);
  const all = grid !== undefined && patches.every(({ spectrum }) => spectrum !== undefined);
  const spectra = all ? new Float64Array(patches.length * grid.count) : undefined;
  const weights = grid && createXyzWeights(grid, tableIlluminant('D50'), '2deg');
  const filters = grid && statusDensity(grid, settings.status);
  patches.forEach((patch, row) => {
    const { spectrum, lab } = patch;
    if (spectrum !== undefined && weights !== undefined && filters !== undefined) {
      xyz.set(spectrumToXyz(weights, spectrum), 3 * row);
      density.set(
        FILTERS.map((filter) => filters[filter](spectrum)),
        4 * row,
      );
      spectra?.set(spectrum, row * weights.grid.count);
    } else if (lab !== undefined) xyz.set(labToXyz([lab[0], lab[1], lab[2]], WHITE_D50_MEASURED), 3 * row);
    // What the instrument itself calls the density goes before what is worked out.
    if (patch.density !== undefined) density.set(patch.density, 4 * row);
  });
  return { xyz, density, spectra };
}

interface Places {
  readonly places: Int32Array;
  readonly turned: boolean;
}

function placesOf(
  { bar, aims }: Pick<RunPlan, 'bar' | 'aims'>,
  patches: readonly IncomingPatch[],
  { xyz }: Values,
): Result<Places> {
  const count = bar.patches.length;
  const numbered = patches.filter(({ patch }) => patch !== undefined).length;
  if (numbered > 0) {
    if (numbered < patches.length)
      return failure(
        bad('patches', 'a number for each patch or for none', `${numbered} of ${patches.length}`),
      );
    const places = Int32Array.from(patches, ({ patch }) => (patch ?? 0) - 1);
    const seen = new Set<number>();
    for (const [row, place] of places.entries()) {
      if (!(place >= 0 && place < count))
        return failure(bad(`patches[${row}].patch`, `1 to ${count}`, String(place + 1)));
      if (seen.has(place))
        return failure(bad(`patches[${row}].patch`, 'each patch once', `${place + 1} twice`));
      seen.add(place);
    }
    return success({ places, turned: false });
  }
  const lab = measuredLabRows(xyz);
  if (!lab.every((value) => Number.isFinite(value)))
    return failure(bad('patches', 'numbers of the patches, where colours are not told', 'densities alone'));
  const match = matchBar(lab, aims.lab);
  return match.ok ? success({ places: match.value.patches, turned: match.value.turned }) : match;
}
