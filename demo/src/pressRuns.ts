import { createRandom } from '@melto/core/numerics/random';
import { RUN_CHECK_SHEETS } from '@melto/core/press/runFigures';
import { ZERO_READINGS } from '@melto/core/watch/watchFigures';
import { USUAL_SETTINGS } from '@melto/core/press/runSettings';
import { aimSets } from '@melto/services/conformity/aimSets';
import { DEFAULT_POINTS } from '@melto/services/house/newCondition';
import type { Context } from '@melto/services/kernel/context';
import { markOkSheet, noteMoves, setPhase } from '@melto/services/press/atThePress';
import { createFeed, deliver, feeds, setFeedRun } from '@melto/services/press/feeds';
import { startRunWatch } from '@melto/services/press/runWatch';
import { createRun, runOf, runs } from '@melto/services/press/runs';
import { runView } from '@melto/services/press/runView';
import { pullSheet } from '@melto/services/simulated/pressHand';
import { conditionFor } from './conditionFor.ts';

const PRESS = { device: 'Osprey', stock: 'Fenland Smooth 120', mode: '175 lpi' };
const AIMS = 'FOGRA29L';
const DAY_MS = 86_400_000;
/** Impressions an hour. */
const PACE = 6000;
const CATALOGUE = { jobNumber: '26-0418', title: 'Seed catalogue, sheet 3', customer: 'Saltmarsh Seeds' };
const TABLES = { jobNumber: '26-0431', title: 'Tide tables 2027, section B', customer: 'Harbour Office' };
const MAKE_READY_SHEETS = 8;
/** Runs before the one that is shown, a week apart. */
const EARLIER_RUNS = 6;
/** Runs of a press differ by its keys: wider limits than a proofer's. */
const WEEKLY = { everyDays: 7, expiresDays: 21, meanLimit: 2.5, largestLimit: 6 };

/** Two runs of the offset press: one read sheet by sheet, one by a sensor over the web. */
export async function runThePress(context: Context): Promise<void> {
  const random = createRandom(4711);
  const seed = (): number => 1 + random.below(2 ** 31 - 2);
  const conditionId = await conditionFor(context, PRESS, DEFAULT_POINTS);
  const aimSetId =
    (await aimSets(context)).find(({ name }) => name.startsWith(AIMS))?.id ?? (await aimSets(context))[0].id;
  const shape = {
    conditionId,
    aimSetId,
    inks: ['K', 'C', 'M', 'Y'],
    zones: 12,
    zoneMm: 32,
    patchMm: 5,
    settings: USUAL_SETTINGS,
  };
  const known = (await runs(context, {})).rows;
  const find = (jobNumber: string) => known.find((run) => run.jobNumber === jobNumber);
  const begin = async (
    job: typeof CATALOGUE,
    more: { readonly side: string; readonly quantity: number; readonly repeatMm?: number },
    daysAgo = 0,
  ): Promise<number> =>
    find(job.jobNumber)?.id ??
    (await createRun({ ...at(context, daysAgo, 0), seed }, { ...shape, ...job, ...more })).id;
  await watchedRuns(context, conditionId, (jobNumber, daysAgo) =>
    begin(
      { ...CATALOGUE, jobNumber, title: 'Seed catalogue, cover' },
      { side: 'front', quantity: 2500 },
      daysAgo,
    ),
  );
  await readByHand(context, await begin(CATALOGUE, { side: 'front', quantity: 4000 }, 2));
  await readBySensor(context, await begin(TABLES, { side: 'web', quantity: 60_000, repeatMm: 630 }));
}

/** The time at an impression of a run that began some days ago. */
function at(context: Context, daysAgo: number, impression: number): Context {
  return { ...context, now: () => context.now() - daysAgo * DAY_MS + (impression / PACE) * 3_600_000 };
}

