import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TRIAL_PATCHES, TRIAL_STOCKS } from '@melto/core/stock/trialRanges';
import { loadChart } from '../src/charts/chart.ts';
import { conditionChoices } from '../src/house/newCondition.ts';
import {
  beginPaperTrial,
  paperTrial,
  paperTrials,
  removePaperTrial,
  trialPoints,
  workPaperTrial,
} from '../src/house/paperTrials.ts';
import type { NewPaperTrial } from '../src/house/paperTrials.ts';
import { unitOfWork } from '../src/kernel/context.ts';
import { loadReading } from '../src/reading/loadReading.ts';
import { advanceClock } from '../src/simulated/advanceClock.ts';
import { withdrawReading } from '../src/watch/withdrawReading.ts';
import { HOUR } from '../src/testing/heron.ts';
import { named } from '../src/testing/named.ts';
import { readSheets } from '../src/testing/readSheets.ts';
import { refusal } from '../src/testing/refusal.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';

let services: TestServices;
beforeAll(async () => {
  services = await openTestServices('melto_paper_trials');
});
afterAll(() => services.database.close());

const asked = async (device: string, change: Partial<NewPaperTrial> = {}): Promise<NewPaperTrial> => {
  const { id, stocks, inkSet, modes, points } = named((await conditionChoices(services)).devices, device);
  return {
    ...{ name: 'Spring catalogue', deviceId: id, inkSet, mode: modes[0], patches: TRIAL_PATCHES.least },
    ...{ paper: 'a3', reader: 'sheet', stockIds: stocks.slice(0, 2).map((stock) => stock.id) },
    ticks: points.map(({ label }) => label),
    ...change,
  };
};

describe('a paper trial', () => {
  it('prints one chart on each stock, makes the conditions that are missing, and tells what was read', async () => {
    const { id = 0 } = await beginPaperTrial(services, await asked('Wren'));
    const trial = await paperTrial(services, id);
    expect(trial).toMatchObject({ name: 'Spring catalogue', device: 'Wren', patches: TRIAL_PATCHES.least });
    expect(trial.prints).toHaveLength(2);
    expect(new Set(trial.prints.map(({ conditionId }) => conditionId)).size).toBe(2);
    const [first, second] = trial.prints;
    expect([first.readingId, first.stripsRead, first.darkReadingId]).toEqual([null, 0, null]);
    await advanceClock(services, 24 * HOUR);
    const { readingId } = await readSheets(services, [`${first.code}-1`]);
    await readSheets(services, [`${second.code}-1`]);
    const { readingId: dark } = await readSheets(services, [`${first.code}-1`], 'M2');
    const read = (await paperTrial(services, id)).prints;
    expect(read[0]).toMatchObject({ readingId, mode: 'M1', darkReadingId: dark });
    expect(read[1].darkReadingId).toBeNull();
    // The same values on both.
    const values = await Promise.all(
      read.map(async (print) => (await loadReading(services, print.readingId ?? 0)).set.device),
    );
    expect(values[0]).toEqual(values[1]);
    await withdrawReading(services, readingId, true);
    expect((await paperTrial(services, id)).prints[0].readingId).toBeNull();
  });

  it('finds the conditions of the one before, also where two begin at once', async () => {
    const input = await asked('Wren', { name: 'Again' });
    const made = await Promise.all([1, 2].map(() => beginPaperTrial(services, input)));
    const prints = await Promise.all(made.map(async ({ id = 0 }) => (await paperTrial(services, id)).prints));
    expect(prints[0].map(({ conditionId }) => conditionId)).toEqual(
      prints[1].map(({ conditionId }) => conditionId),
    );
    expect(new Set(prints.flat().map(({ code }) => code)).size).toBe(4);
    expect((await paperTrials(services)).filter(({ name }) => name === 'Again')).toHaveLength(2);
  });

  it('of inks is a job, whose chart goes past all curves', async () => {
    const { id, jobId = 0 } = await beginPaperTrial(services, await asked('Heron', { name: 'Inks' }));
    expect(id).toBeUndefined();
    expect((await paperTrials(services)).some(({ name }) => name === 'Inks')).toBe(false);
    const [job] = await services.database.rows<{ input: string }>('SELECT input FROM job WHERE id = ?', [
      jobId,
    ]);
    const work = JSON.parse(job.input) as Parameters<typeof workPaperTrial>[1];
    const store = await workPaperTrial(services, work, () => {});
    await unitOfWork(services, store);
    const [trial] = await paperTrials(services);
    expect(trial.name).toBe('Inks');
    const { prints } = await paperTrial(services, trial.id);
    expect(prints).toHaveLength(2);
    const rows = await services.database.rows<{ chart: number; curves: number | null }>(
      'SELECT chart_id AS chart, curves_result_id AS curves FROM print WHERE id IN (?, ?)',
      prints.map(({ printId }) => printId),
    );
    expect(rows.map(({ curves }) => curves)).toEqual([null, null]);
    const [one, other] = await Promise.all(rows.map(({ chart }) => loadChart(services, chart)));
    expect(one.set.device).toEqual(other.set.device);
  });

  it('asks for each point once, those of conditions that are there with them', async () => {
    const { deviceId, inkSet, mode, stockIds } = await asked('Wren');
    const points = await trialPoints(services, { deviceId, inkSet, mode, stockIds });
    expect(new Set(points.map(({ label }) => label)).size).toBe(points.length);
    expect(points.filter(({ tickAtPrint }) => tickAtPrint).length).toBeGreaterThan(1);
    await expect(trialPoints(services, { deviceId: 99_999, inkSet, mode, stockIds })).rejects.toThrow(
      'not known',
    );
  });

  it.each([
    ['without a name', { name: '  ' }, 'The trial has no name.'],
    ['of one stock', { stockIds: [1] }, `${TRIAL_STOCKS.least} to ${TRIAL_STOCKS.most} stocks`],
    ['of one stock twice', { stockIds: [1, 1] }, `${TRIAL_STOCKS.least} to ${TRIAL_STOCKS.most} stocks`],
    ['of too many', { stockIds: Array.from({ length: 25 }, (_, i) => i + 1) }, 'to 24 stocks'],
    ['of stocks that are not there', { stockIds: [9001, 9002] }, 'does not print on this stock'],
    ['of too few patches', { patches: TRIAL_PATCHES.least - 1 }, 'to 600 patches'],
    ['of too many patches', { patches: TRIAL_PATCHES.most + 1 }, 'to 600 patches'],
    ['without its ticks', { ticks: [] }, 'Not ticked: '],
    ['on no device', { deviceId: 99_999 }, 'not known'],
  ] as const)('%s is refused, and nothing is made', async (_, change, words) => {
    const count = async (table: string): Promise<unknown> =>
      services.database.rows(`SELECT COUNT(*) AS n FROM ${table}`);
    const before = [await count('paper_trial'), await count('printing_condition'), await count('print')];
    expect((await refusal(beginPaperTrial(services, await asked('Wren', change)))).title).toContain(words);
    expect([await count('paper_trial'), await count('printing_condition'), await count('print')]).toEqual(
      before,
    );
  });

  it('is taken off the list and put back, also by two at once', async () => {
    const [{ id }] = await paperTrials(services);
    await Promise.all([1, 2].map(() => removePaperTrial(services, id, true)));
    expect((await paperTrials(services)).some((trial) => trial.id === id)).toBe(false);
    await removePaperTrial(services, id, false);
    expect((await paperTrials(services))[0].id).toBe(id);
    expect((await refusal(removePaperTrial(services, 99_999, true))).title).toContain('paper trial 99999');
  });
});
