import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { USUAL_SETTINGS } from '@melto/core/press/runSettings';
import { markOkSheet, noteMoves, setPhase } from '../src/press/atThePress.ts';
import { createRun } from '../src/press/runs.ts';
import { runView } from '../src/press/runView.ts';
import { startRunWatch } from '../src/press/runWatch.ts';
import { pullSheet } from '../src/simulated/pressHand.ts';
import { verifyHouse } from '../src/overview/verifyHouse.ts';
import { watchView } from '../src/watch/watchView.ts';
import { ospreyOn } from '../src/testing/ospreyOn.ts';
import { refusal } from '../src/testing/refusal.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';

const SCHEDULE = { everyDays: 7, expiresDays: 14, meanLimit: 3, largestLimit: 8 };
/** Each run on the same press as it stands, so that only what is done to it differs. */
const SEED = 11;
const MAGENTA = 2;

let services: TestServices;
let conditionId = 0;
let aimSetId = 0;
let number = 0;

beforeAll(async () => {
  services = await openTestServices('melto_runs_watched');
  ({ conditionId, aimSetId } = await ospreyOn(services, 'Lantern Gloss 150'));
});
afterAll(() => services.database.close());

interface Told {
  readonly sheets?: number;
  /** Change of the density of magenta, all zones, before production. */
  readonly magenta?: number;
  readonly mode?: 'M0' | 'M1';
  readonly lock?: boolean;
  readonly zones?: number;
}

/** A run in production that has been read so many times. */
async function produce({ sheets = 8, magenta = 0, mode = 'M1', lock = false, zones = 12 }: Told = {}) {
  const then = { ...services, seed: () => SEED };
  number++;
  const { id } = await createRun(then, {
    ...{ conditionId, aimSetId, jobNumber: `W${number}`, title: 'Watched', customer: '', side: '' },
    ...{ quantity: 4000, inks: ['K', 'C', 'M', 'Y'], zones, zoneMm: 32, patchMm: 5 },
    settings: { ...USUAL_SETTINGS, mode },
  });
  if (magenta !== 0) {
    const changes = Array.from({ length: zones }, () => magenta);
    await noteMoves(services, id, { impression: 0, moves: [{ unit: MAGENTA, changes }] });
  }
  if (lock) {
    await pullSheet(services, id, 900);
    await markOkSheet(services, id, { impression: 900, lock: true });
  }
  await setPhase(services, id, { phase: 'production', from: 1000 });
  for (let sheet = 0; sheet < sheets; sheet++) await pullSheet(services, id, 1000 + 60 * sheet + number);
  return id;
}

async function finished(told: Told = {}): Promise<number> {
  const id = await produce(told);
  await setPhase(services, id, { phase: 'finished' });
  return id;
}

const start = (ids: readonly number[]) => startRunWatch(services, conditionId, SCHEDULE, ids);
const said = async (work: Promise<unknown>): Promise<string> => (await refusal(work)).title;

