import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { BASELINE_CHECKS } from '@melto/core/series/controlChart';
import { RECENT_CHECKS } from '@melto/core/watch/watchCause';
import { encodeValues } from '@melto/store/valueBlock';
import { findWatchState, listWatchChecks } from '@melto/store/watches';
import { advanceClock } from '../src/simulated/advanceClock.ts';
import { conditionView } from '../src/overview/conditionView.ts';
import { verifyHouse } from '../src/overview/verifyHouse.ts';
import { floor } from '../src/overview/floor.ts';
import { withdrawReading } from '../src/watch/withdrawReading.ts';
import { letChange } from '../src/simulated/simulatedChanges.ts';
import { printWedge } from '../src/wedges/printWedge.ts';
import { DAY, heronOn, HOUR, readWedge, TICKS } from '../src/testing/heron.ts';
import { readSheets } from '../src/testing/readSheets.ts';
import { refusal } from '../src/testing/refusal.ts';
import { staleMarksAgree } from '../src/testing/staleMarksAgree.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';
import { settleWatchById } from '../src/watch/settleWatch.ts';
import { addWatchCheck, startWatch } from '../src/watch/watch.ts';
import { standingOf } from '../src/overview/standing.ts';
import { watchView } from '../src/watch/watchView.ts';

let services: TestServices;
let gloss = 0;

beforeAll(async () => {
  services = await openTestServices('melto_watch');
  gloss = await heronOn(services, 'Lantern Gloss 150');
});
afterAll(async () => services.database.close());

afterEach(() => staleMarksAgree(services));

const readingOf = ({ readingId }: { readonly readingId: number | null }): number => readingId ?? 0;

