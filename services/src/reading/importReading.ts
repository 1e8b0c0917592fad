import { gatherRows } from '@melto/core/numerics/gatherRows';
import { patchXyz } from '@melto/core/cgats/patchColours';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import { CHANNEL_NAMES, channelCount } from '@melto/core/device/deviceSpace';
import type { DeviceSpace } from '@melto/core/device/deviceSpace';
import { issueText } from '@melto/core/result';
import { findPrint, findSheet } from '@melto/store/prints';
import { listInstruments } from '@melto/store/devices';
import type { StripRow } from '@melto/store/readings';
import { loadChart } from '../charts/charts.ts';
import type { LoadedChart } from '../charts/charts.ts';
import { domainNow } from '../kernel/clock.ts';
import { conditionOf } from '../ledger/conditions.ts';
import type { Services } from '../kernel/context.ts';
import { storeStrips } from './storeStrips.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { judgeComplete } from '../judging/judgeComplete.ts';

export interface ImportedReading {
  readonly readingId: number;
  readonly resultId: number | null;
  readonly notes: readonly string[];
}

const TOLERANCE = 1.5 / 255;

/** Takes a measurement file in place of reading a print at the desk; all patches of the chart must be in it. */
export async function importReading(
  services: Services,
  code: string,
  text: string,
): Promise<ImportedReading> {
  const sheet = await findSheet(services.database, code);
  if (sheet === undefined) throw notFound(`sheet ${code}`);
  const print = await findPrint(services.database, sheet.printId);
  if (print === undefined) throw notFound(`print of ${code}`);
  const parsed = readPatchSet(text);
  if (!parsed.ok)
    throw new Problem(
      'bad-input',
      `The file cannot be used: ${parsed.issues.map(issueText).join('; ')}.`,
      'Nothing was stored. Mend the file and drop it again.',
    );
  const chart = await loadChart(services, print.chartId);
  const condition = await conditionOf(services, print.conditionId);
  const order = matchRows(chart, condition.space, print.deviceValues, parsed.value);
  const xyz = patchXyz(parsed.value);
  const { spectra } = parsed.value;
  if (xyz === undefined)
    throw new Problem(
      'bad-input',
      'The file has no colours: found neither spectra nor XYZ nor Lab.',
      'Export the measurement with its values and drop it again.',
    );
  const [values, width] = spectra === undefined ? [xyz, 3] : [spectra.values, spectra.grid.count];
  const nowMs = await domainNow(services);
  const strips: StripRow[] = chart.layout.pages.flatMap((page, pageIndex) =>
    page.map((rows, stripIndex) => ({
      page: pageIndex + 1,
      strip: stripIndex + 1,
      attempt: `file ${nowMs}`,
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
  const [instrument] = await listInstruments(services.database);
  const mode = parsed.value.conditions.mode ?? 'M1';
  const notes = [...parsed.value.notes];
  if (parsed.value.conditions.mode === undefined)
    notes.push('The file does not tell its measurement mode; M1 was taken.');
  const stored = await services.database.transaction((sql) =>
    storeStrips(sql, { print, chart, condition, instrument }, mode, strips, 'file', nowMs),
  );
  const resultId = await judgeComplete(services, { print, chart }, stored.readingId);
  return { readingId: stored.readingId, resultId, notes };
}

/** For each row of the chart the row of the file: by device values where the file has them, else by sample id. */
function matchRows(chart: LoadedChart, space: DeviceSpace, device: Float64Array, set: PatchSet): number[] {
  const count = chart.patches;
  const channels = channelCount(space);
  if (set.ids.length < count)
    throw new Problem(
      'bad-input',
      `The file has ${set.ids.length} patches, the chart ${count}.`,
      'Drop the file that holds all of them.',
    );
  const byId = new Map(set.ids.map((id, row) => [id, row]));
  const fits = (row: number, other: number): boolean =>
    set.device === undefined ||
    (set.space === space &&
      CHANNEL_NAMES[space].every(
        (_, channel) =>
          Math.abs((set.device?.[channels * other + channel] ?? NaN) - device[channels * row + channel]) <=
          TOLERANCE,
      ));
  return Array.from({ length: count }, (_, row) => {
    const named = byId.get(chart.set.ids[row]);
    if (named !== undefined && fits(row, named)) return named;
    if (fits(row, row)) return row;
    throw new Problem(
      'bad-input',
      `Patch ${chart.set.ids[row]} is missing in the file or has other device values.`,
      'Drop the file that was measured from this chart.',
    );
  });
}
