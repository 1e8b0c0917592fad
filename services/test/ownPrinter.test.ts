import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { RGB } from '@melto/core/device/process';
import { measuredBody } from '@melto/core/gamut/measuredBody';
import { unwrap } from '@melto/core/result';
import { simulateSheets } from '@melto/simulator/simulateSheets';
import { chartsOf, loadChart } from '../src/charts/chart.ts';
import { printChart } from '../src/charts/printChart.ts';
import { printFile } from '../src/charts/chartPages.ts';
import { rack } from '../src/charts/rack.ts';
import { conditionChoices, createCondition, DEFAULT_POINTS } from '../src/house/newCondition.ts';
import { createDevice, createStock } from '../src/house/ownDevices.ts';
import type { OwnDevice } from '../src/house/ownDevices.ts';
import { unitOfWork } from '../src/kernel/context.ts';
import { PROFILE } from '../src/ledger/kinds/profileKind.ts';
import { storedHead } from '../src/ledger/storedResult.ts';
import { conditionView } from '../src/overview/conditionView.ts';
import { buildProfile } from '../src/profile/buildProfile.ts';
import { createChart } from '../src/profile/profilingChart.ts';
import { deskState } from '../src/reading/desk.ts';
import { importReading, previewReading } from '../src/reading/importReading.ts';
import { changeDevice, libraryDevices, libraryStocks } from '../src/house/library.ts';
import { takeMeasuredHouse } from '../src/house/measuredHouse.ts';
import { conditionOf } from '../src/ledger/conditions.ts';
import { bodySources } from '../src/overview/bodySources.ts';
import { floor } from '../src/overview/floor.ts';
import {
  previewMeasuredChart,
  previewMeasuredElsewhere,
  takeMeasuredChart,
} from '../src/reading/measuredChart.ts';
import { readingFile, readingView } from '../src/reading/readingView.ts';
import { letChange } from '../src/simulated/simulatedChanges.ts';
import { requestSampleHouse } from '../src/simulated/sampleHouse.ts';
import { TICKS } from '../src/testing/heron.ts';
import { printJobCheck } from '../src/conformity/jobCheck.ts';
import { refusal } from '../src/testing/refusal.ts';
import { staleMarksAgree } from '../src/testing/staleMarksAgree.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';
import { withdrawReading } from '../src/watch/withdrawReading.ts';
import { readStrip } from '../src/simulated/simulatedHand.ts';

// A printer and a spectrophotometer of one's own: no driver anywhere, all by files.
let services: TestServices;
beforeAll(async () => {
  services = await openTestServices('melto_own', { simulated: false });
});
afterAll(() => services.database.close());
afterEach(() => staleMarksAgree(services));

const PRINTER: OwnDevice = {
  name: 'Avocet',
  kind: 'rgb-driver',
  inkSet: 'pigment, eight inks',
  modes: ['fine', 'fast'],
};

