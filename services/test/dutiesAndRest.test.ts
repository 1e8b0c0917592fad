import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { chartsOf } from '../src/charts/chart.ts';
import { printChart } from '../src/charts/printChart.ts';
import { PDFDocument } from 'pdf-lib';
import { chartFile, printFile } from '../src/charts/chartPages.ts';
import sharp from 'sharp';
import { conditionRecord, deleteCondition, keepTemplate, setRest } from '../src/house/conditionRecord.ts';
import {
  addPicture,
  logoOf,
  pictureFile,
  picturesOf,
  removePicture,
  setLogo,
} from '../src/house/pictures.ts';
import { changeDevice, dutyDone, libraryDevices } from '../src/house/library.ts';
import { conditionChoices, createCondition, DEFAULT_POINTS } from '../src/house/newCondition.ts';
import { createDevice, createStock } from '../src/house/ownDevices.ts';
import { conditionOf } from '../src/ledger/conditions.ts';
import { printPoints } from '../src/ledger/deviceDuty.ts';
import { floor } from '../src/overview/floor.ts';
import { createChart } from '../src/profile/profilingChart.ts';
import { advanceClock } from '../src/simulated/advanceClock.ts';
import { domainNow } from '../src/kernel/clock.ts';
import { DAY, TICKS } from '../src/testing/heron.ts';
import { refusal } from '../src/testing/refusal.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';

let services: TestServices;
let device = 0;
let stock = 0;
const LABEL = 'Done today: Front end calibrated';
const make = async (mode: string): Promise<number> =>
  (
    await createCondition(services, {
      ...{ deviceId: device, stockId: stock, inkSet: 'pigment', mode, points: DEFAULT_POINTS },
    })
  ).id;
const chartOf = async (condition: number): Promise<number> =>
  (await createChart(services, condition, { patches: 100, paper: 'a4' })).id;

beforeAll(async () => {
  services = await openTestServices('melto_duties');
  const modes = ['fine', 'fast', 'draft'];
  device = (await createDevice(services, { name: 'Avocet', kind: 'rgb-driver', inkSet: 'pigment', modes }))
    .id;
  stock = (await createStock(services, { name: 'Barn Owl Rag', finish: 'matt', restMinutes: 30 })).id;
});
afterAll(() => services.database.close());

describe('a device that is calibrated by itself', () => {
  it('asks for it before anything prints, keeps that it was done, and asks again when it is due', async () => {
    const condition = await make('fine');
    const chart = await chartOf(condition);
    const labels = async (): Promise<string[]> =>
      (await printPoints(services, await conditionOf(services, condition))).map(({ label }) => label);
    expect(await labels()).not.toContain(LABEL);
    const duty = { words: ' Front end calibrated ', days: 7 };
    await changeDevice(services, device, { name: 'Avocet', note: '', duty });
    expect((await floor(services)).rows[0].duty).toBe('Front end calibrated');
    expect((await libraryDevices(services)).find(({ id }) => id === device)?.duty).toEqual({
      ...{ words: 'Front end calibrated', days: 7, doneMs: null, due: true },
    });
    expect((await labels())[0]).toBe(LABEL);
    const refused = await refusal(printChart(services, chart, { ticks: TICKS }));
    expect([refused.field, refused.title]).toEqual(['ticks', `Not ticked: ${LABEL}.`]);
    // Two prints at once: both say that it was done.
    await Promise.all([1, 2].map(() => printChart(services, chart, { ticks: [LABEL, ...TICKS] })));
    expect(await labels()).not.toContain(LABEL);
    await printChart(services, chart, { ticks: TICKS });
    await advanceClock(services, 7 * DAY - 60_000);
    expect(await labels()).not.toContain(LABEL);
    await advanceClock(services, 61_000);
    expect((await labels())[0]).toBe(LABEL);
    const { doneMs } = await dutyDone(services, device);
    expect(Math.abs(doneMs - (await domainNow(services)))).toBeLessThan(60_000);
    expect(await labels()).not.toContain(LABEL);
    // A change that says nothing of it leaves it; null takes it away.
    await changeDevice(services, device, { name: 'Avocet', note: 'by the door' });
    expect((await libraryDevices(services)).find(({ id }) => id === device)?.duty?.days).toBe(7);
    await changeDevice(services, device, { name: 'Avocet', note: '', duty: null });
    expect((await libraryDevices(services)).find(({ id }) => id === device)?.duty).toBeNull();
    expect((await refusal(dutyDone(services, device))).title).toContain('no calibration of its own');
  });

  it.each([
    ['', 7, 'words'],
    ['x', 0, 'days'],
    ['x', 401, 'days'],
    ['x', 1.5, 'days'],
  ])('refuses “%s” every %d days', async (words, days, field) => {
    const change = { name: 'Avocet', note: '', duty: { words, days } };
    expect((await refusal(changeDevice(services, device, change))).field).toBe(field);
  });
});

