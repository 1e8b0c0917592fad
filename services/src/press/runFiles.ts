import { barPatchWords } from '@melto/core/press/colourBar';
import { gridEndNm, gridWavelengths, sameGrid } from '@melto/core/spectral/spectralGrid';
import type { SpectralGrid } from '@melto/core/spectral/spectralGrid';
import { csvText } from '@melto/core/text/csvText';
import { factsOf, listMoves, listRuns } from '@melto/store/pressRuns';
import { sheetPages } from '@melto/store/pressSheets';
import type { SheetWithValues } from '@melto/store/pressSheets';
import type { RunWithPlan } from '@melto/store/pressRuns';
import type { Context } from '../kernel/context.ts';
import { fileName } from '../kernel/download.ts';
import { runOf } from './runs.ts';

const RUNS_AT_A_TIME = 50;

/** A part of a run as a file that any program reads. */
export interface RunFile {
  readonly path: string;
  readonly content: string;
}

/** All runs of the house: what each is as JSON, the colours, densities and spectra of its sheets as CSV. */
export async function* runFiles(context: Context): AsyncGenerator<RunFile> {
  for (let after: number | undefined; ;) {
    const { rows, next } = await listRuns(context.database, { after, limit: RUNS_AT_A_TIME });
    for (const { id } of rows) yield* filesOfRun(context, await runOf(context, id));
    if (next === null) return;
    after = next;
  }
}

async function* filesOfRun(context: Context, run: RunWithPlan): AsyncGenerator<RunFile> {
  const { plan, settings } = run;
  const folder = `runs/${fileName(`${run.jobNumber} ${run.title}`)}_${run.id}`;
  const facts = {
    ...factsOf(run),
    ...{ settings, units: plan.units, bar: plan.bar },
    aims: {
      ...{ lab: [...plan.aims.lab], tone: [...plan.aims.tone] },
      spectra: plan.aims.spectra && { grid: plan.aims.spectra.grid, values: [...plan.aims.spectra.values] },
    },
    moves: await listMoves(context.database, run.id),
  };
  yield { path: `${folder}/run.json`, content: `${JSON.stringify(facts, null, 2)}\n` };
  let part = 0;
  for await (const sheets of sheetPages(context.database, run.id)) {
    part++;
    yield {
      path: `${folder}/sheets_${part}.csv`,
      content: csvText([HEADS, ...sheets.flatMap((sheet) => rowsOf(run, sheet))]),
    };
    for (const [grid, alike] of byGrid(sheets))
      yield {
        path: `${folder}/spectra_${part}_${grid.startNm}-${gridEndNm(grid)}-${grid.stepNm}.csv`,
        content: csvText([
          ['impression', 'patch', ...gridWavelengths(grid).map((nm) => `nm_${nm}`)],
          ...alike.flatMap(spectraOf),
        ]),
      };
  }
}

/** Sheets with spectra, those of one grid of wavelengths together. */
function byGrid(sheets: readonly SheetWithValues[]): [SpectralGrid, SheetWithValues[]][] {
  const found: [SpectralGrid, SheetWithValues[]][] = [];
  for (const sheet of sheets) {
    const { grid, spectra } = sheet.reading;
    if (grid === undefined || spectra === undefined) continue;
    const known = found.find(([own]) => sameGrid(own, grid));
    if (known === undefined) found.push([grid, [sheet]]);
    else known[1].push(sheet);
  }
  return found;
}

/** Reflectance factors of the patches of a sheet that were read. */
function spectraOf({ impression, reading: { grid, spectra } }: SheetWithValues): (string | number)[][] {
  if (grid === undefined || spectra === undefined) return [];
  return Array.from({ length: spectra.length / grid.count }, (_, at) => at).flatMap((at) => {
    const own = [...spectra.subarray(at * grid.count, (at + 1) * grid.count)];
    return own.every(Number.isFinite)
      ? [[impression, at + 1, ...own.map((value) => Number(value.toPrecision(6)))]]
      : [];
  });
}

const HEADS = [
  ...['impression', 'phase', 'read_ms', 'zone', 'patch', 'patch_words'],
  ...['XYZ_X', 'XYZ_Y', 'XYZ_Z', 'D_RED', 'D_GREEN', 'D_BLUE', 'D_VIS'],
];

/** The patches of a sheet; an open one has empty fields. */
function rowsOf(
  { plan: { bar, units } }: RunWithPlan,
  { impression, phase, readMs, reading: { xyz, density } }: SheetWithValues,
): (string | number)[][] {
  const told = (value: number): number | string =>
    Number.isFinite(value) ? Number(value.toPrecision(6)) : '';
  return bar.patches.map((patch, at) => [
    ...[impression, phase, readMs, patch.zone + 1, at + 1, barPatchWords(units, patch)],
    ...[...xyz.subarray(3 * at, 3 * at + 3), ...density.subarray(4 * at, 4 * at + 4)].map(told),
  ]);
}
