import { barFigures } from '@melto/core/press/barFigures';
import { completedBy, openPatches } from '@melto/core/press/barReading';
import type { BarReading } from '@melto/core/press/barReading';
import { barVerdict, packFigures, patchMeasures } from '@melto/core/press/barVerdict';
import { MOST_IMPRESSIONS, readIncoming } from '@melto/core/press/incomingSheet';
import type { IncomingSheet } from '@melto/core/press/incomingSheet';
import { updateRun } from '@melto/store/pressRuns';
import type { RunWithPlan } from '@melto/store/pressRuns';
import { findSheet, sheetPages, storeSheet } from '@melto/store/pressSheets';
import type { SheetToStore } from '@melto/store/pressSheets';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { refused } from './plan.ts';
import { requireUnderWay, runOf } from './runs.ts';

export interface SheetTaken {
  readonly impression: number;
  /** Patches that are still to come. */
  readonly open: number;
  /** The sheet was there and was completed by this, or had nothing to gain. */
  readonly completed: boolean;
  readonly turned: boolean;
  readonly surplus: number;
}

/** Takes the values of one sheet into a run; what a sheet lacked before is completed, what it has stays. */
export function takeSheet(context: Context, runId: number, sheet: IncomingSheet): Promise<SheetTaken> {
  return unitOfWork(context, async (inner) => takeIntoRun(inner, await runOf(inner, runId, true), sheet));
}

/** The same within a transaction that holds the run. */
export async function takeIntoRun(
  context: Context,
  run: RunWithPlan,
  sheet: IncomingSheet,
): Promise<SheetTaken> {
  requireUnderWay(run);
  const { impression } = sheet;
  if (!Number.isInteger(impression) || impression < 0 || impression > MOST_IMPRESSIONS)
    throw new Problem(
      'bad-input',
      'The counter of the press is not told.',
      'Give its whole number.',
      'impression',
    );
  const read = readIncoming({ ...run.plan, settings: run.settings }, sheet);
  if (!read.ok) throw refused(read.issues);
  const { turned, surplus } = read.value;
  const before = await findSheet(context.database, run.id, impression);
  const reading = before === undefined ? read.value.reading : completedBy(before.reading, read.value.reading);
  const open = openPatches(reading).length;
  const taken = { impression, open, completed: before !== undefined, turned, surplus };
  // What brings nothing changes nothing: whoever looks on is not called.
  if (before !== undefined && open === before.openPatches) return taken;
  const production = run.productionFrom !== null && impression >= run.productionFrom;
  await storeSheet(context.database, run.id, {
    ...judgedSheet(run, reading),
    impression,
    phase: production ? 'production' : 'make-ready',
    openPatches: open,
    readMs: before?.readMs ?? (await domainNow(context)),
  });
  await updateRun(context.database, run.id, {});
  return taken;
}

/** Figures and verdict of a sheet by the run's aims and tolerances. */
export function judgedSheet(
  run: Pick<RunWithPlan, 'plan' | 'settings'>,
  reading: BarReading,
): Pick<SheetToStore, 'reading' | 'figures' | 'outside' | 'judged' | 'spread'> {
  const { units, bar, aims } = run.plan;
  const figures = barFigures(bar, units, reading, aims, run.settings);
  const packed = packFigures(figures);
  const { judged, outside } = barVerdict(patchMeasures(bar, units, run.settings), packed);
  const spread = Number.isFinite(figures.spread) ? figures.spread : null;
  return { reading, figures: packed, judged, outside: outside.length, spread };
}

/** Judges all sheets anew, after tolerances were changed; within a transaction that holds the run. */
export async function judgeAgain(
  { database }: Context,
  run: Pick<RunWithPlan, 'id' | 'plan' | 'settings'>,
): Promise<void> {
  for await (const sheets of sheetPages(database, run.id))
    for (const sheet of sheets)
      await storeSheet(database, run.id, { ...sheet, ...judgedSheet(run, sheet.reading) });
}
