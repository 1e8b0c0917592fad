import { placesAcross } from '@melto/core/charts/placesAcross';
import { issueText } from '@melto/core/result';
import { meanFigures, watchFigures, ZERO_READINGS } from '@melto/core/watch/watchFigures';
import type { Sql } from '@melto/store/database';
import { findPrint } from '@melto/store/prints';
import { findReading } from '@melto/store/readings';
import { findResult, insertResult, listHeads } from '@melto/store/results';
import { keepWatchCheck, lockWatch } from '@melto/store/watches';
import { nominalValues } from '../conformity/checkChoice.ts';
import { domainNow } from '../kernel/clock.ts';
import { LOCAL_PERSON } from '../kernel/context.ts';
import type { Services } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { completeReading, loadReading } from '../reading/readings.ts';
import type { LoadedReading } from '../reading/readings.ts';
import { settleWatch } from './settleWatch.ts';

export interface WatchSchedule {
  readonly everyDays: number;
  readonly expiresDays: number;
  readonly meanLimit: number;
  readonly largestLimit: number;
}

export interface WatchSummary extends WatchSchedule {
  readonly readings: number;
  readonly code: string;
}

/** A watch as it was set up: its schedule, its limits and its zero reading. */
export interface WatchDetail {
  readonly everyDays: number;
  readonly expiresDays: number;
  /** Largest ΔE00 to the zero reading, on the mean and of a patch. */
  readonly meanLimit: number;
  readonly largestLimit: number;
  /** Readings that the zero reading is the mean of, and its figures. */
  readonly readings: readonly number[];
  readonly zero: readonly number[];
  /** Way of the wedge to the device, for devices that take RGB. */
  readonly judgedBy: unknown;
}

/** Starts a watch: the zero reading is the mean of at least three readings of the watch wedge, all of one state. */
export async function startWatch(
  services: Services,
  conditionId: number,
  schedule: WatchSchedule,
  readingIds: readonly number[],
): Promise<{ readonly id: number }> {
  if (new Set(readingIds).size < ZERO_READINGS)
    throw new Problem(
      'bad-input',
      `A zero reading is the mean of at least ${ZERO_READINGS} readings.`,
      'Print and read the watch wedge again.',
      'readingIds',
    );
  if (schedule.expiresDays < schedule.everyDays)
    throw new Problem(
      'bad-input',
      'A check would expire before the next one is due.',
      'Let it expire later.',
      'expiresDays',
    );
  const readings = await Promise.all(readingIds.map((id) => completeReading(services, conditionId, id)));
  const [first] = readings;
  for (const other of readings) {
    if (other.reading.withdrawnMs !== null)
      throw new Problem('conflict', `${other.print.code} was withdrawn.`, 'Choose another.', 'readingIds');
    if (!sameState(first, other))
      throw new Problem(
        'bad-input',
        `${other.print.code} and ${first.print.code} were not printed and read alike.`,
        'Take readings through the same curves and profile, in the same mode.',
        'readingIds',
      );
  }
  const figures = readings.map(figuresOf);
  const detail: WatchDetail = {
    ...schedule,
    readings: readingIds,
    zero: [...meanFigures(figures)],
    judgedBy: first.print.judgedBy === null ? null : (JSON.parse(first.print.judgedBy) as unknown),
  };
  const summary: WatchSummary = { ...schedule, readings: readings.length, code: first.print.code };
  const madeMs = await domainNow(services);
  const sources = [first.print.profileResultId, first.print.curvesResultId].filter((id) => id !== null);
  return services.database.transaction(async (sql) => {
    const { id } = await insertResult(
      sql,
      { conditionId, link: 'watch', verdict: null, summary, detail, madeMs },
      { readings: readingIds, results: sources },
      LOCAL_PERSON,
    );
    for (const [index, own] of figures.entries())
      await storeCheck(sql, conditionId, id, readings[index], own);
    await settleWatch(sql, { id, conditionId, detail }, 0);
    return { id };
  });
}

/** Readings of one watch are through the same curves and profile and in the same mode. */
function sameState(a: PrintAndReading, b: PrintAndReading): boolean {
  return (
    a.print.curvesResultId === b.print.curvesResultId &&
    a.print.profileResultId === b.print.profileResultId &&
    a.reading.mode === b.reading.mode
  );
}

type PrintAndReading = Pick<LoadedReading, 'print' | 'reading'>;

function figuresOf(loaded: LoadedReading): Float64Array {
  const { chart, rows, xyz, print } = loaded;
  const asked = nominalValues(chart.set.device, chart.set.space, rows);
  const across = placesAcross(chart.layout);
  const figures =
    asked === undefined
      ? undefined
      : watchFigures(
          asked,
          xyz,
          rows.map((row) => across[row]),
        );
  if (figures === undefined || !figures.ok)
    throw new Problem(
      'bad-input',
      `${print.code} is no watch wedge${figures === undefined ? '' : `: ${figures.issues.map(issueText).join('; ')}`}.`,
      'Print the watch wedge.',
      'readingIds',
    );
  return figures.value;
}

/** Takes a complete reading of a watch wedge as the next check of the condition's watch, where it is of the same state. */
export async function addWatchCheck(services: Services, readingId: number): Promise<void> {
  const loaded = await loadReading(services, readingId);
  const { conditionId } = loaded.print;
  const watch = await watchOf(services, conditionId);
  if (watch === undefined || !sameState(await firstOf(services, watch.detail), loaded)) return;
  await services.database.transaction(async (sql) => {
    await lockWatch(sql, watch.id);
    const madeMs = await storeCheck(sql, conditionId, watch.id, loaded, figuresOf(loaded));
    await settleWatch(sql, { id: watch.id, conditionId, detail: watch.detail }, madeMs);
  });
}

/** The first reading of a zero reading, without its values. */
async function firstOf({ database }: Services, { readings: [id] }: WatchDetail): Promise<PrintAndReading> {
  const reading = await findReading(database, id);
  const print = reading === undefined ? undefined : await findPrint(database, reading.printId);
  if (reading === undefined || print === undefined) throw notFound(`reading ${id}`);
  return { reading, print };
}

/** Keeps a check; a strip that is read again leaves it at its own time. */
async function storeCheck(
  sql: Sql,
  conditionId: number,
  watchId: number,
  { reading }: LoadedReading,
  figures: Float64Array,
): Promise<number> {
  const madeMs = reading.finishedMs ?? reading.startedMs;
  return keepWatchCheck(sql, { conditionId, watchId, readingId: reading.id, madeMs, figures });
}

/** The watch in force on a condition. */
export async function watchOf(
  services: Services,
  conditionId: number,
): Promise<
  | { readonly id: number; readonly version: number; readonly madeMs: number; readonly detail: WatchDetail }
  | undefined
> {
  const head = (await listHeads(services.database, conditionId)).find(({ link }) => link === 'watch');
  if (head === undefined) return undefined;
  const row = await findResult(services.database, head.id);
  return row === undefined
    ? undefined
    : { id: row.id, version: row.version, madeMs: row.madeMs, detail: JSON.parse(row.detail) as WatchDetail };
}
