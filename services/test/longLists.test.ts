import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { editLimits, proposeLimits } from '../src/calibration/limits.ts';
import { listSameConditions } from '@melto/store/conditions';
import { createPressChart } from '../src/calibration/pressCharts.ts';
import { pressView } from '../src/calibration/pressView.ts';
import { printChart } from '../src/charts/printChart.ts';
import { rack, sheetsOf } from '../src/charts/rack.ts';
import { conditionChoices, createCondition, DEFAULT_POINTS } from '../src/house/newCondition.ts';
import type { Page } from '../src/kernel/page.ts';
import { putInForce, versionsOf } from '../src/ledger/versions.ts';
import { floor } from '../src/overview/floor.ts';
import { search } from '../src/overview/search.ts';
import { readingsOf } from '../src/reading/readingView.ts';
import { advanceClock } from '../src/simulated/advanceClock.ts';
import { heronOn, HOUR, TICKS } from '../src/testing/heron.ts';
import { named } from '../src/testing/named.ts';
import { readSheets } from '../src/testing/readSheets.ts';
import { refusal } from '../src/testing/refusal.ts';
import { RAMPS_CHART } from '../src/testing/rampsChart.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';

// Lists longer than what is shown of them at once: nothing is out of reach, and one wanted thing is always found.
const CONDITIONS = 521;
const COPIES = 230;

let services: TestServices;
let gloss = 0;
let limits = 0;

beforeAll(async () => {
  services = await openTestServices('melto_long');
  gloss = await heronOn(services, 'Lantern Gloss 150');
  const { id } = await createPressChart(services, gloss, RAMPS_CHART);
  const { sheets } = await printChart(services, id, { ticks: TICKS });
  await advanceClock(services, 3 * HOUR);
  limits = (await proposeLimits(services, gloss, (await readSheets(services, sheets)).readingId)).id;
});
afterAll(() => services.database.close());

/** All rows of a list, page by page. */
async function all<T>(ask: (after?: number) => Promise<Page<T>>): Promise<readonly T[][]> {
  const pages: T[][] = [];
  for (let after: number | undefined; ;) {
    const { rows, next } = await ask(after);
    pages.push([...rows]);
    if (next === null) return pages;
    after = next;
  }
}

describe('a house of many conditions', () => {
  beforeAll(async () => {
    await services.database.change(
      `INSERT INTO printing_condition (house_id, device_id, stock_id, ink_set, mode, author_id, made_ms)
       SELECT c.house_id, c.device_id, c.stock_id, c.ink_set, CONCAT('mode ', n.seq), c.author_id, c.made_ms
       FROM seq_1_to_${String(CONDITIONS - 1)} n JOIN printing_condition c ON c.id = ?`,
      [gloss],
    );
  });

  it('shows each of them once on the pages of the floor', async () => {
    const pages = await all((after) => floor(services, { after }));
    expect(pages.map((rows) => rows.length)).toEqual([100, 100, 100, 100, 100, 21]);
    expect(new Set(pages.flat().map(({ id }) => id)).size).toBe(CONDITIONS);
    expect((await floor(services)).counts.conditions).toBe(CONDITIONS);
    // Where nothing presses more, by device, then stock.
    const other = await createCondition(services, {
      ...{ deviceId: named((await conditionChoices(services)).devices, 'Heron').id, inkSet: 'Toner four' },
      ...{
        stockId: named(
          named((await conditionChoices(services)).devices, 'Heron').stocks,
          'Fenland Smooth 120',
        ).id,
      },
      ...{ mode: 'standard', points: DEFAULT_POINTS },
    });
    const grouped = (await all((after) => floor(services, { after, order: 'device' }))).flat();
    const plain = grouped.filter(({ whatNow }) => whatNow?.words === 'Print the ramps');
    expect(plain[0]?.id).toBe(other.id);
    // By stock, and those alone whose names hold all the words.
    const stocks = (await all((after) => floor(services, { after, order: 'stock' }))).flat();
    expect(stocks[0].stock).toBe('Fenland Smooth 120');
    const { rows } = await floor(services, { find: ' FENLAND  heron' });
    expect(rows.map(({ id }) => id)).toEqual([other.id]);
    expect((await floor(services, { find: 'fenland wren' })).rows).toEqual([]);
  });

  it('refuses the same condition again, whichever it is, and finds it', async () => {
    const device = named((await conditionChoices(services)).devices, 'Heron');
    const stockId = named(device.stocks, 'Lantern Gloss 150').id;
    const key = { deviceId: device.id, stockId, inkSet: device.inkSet };
    for (const mode of ['mode 1', `mode ${String(CONDITIONS - 1)}`])
      expect((await listSameConditions(services.database, { ...key, mode }))[0].id).toBeGreaterThan(gloss);
    const again = createCondition(services, { ...key, mode: 'standard', points: DEFAULT_POINTS });
    expect((await refusal(again)).title).toBe('This condition exists already.');
    expect((await search(services, 'mode 520')).map(({ detail }) => detail).join()).toContain('mode 520');
  });
});

