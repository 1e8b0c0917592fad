import { columnsOf } from '../measured/columns.ts';
import type { MeasuredTable } from '../measured/measuredTable.ts';
import { failure, success } from '../result.ts';
import type { Issue, Result } from '../result.ts';
import type { SpectralGrid } from '../spectral/spectralGrid.ts';
import { gridEndNm } from '../spectral/spectralGrid.ts';

/** The power that a light sends out, by wavelength, in any unit: only its shape counts. */
export interface Emission {
  /** As its file calls it; empty where it does not. */
  readonly name: string;
  readonly grid: SpectralGrid;
  /** Largest 1, none below 0. */
  readonly power: readonly number[];
}

/** What a spectrum of a light has to cover: lamps have narrow lines, so the steps are finer than those of prints. */
const EMISSION_RANGE = {
  latestStartNm: 400,
  earliestEndNm: 700,
  widestStepNm: 10,
  mostBands: 2001,
} as const;
/** Lights that a file may hold. */
const MOST_LIGHTS = 200;
/** Noise of an instrument reaches this far below zero, as a share of the largest value. */
const NOISE = 0.01;

/**
 * Lights of the tables of a file: a row of a table with a column for each wavelength, or a column beside one of
 * wavelengths.
 */
export function emissionsOf(tables: readonly MeasuredTable[]): Result<readonly Emission[]> {
  for (const table of tables) {
    const kinds = columnsOf(table.fields);
    if (kinds.some(({ kind }) => kind === 'device'))
      return failure({
        code: 'light.not-a-light',
        expected: 'the spectrum of a light',
        found: 'device values beside it, as readings of prints have them',
      });
    const [damaged] = table.damaged;
    if (damaged !== undefined)
      return failure({ code: 'light.row', line: damaged.line, expected: 'whole rows', found: damaged.why });
    const bands = kinds.flatMap((kind, column) =>
      kind.kind === 'spectral' ? [{ nm: kind.nm, column }] : [],
    );
    if (bands.length > 1) return byRows(table, bands);
    const wavelengths = kinds.findIndex(({ kind }) => kind === 'wavelength');
    if (wavelengths >= 0) return byColumns(table, wavelengths);
  }
  return failure({
    code: 'light.no-spectrum',
    expected:
      'a column for each wavelength (380, 390, … or SPECTRAL_NM380), or one named nm beside the power',
    found: 'neither',
  });
}

interface BandColumn {
  readonly nm: number;
  readonly column: number;
}

function byRows(table: MeasuredTable, bands: readonly BandColumn[]): Result<readonly Emission[]> {
  const named = columnsOf(table.fields).findIndex(({ kind }) => kind === 'name');
  const sorted = [...bands].sort((a, b) => a.nm - b.nm);
  return several(
    table.rows.map(({ line, cells }) => ({
      ...{ line, name: named < 0 ? '' : (cells[named] ?? '').trim() },
      points: sorted.map(({ nm, column }) => [nm, numberOf(cells[column])] as const),
    })),
  );
}

function byColumns(table: MeasuredTable, wavelengths: number): Result<readonly Emission[]> {
  const rows = [...table.rows].sort(
    (a, b) => numberOf(a.cells[wavelengths]) - numberOf(b.cells[wavelengths]),
  );
  const columns = table.fields.flatMap((name, column) =>
    column === wavelengths || name.trim() === '' ? [] : [{ name: name.trim(), column }],
  );
  return several(
    columns.map(({ name, column }) => ({
      ...{ line: table.rows[0]?.line ?? 1, name },
      points: rows.map(({ cells }) => [numberOf(cells[wavelengths]), numberOf(cells[column])] as const),
    })),
  );
}

/** A decimal comma is taken for a point; what is no number is NaN. */
const numberOf = (cell: string | undefined): number =>
  cell === undefined || cell.trim() === '' ? NaN : Number(cell.trim().replace(',', '.'));

interface Points {
  readonly name: string;
  readonly line: number;
  readonly points: readonly (readonly [number, number])[];
}

function several(lights: readonly Points[]): Result<readonly Emission[]> {
  if (lights.length === 0 || lights.length > MOST_LIGHTS)
    return failure({
      code: 'light.count',
      expected: `1 to ${MOST_LIGHTS} lights`,
      found: String(lights.length),
    });
  const out: Emission[] = [];
  for (const light of lights) {
    const one = emissionOf(light);
    if (!one.ok) return one;
    out.push(one.value);
  }
  return success(out);
}

function emissionOf({ name, line, points }: Points): Result<Emission> {
  const refuse = (expected: string, found: string): Result<Emission> => {
    const issue: Issue = { code: 'light.spectrum', line, path: name, expected, found };
    return failure(issue);
  };
  const { latestStartNm, earliestEndNm, widestStepNm, mostBands } = EMISSION_RANGE;
  if (points.length < 2 || points.length > mostBands)
    return refuse(`2 to ${mostBands} wavelengths`, String(points.length));
  const bad = points.find((point) => !point.every(Number.isFinite));
  if (bad !== undefined) return refuse('numbers throughout', `none at ${bad[0]} nm`);
  const [[startNm], [second]] = points;
  const stepNm = second - startNm;
  const uneven = points.findIndex(([nm], i) => Math.abs(nm - startNm - i * stepNm) > 1e-6 * stepNm);
  if (!(stepNm > 0) || uneven >= 0)
    return refuse(
      'wavelengths in even steps',
      `${points[Math.max(1, uneven) - 1][0]} nm, then ${points[Math.max(1, uneven)][0]} nm`,
    );
  const grid: SpectralGrid = { startNm, stepNm, count: points.length };
  if (startNm > latestStartNm || gridEndNm(grid) < earliestEndNm || stepNm > widestStepNm)
    return refuse(
      `${latestStartNm} to ${earliestEndNm} nm in steps of ${widestStepNm} nm or less`,
      `${startNm} to ${gridEndNm(grid)} nm in steps of ${stepNm} nm`,
    );
  const values = points.map(([, value]) => value);
  const most = Math.max(...values);
  const least = Math.min(...values);
  if (!(most > 0)) return refuse('light at some wavelength', `at most ${most}`);
  if (least < -NOISE * most) return refuse('no power below zero', `${least} beside a largest of ${most}`);
  return success({ name, grid, power: values.map((value) => Math.max(0, value) / most) });
}