describe('the rest of a condition', () => {
  it('is that of its stock until the house has found another', async () => {
    const condition = await make('fast');
    const chart = await chartOf(condition);
    const rests = async (): Promise<number> => {
      const before = await domainNow(services);
      const { restUntilMs } = await printChart(services, chart, { ticks: TICKS });
      return Math.round((restUntilMs - before) / 60_000);
    };
    expect(await rests()).toBe(30);
    await setRest(services, condition, 5);
    expect(await rests()).toBe(5);
    expect((await conditionRecord(services, condition)).condition).toMatchObject({
      ...{ restMinutes: 5, usualRestMinutes: 30 },
    });
    await setRest(services, condition, 0);
    expect(await rests()).toBe(0);
    await setRest(services, condition, null);
    expect(await rests()).toBe(30);
    expect((await refusal(setRest(services, condition, -1))).field).toBe('restMinutes');
    expect((await refusal(setRest(services, condition, 14 * 24 * 60 + 1))).field).toBe('restMinutes');
    await setRest(services, condition, 14 * 24 * 60);
  });
});

describe('a condition that is deleted', () => {
  it('is nowhere, can be made anew, and comes back where that was not done', async () => {
    const first = await make('draft');
    expect((await conditionRecord(services, first)).deletable).toBe(true);
    const chart = await chartOf(first);
    await deleteCondition(services, first, true);
    expect((await floor(services)).rows.map(({ id }) => id)).not.toContain(first);
    expect((await refusal(conditionOf(services, first))).type).toBe('not-found');
    expect((await refusal(printChart(services, chart, { ticks: TICKS }))).type).toBe('not-found');
    await deleteCondition(services, first, false);
    expect((await floor(services)).rows.map(({ id }) => id)).toContain(first);
    await deleteCondition(services, first, true);
    const second = await make('draft');
    expect((await refusal(deleteCondition(services, first, false))).title).toContain('made anew');
    expect(await conditionOf(services, second)).toMatchObject({ mode: 'draft' });
    expect((await refusal(deleteCondition(services, 999_999, false))).type).toBe('not-found');
  });

  it('is none that something was printed for', async () => {
    const { rows } = await floor(services);
    const draft = rows.find(({ mode }) => mode.includes('draft'))?.id ?? 0;
    const chart = await chartOf(draft);
    // A print and the deletion at once: one of both is refused, and no sheet belongs to a condition that is gone.
    const [printed, gone] = await Promise.allSettled([
      printChart(services, chart, { ticks: TICKS }),
      deleteCondition(services, draft, true),
    ]);
    expect([printed.status, gone.status].sort()).toEqual(['fulfilled', 'rejected']);
    if (printed.status === 'fulfilled') {
      expect((await printFile(services, printed.value.sheets[0], 'pdf')).content.length).toBeGreaterThan(0);
      expect((await refusal(deleteCondition(services, draft, true))).title).toContain('which are kept');
      expect((await chartsOf(services, draft)).rows).toHaveLength(1);
    }
    expect((await conditionChoices(services)).devices.some(({ id }) => id === device)).toBe(true);
  });
});