describe('a condition with a long past', () => {
  it('shows its limits after two hundred checks', async () => {
    await services.database.change(
      `INSERT INTO result (house_id, condition_id, link, shape, shape_version, version, verdict, summary, detail, author_id, made_ms)
       SELECT r.house_id, r.condition_id, 'conformity', 'aim-check', 1, n.seq, 'conforms', '{}', '{}', r.author_id, r.made_ms + n.seq
       FROM seq_1_to_${String(COPIES)} n JOIN result r ON r.id = ?`,
      [limits],
    );
    const view = await pressView(services, gloss, 'limits');
    expect(view.versions.map(({ id }) => id)).toEqual([limits]);
    expect(view.result?.row.id).toBe(limits);
  });

  it('keeps the version in force among those that are shown, however old', async () => {
    await services.database.change(
      `INSERT INTO result (house_id, condition_id, link, shape, shape_version, version, verdict, summary, detail, author_id, made_ms)
       SELECT r.house_id, r.condition_id, r.link, r.shape, r.shape_version, 1 + n.seq, NULL, r.summary, r.detail, r.author_id, r.made_ms + n.seq
       FROM seq_1_to_${String(COPIES)} n JOIN result r ON r.id = ?`,
      [limits],
    );
    await putInForce(services, limits);
    const shown = await versionsOf(services, gloss, 'limits');
    expect(shown).toHaveLength(61);
    expect(shown[0]).toMatchObject({ id: limits, version: 1, inForce: true });
    expect(shown.at(-1)?.version).toBe(COPIES + 1);
    const { id } = await editLimits(services, gloss, { limits: [1, 1, 1, 0.95], total: 3 });
    const after = await versionsOf(services, gloss, 'limits');
    expect(after).toHaveLength(60);
    expect(after.at(-1)).toMatchObject({ id, version: COPIES + 2, inForce: true });
  });

  it('has all its sheets and readings on pages, the latest first, and counts what waits', async () => {
    const { database } = services;
    await database.change(
      `INSERT INTO print (house_id, condition_id, chart_id, code, device_values, ticks, printed_ms, rest_until_ms, author_id)
       SELECT p.house_id, p.condition_id, p.chart_id, CONCAT('LONG-', n.seq), p.device_values, p.ticks, p.printed_ms, p.rest_until_ms, p.author_id
       FROM seq_1_to_${String(COPIES)} n JOIN print p ON p.condition_id = ?`,
      [gloss],
    );
    await database.change(
      `INSERT INTO sheet (house_id, print_id, page, code, strips, marked, thumbnail, print_state)
       SELECT p.house_id, p.id, 1, CONCAT(p.code, '/1'), 3, '[]', '[]', '{}' FROM print p WHERE p.code LIKE 'LONG-%'`,
      [],
    );
    await database.change(
      `INSERT INTO reading (house_id, print_id, source, mode, started_ms, finished_ms, author_id)
       SELECT p.house_id, p.id, 'file', 'M1', 1, 2, p.author_id FROM print p WHERE p.code LIKE 'LONG-%'`,
      [],
    );
    const sheets = await all((after) => sheetsOf(services, gloss, { after }));
    const readings = await all((after) => readingsOf(services, gloss, { after }));
    for (const pages of [sheets, readings]) {
      const ids = pages.flat().map(({ id }) => id);
      expect(pages.map((rows) => rows.length)).toEqual([100, 100, COPIES - 199]);
      expect(ids).toEqual([...ids].sort((a, b) => b - a));
      expect(new Set(ids).size).toBe(COPIES + 1);
    }
    // Found by any part of a code, chart or mode, beyond the first page too; signs of patterns are taken as they are.
    const [{ code }] = sheets[2];
    expect((await sheetsOf(services, gloss, { find: code.slice(2) })).rows.map((row) => row.code)).toContain(
      code,
    );
    expect(
      (await readingsOf(services, gloss, { find: 'long-7' })).rows.every((row) =>
        row.code.includes('LONG-7'),
      ),
    ).toBe(true);
    const narrowed = await all((after) => sheetsOf(services, gloss, { after, find: 'long-' }));
    expect(narrowed.map((rows) => rows.length)).toEqual([100, 100, COPIES - 200]);
    for (const find of ['%', '_', '\\', 'no such code'])
      expect((await readingsOf(services, gloss, { find })).rows).toEqual([]);
    const { slips, waiting } = await rack(services);
    expect(slips).toHaveLength(60);
    expect(waiting).toBe(COPIES);
    expect((await floor(services)).counts.ready).toBe(COPIES);
  });
});
