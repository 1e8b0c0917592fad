import { PROFILE } from '../src/ledger/kinds/profileKind.ts';
import { storedResult } from '../src/ledger/storedResult.ts';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { createPressChart } from '../src/calibration/pressCharts.ts';
import { pressView } from '../src/calibration/pressView.ts';
import { chartReference, loadChart } from '../src/charts/chart.ts';
import { createChart } from '../src/profile/profilingChart.ts';
import type { LoadedChart } from '../src/charts/chart.ts';
import { advanceClock } from '../src/simulated/advanceClock.ts';
import { conditionChoices, createCondition, DEFAULT_POINTS } from '../src/house/newCondition.ts';
import { conditionOf } from '../src/ledger/conditions.ts';
import { conditionView } from '../src/overview/conditionView.ts';
import { deskState } from '../src/reading/desk.ts';
import { importReading, previewReading } from '../src/reading/importReading.ts';
import { cancelJob } from '../src/kernel/jobs.ts';
import { requestSampleHouse } from '../src/simulated/sampleHouse.ts';
import { chartFile, printFile } from '../src/charts/chartPages.ts';
import { discardSheet } from '../src/charts/rack.ts';
import { printChart } from '../src/charts/printChart.ts';
import { Problem, PROBLEM_STATUS } from '../src/kernel/problem.ts';
import type { ProblemType } from '../src/kernel/problem.ts';
import { profileInForce } from '../src/ledger/inForce.ts';
import { requestProfile } from '../src/profile/requestProfile.ts';
import { putInForce, resultFile } from '../src/ledger/versions.ts';
import { profileSettings } from '../src/profile/profileSettings.ts';
import { loadReading } from '../src/reading/loadReading.ts';
import { readingFile, readingView } from '../src/reading/readingView.ts';
import { MEASURED_M1 } from '../src/testing/measuredAs.ts';
import { RAMPS_CHART } from '../src/testing/rampsChart.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import { heronOn } from '../src/testing/heron.ts';
import { named } from '../src/testing/named.ts';
import type { TestServices } from '../src/testing/testServices.ts';
import { calibrateTile, readStrip } from '../src/simulated/simulatedHand.ts';

const TICKS = DEFAULT_POINTS.filter(({ tickAtPrint }) => tickAtPrint).map(({ label }) => label);
let services: TestServices;
let conditionId = 0;
let chart: LoadedChart;
let code = '';

beforeAll(async () => {
  services = await openTestServices('melto_refusals');
  const device = named((await conditionChoices(services)).devices, 'Wren');
  const [stock] = device.stocks;
  conditionId = (
    await createCondition(services, {
      deviceId: device.id,
      stockId: stock.id,
      inkSet: 'Four',
      mode: 'fine',
      points: DEFAULT_POINTS,
    })
  ).id;
  chart = await loadChart(
    services,
    (await createChart(services, conditionId, { patches: 100, paper: 'a4' })).id,
  );
  await calibrateTile(services);
});
afterAll(() => services.database.close());
beforeEach(async () => {
  [code] = (await printChart(services, chart.id, { ticks: TICKS })).sheets;
});

/** The refusal of a use case, and that it stored nothing. */
async function refused(work: () => Promise<unknown>): Promise<Problem> {
  const count = async (): Promise<unknown> =>
    services.database.rows(
      'SELECT (SELECT COUNT(*) FROM reading) AS a, (SELECT COUNT(*) FROM strip_reading) AS b, (SELECT COUNT(*) FROM result) AS c, (SELECT COUNT(*) FROM job) AS d',
    );
  const before = await count();
  const error: unknown = await work().then(
    () => undefined,
    (thrown: unknown) => thrown,
  );
  if (!(error instanceof Problem)) throw new Error(`expected a refusal, found ${String(error)}`);
  expect(await count()).toEqual(before);
  expect(error.detail.length).toBeGreaterThan(5);
  return error;
}

function file(changes: Partial<PatchSet> = {}): string {
  const lab = Float64Array.from({ length: 300 }, (_, i) => (i % 3 === 0 ? 30 + (i % 60) : (i % 17) - 8));
  return writeCgats(patchSetToCgats({ ...chart.set, lab, conditions: MEASURED_M1, ...changes }));
}