describe('a watch', () => {
  const zero: number[] = [];

  it('starts from three readings of one state', async () => {
    const wedge = { kind: 'watch', paper: 'a4', reader: 'strip' } as const;
    for (const copies of [0, 7, 1.5])
      expect((await refusal(printWedge(services, gloss, { ...wedge, copies }, { ticks: TICKS }))).field).toBe(
        'copies',
      );
    // One print each, of one chart: they are read and judged by themselves.
    const { sheets } = await printWedge(services, gloss, { ...wedge, copies: 3 }, { ticks: TICKS });
    expect(new Set(sheets.map((code) => code.slice(0, -2))).size).toBe(3);
    await advanceClock(services, 3 * HOUR);
    for (const code of sheets) zero.push((await readSheets(services, [code])).readingId);
    expect(new Set(zero).size).toBe(3);
    const schedule = { everyDays: 7, expiresDays: 14, meanLimit: 1.5, largestLimit: 3 };
    expect((await refusal(startWatch(services, gloss, schedule, zero.slice(1)))).field).toBe('readingIds');
    expect((await refusal(startWatch(services, gloss, { ...schedule, expiresDays: 2 }, zero))).field).toBe(
      'expiresDays',
    );
    await startWatch(services, gloss, schedule, zero);
    const view = await watchView(services, gloss);
    expect(view.checks).toHaveLength(3);
    expect(view.checks.every(({ verdict }) => verdict === 'conforms')).toBe(true);
    expect(view.watch?.zeroReadings).toBe(3);
    // Due and expired from the last of its readings on.
    const last = Math.max(...view.checks.map(({ madeMs }) => madeMs));
    expect([view.dueMs, view.expiresMs]).toEqual([last + 7 * DAY, last + 14 * DAY]);
    expect((await conditionView(services, gloss)).links.at(-1)).toMatchObject({ state: 'conforms' });
  });

  it('has a zero reading that comes out the same when it is computed again', async () => {
    const outcome = async (): Promise<string[]> =>
      (await verifyHouse(services))
        .filter(({ what }) => what.startsWith('watch'))
        .map(({ outcome: own, why }) => `${own} ${why}`);
    expect(await outcome()).toEqual(['equal ']);
    const changed = "UPDATE result SET detail = ? WHERE shape = 'watch'";
    const [row] = await services.database.rows<{ detail: string }>(
      "SELECT detail FROM result WHERE shape = 'watch'",
    );
    await services.database.change(changed, [row.detail.replace(/"zero":\[\d+(\.\d+)/, '"zero":[1.5')]);
    expect(await outcome()).toEqual(['differs its zero differ']);
    await services.database.change(changed, [row.detail]);
  });

  it('becomes due, expires, and is done', async () => {
    await advanceClock(services, 8 * DAY);
    const [row] = (await floor(services)).rows;
    expect(row.links.at(-1)?.state).toBe('due');
    expect((await standingOf(services, gloss)).reasons).toContain('A watch check is due.');
    await advanceClock(services, 8 * DAY);
    const expired = await standingOf(services, gloss);
    expect(expired.standing).toBe('stop');
    expect(expired.reasons).toContain('The last watch check has expired.');
    await readWedge(services, gloss, 'watch');
    const view = await watchView(services, gloss);
    expect(view.checks).toHaveLength(4);
    expect(view.dueMs ?? 0).toBeGreaterThan(view.nowMs);
  });

  it('names what moved', async () => {
    for (let i = 0; i < 6; i++) {
      await advanceClock(services, 7 * DAY);
      await readWedge(services, gloss, 'watch');
    }
    expect((await watchView(services, gloss)).checks.some(({ moved }) => moved)).toBe(false);
    await letChange(services, gloss, 'ink-lot', 1);
    await advanceClock(services, 7 * DAY);
    await readWedge(services, gloss, 'watch');
    await advanceClock(services, 7 * DAY);
    await readWedge(services, gloss, 'watch');
    const last = (await watchView(services, gloss)).checks.at(-1);
    expect(last?.moved).toBe(true);
    // As stored, to four decimals.
    const state = await findWatchState(services.database, gloss);
    const stored = (await listWatchChecks(services.database, state?.watchId ?? 0, 1, 1)).at(-1);
    expect(stored?.readingId).toBe(last?.readingId);
    expect(last?.figures).toEqual(
      Array.from(stored?.figures ?? [], (value) => expect.closeTo(value, 3) as number),
    );
    expect(last?.figures.some((value) => (value ?? 0) > 0.1)).toBe(true);
    expect(last?.cause).toContain('Magenta has moved');
    const standing = await standingOf(services, gloss);
    expect(standing.watch?.cause).toBe(last?.cause);
    expect(standing.standing).not.toBe('go');
  });

  it('follows a reading that is withdrawn, and taken back', async () => {
    const before = await watchView(services, gloss);
    const state = await findWatchState(services.database, gloss);
    const newest = before.checks.slice(-2).map(readingOf);
    for (const id of newest) await withdrawReading(services, id, true);
    const without = await findWatchState(services.database, gloss);
    const shown = await watchView(services, gloss);
    expect(shown.checks).toEqual(before.checks.slice(0, -2));
    expect(without).toMatchObject({ moved: false, cause: null, lastMs: before.checks.at(-3)?.madeMs });
    expect(without?.spark).toEqual(shown.checks.map(({ meanDeltaE }) => meanDeltaE));
    expect((await standingOf(services, gloss)).watch?.dueMs).toBe(
      (before.checks.at(-3)?.madeMs ?? 0) + 7 * DAY,
    );
    for (const id of newest) await withdrawReading(services, id, false);
    expect(await findWatchState(services.database, gloss)).toEqual(state);
    expect(await watchView(services, gloss)).toEqual(before);
    expect((await refusal(withdrawReading(services, 99_999, true))).type).toBe('not-found');
  });

  it('charts what comes after a withdrawn check of the baseline anew', async () => {
    const { checks } = await watchView(services, gloss);
    const [, , , fourth] = checks;
    await withdrawReading(services, readingOf(fourth), true);
    // Nine checks are left before the first that moved: it becomes part of the baseline, and hides the second.
    const shown = (await watchView(services, gloss)).checks;
    expect(shown).toHaveLength(checks.length - 1);
    expect(shown.every(({ moved, cause }) => !moved && cause === null)).toBe(true);
    await withdrawReading(services, readingOf(fourth), false);
    expect((await watchView(services, gloss)).checks).toEqual(checks);
  });

  it('comes to the same where several readings are taken out and back at once', async () => {
    const before = await watchView(services, gloss);
    const some = before.checks.slice(4, 8).map(readingOf);
    await Promise.all(some.map((id) => withdrawReading(services, id, true)));
    expect((await watchView(services, gloss)).checks).toHaveLength(before.checks.length - some.length);
    await Promise.all(some.map((id) => withdrawReading(services, id, false)));
    expect(await watchView(services, gloss)).toEqual(before);
  });

  it('leaves an older check at its place when one of its strips is read again', async () => {
    const before = await watchView(services, gloss);
    const state = await findWatchState(services.database, gloss);
    await addWatchCheck(services, readingOf(before.checks[5]));
    expect(await findWatchState(services.database, gloss)).toEqual(state);
    expect((await watchView(services, gloss)).checks).toEqual(before.checks);
  });

  it('judges a check as one step from the one before it, and finds its way where that was not kept', async () => {
    const { database } = services;
    for (let i = 0; i < 2; i++) {
      await advanceClock(services, 7 * DAY);
      await readWedge(services, gloss, 'watch');
    }
    const { watch, checks } = await watchView(services, gloss);
    const id = watch?.id ?? 0;
    const last = checks.at(-1);
    const after = checks[BASELINE_CHECKS];
    if (last === undefined) throw new Error('no check');
    const kept = () =>
      database.rows(
        'SELECT id, verdict, moved, cause, HEX(chart_state) AS state FROM watch_check WHERE watch_id = ? ORDER BY made_ms, id',
        [id],
      );
    const before = await kept();
    const settle = (fromMs: number) => database.transaction((sql) => settleWatchById(sql, id, fromMs));
    const spoil = async (check: number, column: string): Promise<() => Promise<unknown>> => {
      const [row] = await database.rows<{ value: Buffer }>(
        `SELECT ${column} AS value FROM watch_check WHERE id = ?`,
        [check],
      );
      const none =
        column === 'figures' ? encodeValues(new Float64Array(row.value.length / 4).fill(50)) : null;
      const put = (value: Buffer | null) =>
        database.change(`UPDATE watch_check SET ${column} = ? WHERE id = ?`, [value, check]);
      await put(none);
      return () => put(row.value);
    };
    // All of them anew come to the same, to the last bit.
    await settle(0);
    expect(await kept()).toEqual(before);
    // What lies farther back than a cause looks is not read again for the latest check.
    expect(checks.indexOf(after)).toBeLessThanOrEqual(checks.indexOf(last) - RECENT_CHECKS);
    const mend = await spoil(after.id, 'figures');
    await settle(last.madeMs);
    expect(await kept()).toEqual(before);
    await mend();
    // Checks of an earlier version of Melto kept no state.
    await spoil(checks[checks.length - 2].id, 'chart_state');
    await settle(last.madeMs);
    expect(await kept()).toEqual(before);
  });

  it('keeps its baseline when there are more checks than it charts', async () => {
    const { watch, checks } = await watchView(services, gloss);
    const ids = checks.map(({ id }) => id);
    const listed = await listWatchChecks(services.database, watch?.id ?? 0, 2, 4);
    expect(listed.map(({ id }) => id)).toEqual([...ids.slice(0, 2), ...ids.slice(-4)]);
    const overlapping = await listWatchChecks(services.database, watch?.id ?? 0, 4, ids.length - 2);
    expect(overlapping.map(({ id }) => id)).toEqual(ids);
  });

  it('takes no readings of another state: another profile, another mode', async () => {
    const { database } = services;
    const { watch, checks } = await watchView(services, gloss);
    const readings = checks.slice(0, 3).map(readingOf);
    const schedule = { everyDays: 7, expiresDays: 14, meanLimit: 1.5, largestLimit: 3 };
    const printOf = 'id = (SELECT print_id FROM reading WHERE id = ?)';
    const refused = async (sql: string, other: string | number, own: string | null): Promise<void> => {
      await database.change(sql, [other, readings[2]]);
      const problem = await refusal(startWatch(services, gloss, schedule, readings));
      expect(problem.title).toContain('were not printed and read alike');
      await database.change(sql, [own, readings[2]]);
    };
    await refused(`UPDATE print SET profile_result_id = ? WHERE ${printOf}`, watch?.id ?? 0, null);
    await refused('UPDATE reading SET mode = ? WHERE id = ?', 'M0', 'M1');
    await startWatch(services, gloss, schedule, readings);
    expect((await watchView(services, gloss)).checks).toHaveLength(3);
  });
});