describe('pictures', () => {
  const png = (side: number): Promise<Uint8Array> =>
    sharp({ create: { width: side, height: side, channels: 3, background: '#123456' } })
      .png()
      .toBuffer();

  it('stay with the settings record that they show, twelve at most, also of many at once', async () => {
    const [{ id }] = (await floor(services)).rows;
    const file = await png(20);
    const added = await Promise.allSettled(
      Array.from({ length: 14 }, (_, i) => addPicture(services, id, `dialog ${i}.png`, file)),
    );
    expect(added.filter(({ status }) => status === 'fulfilled')).toHaveLength(12);
    const { pictures } = await conditionRecord(services, id);
    expect(pictures).toHaveLength(12);
    expect(pictures[0]).toMatchObject({ width: 20, height: 20 });
    expect(pictures[0]?.name).toMatch(/^dialog \d+$/);
    const { content, mediaType } = await pictureFile(services, pictures[0]?.id ?? 0);
    expect([mediaType, (await sharp(content).metadata()).width]).toEqual(['image/png', 20]);
    await removePicture(services, pictures[0]?.id ?? 0, true);
    expect(await picturesOf(services, id)).toHaveLength(11);
    await removePicture(services, pictures[0]?.id ?? 0, false);
    expect(await picturesOf(services, id)).toHaveLength(12);
    const words = await refusal(addPicture(services, id, 'x', Buffer.from('no picture')));
    expect([words.field, words.title]).toEqual(['file', expect.stringContaining('cannot be used') as string]);
    expect((await refusal(pictureFile(services, 999_999))).type).toBe('not-found');
  });

  it('of the house are one logo, the newest', async () => {
    expect(await logoOf(services)).toBeUndefined();
    await setLogo(services, 'first.png', await png(10));
    const { id } = await setLogo(services, 'second.png', await png(700));
    expect(await logoOf(services)).toMatchObject({ id, name: 'second', width: 600, height: 600 });
    await removePicture(services, id, true);
    expect(await logoOf(services)).toBeUndefined();
  });
});

describe('the template of a device', () => {
  it('is what the settings record of its new conditions begins with, until it is taken back', async () => {
    const pointsOf = async () =>
      (await conditionChoices(services)).devices.find(({ id }) => id === device)?.points;
    expect(await pointsOf()).toEqual(DEFAULT_POINTS);
    const own = [...DEFAULT_POINTS, { label: 'Head height', value: 'high', tickAtPrint: true }];
    const { id } = await createCondition(services, {
      ...{ deviceId: device, stockId: stock, inkSet: 'pigment', mode: 'fine', points: own, label: 'high' },
    });
    expect(await keepTemplate(services, id, true)).toEqual({ before: null });
    expect(await pointsOf()).toEqual(own);
    expect(await keepTemplate(services, id, true, DEFAULT_POINTS)).toEqual({ before: own });
    expect(await pointsOf()).toEqual(DEFAULT_POINTS);
    await keepTemplate(services, id, false);
    expect(await pointsOf()).toEqual(DEFAULT_POINTS);
  });
});

describe('pages of one’s own', () => {
  it('carry charts as PDF, and as pixels where they are no larger than can be drawn at once', async () => {
    const [{ id }] = (await floor(services)).rows;
    const chart = await createChart(services, id, { patches: 300, paper: '610x914' });
    const pdf = await chartFile(services, chart.id, 'pdf', 1);
    const page = (await PDFDocument.load(pdf.content)).getPage(0).getSize();
    expect([page.width, page.height].map((points) => Math.round((points * 25.4) / 72))).toEqual([610, 914]);
    const wide = await createChart(services, id, { patches: 300, paper: '1000x1200' });
    expect((await refusal(chartFile(services, wide.id, 'tiff', 1))).title).toContain('too large for pixels');
    expect((await chartsOf(services, id)).rows[0]).toMatchObject({ paper: '1000x1200', patches: 300 });
  });
});