describe('what does not exist is not found', () => {
  it.each<[string, () => Promise<unknown>]>([
    ['condition', () => conditionOf(services, 999)],
    ['condition view', () => conditionView(services, NaN)],
    ['chart', () => loadChart(services, 999)],
    ['chart reference', () => chartReference(services, 999)],
    ['page of a chart', () => chartFile(services, chart.id, 'png', 9)],
    ['sheet', () => deskState(services, 'WRN-9999-1')],
    ['sheet to read', () => readStrip(services, 'WRN-9999-1', { attempt: 'a', strip: 1, mode: 'M1' })],
    ['sheet to throw away', () => discardSheet(services, 'WRN-9999-1', false)],
    ['file of a sheet', () => printFile(services, 'WRN-9999-1', 'pdf')],
    ['sheet for a file', () => importReading(services, 'WRN-9999-1', file())],
    ['reading', () => loadReading(services, 999)],
    ['result', () => storedResult(services, 999, PROFILE)],
    ['file of a result', () => resultFile(services, 999, 'profile')],
    ['settings of a profile', () => profileSettings(services, 999)],
    ['result to put in force', () => putInForce(services, 999)],
    ['job', () => cancelJob(services, 999)],
  ])('%s', async (_, work) => expect((await refused(work)).type).toBe('not-found'));
});

/** Device values of the chart up to a row, of no patch of it from there on. */
const foreignFrom = (row: number): Float64Array =>
  (chart.set.device ?? new Float64Array()).map((value, i) => (i < 3 * row ? value : 0.31 + 0.013 * value));

describe('a press chart', () => {
  it('is refused where no inks are driven', async () => {
    const { field, title } = await refused(() => createPressChart(services, conditionId, RAMPS_CHART));
    expect([field, title]).toEqual(['kind', 'Wren is not driven by inks.']);
  });
});

describe('where there is nothing yet', () => {
  it('a link of a press shows none, and devices whose driver is not installed are not offered', async () => {
    const heron = await heronOn(services, 'Marsh Silk 130');
    const { result, versions } = await pressView(services, heron, 'curves');
    expect([result, versions]).toEqual([null, []]);
    expect((await conditionChoices({ ...services, catalogue: [] })).devices).toEqual([]);
  });
});

describe('files in place of reading', () => {
  it('are taken in any order of rows, by ids or by places', async () => {
    const reading = async (): Promise<Map<string, number>> => {
      const { readingId } = await importReading(services, code, text);
      return new Map((await readingView(services, readingId)).patches.map(({ id, lab }) => [id, lab[0]]));
    };
    let text = file();
    const straight = await reading();
    const order = Array.from({ length: 100 }, (_, i) => 99 - i);
    const pick = (values: Float64Array | undefined): Float64Array =>
      Float64Array.from(order.flatMap((row) => [...(values ?? []).slice(3 * row, 3 * row + 3)]));
    const lab = Float64Array.from({ length: 300 }, (_, i) => (i % 3 === 0 ? 30 + (i % 60) : (i % 17) - 8));
    text = file({
      ids: order.map((row) => chart.set.ids[row]),
      names: undefined,
      device: pick(chart.set.device),
      lab: pick(lab),
      layout: undefined,
    });
    const turned = await reading();
    for (const [id, value] of straight) expect(turned.get(id)).toBeCloseTo(value, 4);
  });

  it('are not taken before what they leave open is answered, and keep what was told', async () => {
    const untold = file({ conditions: { backing: 'black' } });
    expect((await previewReading(services, code, untold)).questions.map(({ asks }) => asks)).toEqual([
      'light',
      'mode',
    ]);
    for (const [answers, field] of [
      [{}, 'light'],
      [{ light: 'D50 2°' }, 'mode'],
      [{ mode: 'M2' }, 'light'],
    ] as const) {
      const problem = await refused(() => importReading(services, code, untold, answers));
      expect(problem.field).toBe(field);
      expect(problem.title).toMatch(/^The file does not tell/);
    }
    const answers = { mode: 'M2', light: 'D50 2°' } as const;
    const { notes, readingId } = await importReading(services, code, untold, answers);
    expect(notes.join(' ')).toContain('M2: matched by device values as asked');
    expect((await readingView(services, readingId)).grid).toBeNull();
    const text = new TextDecoder().decode((await readingFile(services, readingId)).content);
    expect(text).toContain('XYZ_Y');
    expect(text).not.toContain('SPECTRAL');
    for (const told of [
      'MEASUREMENT_MODE "M2"',
      'ILLUMINATION_NAME "D50"',
      'OBSERVER "2°"',
      'SAMPLE_BACKING "black"',
    ])
      expect(text).toContain(told);
  });

  it.each<[string, () => string, string]>([
    [
      'more rows of another chart than of this',
      () => file({ device: foreignFrom(49) }),
      'Only 49 of the file’s 100 rows are patches of this chart',
    ],
    [
      'colours for another light',
      () => file({ conditions: { ...MEASURED_M1, illuminant: 'D65' } }),
      'colours for D65',
    ],
    ['another observer', () => file({ conditions: { ...MEASURED_M1, observer: '10°' } }), '10° observer'],
    [
      'another chart',
      () => file({ device: (chart.set.device ?? new Float64Array()).map((value) => 0.31 + 0.013 * value) }),
      'No device values of the file are those of this chart',
    ],
    ['no colours', () => file({ lab: undefined }), 'expected spectra, XYZ, Lab or LCh'],
    ['no file at all', () => '%PDF-1.7 …', 'cannot be used'],
    ['nothing', () => '', 'cannot be used'],
  ])('are refused for %s', async (_, text, words) => {
    const problem = await refused(() => importReading(services, code, text()));
    expect(problem.title).toContain(words);
    expect((await deskState(services, code)).strips.every(({ measured }) => measured === null)).toBe(true);
  });
});

