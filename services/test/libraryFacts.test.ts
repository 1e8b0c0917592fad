import type { DeviceFacts } from '@melto/core/device/deviceFacts';
import { needsOf } from '@melto/core/charts/chartForm';
import { pageCapacity } from '@melto/core/charts/pageGeometry';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { loadChart } from '../src/charts/chart.ts';
import { pagesOf } from '../src/charts/devicePages.ts';
import { printChart } from '../src/charts/printChart.ts';
import { changeInkSet, createInkSet, libraryInkSets } from '../src/house/inkSets.ts';
import { changeDevice, changeStock, libraryDevices, libraryStocks, putAway } from '../src/house/library.ts';
import { conditionChoices, createCondition, DEFAULT_POINTS } from '../src/house/newCondition.ts';
import { createDevice, createStock } from '../src/house/ownDevices.ts';
import { createPressChart } from '../src/calibration/pressCharts.ts';
import { conditionOf } from '../src/ledger/conditions.ts';
import { printPoints } from '../src/ledger/deviceDuty.ts';
import { createChart } from '../src/profile/profilingChart.ts';
import { TICKS } from '../src/testing/heron.ts';
import { refusal } from '../src/testing/refusal.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';

let services: TestServices;
let device = 0;
let stock = 0;
let condition = 0;
beforeAll(async () => {
  services = await openTestServices('melto_library_facts', { simulated: false });
  device = (
    await createDevice(services, { name: 'Avocet', kind: 'press', inkSet: 'Process four', modes: ['plates'] })
  ).id;
  stock = (await createStock(services, { name: 'Barn Owl Rag', finish: 'matt', restMinutes: 30 })).id;
  condition = (
    await createCondition(services, {
      ...{ deviceId: device, stockId: stock, inkSet: 'Process four', mode: 'plates', points: DEFAULT_POINTS },
    })
  ).id;
});
afterAll(() => services.database.close());

const inkSet = async (name: string) => (await libraryInkSets(services)).find((row) => row.name === name);

describe('what is known of a device', () => {
  it('is kept, stays where it is not told again, and gives its conditions their pages', async () => {
    const facts = { pages: ['520x740'], printedWidthMm: 530, zones: 16, screenPerCm: 20 } as const;
    await changeDevice(services, device, { name: 'Avocet', note: '', facts });
    await changeDevice(services, device, { name: 'Avocet', note: 'by the window' });
    expect((await libraryDevices(services))[0]).toMatchObject({ facts, note: 'by the window' });
    expect(await pagesOf(services, condition)).toEqual({ pages: ['520x740'], screenPerCm: 20 });
    await changeDevice(services, device, { name: 'Avocet', note: '', facts: {} });
    expect(await pagesOf(services, condition)).toEqual({ pages: [], screenPerCm: null });
  });
});

describe('a page of a device', () => {
  it('is one that charts fit on, where it is made and where it is changed', async () => {
    const said = async (page: string) => {
      const facts = { pages: [page] } as unknown as DeviceFacts;
      const made = { name: 'Snipe', kind: 'press', inkSet: 'Process four', modes: ['plates'] } as const;
      const changed = await refusal(changeDevice(services, device, { name: 'Avocet', note: '', facts }));
      const created = await refusal(createDevice(services, { ...made, facts }));
      expect([changed.field, created.field]).toEqual(['pages', 'pages']);
      return changed.title;
    };
    for (const page of ['89x600', '600x1621', 'a9', '600x'])
      expect(await said(page)).toBe(`${page} is no page.`);
    const facts = { pages: ['90x1620', 'a3'] } as unknown as DeviceFacts;
    await changeDevice(services, device, { name: 'Avocet', note: '', facts });
    expect((await pagesOf(services, condition)).pages).toEqual(['90x1620', 'a3']);
    await changeDevice(services, device, { name: 'Avocet', note: '', facts: {} });
  });
});

describe('a copy', () => {
  it('of a device and of a stock has what is known of them', async () => {
    const facts = { pages: ['700x1000'], zones: 20 } as const;
    const { id } = await createDevice(services, {
      ...{ name: 'Plover', kind: 'press', inkSet: 'Process four', modes: ['plates'], facts },
    });
    expect((await libraryDevices(services)).find((row) => row.id === id)).toMatchObject({
      ...{ facts, ownKind: 'press', inks: true },
    });
    const rag = await createStock(services, {
      ...{ name: 'Rag two', finish: 'matt', restMinutes: 9, facts: { weightGsm: 190 } },
    });
    expect((await libraryStocks(services)).find((row) => row.id === rag.id)?.facts).toEqual({
      weightGsm: 190,
    });
  });
});

describe('what is known of a stock', () => {
  it('is kept; its side is shown at each print', async () => {
    const change = { name: 'Barn Owl Rag', boxLabel: '', note: '', restMinutes: 30 };
    const shown = async () =>
      (await printPoints(services, await conditionOf(services, condition))).map(({ label }) => label);
    await changeStock(services, stock, { ...change, facts: { weightGsm: 310, brightener: 'free' } });
    expect((await libraryStocks(services))[0].facts).toEqual({ weightGsm: 310, brightener: 'free' });
    expect(await shown()).not.toContain('Barn Owl Rag');
    await changeStock(services, stock, { ...change, facts: { weightGsm: 310, side: 'smooth side' } });
    await changeStock(services, stock, change);
    const points = await printPoints(services, await conditionOf(services, condition));
    expect(points.at(-1)).toEqual({
      ...{ label: 'Barn Owl Rag', value: '310 g/m², smooth side', tickAtPrint: false },
    });
  });
});

