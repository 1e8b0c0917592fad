import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { createPressChart } from '../src/calibration/pressCharts.ts';
import { borrowCalibration } from '../src/calibration/borrowing.ts';
import { makeCurves } from '../src/calibration/curves.ts';
import { editLimits, proposeLimits } from '../src/calibration/limits.ts';
import { loadChart } from '../src/charts/chart.ts';
import { printChart } from '../src/charts/printChart.ts';
import { discardSheet, rack } from '../src/charts/rack.ts';
import { createAimSetByHand } from '../src/conformity/newAimSet.ts';
import { aimSets } from '../src/conformity/aimSets.ts';
import type { AimByHand } from '../src/conformity/newAimSet.ts';
import { shareReport } from '../src/conformity/checkReports.ts';
import { judgeReadingOf } from '../src/conformity/checks.ts';
import { saveToleranceSet, toleranceSets } from '../src/conformity/toleranceSets.ts';
import { conditionChoices, createCondition, DEFAULT_POINTS } from '../src/house/newCondition.ts';
import { clockOffset } from '../src/kernel/clock.ts';
import { unitOfWork } from '../src/kernel/context.ts';
import { once } from '../src/kernel/idempotency.ts';
import { Problem } from '../src/kernel/problem.ts';
import { versionsOf } from '../src/ledger/versions.ts';
import { judgeNow } from '../src/judging/judge.ts';
import { deskState, markStrip } from '../src/reading/desk.ts';
import { importReading } from '../src/reading/importReading.ts';
import { readingsOf } from '../src/reading/readingView.ts';
import { advanceClock } from '../src/simulated/advanceClock.ts';
import { requestSampleHouse } from '../src/simulated/sampleHouse.ts';
import { letChange, simulatedChanges } from '../src/simulated/simulatedChanges.ts';
import { byDeviceValues, heronOn, HOUR, readWedge, TICKS } from '../src/testing/heron.ts';
import { named } from '../src/testing/named.ts';
import { readSheets } from '../src/testing/readSheets.ts';
import { MEASURED_M1 } from '../src/testing/measuredAs.ts';
import { RAMPS_CHART } from '../src/testing/rampsChart.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';
import { calibrateTile, readStrip } from '../src/simulated/simulatedHand.ts';

// Sixteen of each write at once: none fails, none is made twice, none is lost.
const CROWD = 16;

let services: TestServices;
let gloss = 0;
let silk = 0;
let ramps = 0;
let rampsReading = 0;

beforeAll(async () => {
  services = await openTestServices('melto_crowd');
  gloss = await heronOn(services, 'Lantern Gloss 150');
  silk = await heronOn(services, 'Marsh Silk 130');
  ramps = (await createPressChart(services, gloss, RAMPS_CHART)).id;
  const { sheets } = await printChart(services, ramps, { ticks: TICKS });
  await advanceClock(services, 3 * HOUR);
  rampsReading = (await readSheets(services, sheets)).readingId;
});
afterAll(() => services.database.close());

/** What sixteen at once come to: their values, and those that were refused in words. */
async function crowd<T>(
  work: (i: number) => Promise<T>,
): Promise<{ readonly values: T[]; readonly refused: Problem[] }> {
  const settled = await Promise.allSettled(Array.from({ length: CROWD }, (_, i) => work(i)));
  const refused: Problem[] = [];
  const values = settled.flatMap((each) => {
    if (each.status === 'fulfilled') return [each.value];
    if (!(each.reason instanceof Problem)) throw each.reason;
    refused.push(each.reason);
    return [];
  });
  return { values, refused };
}

const ordered = (numbers: readonly number[]): number[] => [...numbers].sort((a, b) => a - b);
const oneTo = (n: number): number[] => Array.from({ length: n }, (_, i) => i + 1);

