import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { createPressChart } from '../src/calibration/pressCharts.ts';
import { loadChart } from '../src/charts/chart.ts';
import { printChart } from '../src/charts/printChart.ts';
import { discardSheet, rack } from '../src/charts/rack.ts';
import { printWedge } from '../src/wedges/printWedge.ts';
import { judgeNow } from '../src/judging/judge.ts';
import { actingAs } from '../src/kernel/context.ts';
import { KeptCache } from '../src/kernel/keptCache.ts';
import { versionsOf } from '../src/ledger/versions.ts';
import { floor } from '../src/overview/floor.ts';
import { deskState } from '../src/reading/desk.ts';
import { importReading } from '../src/reading/importReading.ts';
import { judgingOf } from '../src/reading/judgeRequest.ts';
import { readingsOf } from '../src/reading/readingView.ts';
import { advanceClock } from '../src/simulated/advanceClock.ts';
import { byDeviceValues, heronOn, HOUR, TICKS } from '../src/testing/heron.ts';
import { refusal } from '../src/testing/refusal.ts';
import { MEASURED_M1 } from '../src/testing/measuredAs.ts';
import { RAMPS_CHART } from '../src/testing/rampsChart.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';
import { calibrateTile, readStrip } from '../src/simulated/simulatedHand.ts';

let services: TestServices;
let condition = 0;
let ramps = 0;

beforeAll(async () => {
  services = await openTestServices('melto_meet');
  condition = await heronOn(services, 'Lantern Gloss 150');
  ramps = (
    await createPressChart(services, condition, {
      ...{ kind: 'ramps', paper: 'a4', reader: 'strip', steps: 21, copies: 2, order: 'scrambled' },
    })
  ).id;
});
afterAll(() => services.database.close());

async function printed(): Promise<readonly string[]> {
  const { sheets } = await printChart(services, ramps, { ticks: TICKS });
  await advanceClock(services, 3 * HOUR);
  for (const code of sheets) await calibrateTile(services, code);
  return sheets;
}

async function read(code: string, strip: number, mode: 'M1' | 'M2' = 'M1', more = false): Promise<number> {
  const answer = await readStrip(services, code, { attempt: `${code} ${strip} ${mode}`, strip, mode, more });
  if (!answer.ok) throw new Error(answer.words);
  return answer.readingId;
}

const slip = async (code: string): Promise<number | undefined> =>
  (await rack(services)).slips.find((each) => each.code === code)?.stripsRead;

describe('readings that meet on a sheet', () => {
  it('of two modes in turn are one reading each, and the sheet is as far as the further of them', async () => {
    const [code = ''] = await printed();
    const ids = { M1: new Set<number>(), M2: new Set<number>() };
    for (const strip of [1, 2, 3])
      for (const mode of ['M1', 'M2'] as const) ids[mode].add(await read(code, strip, mode));
    expect([ids.M1.size, ids.M2.size]).toEqual([1, 1]);
    expect(await slip(code)).toBe(3);
    await read(code, 4, 'M2');
    expect(await slip(code)).toBe(4);
  });

  it('of a file in the middle of a sheet leave it complete, whatever strip is read then', async () => {
    const [code = '', ...others] = await printed();
    await read(code, 1);
    const chart = await loadChart(services, ramps);
    const lab = Float64Array.from({ length: chart.patches * 3 }, (_, i) => (i % 3 === 0 ? 50 + (i % 5) : 2));
    const text = writeCgats(patchSetToCgats({ ...chart.set, lab, conditions: MEASURED_M1 }));
    const { readingId } = await importReading(services, code, text);
    expect(await slip(code)).toBeUndefined();
    const strip = await read(code, 2);
    expect(strip).not.toBe(readingId);
    // All of the sheet has been read, by the file: it is not one that 2 strips of are read.
    for (const each of [code, ...others]) expect(await slip(each)).toBeUndefined();
  });

  it('do not bring a page back that was thrown away', async () => {
    const { id } = await createPressChart(services, condition, {
      ...{ kind: 'ramps', paper: 'a4', reader: 'strip', steps: 33, copies: 8, order: 'scrambled' },
    });
    const { sheets } = await printChart(services, id, { ticks: TICKS });
    const [first = '', second = ''] = sheets;
    expect(second).not.toBe('');
    await advanceClock(services, 3 * HOUR);
    await calibrateTile(services, first);
    await discardSheet(services, second, false);
    await read(first, 1);
    expect(await slip(second)).toBeUndefined();
    expect(await slip(first)).toBe(1);
    await discardSheet(services, second, true);
    expect(await slip(second)).toBe(0);
  });

  it('without device values need the ids of the chart, all of them', async () => {
    const [code = ''] = await printed();
    const chart = await loadChart(services, ramps);
    const lab = Float64Array.from({ length: chart.patches * 3 }, (_, i) => (i % 3 === 0 ? 50 + (i % 5) : 2));
    const text = (ids: readonly string[]): string =>
      writeCgats(patchSetToCgats({ ids, lab, conditions: MEASURED_M1, notes: [] }));
    const own = chart.set.ids;
    for (const ids of [own.map((each) => `X${each}`), [...own.slice(1), 'X'], own.map(() => own[0] ?? '')])
      expect((await refusal(importReading(services, code, text(ids)))).type).toBe('bad-input');
    expect((await deskState(services, code)).readingId).toBeNull();
    expect((await importReading(services, code, text(own))).readingId).toBeGreaterThan(0);
  });

  it('are judged once all passes are there, and at the latest a minute after', async () => {
    const judgedBy = await byDeviceValues(services);
    const wedge = { kind: 'proof', paper: 'a4', reader: 'strip', judgedBy } as const;
    const { sheets } = await printWedge(services, condition, wedge, { ticks: TICKS });
    const [code = ''] = sheets;
    await advanceClock(services, 3 * HOUR);
    await calibrateTile(services, code);
    const strips = (await deskState(services, code)).strips.map(({ strip }) => strip);
    let reading = 0;
    for (const strip of strips) reading = await read(code, strip, 'M1', true);
    const made = async (): Promise<number> => (await versionsOf(services, condition, 'conformity')).length;
    const due = async (): Promise<number> => {
      const rows = await services.database.rows<{ due: number }>(
        "SELECT available_ms AS due FROM job WHERE kind = 'judge' AND reading_id = ? AND state = 'queued'",
        [reading],
      );
      expect(rows).toHaveLength(1);
      return (rows[0]?.due ?? 0) - services.time.ms;
    };
    // More passes are to follow: it is put off, and nobody waits for it.
    expect(await due()).toBe(60_000);
    expect(await judgingOf(services, reading)).toMatchObject({ state: 'done', resultId: null });
    expect(await made()).toBe(0);
    services.time.ms += 59_999;
    expect((await judgeNow(services, reading)).resultId).toBeNull();
    await readStrip(services, code, { attempt: 'the last pass', strip: 1, mode: 'M1' });
    expect(await due()).toBe(0);
    expect((await judgeNow(services, reading)).resultId).not.toBeNull();
    expect(await made()).toBe(1);
  });
});

