import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { makeRgbChart } from '@melto/core/charts/rgbChart';
import { RGB } from '@melto/core/device/process';
import { simulateSheets } from '@melto/simulator/simulateSheets';
import { measuredBrighteners } from '../src/house/measuredBrightener.ts';
import { alikeStocks } from '../src/house/alikeStocks.ts';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import {
  archiveCondition,
  archivedConditions,
  fillPoint,
  renameCondition,
} from '../src/house/conditionRecord.ts';
import { changeDevice, changeStock, libraryDevices, libraryStocks, putAway } from '../src/house/library.ts';
import { conditionChoices, createCondition, DEFAULT_POINTS } from '../src/house/newCondition.ts';
import { changeHouse, ownHouse } from '../src/house/ownHouse.ts';
import { houseZone } from '../src/kernel/houseZone.ts';
import { createDevice, createStock } from '../src/house/ownDevices.ts';
import { conditionName, conditionOf, settingsRecord } from '../src/ledger/conditions.ts';
import { floor } from '../src/overview/floor.ts';
import { search } from '../src/overview/search.ts';
import { takeMeasuredChart } from '../src/reading/measuredChart.ts';
import { TICKS } from '../src/testing/heron.ts';
import { refusal } from '../src/testing/refusal.ts';
import { staleMarksAgree } from '../src/testing/staleMarksAgree.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';

let services: TestServices;
let device = 0;
let stock = 0;
beforeAll(async () => {
  services = await openTestServices('melto_library', { simulated: false });
  device = (
    await createDevice(services, {
      name: 'Avocet',
      kind: 'rgb-driver',
      inkSet: 'pigment',
      modes: ['fine', 'fast'],
    })
  ).id;
  stock = (await createStock(services, { name: 'Barn Owl Rag', finish: 'matt', restMinutes: 30 })).id;
});
afterAll(() => services.database.close());
afterEach(() => staleMarksAgree(services));

const [OFF, ...OTHERS] = DEFAULT_POINTS;
const make = (change: { label?: string; media?: string; mode?: string } = {}) =>
  createCondition(services, {
    ...{
      deviceId: device,
      stockId: stock,
      inkSet: 'pigment',
      mode: change.mode ?? 'fine',
      label: change.label,
    },
    points: [
      OFF,
      ...OTHERS.map((point) =>
        point.label === 'Media setting' ? { ...point, value: change.media ?? '' } : point,
      ),
    ],
  });
const names = async (): Promise<string[]> =>
  (await floor(services)).rows.map((row) => `${row.device} / ${row.stock} / ${row.mode}`);