describe('a crowd', () => {
  it('of prints: each gets its own number', async () => {
    const { values } = await crowd(() => printChart(services, ramps, { ticks: TICKS }));
    expect(new Set(values.map(({ code }) => code)).size).toBe(CROWD);
  });

  it('of first results: each becomes a version, the last one is in force', async () => {
    const { values } = await crowd(() => proposeLimits(services, gloss, rampsReading));
    expect(new Set(values.map(({ id }) => id)).size).toBe(CROWD);
    const versions = await versionsOf(services, gloss, 'limits');
    expect(versions.map(({ version }) => version)).toEqual(oneTo(CROWD));
    expect(versions.filter(({ inForce }) => inForce)).toHaveLength(1);
  });

  it('of edits and of curves', async () => {
    const edit = { limits: [0.9, 0.9, 0.9, 1], total: 3 };
    await crowd(() => editLimits(services, gloss, edit));
    expect((await versionsOf(services, gloss, 'limits')).at(-1)?.version).toBe(2 * CROWD);
    const aim = (i: number) => ({ points: [{ tone: 0.5, increase: 0.1 + i / 100 }] });
    await crowd((i) => makeCurves(services, gloss, { readingId: rampsReading, measure: 'tvi', tvi: aim(i) }));
    expect((await versionsOf(services, gloss, 'curves')).map(({ version }) => version)).toEqual(oneTo(CROWD));
    // The same curves from one sheet are made once.
    const { values, refused } = await crowd(() =>
      makeCurves(services, gloss, { readingId: rampsReading, measure: 'sctv' }),
    );
    expect([values.length, refused.length]).toEqual([1, CROWD - 1]);
    expect(refused[0].title).toContain(`Curves v${CROWD + 1} are these curves already`);
  });

  it('of borrowing: all end with the same links', async () => {
    const { values } = await crowd(() => borrowCalibration(services, silk, gloss));
    expect(values.every(({ links }) => links.join() === 'limits,curves')).toBe(true);
    expect(
      (await versionsOf(services, silk, 'curves')).map(({ borrowedFrom }) => borrowedFrom?.conditionId),
    ).toEqual([gloss]);
  });

  it('of the same new condition: one is made, the others are told', async () => {
    const heron = named((await conditionChoices(services)).devices, 'Heron');
    const input = {
      ...{ deviceId: heron.id, inkSet: heron.inkSet, mode: 'standard', points: DEFAULT_POINTS },
      stockId: named(heron.stocks, 'Fenland Smooth 120').id,
    };
    const { values, refused } = await crowd(() => createCondition(services, input));
    expect(values).toHaveLength(1);
    expect(refused.map(({ type }) => type)).toEqual(Array.from({ length: CROWD - 1 }, () => 'conflict'));
  });

  it('with one key: one change, one answer; another route or key is another change', async () => {
    const save = (key: string, route = 'POST /tolerances'): Promise<{ readonly id: number }> =>
      once(services, { route, key }, (inner) =>
        saveToleranceSet(inner, {
          ...{ name: `Of ${key}`, source: 'house', substrateUncorrected: false },
          metrics: [{ group: 'all', statistic: 'mean', quantity: 'ΔE00', limit: 2 }],
        }),
      );
    const { values } = await crowd(() => save('same'));
    expect(new Set(values.map(({ id }) => id)).size).toBe(1);
    expect((await toleranceSets(services)).filter(({ set }) => set.name === 'Of same')).toHaveLength(1);
    const other = await save('same', 'POST /other');
    expect(other.id).not.toBe(values[0]?.id);
    expect((await save('next')).id).not.toBe(values[0]?.id);
  });

  it('with one key of which the first is refused: nothing is kept, and it can be sent again', async () => {
    let tries = 0;
    const work = (): Promise<{ readonly done: true }> =>
      once(services, { route: 'POST /trial', key: 'refused' }, async (inner) => {
        await markStrip(inner, (await rack(inner)).slips[0]?.code ?? '', 1, true);
        if (++tries === 1) throw new Problem('bad-input', 'Not yet.', 'Again.');
        return { done: true } as const;
      });
    await expect(work()).rejects.toThrow('Not yet.');
    expect(await work()).toEqual({ done: true });
    expect(await work()).toEqual({ done: true });
    expect(tries).toBe(2);
  });

  it('of versions of one aim set and one tolerance set', async () => {
    const row: AimByHand = { device: [0, 0, 0, 0], lab: [95, 0, -2] };
    const { id } = await createAimSetByHand(services, { name: 'Crowd' }, [row], {});
    await crowd(() => createAimSetByHand(services, { name: 'Crowd', versionOf: id }, [row], {}));
    expect((await aimSets(services)).find(({ name }) => name === 'Crowd')?.version).toBe(CROWD + 1);
    const set = {
      ...{ name: 'Many', source: 'house', substrateUncorrected: false },
      metrics: [{ group: 'all', statistic: 'mean', quantity: 'ΔE00', limit: 2 }] as const,
    };
    const first = await saveToleranceSet(services, set);
    await crowd(() => saveToleranceSet(services, { ...set, versionOf: first.id }));
    expect((await toleranceSets(services)).find(({ set: { name } }) => name === 'Many')?.version).toBe(
      CROWD + 1,
    );
  });

  it('of marks on one sheet keeps each; of steps of the clock adds all; of changes keeps five', async () => {
    const code = (await rack(services)).slips[0]?.code ?? '';
    for (const strip of (await deskState(services, code)).marked)
      await markStrip(services, code, strip, false);
    await crowd((i) => markStrip(services, code, i + 1, true));
    expect((await deskState(services, code)).marked).toEqual(oneTo(CROWD));
    const before = await clockOffset(services);
    await crowd(() => advanceClock(services, 1000));
    expect(await clockOffset(services)).toBe(before + 1000 * CROWD);
    const { values, refused } = await crowd(() => letChange(services, silk, 'ink-lot', 1));
    expect([values.length, refused.length]).toEqual([5, CROWD - 5]);
    expect(await simulatedChanges(services, silk)).toHaveLength(5);
  });

  it('of strips of one sheet: all are kept, the last one completes it, once', async () => {
    const { sheets } = await printChart(services, ramps, { ticks: TICKS });
    const [code = ''] = sheets;
    await advanceClock(services, 3 * HOUR);
    await calibrateTile(services, code);
    const strips = (await deskState(services, code)).strips.map(({ strip }) => strip);
    const answers = await Promise.all(
      strips.map((strip) => readStrip(services, code, { attempt: `at once ${strip}`, strip, mode: 'M1' })),
    );
    expect(new Set(answers.map((each) => (each.ok ? each.readingId : 0))).size).toBe(1);
    expect(answers.filter((each) => each.ok && each.complete)).toHaveLength(1);
    const jobs = await services.database.rows<{ n: number }>(
      "SELECT COUNT(*) AS n FROM job WHERE kind = 'judge' AND reading_id = ? AND state = 'queued'",
      [answers[0]?.ok === true ? answers[0].readingId : 0],
    );
    expect(Number(jobs[0]?.n)).toBe(1);
  });

  it('of the same last strip: one check is made, and nobody is told that nothing was changed', async () => {
    const judgedBy = await byDeviceValues(services);
    const first = await readWedge(services, gloss, 'proof', judgedBy);
    const checks = async (): Promise<number> => (await versionsOf(services, gloss, 'conformity')).length;
    const before = await checks();
    const code =
      (await readingsOf(services, gloss)).rows.find(({ id }) => id === first.readingId)?.code ?? '';
    const strip = (await deskState(services, `${code}-1`)).strips.length;
    const again = { attempt: 'the last one', strip, mode: 'M1' } as const;
    const { values } = await crowd(() => readStrip(services, `${code}-1`, again));
    expect(values.every((each) => each.ok && each.complete)).toBe(true);
    await crowd(() => judgeNow(services, first.readingId));
    expect(await checks()).toBe(before + 1);
    const { values: codes } = await crowd(() => shareReport(services, first.resultId ?? 0));
    expect(new Set(codes.map(({ code: link }) => link)).size).toBe(1);
    await crowd(() => judgeReadingOf(services, gloss, first.readingId, judgedBy));
    expect(await checks()).toBe(before + 1 + CROWD);
  });

  it('of files for one print, and of requests for the sample house', async () => {
    const { sheets } = await printChart(services, ramps, { ticks: TICKS });
    const [code = ''] = sheets;
    const chart = await loadChart(services, ramps);
    const lab = Float64Array.from({ length: chart.patches * 3 }, (_, i) => (i % 3 === 0 ? 50 + (i % 5) : 2));
    const text = writeCgats(patchSetToCgats({ ...chart.set, lab, conditions: MEASURED_M1 }));
    const { values } = await crowd(() => importReading(services, code, text));
    expect(new Set(values.map(({ readingId }) => readingId)).size).toBe(1);
    expect(ordered((await rack(services)).slips.map(({ stripsRead }) => stripsRead))).not.toContain(
      chart.layout.pages.flat().length,
    );
    const { values: jobs } = await crowd(() => requestSampleHouse(services));
    expect(new Set(jobs.map(({ jobId }) => jobId)).size).toBe(1);
  });

  it('that asks for a second connection inside a change is refused at once, not after a minute', async () => {
    const code = (await rack(services)).slips[0]?.code ?? '';
    await expect(unitOfWork(services, () => discardSheet(services, code, false))).rejects.toThrow(
      'second connection',
    );
    expect((await deskState(services, code)).onRack).toBe(true);
  });
});