describe('an ink set', () => {
  it('is there once a device or a condition names it, whatever its letters', async () => {
    await createDevice(services, {
      ...{ name: 'Dunlin', kind: 'cmyk-front-end', inkSet: 'PROCESS four', modes: ['fine'] },
    });
    expect((await libraryInkSets(services)).map(({ name, uses }) => [name, uses])).toEqual([
      ['Process four', 1],
    ]);
    expect((await conditionChoices(services)).inkSets).toEqual(['Process four']);
  });

  it('dries as long as it says or as its stock says, whichever is longer', async () => {
    const { id } = (await inkSet('Process four')) ?? { id: 0 };
    const change = { name: 'Process four', kind: 'offset', costs: [], note: '' } as const;
    const rest = async () => (await conditionOf(services, condition)).restMinutes;
    expect(await rest()).toBe(30);
    await changeInkSet(services, id, { ...change, restMinutes: 29 });
    expect(await rest()).toBe(30);
    await changeInkSet(services, id, { ...change, restMinutes: 31 });
    expect(await rest()).toBe(31);
    expect((await refusal(changeInkSet(services, id, { ...change, restMinutes: 20_161 }))).field).toBe(
      'restMinutes',
    );
    await changeInkSet(services, id, { ...change, restMinutes: null });
    expect(await rest()).toBe(30);
    const costs = [0, 1, 2, 3].map((i) => ({ pricePerLitre: 40 + i, millilitresPerM2: 1.5 }));
    await changeInkSet(services, id, { ...change, restMinutes: null, costs });
    expect((await inkSet('Process four'))?.costs).toEqual(costs);
  });

  it('is renamed wherever it is used, and takes no other’s name', async () => {
    const other = await createInkSet(services, {
      name: 'Spot one',
      kind: '',
      restMinutes: null,
      costs: [],
      note: '',
    });
    const { id } = (await inkSet('Process four')) ?? { id: 0 };
    const change = { kind: 'offset', restMinutes: null, costs: [], note: '' } as const;
    expect((await refusal(changeInkSet(services, id, { ...change, name: ' spot  ONE ' }))).title).toContain(
      'already',
    );
    expect((await conditionOf(services, condition)).inkSet).toBe('Process four');
    await changeInkSet(services, id, { ...change, name: 'Process four, new tins' });
    expect((await conditionOf(services, condition)).inkSet).toBe('Process four, new tins');
    expect(new Set((await libraryDevices(services)).map((row) => row.inkSet))).toEqual(
      new Set(['Process four, new tins']),
    );
    expect(await inkSet('Process four, new tins')).toMatchObject({ uses: 1, kind: 'offset' });
    await putAway(services, 'ink set', other.id, true);
    expect((await conditionChoices(services)).inkSets).toEqual(['Process four, new tins']);
    expect((await refusal(putAway(services, 'ink set', 99, true))).title).toContain('ink set 99');
    expect((await refusal(changeInkSet(services, 99, { ...change, name: 'x' }))).title).toContain('99');
  });

  it('is made once of sixteen that make it at once; of renames at once each leaves one name', async () => {
    const row = { name: 'Six new', kind: '', restMinutes: null, costs: [], note: '' } as const;
    const made = await Promise.allSettled(Array.from({ length: 16 }, () => createInkSet(services, row)));
    expect(made.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    const { id } = (await inkSet('Six new')) ?? { id: 0 };
    await createCondition(services, {
      ...{ deviceId: device, stockId: stock, inkSet: 'Six new', mode: 'plates', points: DEFAULT_POINTS },
    });
    await Promise.all(
      Array.from({ length: 8 }, (_, i) => changeInkSet(services, id, { ...row, name: `Six ${i}` })),
    );
    const [left] = (await libraryInkSets(services)).filter(({ name }) => name.startsWith('Six'));
    expect(left.uses).toBe(1);
  });
});

describe('a chart', () => {
  it('stands on patches of the size that was asked for, for the reader that was asked for', async () => {
    const form = { paper: 'a4', reader: 'spot', patchSize: 'large' } as const;
    const { id } = await createPressChart(services, condition, {
      ...{ ...form, kind: 'ramps', steps: 11, copies: 1, order: 'in order' },
    });
    const chart = await loadChart(services, id);
    expect(chart.needs).toEqual(needsOf(form));
    const { patchesPerStrip } = pageCapacity('a4', needsOf(form));
    expect(chart.layout.pages[0][0]).toHaveLength(patchesPerStrip);
    const { sheets } = await printChart(services, id, { ticks: TICKS });
    expect(sheets).toHaveLength(chart.layout.pages.length);
    const usual = await createChart(services, condition, { paper: 'a4', patches: 300 });
    expect(await loadChart(services, usual.id)).toMatchObject({ reader: 'strip', patchSize: 'usual' });
  });
});