describe('a watch that runs feed', () => {
  let alike: number[] = [];

  it('is started by three finished runs that were printed alike, and by no fewer', async () => {
    alike = [await finished(), await finished(), await finished()];
    expect((await watchView(services, conditionId)).runs.map(({ id }) => id)).toEqual([...alike].reverse());
    expect((await runView(services, alike[0])).watch).toBeNull();
    expect(await said(start(alike.slice(0, 2)))).toContain('at least 3 runs');
    expect(await said(start([...alike.slice(0, 2), alike[1]]))).toContain('at least 3 runs');
    const under = await produce();
    expect(await said(start([...alike.slice(0, 2), under]))).toContain(
      'is no finished run of this condition',
    );
    const seven = await finished({ sheets: 7 });
    expect(await said(start([...alike.slice(0, 2), seven]))).toContain(
      'from 8 sheets of production on; it has 7',
    );
    const other = await finished({ mode: 'M0' });
    expect(await said(start([...alike.slice(0, 2), other]))).toContain('not printed and read alike');
    const away = await finished({ magenta: 0.5, lock: true });
    expect(await said(start([...alike.slice(0, 2), away]))).toContain('OK sheet whose solids were outside');
    const left = await finished();
    const narrow = await finished({ zones: 2 });
    expect(await said(start([...alike.slice(0, 2), narrow]))).toContain('Its bar does not do');
    // What no watch can go by is not offered: too few sheets, aims that were moved away, a run that is not finished.
    const offered = (await watchView(services, conditionId)).runs.map(({ id }) => id);
    expect(offered).toEqual([narrow, left, other, ...[...alike].reverse()]);
    await start(alike);
    expect((await runView(services, left)).watch?.why).toContain('finished before this watch');
    const { watch, checks, dueMs } = await watchView(services, conditionId);
    expect(watch).toMatchObject({ byRuns: true, zeroReadings: 3 });
    expect(checks.map(({ runId, readingId }) => [runId, readingId])).toEqual(alike.map((id) => [id, null]));
    expect(Math.max(...checks.map(({ meanDeltaE }) => meanDeltaE))).toBeLessThan(0.5);
    expect(dueMs).toBe((checks.at(-1)?.madeMs ?? 0) + 7 * 86_400_000);
  });

  it('takes each run that is finished, says what it would say before, and takes none that is unlike', async () => {
    const next = await produce();
    expect((await runView(services, next)).watch).toMatchObject({
      moved: false,
      why: null,
      own: { moved: false },
    });
    await setPhase(services, next, { phase: 'finished' });
    expect((await watchView(services, conditionId)).checks.map(({ runId }) => runId)).toEqual([
      ...alike,
      next,
    ]);
    expect((await runView(services, next)).watch).toMatchObject({ own: null, why: null });
    const other = await produce({ mode: 'M0' });
    expect((await runView(services, other)).watch?.why).toContain('It is read in another mode');
    await setPhase(services, other, { phase: 'finished' });
    expect((await watchView(services, conditionId)).checks).toHaveLength(4);
    // Taken up again and finished again it is one check, at its own time.
    const before = (await watchView(services, conditionId)).checks;
    await setPhase(services, next, { phase: 'production' });
    await setPhase(services, next, { phase: 'finished' });
    expect((await watchView(services, conditionId)).checks).toEqual(before);
  });

  it('says at the press that magenta has moved, and keeps it as a check', async () => {
    for (let run = 0; run < 6; run++) await finished();
    const weak = await produce({ magenta: -0.12 });
    const { watch } = await runView(services, weak);
    expect(watch).toMatchObject({ moved: false, own: { moved: true } });
    expect(watch?.own?.cause).toContain('Magenta has moved');
    await setPhase(services, weak, { phase: 'finished' });
    const { checks } = await watchView(services, conditionId);
    expect(checks.at(-1)).toMatchObject({ runId: weak, moved: true, cause: watch?.own?.cause });
    // The next run hears of it before it is read.
    const { id } = { id: await produce({ sheets: 0 }) };
    expect((await runView(services, id)).watch).toMatchObject({
      moved: true,
      cause: watch?.own?.cause,
      own: null,
    });
  });

  it('keeps both of two runs that are finished at once', async () => {
    const two = [await produce(), await produce()];
    const before = (await watchView(services, conditionId)).checks.length;
    await Promise.all(two.map((id) => setPhase(services, id, { phase: 'finished' })));
    const { checks } = await watchView(services, conditionId);
    expect(checks).toHaveLength(before + 2);
    expect(
      checks
        .slice(-2)
        .map(({ runId }) => runId)
        .sort(),
    ).toEqual([...two].sort());
    expect(checks.every(({ verdict }) => verdict !== 'not-judged')).toBe(true);
  });

  it('comes out the same when its zero is computed again', async () => {
    const lines = await verifyHouse(services);
    const own = JSON.stringify(lines);
    expect(own).toContain('equal');
    expect(own).not.toContain('differs');
  });
});
