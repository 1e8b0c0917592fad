import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { RGB } from '@melto/core/device/process';
import { findCondition } from '@melto/store/conditions';
import { listHeads, setHead } from '@melto/store/results';
import { borrowCalibration } from '../src/calibration/borrowing.ts';
import { makeCurves } from '../src/calibration/curves.ts';
import { aimSets, loadAims } from '../src/conformity/aimSets.ts';
import { tviOf } from '../src/conformity/askedTvi.ts';
import { createAimSetByHand } from '../src/conformity/newAimSet.ts';
import { CURVES } from '../src/ledger/kinds/curvesKind.ts';
import { storedResult } from '../src/ledger/storedResult.ts';
import { proposeLimits } from '../src/calibration/limits.ts';
import { createPressChart } from '../src/calibration/pressCharts.ts';
import { loadChart } from '../src/charts/chart.ts';
import { printChart } from '../src/charts/printChart.ts';
import { rack } from '../src/charts/rack.ts';
import { printWedge } from '../src/wedges/printWedge.ts';
import { judgeNow } from '../src/judging/judge.ts';
import { domainNow } from '../src/kernel/clock.ts';
import { versionsOf } from '../src/ledger/versions.ts';
import { deskState } from '../src/reading/desk.ts';
import { importReading } from '../src/reading/importReading.ts';
import { advanceClock } from '../src/simulated/advanceClock.ts';
import { byDeviceValues, heronOn, HOUR, TICKS } from '../src/testing/heron.ts';
import { readSheets } from '../src/testing/readSheets.ts';
import { refusal } from '../src/testing/refusal.ts';
import { MEASURED_M1 } from '../src/testing/measuredAs.ts';
import { RAMPS_CHART } from '../src/testing/rampsChart.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';
import { withdrawReading } from '../src/watch/withdrawReading.ts';
import { calibrateTile, readStrip } from '../src/simulated/simulatedHand.ts';

let services: TestServices;
let gloss = 0;
let ramps = 0;

beforeAll(async () => {
  services = await openTestServices('melto_guards');
  gloss = await heronOn(services, 'Lantern Gloss 150');
  ramps = (await createPressChart(services, gloss, RAMPS_CHART)).id;
});
afterAll(() => services.database.close());

describe('a print', () => {
  it('rests for the minutes that its stock and device want, to the millisecond', async () => {
    const condition = await findCondition(services.database, gloss);
    const from = await domainNow(services);
    const { sheets, restUntilMs } = await printChart(services, ramps, { ticks: TICKS });
    expect(condition?.restMinutes).toBeGreaterThan(0);
    expect(restUntilMs - from).toBe((condition?.restMinutes ?? 0) * 60_000);
    const state = async (): Promise<string | undefined> =>
      (await rack(services)).slips.find(({ code }) => code === sheets[0])?.state;
    services.time.ms += restUntilMs - from - 1;
    expect(await state()).toBe('resting');
    services.time.ms += 1;
    expect(await state()).toBe('ready');
  });
});

describe('a file', () => {
  it('of another process than the sheet was printed with is refused, whatever else fits', async () => {
    const { sheets } = await printChart(services, ramps, { ticks: TICKS });
    const [code = ''] = sheets;
    const { set, patches } = await loadChart(services, ramps);
    const own = { ids: set.ids, conditions: MEASURED_M1, notes: [] } as const;
    const lab = Float64Array.from({ length: 3 * patches }, () => 40);
    const text = writeCgats(
      patchSetToCgats({ ...own, process: RGB, device: new Float64Array(3 * patches), lab }),
    );
    const problem = await refusal(importReading(services, code, text));
    expect(problem.title).toBe('The file gives RGB values, the sheet was printed with CMYK.');
    expect((await deskState(services, code)).readingId).toBeNull();
  });
});

describe('a reading that was withdrawn', () => {
  it('before it was judged is judged no more', async () => {
    const judgedBy = await byDeviceValues(services);
    const wedge = { kind: 'proof', paper: 'a4', reader: 'strip', judgedBy } as const;
    const { sheets } = await printWedge(services, gloss, wedge, { ticks: TICKS });
    const [code = ''] = sheets;
    await advanceClock(services, 3 * HOUR);
    await calibrateTile(services, code);
    let readingId = 0;
    for (const { strip } of (await deskState(services, code)).strips) {
      const answer = await readStrip(services, code, { attempt: `${strip}`, strip, mode: 'M1' });
      if (answer.ok) readingId = answer.readingId;
    }
    await withdrawReading(services, readingId, true);
    expect(await judgeNow(services, readingId)).toMatchObject({ resultId: null });
    expect(await versionsOf(services, gloss, 'conformity')).toEqual([]);
  });
});

describe('borrowing', () => {
  it('drops what the lender does not have, and takes what it has', async () => {
    const silk = await heronOn(services, 'Marsh Silk 130');
    for (const condition of [gloss, silk]) {
      const { id } = await createPressChart(services, condition, RAMPS_CHART);
      const { sheets } = await printChart(services, id, { ticks: TICKS });
      await advanceClock(services, 3 * HOUR);
      const { readingId } = await readSheets(services, sheets);
      await proposeLimits(services, condition, readingId);
      await makeCurves(services, condition, { readingId, measure: 'sctv' });
    }
    const [own] = await versionsOf(services, silk, 'curves');
    // A balance that belongs to its own curves.
    await setHead(services.database, silk, 'balance', own?.id ?? 0);
    expect(await borrowCalibration(services, silk, gloss)).toEqual({ links: ['limits', 'curves'] });
    const heads = await listHeads(services.database, silk);
    expect(heads.map(({ link, conditionId }) => [link, conditionId]).sort()).toEqual([
      ['curves', gloss],
      ['limits', gloss],
    ]);
  });

  it('gives curves to what an aim set asks of each ink; they keep its name, version and figures', async () => {
    const silk = await heronOn(services, 'Fenland Smooth 120');
    const { id } = await createPressChart(services, silk, RAMPS_CHART);
    const { sheets } = await printChart(services, id, { ticks: TICKS });
    await advanceClock(services, 3 * HOUR);
    const { readingId } = await readSheets(services, sheets);
    const [published] = await aimSets(services);
    const tvi = await tviOf(services, silk, { aimSetId: published.id });
    const made = await makeCurves(services, silk, { readingId: readingId ?? 0, measure: 'tvi', tvi });
    const { summary, detail } = await storedResult(services, made.id, CURVES);
    expect(summary.tvi).toMatchObject({ aims: { id: published.id, name: published.name, version: 1 } });
    const { aims } = await loadAims(services, published.id);
    // Each step's increase lies between the published ones beside it.
    const points = [[0, 0], ...(aims.published?.tvi.C ?? []), [100, 0]];
    for (const { nominal, aim } of detail.inks[0].steps) {
      const next = points.findIndex(([tone]) => tone >= 100 * nominal);
      const beside = [points[next - 1][1], points[next][1]].sort((a, b) => a - b);
      expect(100 * (aim - nominal)).toBeGreaterThanOrEqual(beside[0] - 1e-9);
      expect(100 * (aim - nominal)).toBeLessThanOrEqual(beside[1] + 1e-9);
    }
    expect(await tviOf(services, silk, { letter: 'A' })).toEqual({ letter: 'A' });
    const rows = [{ device: [0, 0, 0, 0], lab: [95, 0, -2] as const }];
    const paper = await createAimSetByHand(services, { name: 'Paper alone' }, rows, { mode: 'M1' });
    expect((await refusal(tviOf(services, silk, { aimSetId: paper.id }))).title).toContain(
      'Paper alone gives no tone aims',
    );
  });
});
