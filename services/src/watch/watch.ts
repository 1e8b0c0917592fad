import { placesAcross } from '@melto/core/charts/placesAcross';
import { issueText } from '@melto/core/result';
import { keptFigures, meanFigures, watchFigures, ZERO_READINGS } from '@melto/core/watch/watchFigures';
import { findPrint } from '@melto/store/prints';
import { findReading } from '@melto/store/readings';
import { insertResult } from '@melto/store/results';
import { keepWatchCheck, lockWatch } from '@melto/store/watches';
import type { NewWatchCheck } from '@melto/store/watches';
import { askedCmyk } from '../charts/askedValues.ts';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { WATCH } from '../ledger/kinds/watchKind.ts';
import type { WatchDetail, WatchSchedule, WatchSummary } from '../ledger/kinds/watchKind.ts';
import { toStore } from '../ledger/resultKind.ts';
import { storedHead } from '../ledger/storedResult.ts';
import { completeReading, loadReading } from '../reading/loadReading.ts';
import type { LoadedReading } from '../reading/loadReading.ts';
import { settleWatch } from './settleWatch.ts';

/** Starts a watch: the zero reading is the mean of at least three readings of the watch wedge, all of one state. */
export async function startWatch(
  context: Context,
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
  const readings = await Promise.all(readingIds.map((id) => completeReading(context, conditionId, id)));
  const [first] = readings;
  if (first === undefined) throw new RangeError('a watch of no readings');
  for (const other of readings) {
    if (!sameState(first, other))
      throw new Problem(
        'bad-input',
        `${other.print.code} and ${first.print.code} were not printed and read alike.`,
        'Take readings through the same curves and profile, in the same mode.',
        'readingIds',
      );
  }
  const figures = readings.map(figuresOf);
  const zero: ZeroReading = {
    readings: readingIds,
    judgedBy: first.print.judgedBy === null ? null : (JSON.parse(first.print.judgedBy) as unknown),
    code: first.print.code,
    sources: [first.print.profileResultId, first.print.curvesResultId].filter((id) => id !== null),
    checks: figures.map((own, index) => checkOf(readings[index] ?? first, own)),
  };
  return beginWatch(context, conditionId, schedule, zero);
}

/** What a watch begins with: the mean of these checks is its zero reading. */
export interface ZeroReading extends Pick<WatchDetail, 'readings' | 'runs' | 'judgedBy'> {
  readonly code: string;
  /** Results that stand behind it. */
  readonly sources: readonly number[];
  readonly checks: readonly Omit<NewWatchCheck, 'conditionId' | 'watchId'>[];
}

/** Stores a watch with the checks that its zero reading is the mean of. */
export async function beginWatch(
  context: Context,
  conditionId: number,
  schedule: WatchSchedule,
  { code, sources, checks, ...from }: ZeroReading,
): Promise<{ readonly id: number }> {
  if (schedule.expiresDays < schedule.everyDays)
    throw new Problem(
      'bad-input',
      'A check would expire before the next one is due.',
      'Let it expire later.',
      'expiresDays',
    );
  const zero = keptFigures(meanFigures(checks.map(({ figures }) => figures)));
  const detail: WatchDetail = { ...schedule, ...from, zero };
  const summary: WatchSummary = { ...schedule, readings: checks.length, code };
  const madeMs = await domainNow(context);
  return unitOfWork(context, async ({ database }) => {
    const { id } = await insertResult(
      database,
      { conditionId, ...toStore(WATCH, { summary, detail }), verdict: null, madeMs },
      { readings: from.readings, results: sources },
    );
    for (const check of checks) await keepWatchCheck(database, { ...check, conditionId, watchId: id });
    await settleWatch(database, { id, conditionId, detail }, 0);
    return { id };
  });
}

/** The figures of a zero reading, of the readings it is the mean of. */
export async function workZero(
  context: Context,
  conditionId: number,
  readingIds: readonly number[],
): Promise<Float64Array> {
  const readings = await Promise.all(readingIds.map((id) => completeReading(context, conditionId, id)));
  return meanFigures(readings.map(figuresOf));
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
  const asked = askedCmyk(chart.set, rows);
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
export async function addWatchCheck(context: Context, readingId: number): Promise<void> {
  const loaded = await loadReading(context, readingId);
  const { conditionId } = loaded.print;
  const watch = await storedHead(context, conditionId, WATCH);
  if (watch === undefined || watch.detail.runs !== undefined) return;
  if (!sameState(await firstOf(context, watch.detail), loaded)) return;
  const figures = figuresOf(loaded);
  await unitOfWork(context, async ({ database }) => {
    await lockWatch(database, watch.row.id);
    const check = { ...checkOf(loaded, figures), conditionId, watchId: watch.row.id };
    const madeMs = await keepWatchCheck(database, check);
    await settleWatch(database, { id: watch.row.id, conditionId, detail: watch.detail }, madeMs);
  });
}

/** The first reading of a zero reading, without its values. */
async function firstOf({ database }: Context, { readings: [id = 0] }: WatchDetail): Promise<PrintAndReading> {
  const reading = await findReading(database, id);
  const print = reading === undefined ? undefined : await findPrint(database, reading.printId);
  if (reading === undefined || print === undefined) throw notFound(`reading ${id}`);
  return { reading, print };
}

/** A check from a reading; a strip that is read again leaves it at its own time. */
function checkOf(
  { reading }: Pick<LoadedReading, 'reading'>,
  figures: Float64Array,
): ZeroReading['checks'][number] {
  return { readingId: reading.id, runId: null, madeMs: reading.finishedMs ?? reading.startedMs, figures };
}
