import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { chartsOf } from '../src/charts/chart.ts';
import { printChart } from '../src/charts/printChart.ts';
import { conditionChoices, createCondition, DEFAULT_POINTS } from '../src/house/newCondition.ts';
import { unitOfWork } from '../src/kernel/context.ts';
import { PROFILE } from '../src/ledger/kinds/profileKind.ts';
import { storedResult } from '../src/ledger/storedResult.ts';
import { buildProfile } from '../src/profile/buildProfile.ts';
import { makeChart, requestRefinement } from '../src/profile/chartJobs.ts';
import { readColours } from '../src/lists/colourLists.ts';
import { createChart } from '../src/profile/profilingChart.ts';
import { advanceClock } from '../src/simulated/advanceClock.ts';
import { TICKS } from '../src/testing/heron.ts';
import { named } from '../src/testing/named.ts';
import { readSheets } from '../src/testing/readSheets.ts';
import { refusal } from '../src/testing/refusal.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';

const DAY = 24 * 3_600_000;
const FILE = { version: 4, tableSize: 'small', namePattern: '{device}' } as const;
let services: TestServices;
let conditionId = 0;
let first = 0;

beforeAll(async () => {
  services = await openTestServices('melto_rgb_refined');
  const wren = named((await conditionChoices(services)).devices, 'Wren');
  const made = await createCondition(services, {
    deviceId: wren.id,
    stockId: named(wren.stocks, 'Quay Proof 200').id,
    inkSet: wren.inkSet,
    mode: 'fine',
    points: DEFAULT_POINTS,
  });
  conditionId = made.id;
  const { id } = await createChart(services, conditionId, { patches: 100, paper: 'a4' });
  first = await printedAndRead(id);
});
afterAll(() => services.database.close());

async function printedAndRead(chartId: number): Promise<number> {
  const { sheets } = await printChart(services, chartId, { ticks: TICKS });
  await advanceClock(services, DAY);
  return (await readSheets(services, sheets)).readingId;
}

async function added(request: Parameters<typeof requestRefinement>[2]): Promise<number> {
  expect((await requestRefinement(services, conditionId, request)).jobId).toBeGreaterThan(0);
  await unitOfWork(services, await makeChart(services, { conditionId, refinement: request }, () => {}));
  const [chart] = (await chartsOf(services, conditionId)).rows;
  return printedAndRead(chart.id);
}

describe('an RGB device', () => {
  it('gets a second chart from its first reading, then a profile of both, refined by colours that matter', async () => {
    const plain = { paper: 'a4', picture: [], readings: 2 } as const;
    const { colours } = {
      colours: await readColours(services, 'name,L,a,b\nSeed red,50,45,25\nprimary,60,-20,20\n'),
    };
    const early = { ...plain, readingIds: [first], unsure: 0, colours };
    expect((await refusal(requestRefinement(services, conditionId, early))).title).toBe(
      'Colours can be added once there is a profile that prints them.',
    );
    const second = await added({ ...plain, readingIds: [first], unsure: 40, colours: [] });
    const both = { ...FILE, readingId: first, addedReadingIds: [second] };
    const built = await buildProfile(services, { conditionId, choices: both }, () => {});
    const { detail } = await storedResult(services, await unitOfWork(services, built), PROFILE);
    expect(detail.refinement).toMatchObject({ addedPatches: 53, wanted: [] });
    expect(detail.refinement?.agreement).toBeLessThan(1);
    expect(detail.uncertainty?.mean).toBeGreaterThan(0);
    expect(detail.smoothness?.perceptual.largest).toBeGreaterThan(0);

    const third = await added({ ...plain, readingIds: [first, second], unsure: 0, colours });
    const all = { ...FILE, readingId: first, addedReadingIds: [second, third] };
    const refined = await buildProfile(services, { conditionId, choices: all }, () => {});
    const result = await storedResult(services, await unitOfWork(services, refined), PROFILE);
    expect(result.detail.refinement?.wanted.map(({ name }) => name)).toEqual(['Seed red', 'primary (2)']);
    for (const { after } of result.detail.refinement?.wanted ?? []) expect(after).toBeLessThan(1.5);
  });
});
