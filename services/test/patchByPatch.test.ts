import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import type { Lab } from '@melto/core/colour/lab';
import { labAt } from '@melto/core/colour/labAt';
import { loadChart } from '../src/charts/chart.ts';
import { chartStates } from '../src/charts/chartStates.ts';
import { discardSheet, rack } from '../src/charts/rack.ts';
import { createPressChart } from '../src/calibration/pressCharts.ts';
import { printChart } from '../src/charts/printChart.ts';
import { deskState } from '../src/reading/desk.ts';
import { deskData } from '../src/reading/deskData.ts';
import { expectedLab } from '../src/reading/expected.ts';
import { importReading } from '../src/reading/importReading.ts';
import { instruments } from '../src/reading/instruments.ts';
import { loadReading } from '../src/reading/loadReading.ts';
import { storePatch } from '../src/reading/storePatch.ts';
import { advanceClock } from '../src/simulated/advanceClock.ts';
import { HOUR, heronOn, TICKS } from '../src/testing/heron.ts';
import { readSheets } from '../src/testing/readSheets.ts';
import { refusal } from '../src/testing/refusal.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';

const RAMPS = {
  kind: 'ramps',
  steps: 9,
  copies: 1,
  order: 'scrambled',
  paper: 'a4',
  reader: 'strip',
} as const;
let services: TestServices;
let gloss = 0;
let sheets: readonly string[] = [];

const printed = async (): Promise<readonly string[]> => {
  const { id } = await createPressChart(services, gloss, RAMPS);
  const made = await printChart(services, id, { ticks: TICKS });
  await advanceClock(services, 3 * HOUR);
  return made.sheets;
};
const lines = (labs: readonly (readonly [string, readonly number[]])[]): string =>
  [
    'SAMPLE_ID;LAB_L;LAB_A;LAB_B',
    ...labs.map(([id, lab]) => [id, ...lab.map((v) => v.toFixed(2))].join(';')),
  ].join('\n');
const ANSWERS = { mode: 'M1', light: 'D50 2°' } as const;

beforeAll(async () => {
  services = await openTestServices('melto_patches');
  gloss = await heronOn(services, 'Lantern Gloss 150');
  sheets = await printed();
});
afterAll(async () => services.database.close());

/** What each patch of the first page should give, by strip and place. */
async function expectedOf(code: string): Promise<readonly (readonly Lab[])[]> {
  const { print, chart, condition, sheet } = await deskData(services, code);
  const lab = await expectedLab(services, condition.id, condition.process, print.deviceValues);
  return chart.layout.pages[sheet.page - 1].map((rows) => rows.map((row) => labAt(lab, row)));
}