describe('conditions of one device, stock and mode', () => {
  let plain = 0;
  let heavy = 0;

  it('are told apart by their settings and a name', async () => {
    plain = (await make()).id;
    // An empty point may be anything: it is no other setting.
    expect((await refusal(make({ media: 'rag, heavy' }))).field).toBe('stockId');
    await fillPoint(services, plain, 'Media setting', ' rag ');
    expect((await settingsRecord(services, plain)).map(({ value }) => value)).toContain('rag');
    expect((await refusal(make({ media: 'Rag' }))).field).toBe('stockId');
    expect((await refusal(make({ media: 'rag, heavy' }))).field).toBe('label');
    heavy = (await make({ media: 'rag, heavy', label: ' heavy ' })).id;
    expect(conditionName(await conditionOf(services, heavy))).toBe('Avocet / Barn Owl Rag / fine, heavy');
    expect((await refusal(make({ media: 'rag, light', label: 'Heavy' }))).field).toBe('label');
    expect((await names()).sort()).toEqual([
      'Avocet / Barn Owl Rag / fine',
      'Avocet / Barn Owl Rag / fine, heavy',
    ]);
    expect((await search(services, 'heavy')).map(({ detail }) => detail)).toEqual(['Avocet · fine, heavy']);
  });

  it('keep what is told of their settings', async () => {
    expect((await refusal(fillPoint(services, plain, 'Media setting', 'matt'))).type).toBe('conflict');
    expect((await refusal(fillPoint(services, plain, 'Media setting', ' '))).field).toBe('value');
    expect((await refusal(fillPoint(services, plain, 'Weather', 'fair'))).type).toBe('not-found');
    const { id } = await make({ mode: 'fast' });
    const crowd = await Promise.allSettled(
      ['a', 'b', 'c'].map((value) => fillPoint(services, id, 'Media setting', value)),
    );
    expect(crowd.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
  });

  it('get other names, but never one that another has', async () => {
    expect((await refusal(renameCondition(services, heavy, ''))).field).toBe('label');
    await renameCondition(services, plain, '  light   side ');
    expect((await conditionOf(services, plain)).label).toBe('light side');
    expect((await refusal(renameCondition(services, heavy, 'Light Side'))).field).toBe('label');
    const crowd = await Promise.allSettled(
      [plain, heavy, plain, heavy].map((id) => renameCondition(services, id, 'one name')),
    );
    expect(crowd.filter(({ status }) => status === 'fulfilled').length).toBeGreaterThan(0);
    const labels = await Promise.all(
      [plain, heavy].map(async (id) => (await conditionOf(services, id)).label),
    );
    expect(new Set(labels).size).toBe(2);
  });

  it('leave floor and search when they are archived, and come back as they were', async () => {
    const before = await names();
    await archiveCondition(services, heavy, true);
    expect(await names()).toHaveLength(before.length - 1);
    const found = await search(services, 'Barn Owl');
    expect(found.map(({ kind }) => kind)).toEqual(['condition', 'condition', 'stock']);
    expect((await archivedConditions(services)).map(({ id }) => id)).toEqual([heavy]);
    // What was archived is still the same condition.
    expect((await refusal(make({ media: 'rag, heavy', label: 'again' }))).field).toBe('stockId');
    await archiveCondition(services, heavy, false);
    expect(await names()).toEqual(before);
    expect(await archivedConditions(services)).toEqual([]);
    expect((await refusal(archiveCondition(services, 999, true))).type).toBe('not-found');
  });
});

describe('a house', () => {
  it('has a name, a person and a time zone of its own', async () => {
    const own = {
      ...{ name: ' Reed  Press ', timeZone: 'Europe/Amsterdam', person: 'Jo Sedge' },
      units: 'inches' as const,
      densityStatus: 'T' as const,
      shifts: '06:00, 18:00',
    };
    await changeHouse(services, own);
    expect(await ownHouse(services)).toEqual({ ...own, name: 'Reed Press' });
    for (const [change, field] of [
      [{ name: ' ' }, 'name'],
      [{ person: '' }, 'person'],
      [{ timeZone: 'Mars/Olympus' }, 'timeZone'],
      [{ timeZone: '+01:00' }, 'timeZone'],
      [{ shifts: '18:00, 06:00' }, 'shifts'],
    ] as const)
      expect((await refusal(changeHouse(services, { ...own, ...change }))).field).toBe(field);
    await changeHouse(services, { ...own, timeZone: 'UTC' });
    expect(await houseZone(services)).toBe('UTC');
    const crowd = ['a', 'b', 'c', 'd'].map((name) => changeHouse(services, { ...own, name, person: name }));
    await Promise.all(crowd);
    const { name, person } = await ownHouse(services);
    expect(person).toBe(name);
  });
});

describe('the library', () => {
  it('counts what uses a device or a stock, and names what is its own', async () => {
    expect(await libraryDevices(services)).toMatchObject([
      { name: 'Avocet', code: 'AVC', own: true, uses: 3, away: false, modes: ['fine', 'fast'] },
    ]);
    expect(await libraryStocks(services)).toMatchObject([{ name: 'Barn Owl Rag', uses: 3, away: false }]);
  });

  it('renames without touching what rests on it', async () => {
    const note = ' by the window ';
    await changeDevice(services, device, { name: ' Avocet  2 ', note, modes: ['fine', 'fast', 'draft'] });
    expect(await libraryDevices(services)).toMatchObject([
      { name: 'Avocet 2', code: 'AVC', note: 'by the window', modes: ['fine', 'fast', 'draft'] },
    ]);
    // As it is already: no other has its name.
    await changeDevice(services, device, { name: 'Avocet 2', note: 'by the window' });
    const lost = changeDevice(services, device, { name: 'Avocet 2', note: '', modes: ['fine'] });
    expect((await refusal(lost)).field).toBe('modes');
    expect((await refusal(changeDevice(services, device, { name: ' ', note: '' }))).field).toBe('name');
    expect((await refusal(changeDevice(services, 999, { name: 'x', note: '' }))).type).toBe('not-found');
    await changeStock(services, stock, { name: 'Owl Rag', boxLabel: 'Rag 310 B', note: '', restMinutes: 45 });
    expect(await libraryStocks(services)).toMatchObject([
      { name: 'Owl Rag', boxLabel: 'Rag 310 B', restMinutes: 45 },
    ]);
    const long = { name: 'Owl Rag', boxLabel: '', note: '', restMinutes: 20_161 };
    expect((await refusal(changeStock(services, stock, long))).field).toBe('restMinutes');
  });

  it('keeps names apart, also of many at once', async () => {
    const stocks = await Promise.all(
      [1, 2, 3, 4].map((i) => createStock(services, { name: `Owl ${i}`, finish: 'gloss', restMinutes: 0 })),
    );
    const crowd = await Promise.allSettled(
      stocks.map(({ id }) =>
        changeStock(services, id, { name: 'Owl', boxLabel: '', note: '', restMinutes: 0 }),
      ),
    );
    expect(crowd.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    const taken = changeStock(services, stocks[0].id, {
      name: 'Owl Rag',
      boxLabel: '',
      note: '',
      restMinutes: 0,
    });
    expect((await refusal(taken)).field).toBe('name');
  });

  it('puts away what no new condition is to be made of, and takes it out', async () => {
    await putAway(services, 'stock', stock, true);
    const choices = await conditionChoices(services);
    expect(choices.devices[0].stocks.some(({ id }) => id === stock)).toBe(false);
    expect((await refusal(make({ media: 'new', label: 'new' }))).field).toBe('stockId');
    await putAway(services, 'stock', stock, false);
    await putAway(services, 'device', device, true);
    expect((await conditionChoices(services)).devices).toEqual([]);
    // Its conditions stay.
    expect(await names()).toHaveLength(3);
    await putAway(services, 'device', device, false);
    expect((await conditionChoices(services)).devices).toHaveLength(1);
    expect((await refusal(putAway(services, 'device', 999, true))).type).toBe('not-found');
  });
});

describe('papers that behave alike', () => {
  const measured = (stockId: string, seed: number, mode: 'M1' | 'M2' = 'M1'): string => {
    const chart = makeRgbChart(200, seed);
    const layout = layoutChart(RGB, chart.device, 'a4', seed);
    const { grid, spectra } = simulateSheets({
      ...{ device: 'wren', stock: stockId, printMode: 'fine', side: 'printing', seed, mode },
      ...{ noise: 'instrument', values: chart.device, layout },
    });
    const count = chart.device.length / 3;
    return writeCgats(
      patchSetToCgats({
        ids: Array.from({ length: count }, (_, i) => String(i)),
        ...{ process: RGB, device: chart.device, spectra: { grid, values: spectra } },
        ...{ conditions: { mode, backing: 'white' }, notes: [] },
      }),
    );
  };

  it('are found by what was measured of them, and no others', async () => {
    const own = await createDevice(services, {
      ...{ name: 'Dunlin', kind: 'rgb-driver', inkSet: 'dye', modes: ['fine'] },
    });
    const names = ['Quay', 'Quay, new box', 'Chalk'];
    for (const [i, paper] of ['quay-proof-200', 'quay-proof-200', 'chalk-rag-310'].entries()) {
      const { id } = await createStock(services, { name: names[i], finish: 'matt', restMinutes: 0 });
      const condition = await createCondition(services, {
        ...{ deviceId: own.id, stockId: id, inkSet: 'dye', mode: 'fine', points: DEFAULT_POINTS },
      });
      await takeMeasuredChart(services, condition.id, `${names[i]}.txt`, measured(paper, 5 + i), TICKS);
    }
    expect(await alikeStocks(services)).toMatchObject([
      { device: 'Dunlin', mode: 'fine', stocks: [{ name: 'Quay' }, { name: 'Quay, new box' }] },
    ]);
  });

  it('tell of brightener where they were read with and without ultraviolet light', async () => {
    const own = await createDevice(services, {
      ...{ name: 'Sanderling', kind: 'rgb-driver', inkSet: 'dye', modes: ['fine'] },
    });
    const made: number[] = [];
    for (const [i, paper] of ['lantern-gloss-150', 'chalk-rag-310', 'quay-proof-200'].entries()) {
      const { id } = await createStock(services, { name: `Measured ${i}`, finish: 'matt', restMinutes: 0 });
      made.push(id);
      const condition = await createCondition(services, {
        ...{ deviceId: own.id, stockId: id, inkSet: 'dye', mode: 'fine', points: DEFAULT_POINTS },
      });
      // The last one is read in one mode only.
      for (const mode of i === 2 ? (['M1'] as const) : (['M1', 'M2'] as const)) {
        const file = measured(paper, 11 + i, mode);
        await takeMeasuredChart(services, condition.id, `${i}${mode}.txt`, file, TICKS);
      }
    }
    const found = (await measuredBrighteners(services)).filter(({ stockId }) => made.includes(stockId));
    expect(found.map(({ stockId, modes }) => [stockId, modes])).toEqual(
      expect.arrayContaining([
        [made[0], 'M1, M2'],
        [made[1], 'M1, M2'],
      ]),
    );
    expect(found).toHaveLength(2);
    const by = (stockId: number): number => found.find((each) => each.stockId === stockId)?.by ?? NaN;
    // Much of it is bluer by several b*; cotton without any stays within what the instrument scatters.
    expect(by(made[0])).toBeLessThan(-2);
    expect(Math.abs(by(made[1]))).toBeLessThan(0.3);
  });
});