describe('a device of one’s own', () => {
  it('is refused without a name, inks or modes, and under a name that is taken', async () => {
    for (const [change, field] of [
      [{ name: '  ' }, 'name'],
      [{ inkSet: '' }, 'inkSet'],
      [{ modes: [' ', ''] }, 'modes'],
    ] as const)
      expect((await refusal(createDevice(services, { ...PRINTER, ...change }))).field).toBe(field);
    for (const restMinutes of [-1, 0.5, 20_161])
      expect((await refusal(createStock(services, { name: 'X', finish: 'matt', restMinutes }))).field).toBe(
        'restMinutes',
      );
    for (const restMinutes of [0, 20_160])
      expect(
        (await createStock(services, { name: `Rest ${restMinutes}`, finish: 'matt', restMinutes })).id,
      ).toBeGreaterThan(0);
    expect(
      (await refusal(createStock(services, { name: ' Rest  0 ', finish: 'gloss', restMinutes: 1 }))).type,
    ).toBe('conflict');
    expect((await conditionChoices(services)).devices).toEqual([]);
    expect((await refusal(requestSampleHouse(services))).type).toBe('not-ready');
  });

  it('is made once by many at once, and has a code of its own beside names like it', async () => {
    const crowd = await Promise.allSettled(
      Array.from({ length: 16 }, () => createDevice(services, { ...PRINTER, name: 'Curlew' })),
    );
    expect(crowd.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    const many = await Promise.all(
      Array.from({ length: 16 }, (_, i) => createDevice(services, { ...PRINTER, name: `Curlew ${i}` })),
    );
    expect(new Set(many.map(({ id }) => id)).size).toBe(16);
    const codes = await services.database.rows<{ code: string }>('SELECT code FROM device', []);
    expect(new Set(codes.map(({ code }) => code)).size).toBe(17);
    expect(codes.every(({ code }) => /^[A-Z]{3}$/.test(code))).toBe(true);
  });
});

describe('from box to profile, by files only', () => {
  let condition = 0;
  let sheets: readonly string[] = [];
  let chart = 0;

  it('a condition is made of a device, a stock and one of its modes', async () => {
    const { id: deviceId } = await createDevice(services, PRINTER);
    const { id: stockId } = await createStock(services, {
      name: 'Barn Owl Rag',
      finish: 'matt',
      restMinutes: 30,
    });
    const key = { deviceId, stockId, inkSet: PRINTER.inkSet, points: DEFAULT_POINTS };
    expect((await refusal(createCondition(services, { ...key, mode: 'draft' }))).field).toBe('mode');
    condition = (await createCondition(services, { ...key, mode: 'fine' })).id;
    expect((await refusal(createCondition(services, { ...key, mode: 'fine' }))).type).toBe('conflict');
    const view = await conditionView(services, condition);
    expect(view.links.map(({ link, state }) => `${link} ${state}`)).toEqual([
      'profile none',
      'conformity none',
      'watch none',
    ]);
  });

  it('pages come with codes and stand on the rack; a mistake cannot be simulated', async () => {
    chart = (await createChart(services, condition, { patches: 300, paper: 'a4' })).id;
    expect((await refusal(printChart(services, chart, { ticks: [] }))).field).toBe('ticks');
    expect((await refusal(letChange(services, condition, 'stock-lot', 0))).title).toContain('not simulated');
    expect((await refusal(printChart(services, chart, { ticks: TICKS, side: 'wrong' }))).field).toBe('side');
    expect((await refusal(printChart(services, chart, { ticks: TICKS, conversion: 'any' }))).field).toBe(
      'conversion',
    );
    const job = { intent: 'perceptual', paper: 'a4', reader: 'strip' } as const;
    expect((await refusal(printJobCheck(services, condition, { ...job, happens: 'twice' }))).field).toBe(
      'happens',
    );
    expect((await refusal(printJobCheck(services, condition, job))).title).toBe(
      'There is no profile in force.',
    );
    const printed = await printChart(services, chart, { ticks: TICKS });
    ({ sheets } = printed);
    expect(sheets[0]).toMatch(/^AVC-0001-1$/);
    expect((await rack(services)).slips.map(({ code }) => code)).toEqual(sheets);
    const pdf = await printFile(services, sheets[0], 'pdf');
    expect(Buffer.from(pdf.content.slice(0, 5)).toString()).toBe('%PDF-');
    const sent = unwrap(
      readPatchSet(Buffer.from((await printFile(services, sheets[0], 'txt')).content).toString('utf8')),
    );
    const { set, layout } = await loadChart(services, chart);
    const rows = layout.pages[0].flat();
    expect(sent.ids).toEqual(rows.map((row) => set.ids[row]));
    expect(new Set(sent.layout?.page)).toEqual(new Set([1]));
    rows.forEach((row, i) =>
      expect(sent.device?.[3 * i + 2]).toBeCloseTo(set.device?.[3 * row + 2] ?? NaN, 6),
    );
  });

  it('no simulated instrument reads what was printed elsewhere', async () => {
    expect((await deskState(services, sheets[0])).simulated).toBe(false);
    const pass = readStrip(services, sheets[0], { attempt: 'a', strip: 1, mode: 'M1' });
    expect((await refusal(pass)).title).toContain('printed at a real device');
  });

  it('a file of measurements becomes a reading and a profile, page by page', async () => {
    const { set, layout } = await loadChart(services, chart);
    const device = set.device ?? new Float64Array(0);
    const { grid, spectra } = simulateSheets({
      ...{ device: 'wren', stock: 'chalk-rag-310', printMode: 'fine', side: 'printing', seed: 5 },
      ...{ mode: 'M1', noise: 'instrument', values: device, layout },
    });
    const file = (rows: readonly number[]): string =>
      writeCgats(
        patchSetToCgats({
          ids: rows.map((_, i) => `A${i}`),
          process: RGB,
          device: Float64Array.from(rows.flatMap((row) => [...device.subarray(3 * row, 3 * row + 3)])),
          spectra: {
            grid,
            values: Float64Array.from(
              rows.flatMap((row) => [...spectra.subarray(grid.count * row, grid.count * (row + 1))]),
            ),
          },
          conditions: { mode: 'M1', backing: 'white' },
          notes: [],
        }),
      );
    const [first, ...others] = layout.pages.flat();
    const preview = await previewReading(services, sheets[0], file(first));
    expect(preview.modes[0]).toMatchObject({
      patches: first.length,
      strips: 1,
      ofStrips: 1 + others.length,
      foreign: 0,
    });
    const part = await importReading(services, sheets[0], file(first));
    const [open] = (await rack(services)).slips;
    expect(open).toMatchObject({ state: 'partly read', stripsRead: 1 });
    const whole = await importReading(services, sheets[0], file(others.flat().reverse()));
    expect(whole.readingId).toBe(part.readingId);
    expect((await rack(services)).slips).toEqual([]);
    const view = await readingView(services, whole.readingId);
    expect(view.finishedMs).not.toBeNull();
    expect(view.faults).toEqual([]);
    const choices = {
      readingId: whole.readingId,
      version: 4,
      tableSize: 'small',
      namePattern: '{device}_{stock}',
    } as const;
    await unitOfWork(services, await buildProfile(services, { conditionId: condition, choices }, () => {}));
    const head = await storedHead(services, condition, PROFILE);
    expect(head?.summary.name).toBe('Avocet_BarnOwlRag');
  });
});

describe('a chart that was measured elsewhere', () => {
  let condition = 0;
  let text = '';
  const file = (change: (line: string) => string = (line) => line): string =>
    text.split('\n').map(change).join('\n');

  beforeAll(async () => {
    const { id: deviceId } = await createDevice(services, { ...PRINTER, name: 'Dunlin' });
    const { id: stockId } = await createStock(services, {
      name: 'Reed Gloss',
      finish: 'gloss',
      restMinutes: 0,
    });
    condition = (
      await createCondition(services, {
        deviceId,
        stockId,
        inkSet: PRINTER.inkSet,
        mode: 'fast',
        points: DEFAULT_POINTS,
      })
    ).id;
    const levels = [0, 51, 102, 153, 204, 255];
    const rows = levels.flatMap((r) => levels.flatMap((g) => levels.map((b) => [r, g, b] as const)));
    const cells = rows.map(
      ([r, g, b], i) =>
        `A${i} ${r} ${g} ${b} ${(14 + (r + g + b) / 9.4).toFixed(3)} ${((r - g) / 6).toFixed(3)} ${((g - b) / 6).toFixed(3)}`,
    );
    text = [
      'CGATS.17',
      'ILLUMINATION_NAME "D50"',
      'OBSERVER "2"',
      'BEGIN_DATA_FORMAT',
      'SAMPLE_ID RGB_R RGB_G RGB_B LAB_L LAB_A LAB_B',
      'END_DATA_FORMAT',
      'BEGIN_DATA',
      ...cells,
      'END_DATA',
    ].join('\n');
  });

  it('is shown first, and stores nothing', async () => {
    const preview = await previewMeasuredChart(services, condition, text);
    expect(preview.questions.map(({ asks }) => asks)).toEqual(['mode']);
    expect(preview.modes[0]).toMatchObject({ patches: 216, ofPatches: 216, doubtful: [] });
    expect(preview.modes[0]?.pages.flat(2)).toHaveLength(216);
    const waiting = takeMeasuredChart(services, condition, 'house.txt', text, TICKS);
    expect((await refusal(waiting)).field).toBe('mode');
    expect((await chartsOf(services, condition)).rows).toEqual([]);
    expect((await rack(services)).slips).toEqual([]);
  });

  it('becomes chart, print and reading in one, as often as it is given', async () => {
    const answers = { mode: 'M1' } as const;
    const taken = await Promise.all(
      Array.from({ length: 4 }, () =>
        takeMeasuredChart(services, condition, 'house.txt', text, TICKS, answers),
      ),
    );
    expect(new Set(taken.map(({ readingId }) => readingId)).size).toBe(4);
    const { rows } = await chartsOf(services, condition);
    expect(rows.map(({ title, patches }) => `${title} ${patches}`)).toEqual(
      Array(4).fill('measured, house.txt 216'),
    );
    const view = await readingView(services, taken[0].readingId);
    expect(view.finishedMs).not.toBeNull();
    // What was measured stands beside what was asked for, whatever order its pages would have had.
    for (const { device, lab } of view.patches) {
      const [r, g, b] = device;
      expect(lab[0]).toBeCloseTo(14 + (r + g + b) / 9.4, 1);
      expect(lab[1]).toBeCloseTo((r - g) / 6, 1);
    }
    expect((await rack(services)).slips).toEqual([]);
    const sources = async (): Promise<string[]> =>
      (await bodySources(services)).filter(({ group }) => group === 'Readings').map(({ key }) => key);
    // Each can be looked at as a body, the newest first; a withdrawn one is left out.
    expect((await sources()).slice(0, 4)).toEqual(
      taken
        .map(({ readingId }) => readingId)
        .sort((one, other) => other - one)
        .map((id) => `reading-${id}`),
    );
    await withdrawReading(services, taken[3].readingId, true);
    expect(await sources()).not.toContain(`reading-${taken[3].readingId}`);
    const { content } = await readingFile(services, taken[0].readingId);
    const body = unwrap(measuredBody(unwrap(readPatchSet(new TextDecoder().decode(content))), 'Dunlin'));
    expect(body).toMatchObject({ white: 'paper', patches: 216 });
    expect(body.body.lightest).toBeGreaterThan(94);
    expect(body.body.darkest).toBeLessThan(16);
    const choices = {
      readingId: taken[0].readingId,
      version: 2,
      tableSize: 'small',
      namePattern: '{device}',
    } as const;
    await unitOfWork(services, await buildProfile(services, { conditionId: condition, choices }, () => {}));
    expect((await storedHead(services, condition, PROFILE))?.summary.name).toBe('Dunlin');
  });

  it('becomes device, stock, condition, chart and reading at once, or nothing', async () => {
    const answers = { mode: 'M1' } as const;
    const count = async () => [
      (await libraryDevices(services)).length,
      (await libraryStocks(services)).length,
      (await floor(services)).counts.conditions,
    ];
    const before = await count();
    expect(await previewMeasuredElsewhere(services, text)).toMatchObject({
      process: 'RGB',
      modes: [{ patches: 216 }],
    });
    const device = { name: 'Sanderling', kind: 'rgb-driver', inkSet: 'dye' } as const;
    const stock = { name: 'Tern Lustre', finish: 'gloss', restMinutes: 20 } as const;
    const wanted = { device, stock, mode: 'best' };
    const other = { ...wanted, device: { ...device, kind: 'press' as const } };
    const words = await refusal(takeMeasuredHouse(services, other, 'x', text, answers));
    expect(words.title).toBe('The file gives RGB values, Sanderling takes CMYK.');
    expect((await refusal(takeMeasuredHouse(services, wanted, 'x', text))).field).toBe('mode');
    expect(await count()).toEqual(before);
    const { conditionId, readingId } = await takeMeasuredHouse(services, wanted, 'x', text, answers);
    expect(await count()).toEqual(before.map((value) => value + 1));
    expect(await conditionOf(services, conditionId)).toMatchObject({
      ...{ device: 'Sanderling', stock: 'Tern Lustre', mode: 'best', inkSet: 'dye', restMinutes: 20 },
    });
    expect((await readingView(services, readingId)).patches).toHaveLength(216);
    // The same condition is there already: it is told, and nothing is made.
    const { deviceId, stockId } = await conditionOf(services, conditionId);
    const again = { device: { id: deviceId }, stock: { id: stockId }, mode: 'best' };
    expect((await refusal(takeMeasuredHouse(services, again, 'x', text, answers))).title).toContain(
      'exists already',
    );
    // A calibration of the device that is due is none of a file that was printed before.
    const duty = { words: 'Calibrated', days: 1 };
    await changeDevice(services, deviceId, { name: 'Sanderling', note: '', modes: ['best', 'plain'], duty });
    const plain = { ...again, mode: 'plain' };
    await takeMeasuredHouse(services, plain, 'x', text, answers);
    expect((await libraryDevices(services)).find(({ id }) => id === deviceId)?.duty?.doneMs).toBeNull();
    await expect(
      previewMeasuredElsewhere(services, text.replaceAll('RGB_R RGB_G RGB_B', 'X1 X2 X3')),
    ).rejects.toThrow('no device values');
  });

  it('is refused without its settings, of another process, with few patches or without device values', async () => {
    const take = (own: string, ticks: readonly string[] = TICKS) =>
      refusal(takeMeasuredChart(services, condition, 'x', own, ticks, { mode: 'M1' }));
    expect((await take(text, [])).field).toBe('ticks');
    expect(
      (await take(file((line) => line.replaceAll('RGB_R RGB_G RGB_B', 'CMY_C CMY_M CMY_Y')))).title,
    ).toBe('The file gives CMY values, Dunlin takes RGB.');
    const first = (count: number): string =>
      file((line) => (Number(/^A(\d+) /.exec(line)?.[1] ?? 0) < count ? line : ''));
    expect((await take(first(11))).title).toContain('11 patches; a chart has 12 to 6000');
    expect((await previewMeasuredChart(services, condition, first(12))).modes[0]?.patches).toBe(12);
    expect((await take(file((line) => line.replaceAll('RGB_R RGB_G RGB_B', 'X1 X2 X3')))).title).toContain(
      'no device values',
    );
    expect((await take('nothing')).title).toContain('cannot be used');
  });
});