/** Runs of the weeks before, three of which are the zero reading of a watch. */
async function watchedRuns(
  context: Context,
  conditionId: number,
  begin: (jobNumber: string, daysAgo: number) => Promise<number>,
): Promise<void> {
  const ids: number[] = [];
  for (let run = 0; run < EARLIER_RUNS; run++) {
    const daysAgo = 7 * (EARLIER_RUNS - run);
    const id = await begin(`26-03${String(51 + 7 * run)}`, daysAgo);
    ids.push(id);
    if ((await runOf(context, id)).phase === 'finished') continue;
    let impression = 200;
    for (let sheet = 0; sheet < 3; sheet++) {
      const then = at(context, daysAgo, impression);
      await pullSheet(then, id, impression);
      const moves = (await runView(then, id)).lines.filter(({ word }) => word === 'move');
      if (moves.length === 0) break;
      await noteMoves(then, id, {
        impression,
        moves: moves.map(({ unit, changes }) => ({ unit, changes: [...changes] })),
      });
      impression += 200;
    }
    await setPhase(at(context, daysAgo, impression), id, { phase: 'production', from: impression });
    for (let sheet = 0; sheet < RUN_CHECK_SHEETS; sheet++, impression += 250)
      await pullSheet(at(context, daysAgo, impression), id, impression);
    await setPhase(at(context, daysAgo, impression), id, { phase: 'finished' });
    if (ids.length === ZERO_READINGS)
      await startRunWatch(at(context, daysAgo, impression), conditionId, WEEKLY, ids);
  }
}

/** A make-ready that goes wrong and is mended, an OK sheet and 4,000 impressions. */
async function readByHand(context: Context, id: number): Promise<void> {
  if ((await runView(context, id)).sheets > 0) return;
  let impression = 200;
  for (let sheet = 0; sheet < MAKE_READY_SHEETS; sheet++) {
    const then = at(context, 2, impression);
    await pullSheet(then, id, impression);
    const { lines, bar, units } = await runView(then, id);
    const moves = lines
      .filter(({ word }) => word === 'move')
      .map(({ unit, changes }) => ({ unit, changes: [...changes] }));
    // The second time somebody turns the keys of yellow in the middle of the sheet instead.
    const yellow = units.findIndex(({ ink }) => ink === 'Y');
    const mistaken = Array.from({ length: bar.zones }, (_, zone) => (zone >= 4 && zone < 8 ? -0.3 : 0));
    const made = sheet === 1 ? [{ unit: yellow, changes: mistaken }] : moves;
    if (made.length === 0) break;
    await noteMoves(then, id, { impression, moves: made });
    impression += 160;
  }
  const whole = (await runView(context, id)).strips.filter(({ openPatches }) => openPatches === 0).at(-1);
  if (whole !== undefined)
    await markOkSheet(at(context, 2, impression), id, { impression: whole.impression, lock: true });
  const from = Math.ceil((impression + 100) / 100) * 100;
  await setPhase(at(context, 2, from), id, { phase: 'production', from });
  for (let sheet = from; sheet <= 4000; sheet += 200) await pullSheet(at(context, 2, sheet), id, sheet);
  await setPhase(at(context, 2, 4000), id, { phase: 'finished' });
}

/** A web press whose sensor delivers by itself; the run goes on. */
async function readBySensor(context: Context, id: number): Promise<void> {
  const name = 'Sensor over the web';
  const { plan, simulated } = await runOf(context, id);
  if ((await runView(context, id)).sheets > 0 || simulated === null || context.press === undefined) return;
  const feedId =
    (await feeds(context)).find((feed) => feed.name === name)?.id ??
    (await createFeed(context, { name, kind: 'sensor', byItself: true })).id;
  await setFeedRun(context, feedId, { runId: id, byItself: true });
  for (let impression = 300; impression <= 900; impression += 300) {
    const sheet = context.press.read({
      simulated,
      bar: plan.bar,
      moves: [],
      impression,
      mode: USUAL_SETTINGS.mode,
    });
    await deliver(at(context, 0.02, impression), feedId, { key: `web-${impression}`, ...sheet });
  }
}
