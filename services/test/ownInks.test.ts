import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { expectedExtraInks, makeManyInkChart } from '@melto/core/charts/manyInkChart';
import { inkProcess } from '@melto/core/device/process';
import { GRID_380_730_10 } from '@melto/core/spectral/spectralGrid';
import { deviceTruthSpectra } from '@melto/simulator/deviceTruth';
import { simulatedDevice } from '@melto/simulator/devices';
import { listCharts } from '@melto/store/charts';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { libraryDevices } from '../src/house/library.ts';
import { createCondition, DEFAULT_POINTS } from '../src/house/newCondition.ts';
import { createDevice, createStock } from '../src/house/ownDevices.ts';
import type { OwnDevice } from '../src/house/ownDevices.ts';
import { linksOf } from '../src/ledger/links.ts';
import { makeChart, requestRefinement } from '../src/profile/chartJobs.ts';
import type { RefinementRequest } from '../src/profile/chartJobs.ts';
import { profilingChart } from '../src/profile/profilingChart.ts';
import { requestProfile } from '../src/profile/requestProfile.ts';
import { takeMeasuredChart } from '../src/reading/measuredChart.ts';
import { readingsOf } from '../src/reading/readingView.ts';
import { TICKS } from '../src/testing/heron.ts';
import { refusal } from '../src/testing/refusal.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';

const SIX = ['C', 'M', 'Y', 'K', 'O', 'G'];
const DUNLIN: OwnDevice = {
  name: 'Dunlin',
  kind: 'ink-front-end',
  inks: SIX,
  inkSet: 'latex six',
  modes: ['fine'],
};
let services: TestServices;
let conditionId = 0;
let readingId = 0;

beforeAll(async () => {
  services = await openTestServices('melto_own_inks', { simulated: false });
  const device = await createDevice(services, DUNLIN);
  const stock = await createStock(services, { name: 'Quay', finish: 'matt', restMinutes: 0 });
  const made = await createCondition(services, {
    ...{ deviceId: device.id, stockId: stock.id, inkSet: 'latex six', mode: 'fine', points: DEFAULT_POINTS },
  });
  conditionId = made.id;
  const process = inkProcess(SIX);
  const { device: values } = makeManyInkChart(400, 3, 6, expectedExtraInks(process), 3);
  const spectra = deviceTruthSpectra(simulatedDevice('tern'), 'quay-proof-200', 'fine', values);
  const file = writeCgats(
    patchSetToCgats({
      ids: Array.from({ length: 400 }, (_, i) => String(i + 1)),
      ...{ process, device: values, spectra: { grid: GRID_380_730_10, values: spectra } },
      ...{ conditions: { mode: 'M1', backing: 'white' }, notes: [] },
    }),
  );
  await takeMeasuredChart(services, conditionId, 'six.txt', file, TICKS);
  readingId = (await readingsOf(services, conditionId)).rows[0].id;
});

afterAll(() => services.database.close());

const choices = { version: 4, tableSize: 'small', namePattern: '{device}' } as const;

describe('a device of named inks of the house’s own', () => {
  it('keeps its inks in their order, and names that are none are refused', async () => {
    const found = (await libraryDevices(services)).find(({ name }) => name === 'Dunlin');
    expect(found).toMatchObject({ channels: 'CMYKOG', inkNames: SIX, ownKind: 'ink-front-end' });
    const wrong = async (inks: readonly string[] | undefined, kind: OwnDevice['kind'] = 'ink-front-end') =>
      (await refusal(createDevice(services, { ...DUNLIN, name: 'Knot', kind, inks }))).message;
    expect(await wrong(undefined)).toContain('0 are named');
    expect(await wrong([...SIX, 'V', 'R', 'B'])).toContain('9 are named');
    expect(await wrong([...SIX, 'O'])).toContain('O is named twice');
    expect(await wrong(['C', '=cmd'])).toContain('no name of an ink');
    expect(await wrong(SIX, 'press')).toContain('front end of named inks only');
    expect(linksOf(inkProcess(SIX))).toEqual([
      'limits',
      'curves',
      'balance',
      'profile',
      'conformity',
      'watch',
    ]);
    expect(linksOf(inkProcess(['O', 'G']))).toEqual(['limits', 'curves']);
  });

  it('has profiles from a measured file, with limits for each ink and pairs of them', async () => {
    const ask = (separation: object) =>
      requestProfile(services, conditionId, {
        ...{ ...choices, readingId },
        separation: { black: 'medium', totalInk: 3, ...separation },
      });
    const refused = async (separation: object) => (await refusal(ask(separation))).message;
    expect(await refused({ inkLimits: [1, 1, 1, 1] })).toContain('has 6 inks, and limits of 4 were given');
    expect(await refused({ pairLimits: [{ inks: [0, 6], most: 1.5 }] })).toContain('two of the 6 inks');
    expect(await refused({ pairLimits: [{ inks: [2, 2], most: 1.5 }] })).toContain('two of the 6 inks');
    expect(
      await ask({ inkLimits: [1, 1, 1, 1, 0.9, 1], pairLimits: [{ inks: [0, 5], most: 1.5 }] }),
    ).toHaveProperty('jobId');
  });

  it('has no chart where the name of an ink tells no colour', async () => {
    const inks = ['C', 'M', 'Y', 'K', 'LC'];
    const device = await createDevice(services, { ...DUNLIN, name: 'Ruff', inks });
    const stock = await createStock(services, { name: 'Chalk', finish: 'matt', restMinutes: 0 });
    const made = await createCondition(services, {
      ...{
        deviceId: device.id,
        stockId: stock.id,
        inkSet: 'light five',
        mode: 'fine',
        points: DEFAULT_POINTS,
      },
    });
    const asked = profilingChart(services, made.id, { paper: 'a4', patches: 400 });
    expect((await refusal(asked)).message).toContain('the colour of LC is not told by its name');
  });

  it('has charts of its own sizes, and second ones without colours that come out exactly', async () => {
    const chart = { paper: 'a4', patches: 399 } as const;
    expect((await refusal(profilingChart(services, conditionId, chart))).message).toContain('400 to 3000');
    const made = await profilingChart(services, conditionId, { ...chart, patches: 400 });
    expect(made).toMatchObject({ title: 'CMYKOG 400', purpose: 'profile' });
    const refine: RefinementRequest = {
      ...{ paper: 'a4' as const, readingIds: [readingId], unsure: 20, readings: 2 },
      ...{ colours: [], picture: [] },
    };
    const colours = [{ name: 'Gorse', lab: [80, 0, 80] as const }];
    const asked = requestRefinement(services, conditionId, { ...refine, colours });
    expect((await refusal(asked)).message).toContain('of RGB and CMYK so far');
    const { jobId } = await requestRefinement(services, conditionId, refine);
    expect(jobId).toBeGreaterThan(0);
    const input = { conditionId, refinement: refine };
    await (
      await makeChart(services, input, () => {})
    )(services);
    const { rows } = await listCharts(services.database, conditionId, { limit: 1 });
    expect(rows[0]).toMatchObject({ kind: 'second', title: 'second, 20 unsure', processName: 'CMYKOG' });
  });
});