describe('a sheet patch by patch', () => {
  it('keeps what is typed, lacks the rest, and is complete with the last patch', async () => {
    const [code] = sheets;
    const expected = await expectedOf(code);
    const typed = (strip: number, patch: number, lab: Lab, more: object = {}) =>
      storePatch(services, code, { attempt: `${strip} ${patch}`, strip, patch, mode: 'M1', lab, ...more });
    const answer = await typed(1, 2, expected[0][1]);
    expect(answer).toMatchObject({ ok: true, complete: false });
    const [first] = (await deskState(services, code)).strips;
    expect(first.measured).toBeNull();
    expect(first.partly?.map((hex) => hex !== null)).toEqual(expected[0].map((_, i) => i === 1));
    expect((await rack(services)).slips.find((slip) => slip.code === code)).toMatchObject({ stripsRead: 0 });
    // The same attempt again changes nothing.
    await typed(1, 2, [50, 0, 0]);
    expect((await deskState(services, code)).strips[0].partly?.[1]).toBe(first.partly?.[1]);
    let last = answer;
    for (const [s, strip] of expected.entries())
      for (const [p, lab] of strip.entries())
        if (s !== 0 || p !== 1) last = await typed(s + 1, p + 1, lab, { sure: true });
    expect(last).toMatchObject({ ok: true, complete: sheets.length === 1 });
    const state = await deskState(services, code);
    expect(state.strips.every(({ measured, partly }) => measured !== null && partly === null)).toBe(true);
    const loaded = await loadReading(services, last.ok ? last.readingId : 0);
    expect(loaded.set.conditions).toMatchObject({ mode: 'M1', illuminant: 'D50', observer: '2°' });
    const { chart } = await deskData(services, code);
    chart.layout.pages[0].forEach((rows, s) =>
      rows.forEach((row, p) => {
        const at = loaded.rows.indexOf(row);
        expect(deltaE2000(labAt(loaded.lab, at), expected[s][p])).toBeLessThan(1e-3);
      }),
    );
  }, 60_000);

  it('is listed with its chart: made, waiting on the rack, read, thrown away', async () => {
    const list = async () => (await chartStates(services, gloss, 'ramps', 9)).map(({ state }) => state);
    expect(await list()).toEqual(['read']);
    const { id } = await createPressChart(services, gloss, RAMPS);
    expect(await list()).toEqual(['made', 'read']);
    const made = await printChart(services, id, { ticks: TICKS });
    const [newest] = await chartStates(services, gloss, 'ramps', 9);
    expect(newest).toMatchObject({ state: 'waits', waiting: made.sheets[0], prints: 1, stripsRead: 0 });
    for (const code of made.sheets) await discardSheet(services, code, false);
    expect(await list()).toEqual(['thrown away', 'read']);
    expect(await chartStates(services, gloss, 'wedge', 9)).toEqual([]);
  });

  it('tells a patch that looks like the one beside it, and keeps it where the person is sure', async () => {
    const [code] = await printed();
    const expected = await expectedOf(code);
    // Two patches side by side that are far apart.
    const [strip, patch] = expected.flatMap((row, s) =>
      row.flatMap((lab, p) => (p > 0 && deltaE2000(row[p - 1], lab) > 20 ? [[s + 1, p]] : [])),
    )[0];
    const lab = expected[strip - 1][patch];
    const slipped = { attempt: 'slip', strip, patch, mode: 'M1', lab } as const;
    const told = await storePatch(services, code, slipped);
    expect(told.ok).toBe(false);
    const like = told.ok ? slipped : told.looksLike;
    expect(expected[like.strip - 1][like.patch - 1]).toEqual(lab);
    expect([like.strip, like.patch]).not.toEqual([strip, patch]);
    expect((await deskState(services, code)).readingId).toBeNull();
    expect(await storePatch(services, code, { ...slipped, sure: true })).toMatchObject({ ok: true });
    // Far from everything beside it is a finding, not a slip.
    const odd = await storePatch(services, code, { ...slipped, attempt: 'odd', lab: [60, 60, -60] });
    expect(odd).toMatchObject({ ok: true });
    expect(odd.ok && odd.off).toBeGreaterThan(12);
  });

  it('measures one again by the instrument that read the strip, and leaves the others as they were', async () => {
    const [code] = await printed();
    const { readingId } = await readSheets(services, [code]);
    const before = await loadReading(services, readingId);
    const [known] = await instruments(services);
    const spectrum = Array.from({ length: before.set.spectra?.grid.count ?? 0 }, () => 0.5);
    const grid = {
      startNm: before.set.spectra?.grid.startNm ?? 0,
      stepNm: before.set.spectra?.grid.stepNm ?? 0,
    };
    const again = {
      strip: 2,
      patch: 3,
      mode: 'M1',
      measured: { instrument: known.id, ...grid, spectrum },
    } as const;
    // Two hands at once: both are kept, the later stands.
    const answers = await Promise.all(
      ['a', 'b'].map((attempt) => storePatch(services, code, { ...again, attempt, sure: true })),
    );
    expect(answers.map((answer) => answer.ok && answer.readingId)).toEqual([readingId, readingId]);
    const after = await loadReading(services, readingId);
    const row = before.chart.layout.pages[0][1][2];
    const bands = spectrum.length;
    before.rows.forEach((each, i) => {
      const [was, is] = [before, after].map(({ set }) =>
        set.spectra?.values.subarray(i * bands, (i + 1) * bands),
      );
      expect([...(is ?? [])]).toEqual(each === row ? spectrum : [...(was ?? [])]);
    });
    const short = {
      ...again,
      attempt: 'short',
      measured: { ...again.measured, spectrum: spectrum.slice(0, 9) },
    };
    expect((await refusal(storePatch(services, code, short))).title).toContain('not enough for colours');
    const polarised = { ...again, attempt: 'M3', mode: 'M3' } as const;
    expect((await refusal(storePatch(services, code, polarised))).field).toBe('mode');
    const both = { ...again, attempt: 'both', lab: [50, 0, 0] } as const;
    expect((await refusal(storePatch(services, code, both))).field).toBe('lab');
    const neither = { ...again, attempt: 'neither', measured: undefined };
    expect((await refusal(storePatch(services, code, neither))).field).toBe('lab');
    const beyond = { ...again, attempt: 'beyond', patch: 999 };
    expect((await refusal(storePatch(services, code, beyond))).title).toContain('Strip 2 has');
  });

  it('takes single patches of a file, and completes its strips from another', async () => {
    const [code] = await printed();
    const { chart } = await deskData(services, code);
    const rows = chart.layout.pages.flat(2);
    const line = (row: number) => [chart.set.ids[row], [50, row / 10, 0]] as const;
    const part = await importReading(services, code, lines(rows.slice(0, 3).map(line)), ANSWERS);
    expect(part.notes.join(' ')).toContain(`${rows.length - 3} of ${rows.length} patches are missing`);
    const [strip] = (await deskState(services, code)).strips;
    expect(strip.partly?.slice(0, 4).map((hex) => hex === null)).toEqual([false, false, false, true]);
    const whole = await importReading(services, code, lines(rows.slice(3).map(line)), ANSWERS);
    expect(whole.readingId).toBe(part.readingId);
    const loaded = await loadReading(services, whole.readingId);
    expect(loaded.reading.finishedMs).not.toBeNull();
    loaded.rows.forEach((row, i) => expect(loaded.lab[3 * i + 1]).toBeCloseTo(row / 10, 1));
    expect(await loadChart(services, loaded.print.chartId)).toMatchObject({ patches: loaded.rows.length });
  });

  it('averages a patch that a file gives twice', async () => {
    const [code] = await printed();
    const { chart } = await deskData(services, code);
    const device = chart.set.device ?? new Float64Array(0);
    const row = chart.layout.pages[0][0][0];
    const inks = [...device.subarray(4 * row, 4 * row + 4)].map((value) => (100 * value).toFixed(3));
    const file = [
      'SAMPLE_ID;CMYK_C;CMYK_M;CMYK_Y;CMYK_K;XYZ_X;XYZ_Y;XYZ_Z',
      ...['10;20;30', '12;26;30'].map((xyz, i) => [`x${i}`, ...inks, xyz].join(';')),
    ].join('\n');
    const { readingId } = await importReading(services, code, file, { ...ANSWERS, scale: 100 });
    const { xyz, rows } = await loadReading(services, readingId);
    const at = rows.indexOf(row);
    expect([...xyz.subarray(3 * at, 3 * at + 3)].map((value) => Number(value.toFixed(4)))).toEqual([
      11, 23, 30,
    ]);
  });
});
