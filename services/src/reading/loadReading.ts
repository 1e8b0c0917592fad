import { patchXyz } from '@melto/core/cgats/patchColours';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { channelCount } from '@melto/core/device/process';
import type { ToldConditions } from '@melto/core/measured/conditions';
import type { ExpectedRamps } from '@melto/core/faults/rampResponse';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import { findPrint } from '@melto/store/prints';
import type { PrintRow } from '@melto/store/prints';
import { findReading } from '@melto/store/readings';
import { listStrips, valuesPerPatch } from '@melto/store/strips';
import type { ReadingRow } from '@melto/store/readings';
import type { StripRow } from '@melto/store/strips';
import { loadChart } from '../charts/chart.ts';
import type { LoadedChart } from '../charts/chart.ts';
import type { Context } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { conditionOf } from '../ledger/conditions.ts';
import type { ConditionRow } from '../ledger/conditions.ts';
import { expectedRamps } from '../ledger/inForce.ts';

/** A reading with all that is needed to compute with it. */
export interface LoadedReading {
  readonly reading: ReadingRow;
  readonly print: PrintRow;
  readonly chart: LoadedChart;
  readonly condition: ConditionRow;
  /** Rows of the chart that were read, in chart order. */
  readonly rows: readonly number[];
  /** The patches of `rows`. */
  readonly set: PatchSet;
  /** XYZ and Lab of `rows`, row-major × 3. */
  readonly xyz: Float64Array;
  readonly lab: Float64Array;
  /** Strips as they stand, and when each was read. */
  readonly stripsRead: readonly Pick<StripRow, 'page' | 'strip' | 'readMs'>[];
  /** What is known of the condition's single-ink ramps, where it has inks. */
  readonly ramps?: ExpectedRamps;
}

export async function loadReading(context: Context, id: number): Promise<LoadedReading> {
  const reading = await findReading(context.database, id);
  if (reading === undefined) throw notFound(`reading ${id}`);
  const print = await findPrint(context.database, reading.printId);
  if (print === undefined) throw notFound(`print ${reading.printId}`);
  const chart = await loadChart(context, print.chartId);
  const condition = await conditionOf(context, print.conditionId);
  const strips = await listStrips(context.database, id);
  return {
    ...assembleReading(reading, print, chart, condition, strips),
    ramps: await expectedRamps(context, print),
  };
}

/** Device values and colours of a reading, for computing in the browser. */
export async function readingPatches(
  context: Context,
  id: number,
): Promise<{ readonly device: readonly number[]; readonly xyz: readonly number[] }> {
  const { set, xyz } = await loadReading(context, id);
  return { device: [...(set.device ?? [])], xyz: [...xyz] };
}

/** A complete reading of a condition, or a refusal in words. */
export async function completeReading(
  context: Context,
  conditionId: number,
  readingId: number,
): Promise<LoadedReading> {
  const loaded = await loadReading(context, readingId);
  if (loaded.print.conditionId !== conditionId)
    throw new Problem(
      'bad-input',
      'This reading belongs to another condition.',
      'Choose a reading of this condition.',
      'readingId',
    );
  requireStanding(loaded);
  return loaded;
}

/** Refuses a reading that lacks strips or was withdrawn: nothing is built on it. */
export function requireStanding({ reading }: Pick<LoadedReading, 'reading'>): void {
  if (reading.finishedMs === null)
    throw new Problem(
      'not-ready',
      'The reading is not complete.',
      'Read the strips that are missing first.',
      'readingId',
    );
  if (reading.withdrawnMs !== null)
    throw new Problem(
      'conflict',
      'This reading was withdrawn.',
      'Take it back, or choose another.',
      'readingId',
    );
}

/** Puts strips in chart order. */
export function assembleReading(
  reading: ReadingRow,
  print: PrintRow,
  chart: LoadedChart,
  condition: ConditionRow,
  strips: readonly StripRow[],
): LoadedReading {
  const byRow = new Map<number, Float64Array>();
  for (const strip of strips) {
    const rows = chart.layout.pages[strip.page - 1]?.[strip.strip - 1];
    const width = valuesPerPatch(strip);
    rows?.forEach((row, place) => {
      const values = strip.values.subarray(place * width, (place + 1) * width);
      if (!Number.isNaN(values[0])) byRow.set(row, values);
    });
  }
  const rows = [...byRow.keys()].sort((a, b) => a - b);
  const first = strips[0];
  const width = first === undefined ? 3 : valuesPerPatch(first);
  const values = new Float64Array(rows.length * width);
  rows.forEach((row, i) => values.set(byRow.get(row) ?? [], i * width));
  const set: PatchSet = {
    ids: rows.map((row) => chart.set.ids[row]),
    names: chart.set.names === undefined ? undefined : rows.map((row) => chart.set.names?.[row] ?? ''),
    process: condition.process,
    device: gatherRows(print.deviceValues, rows, channelCount(condition.process)),
    spectra: first?.kind === 'spectra' ? { grid: first.grid, values } : undefined,
    xyz: first?.kind === 'xyz' ? values : undefined,
    conditions: conditionsOf(reading),
    title: `${print.code}, ${chart.title}`,
    originator: 'Melto',
    created: new Date(reading.startedMs).toISOString(),
    notes: [],
  };
  const xyz = patchXyz(set) ?? new Float64Array(0);
  const lab = new Float64Array(xyz.length);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
  const stripsRead = strips.map(({ page, strip, readMs }) => ({ page, strip, readMs }));
  return { reading, print, chart, condition, rows, set, xyz, lab, stripsRead };
}

/** How a reading was measured: as the instrument of the desk does, or as its file told. */
function conditionsOf({ mode, told, instrument }: ReadingRow): PatchSet['conditions'] {
  if (told === null)
    return { mode, filter: mode === 'M3' ? 'polarising' : 'none', instrument: instrument ?? undefined };
  const file = JSON.parse(told) as ToldConditions;
  return {
    ...{ mode, filter: file.filter, backing: file.backing, instrument: file.instrument },
    illuminant: file.illuminant,
    observer: file.observer === undefined ? undefined : `${file.observer}°`,
  };
}
