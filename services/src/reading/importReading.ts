import { createHash } from 'node:crypto';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import { patchXyz } from '@melto/core/cgats/patchColours';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import { sameProcess } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import { issueText } from '@melto/core/result';
import { findPrint, findSheet } from '@melto/store/prints';
import { listInstruments } from '@melto/store/devices';
import type { StripRow } from '@melto/store/readings';
import { loadChart } from '../charts/chart.ts';
import type { LoadedChart } from '../charts/chart.ts';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { conditionOf } from '../ledger/conditions.ts';
import { storeStrips } from './storeStrips.ts';

export interface ImportedReading {
  readonly readingId: number;
  readonly notes: readonly string[];
}

const TOLERANCE = 1.5 / 255;

/** Takes a measurement file in place of reading a print at the desk; all patches of the chart must be in it. */
export async function importReading(context: Context, code: string, text: string): Promise<ImportedReading> {
  const sheet = await findSheet(context.database, code);
  if (sheet === undefined) throw notFound(`sheet ${code}`);
  const print = await findPrint(context.database, sheet.printId);
  if (print === undefined) throw notFound(`print of ${code}`);
  const parsed = readPatchSet(text);
  if (!parsed.ok)
    throw new Problem(
      'bad-input',
      `The file cannot be used: ${parsed.issues.map(issueText).join('; ')}.`,
      'Nothing was stored. Mend the file and drop it again.',
    );
  const chart = await loadChart(context, print.chartId);
  const condition = await conditionOf(context, print.conditionId);
  const order = matchRows(chart, condition.process, print.deviceValues, parsed.value);
  const xyz = patchXyz(parsed.value);
  const { spectra } = parsed.value;
  if (xyz === undefined)
    throw new Problem(
      'bad-input',
      'The file has no colours: found neither spectra nor XYZ nor Lab.',
      'Export the measurement with its values and drop it again.',
    );
  const [values, width] = spectra === undefined ? [xyz, 3] : [spectra.values, spectra.grid.count];
  const nowMs = await domainNow(context);
  // Another file in the same moment is another attempt.
  const attempt = `file ${nowMs} ${createHash('sha256').update(text).digest('hex').slice(0, 12)}`;
  const strips: StripRow[] = chart.layout.pages.flatMap((page, pageIndex) =>
    page.map((rows, stripIndex) => ({
      page: pageIndex + 1,
      strip: stripIndex + 1,
      attempt,
      reversed: false,
      kind: spectra === undefined ? 'xyz' : 'spectra',
      grid: spectra?.grid ?? { startNm: 0, stepNm: 0, count: 0 },
      values: gatherRows(
        values,
        rows.map((row) => order[row]),
        width,
      ),
      readMs: nowMs,
    })),
  );
  const [instrument] = await listInstruments(context.database);
  if (instrument === undefined)
    throw new Problem('not-ready', 'The house has no instrument.', 'Add one to the library first.');
  const mode = parsed.value.conditions.mode ?? 'M1';
  const notes = [...parsed.value.notes];
  if (parsed.value.conditions.mode === undefined)
    notes.push('The file does not tell its measurement mode; M1 was taken.');
  const { readingId } = await unitOfWork(context, (inner) =>
    storeStrips(inner, { print, chart, condition, instrument }, { mode, source: 'file', strips, nowMs }),
  );
  return { readingId, notes };
}

/**
 * For each row of the chart the row of the file. Device values decide where the file has them; without them only the
 * chart's own ids can tell which patch is which, and the order of rows alone is never taken for it.
 */
function matchRows(chart: LoadedChart, process: Process, device: Float64Array, set: PatchSet): number[] {
  const count = chart.patches;
  if (set.ids.length < count)
    throw new Problem(
      'bad-input',
      `The file has ${set.ids.length} patches, the chart ${count}.`,
      'Drop the file that holds all of them.',
    );
  if (set.device !== undefined && !sameProcess(set.process, process))
    throw new Problem(
      'bad-input',
      `The file gives ${set.process?.name ?? 'other'} values, the sheet was printed with ${process.name}.`,
      'Drop the file that was measured from this chart.',
    );
  const byId = new Map(set.ids.map((id, row) => [id, row]));
  if (set.device === undefined && new Set(set.ids).size < set.ids.length)
    throw new Problem(
      'bad-input',
      'The file has no device values, and several of its patches have the same id.',
      'Export the measurement with device values, or with the ids of the chart.',
    );
  const fits = (row: number, other: number): boolean => {
    const own = set.device;
    return (
      own === undefined ||
      process.channels.every(
        (_, channel) =>
          Math.abs(
            (own[process.channels.length * other + channel] ?? NaN) -
              (device[process.channels.length * row + channel] ?? NaN),
          ) <= TOLERANCE,
      )
    );
  };
  return Array.from({ length: count }, (_, row) => {
    const id = chart.set.ids[row] ?? '';
    const named = byId.get(id);
    if (named !== undefined && fits(row, named)) return named;
    if (set.device !== undefined && fits(row, row)) return row;
    throw new Problem(
      'bad-input',
      set.device === undefined
        ? `The file has no device values and no patch with the id ${id}.`
        : `Patch ${id} is missing in the file or has other device values.`,
      set.device === undefined
        ? 'Export the measurement with device values, or with the ids of the chart.'
        : 'Drop the file that was measured from this chart.',
    );
  });
}