describe('houses', () => {
  it('see nothing of each other', async () => {
    await services.database.change(
      "INSERT INTO house (id, name, time_zone, made_ms) VALUES (2, 'Other', 'Europe/London', 0)",
    );
    const other = actingAs(services, { house: 2, person: 1 });
    expect((await floor(other)).rows).toEqual([]);
    expect((await rack(other)).slips).toEqual([]);
    expect((await readingsOf(other, condition)).rows).toEqual([]);
    expect((await readingsOf(services, condition)).rows.length).toBeGreaterThan(0);
    const [code = ''] = await printed();
    expect((await refusal(deskState(other, code))).type).toBe('not-found');
    expect((await refusal(createPressChart(other, condition, RAMPS_CHART))).type).toBe('not-found');
  });
});

describe('what is kept', () => {
  const house = { house: 1, person: 1 };

  it('is made once, for all who ask meanwhile and after, by house', async () => {
    const cache = new KeptCache();
    let made = 0;
    const make = (): Promise<number> => Promise.resolve(++made);
    const ask = (id: number, acting = house): Promise<number> => cache.keep('chart', 2, acting, id, make);
    expect(await Promise.all([ask(1), ask(1)])).toEqual([1, 1]);
    expect(await ask(1)).toBe(1);
    expect(await ask(1, { house: 2, person: 1 })).toBe(2);
    expect(await ask(1, { house: 1, person: 9 })).toBe(1);
  });

  it('is the latest of its kind, and never what could not be made', async () => {
    const cache = new KeptCache();
    let made = 0;
    const ask = (id: number, kind = 'chart'): Promise<number> =>
      cache.keep(kind, 2, house, id, () => Promise.resolve(++made));
    for (const id of [1, 2]) await ask(id);
    // One that is asked for again is the latest; the other goes when a third comes.
    await ask(1);
    await ask(3);
    await ask(2, 'profile');
    expect(made).toBe(4);
    expect([await ask(1), await ask(2)]).toEqual([1, 5]);
    const failing = (): Promise<number> =>
      cache.keep('aims', 2, house, 1, () => Promise.reject(new Error('no')));
    await expect(failing()).rejects.toThrow('no');
    expect(await cache.keep('aims', 2, house, 1, () => Promise.resolve(7))).toBe(7);
  });
});

describe('a sheet that was read before its rest was over', () => {
  const faults = async (code: string): Promise<readonly { kind: string; strips: readonly number[] }[]> =>
    (await deskState(services, code)).faults.filter(({ kind }) => kind === 'read-early');

  it('says so as long as strips of that time stand, and no longer', async () => {
    const { sheets, restUntilMs } = await printChart(services, ramps, { ticks: TICKS });
    const [code = ''] = sheets;
    await calibrateTile(services, code);
    const count = (await deskState(services, code)).strips.length;
    const readAgain = async (strip: number, attempt: string): Promise<number> => {
      const answer = await readStrip(services, code, {
        attempt: `${code} ${strip} ${attempt}`,
        strip,
        mode: 'M1',
      });
      if (!answer.ok) throw new Error(answer.words);
      return answer.readingId;
    };
    for (const strip of [1, 2]) await readAgain(strip, 'early');
    expect(await faults(code)).toMatchObject([{ strips: [] }]);
    // A millisecond before the rest is over is early, the moment itself is not.
    const nowMs = services.time.ms + (await deskState(services, code)).offsetMs;
    services.time.ms += restUntilMs - 1 - nowMs;
    await calibrateTile(services, code);
    await readAgain(3, 'early');
    services.time.ms += 1;
    for (let strip = 4; strip <= count; strip++) await readAgain(strip, 'rested');
    expect(await faults(code)).toMatchObject([{ strips: [1, 2, 3] }]);
    await readAgain(2, 'rested');
    expect(await faults(code)).toMatchObject([{ strips: [1, 3] }]);
    for (const strip of [1, 3]) await readAgain(strip, 'rested');
    expect(await faults(code)).toEqual([]);
    const readings = (await readingsOf(services, condition)).rows;
    expect(readings.find((reading) => reading.code === code.slice(0, -2))?.early).toBe(false);
  });
});