it('takes a file of which half the rows are of this chart', async () => {
  const preview = await previewReading(services, code, file({ device: foreignFrom(50) }));
  expect(preview.modes[0]).toMatchObject({ patches: 50, foreign: 50 });
});

describe('profiles and clocks', () => {
  it('are not built from incomplete or foreign readings', async () => {
    await readStrip(services, code, { attempt: 'one', strip: 1, mode: 'M1' });
    const { readingId } = await deskState(services, code);
    const choices = { readingId: readingId ?? 0, version: 4, tableSize: 'small', namePattern: 'x' } as const;
    expect(await refused(() => requestProfile(services, conditionId, choices))).toMatchObject({
      type: 'not-ready',
      field: 'readingId',
    });
    const device = named((await conditionChoices(services)).devices, 'Wren');
    const other = await createCondition(services, {
      deviceId: device.id,
      stockId: device.stocks[1].id,
      inkSet: `Four ${code}`,
      mode: 'fine',
      points: DEFAULT_POINTS,
    });
    expect((await refused(() => requestProfile(services, other.id, choices))).title).toContain(
      'another condition',
    );
    expect(await profileInForce(services, conditionId)).toBeUndefined();
  });

  it('only go forward, by a year at most', async () => {
    for (const byMs of [0, -1, NaN, 1e12])
      expect((await refused(() => advanceClock(services, byMs))).field).toBe('byMs');
    expect(await advanceClock(services, 1000)).toBeGreaterThanOrEqual(1000);
  });

  it('ask for the sample house once', async () => {
    const first = await requestSampleHouse(services);
    expect(await requestSampleHouse(services)).toEqual(first);
    await cancelJob(services, first.jobId);
    expect((await refused(() => cancelJob(services, first.jobId))).type).toBe('conflict');
  });

  it('have an HTTP status for every kind of refusal', () => {
    for (const type of Object.keys(PROBLEM_STATUS) as ProblemType[])
      expect(PROBLEM_STATUS[type]).toBeGreaterThanOrEqual(400);
  });

  it('print with faults the device knows, and with no others', async () => {
    expect(
      (await refused(() => printChart(services, chart.id, { ticks: TICKS, conversion: 'none such' }))).field,
    ).toBe('conversion');
    const pdf = await printFile(services, code, 'pdf');
    expect(pdf.name).toBe(`${code.slice(0, -2)}.pdf`);
    expect(Buffer.from(pdf.content).toString('latin1', 0, 4)).toBe('%PDF');
    expect((await chartFile(services, chart.id, 'tiff', 1)).mediaType).toBe('image/tiff');
  });
});
