import { unwrap } from '@melto/core/result';
import { curvesFromCsv } from '@melto/core/curveFiles/curvesFromCsv';
import { readIcc } from '@melto/core/icc/readIcc';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { openFiles } from '../src/overview/openFiles.ts';
import { unitOfWork } from '../src/kernel/context.ts';
import { BALANCE } from '../src/ledger/kinds/balanceKind.ts';
import { CURVES } from '../src/ledger/kinds/curvesKind.ts';
import { LIMITS } from '../src/ledger/kinds/limitsKind.ts';
import { PROFILE } from '../src/ledger/kinds/profileKind.ts';
import { storedResult } from '../src/ledger/storedResult.ts';
import { strFromU8, unzipSync } from 'fflate';
import sharp from 'sharp';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type { Fault } from '@melto/core/faults/fault';
import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { findResultFile, findResult, listHeads, listStaleHeads } from '@melto/store/results';
import { latestReached } from '@melto/store/reached';
import { judgeableReadings } from '../src/conformity/judgeable.ts';
import { printShortCheck } from '../src/conformity/shortChecks.ts';
import { SHORT_CHECK } from '../src/ledger/kinds/shortCheckKind.ts';
import { makeBalance } from '../src/calibration/balance.ts';

import { borrowCalibration, lendersFor } from '../src/calibration/borrowing.ts';
import { chartsOf } from '../src/charts/chart.ts';
import { createChart } from '../src/profile/profilingChart.ts';
import { advanceClock } from '../src/simulated/advanceClock.ts';
import { conditionChoices, createCondition, DEFAULT_POINTS } from '../src/house/newCondition.ts';
import { verifyHouse } from '../src/overview/verifyHouse.ts';
import { conditionView } from '../src/overview/conditionView.ts';
import { exportCurves } from '../src/calibration/curveExport.ts';
import { importCurves, makeCurves } from '../src/calibration/curves.ts';

import { correctEvenness } from '../src/calibration/evenness.ts';
import { floor } from '../src/overview/floor.ts';
import { importReading } from '../src/reading/importReading.ts';
import { dmaxHistory, editLimits, proposeLimits } from '../src/calibration/limits.ts';

import { createPressChart } from '../src/calibration/pressCharts.ts';
import type { NewPressChart } from '../src/calibration/pressCharts.ts';
import { printChart } from '../src/charts/printChart.ts';
import { rack } from '../src/charts/rack.ts';
import type { PrintInput } from '../src/charts/printChart.ts';
import { buildProfile } from '../src/profile/buildProfile.ts';
import { makeChart, requestRefinement } from '../src/profile/chartJobs.ts';
import { readColours } from '../src/lists/colourLists.ts';
import { requestProfile } from '../src/profile/requestProfile.ts';
import { putInForce, versionsOf } from '../src/ledger/versions.ts';

import { loadReading } from '../src/reading/loadReading.ts';
import { readingsOf, readingView } from '../src/reading/readingView.ts';
import { withdrawReading } from '../src/watch/withdrawReading.ts';
import { named } from '../src/testing/named.ts';
import { readSheets } from '../src/testing/readSheets.ts';
import { addPicture } from '../src/house/pictures.ts';
import { profilePackage } from '../src/overview/profilePackage.ts';
import { refusal } from '../src/testing/refusal.ts';
import { staleMarksAgree } from '../src/testing/staleMarksAgree.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';

const TICKS = DEFAULT_POINTS.filter(({ tickAtPrint }) => tickAtPrint).map(({ label }) => label);
const HOURS = 3_600_000;
let services: TestServices;
let gloss = 0;
let silk = 0;

beforeAll(async () => {
  services = await openTestServices('melto_press');
  const heron = named((await conditionChoices(services)).devices, 'Heron');
  const make = async (stock: string): Promise<number> =>
    (
      await createCondition(services, {
        deviceId: heron.id,
        stockId: named(heron.stocks, stock).id,
        inkSet: heron.inkSet,
        mode: 'standard',
        points: DEFAULT_POINTS,
      })
    ).id;
  gloss = await make('Lantern Gloss 150');
  silk = await make('Marsh Silk 130');
});
afterAll(async () => services.database.close());

async function printAndRead(
  conditionId: number,
  chart: Partial<NewPressChart>,
  print: Partial<PrintInput> = {},
): Promise<number> {
  const { id } = await createPressChart(services, conditionId, {
    ...{ kind: 'ramps', paper: 'a4', reader: 'strip', steps: 21, copies: 2, order: 'scrambled' },
    ...chart,
  });
  const { sheets } = await printChart(services, id, { ticks: TICKS, ...print });
  await advanceClock(services, 3 * HOURS);
  return (await readSheets(services, sheets)).readingId;
}

async function faultsOf(readingId: number): Promise<string[]> {
  return (await readingView(services, readingId)).faults.map(({ kind }: Fault) => kind);
}

afterEach(() => staleMarksAgree(services));

describe('a press to a known state', () => {
  let ramps = 0;
  let curves = 0;

  it('has the links of an ink device', async () => {
    const view = await conditionView(services, gloss);
    expect(view.links.map(({ link, state }) => `${link} ${state}`)).toEqual([
      'limits none',
      'curves none',
      'balance none',
      'profile none',
      'conformity none',
      'watch none',
    ]);
    expect(view.evenness).toEqual({ version: null });
    const problem = await refusal(printAndRead(gloss, { kind: 'near-neutral' }, { curves: 'in force' }));
    expect(problem.title).toBe('There are no curves in force.');
  });

  it('corrects its width first, and later sheets are printed with it', async () => {
    const first = await printAndRead(gloss, { kind: 'evenness' });
    const { id } = await correctEvenness(services, gloss, first);
    await printAndRead(gloss, { kind: 'evenness' });
    const reached = await latestReached(services.database, id, gloss);
    const before = JSON.parse((await findResult(services.database, id))?.summary ?? '{}') as { mean: number };
    const after = JSON.parse(reached?.summary ?? '{}') as { mean: number };
    expect(after.mean).toBeLessThan(before.mean / 2);
  });

  it('reads ramps with no fault and proposes limits', async () => {
    ramps = await printAndRead(gloss, {});
    expect(await faultsOf(ramps)).toEqual([]);
    const { id } = await proposeLimits(services, gloss, ramps);
    const { summary } = await storedResult(services, id, LIMITS);
    expect(summary.limits.every((limit) => limit > 0.75 && limit <= 1)).toBe(true);
    expect(summary.total).toBeGreaterThan(2);
    const edited = await editLimits(services, gloss, { limits: [1, 1, 1, 1], total: 3 });
    expect(await versionsOf(services, gloss, 'limits')).toMatchObject([
      { version: 1, inForce: false },
      { id: edited.id, version: 2, inForce: true, stale: null },
    ]);
    expect((await refusal(editLimits(services, gloss, { limits: [0.1, 1, 1, 1], total: 3 }))).field).toBe(
      'limits',
    );
  });

  it('makes curves in two rounds; each knows the round before', async () => {
    curves = (await makeCurves(services, gloss, { readingId: ramps, measure: 'sctv' })).id;
    // A page from before tells of none: nothing is printed.
    const chart = (await chartsOf(services, gloss)).rows.find(({ purpose }) => purpose === 'ramps')?.id ?? 0;
    const stale = { ticks: TICKS, curves: 'in force', told: { curves: null } } as const;
    const before = (await rack(services)).waiting;
    const refused = await refusal(printChart(services, chart, stale));
    expect([refused.field, refused.title]).toEqual(['told', expect.stringContaining('Curves v1') as string]);
    const other = { ...stale, told: { curves, profile: 5 } };
    expect((await refusal(printChart(services, chart, other))).title).toContain('no profile any more');
    expect((await rack(services)).waiting).toBe(before);
    const second = await printAndRead(gloss, {}, { curves: 'in force' });
    expect(await faultsOf(second)).toEqual([]);
    const reached = await latestReached(services.database, curves, gloss);
    expect(JSON.parse(reached?.summary ?? '{}').mean).toBeLessThan(0.015);
    // So does a page that made them already.
    expect(
      (await refusal(makeCurves(services, gloss, { readingId: ramps, measure: 'sctv' }))).title,
    ).toContain('Curves v1 are these curves already');
    const next = await makeCurves(services, gloss, { readingId: second, measure: 'sctv' });
    const { summary, detail } = await storedResult(services, next.id, CURVES);
    expect(summary.round).toBe(2);
    expect(summary.largest).toBe(Math.max(...detail.inks.map(({ largest }) => largest)));
    expect(detail.inks).toHaveLength(4);
    // Solids on the screen: blue, red and light, dark.
    const shown = detail.colours.map((hex) =>
      [1, 3, 5].map((at) => Number.parseInt(hex.slice(at, at + 2), 16)),
    );
    const [[cr, , cb], [mr, mg], [yr, , yb], [kr, kg, kb]] = shown;
    expect([cb > cr, mr > mg, yr > yb, Math.max(kr, kg, kb) < 90]).toEqual([true, true, true, true]);
    const press = { kind: 'ramps', paper: 'a4', reader: 'strip', steps: 11, order: 'scrambled' } as const;
    for (const copies of [0, 9, 1.5])
      expect((await refusal(createPressChart(services, gloss, { ...press, copies }))).field).toBe('copies');
    expect((await createPressChart(services, gloss, { ...press, copies: 8 })).id).toBeGreaterThan(0);
    expect(summary.total?.device).toBe(3);
    expect(summary.total?.input).toBeGreaterThan(3);
    expect((await dmaxHistory(services, gloss)).length).toBe(2);
    expect((await floor(services)).rows.find(({ id }) => id === gloss)?.ramps).toHaveLength(4);
  });

  it('names curves that were loaded unasked, and those that were not loaded', async () => {
    expect(
      await faultsOf(await printAndRead(gloss, { steps: 11 }, { frontEnd: 'factory curves' })),
    ).toContain('curves-on');
    const missing = await printAndRead(gloss, { steps: 11 }, { curves: 'in force', frontEnd: 'no curves' });
    expect(await faultsOf(missing)).toEqual(['curves-missing']);
    const [row] = (await readingsOf(services, gloss)).rows;
    await withdrawReading(services, row.id, true);
  });

  it('balances its greys, and the fresh sheet conforms', async () => {
    const first = await printAndRead(gloss, { kind: 'near-neutral' }, { curves: 'in force' });
    const { id } = await makeBalance(services, gloss, first);
    const { summary } = await storedResult(services, id, BALANCE);
    expect(summary).toMatchObject({ round: 1, extrapolated: false });
    await printAndRead(gloss, { kind: 'near-neutral' }, { curves: 'in force' });
    const reached = await latestReached(services.database, id, gloss);
    expect(reached?.verdict).toBe('conforms');
    const marks = (await conditionView(services, gloss)).links.map(({ state }) => state);
    expect(marks.slice(0, 4)).toEqual(['current', expect.any(String), 'conforms', 'none']);
  });

  it('builds a profile through its curves, whose total ink its documents keep to', async () => {
    const { id: chart } = await createChart(services, gloss, { patches: 300, paper: 'a4' });
    const printed = await printChart(services, chart, { ticks: TICKS, curves: 'in force' });
    await advanceClock(services, 3 * HOURS);
    const readingId = (await readSheets(services, printed.sheets)).readingId;
    expect(await faultsOf(readingId)).toEqual([]);
    const choices = {
      readingId,
      version: 4,
      tableSize: 'small',
      namePattern: '{device}_{stock}',
      separation: { black: 'heavy', totalInk: 2.9 },
    } as const;
    const store = await buildProfile(services, { conditionId: gloss, choices }, () => {});
    const id = await unitOfWork(services, store);
    const { detail, summary } = await storedResult(services, id, PROFILE);
    expect(summary.mean).toBeLessThan(1.2);
    expect(detail.inks?.totalInk).toBeLessThanOrEqual(2.901);
    expect(detail.inks?.reversals).toBe(0);
    expect(detail.report.ramps.map(({ channel }) => channel)).toEqual(['cyan', 'magenta', 'yellow', 'black']);
    expect(detail.neutral[0].device).toHaveLength(4);
    expect(
      (await refusal(requestProfile(services, gloss, { ...choices, readingId: ramps }))).title,
    ).toContain('profiling chart');
    expect((await floor(services)).rows.find((row) => row.id === gloss)?.whatNow?.words).toBe(
      'Print a check',
    );
  });

  it('hands a profile out with its curves, settings and pictures, under one name', async () => {
    const [own] = (await versionsOf(services, gloss, 'profile')).filter(({ inForce }) => inForce);
    const png = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#888' } })
      .png()
      .toBuffer();
    await addPicture(services, gloss, 'Driver: quality/..', png);
    const { name, content } = await profilePackage(services, own.id);
    expect(name).toBe('Heron_LanternGloss150_v1.zip');
    const files = unzipSync(content);
    const stem = name.replace('.zip', '');
    expect(Object.keys(files).sort()).toEqual(
      ['.icc', '_curves.csv', '_settings.txt', '_settings_1_Driver_quality.png', '_where_to.txt'].map(
        (end) => stem + end,
      ),
    );
    const file = await findResultFile(services.database, own.id, 'profile');
    expect(Buffer.compare(Buffer.from(files[`${stem}.icc`]), Buffer.from(file?.content ?? []))).toBe(0);
    expect(strFromU8(files[`${stem}_curves.csv`]).split('\n').length).toBeGreaterThan(256);
    expect(strFromU8(files[`${stem}_where_to.txt`])).toContain('/usr/share/color/icc');
    // The same profile, the same bytes.
    const again = await profilePackage(services, own.id);
    expect(Buffer.compare(Buffer.from(again.content), Buffer.from(content))).toBe(0);
    expect((await refusal(profilePackage(services, 9999))).type).toBe('not-found');
  });

  it('refines the profile with a colour list and one more sheet', async () => {
    const [base] = (await readingsOf(services, gloss)).rows.filter(({ purpose }) => purpose === 'profile');
    const { colours } = {
      colours: await readColours(services, 'name,L,a,b\nSeed red,50,50,26\npaper,60,-20,20\n'),
    };
    const request = {
      paper: 'a4',
      readingIds: [base.id],
      unsure: 15,
      colours,
      picture: [{ lab: [60, 20, 20] }],
      readings: 2,
    } as const;
    expect((await requestRefinement(services, gloss, request)).jobId).toBeGreaterThan(0);
    expect(
      (await refusal(requestRefinement(services, gloss, { ...request, unsure: 0, colours: [], picture: [] })))
        .title,
    ).toBe('Nothing is to be added.');
    const store = await makeChart(services, { conditionId: gloss, refinement: request }, () => {});
    await unitOfWork(services, store);
    const [chart] = (await chartsOf(services, gloss)).rows;
    expect(chart.title).toMatch(/^refinement/);
    const printed = await printChart(services, chart.id, { ticks: TICKS, curves: 'in force' });
    await advanceClock(services, 3 * HOURS);
    const added = (await readSheets(services, printed.sheets)).readingId;
    const choices = {
      readingId: base.id,
      addedReadingIds: [added],
      version: 4,
      tableSize: 'small',
      namePattern: '{device}',
      note: 'for the catalogue',
      separation: { black: 'heavy', totalInk: 2.9, pureBlack: true },
    } as const;
    expect((await requestProfile(services, gloss, choices)).jobId).toBeGreaterThan(0);
    expect(
      (await refusal(requestProfile(services, gloss, { ...choices, addedReadingIds: [base.id] }))).title,
    ).toBe('A reading cannot be added to itself.');
    expect(
      (await refusal(requestProfile(services, gloss, { ...choices, addedReadingIds: [ramps] }))).title,
    ).toBe('Only readings of profiling charts can be added.');
    const build = await buildProfile(services, { conditionId: gloss, choices }, () => {});
    const id = await unitOfWork(services, build);
    const { detail } = await storedResult(services, id, PROFILE);
    // A colour that bears the name of a kind of patch gets another one.
    expect(detail.refinement?.wanted.map(({ name }) => name)).toEqual(['Seed red', 'paper (2)']);
    for (const { after, before } of detail.refinement?.wanted ?? []) {
      expect(after).toBeLessThan(0.3);
      expect(before).toBeLessThan(6);
    }
    expect(detail.refinement?.agreement).toBeLessThan(1.5);
    expect(detail.compared?.version).toBe(1);
    expect(detail.uncertainty?.mean).toBeGreaterThan(0);
    expect(detail.choices.note).toBe('for the catalogue');
    // Patches that disagree are found in the reading that they are of.
    expect(detail.suspicious).toHaveLength(detail.report.outliers.length);
    for (const { readingId } of detail.suspicious ?? []) expect([base.id, added]).toContain(readingId);
    await putInForce(services, (await versionsOf(services, gloss, 'profile'))[0].id);
  });

  it('goes back to earlier curves with what stood on them', async () => {
    await putInForce(services, curves);
    expect((await listHeads(services.database, gloss)).map(({ link }) => link).sort()).toEqual([
      'curves',
      'evenness',
      'limits',
      'profile',
    ]);
    // The profile stood on the balance, which is gone.
    expect((await versionsOf(services, gloss, 'profile'))[0].stale?.words).toContain('Balance');
    const [newest] = (await versionsOf(services, gloss, 'curves')).slice(-1);
    await putInForce(services, newest.id);
    expect((await listHeads(services.database, gloss)).map(({ link }) => link)).toContain('balance');
  });

  it('lends its calibration, and the borrower learns that it changed', async () => {
    expect(await lendersFor(services, gloss)).toEqual([]);
    const [lender] = await lendersFor(services, silk);
    expect(lender.conditionId).toBe(gloss);
    await borrowCalibration(services, silk, gloss);
    const view = await conditionView(services, silk);
    expect(view.links.map(({ borrowed, state }) => `${borrowed} ${state}`)).toEqual([
      ...new Array<string>(3).fill('true current'),
      ...new Array<string>(3).fill('false none'),
    ]);
    expect(await listStaleHeads(services.database, silk)).toEqual([]);
    expect((await refusal(editLimits(services, silk, { limits: [1, 1, 1, 1], total: 3 }))).title).toContain(
      'borrowed',
    );
    await editLimits(services, gloss, { limits: [1, 1, 0.95, 1], total: 3 });
    const stale = await listStaleHeads(services.database, silk);
    expect(stale.find(({ link, why }) => link === 'limits' && why === 'lent')?.causeConditionId).toBe(gloss);
    expect(stale.map(({ link }) => link)).toContain('balance');
    const [shown] = await versionsOf(services, silk, 'limits');
    expect(shown.borrowedFrom?.name).toBe('Heron / Lantern Gloss 150 / standard');
    expect(shown.stale?.act).toEqual({ borrow: gloss });
    await borrowCalibration(services, silk, gloss);
    expect((await versionsOf(services, silk, 'limits'))[0].stale).toBeNull();
    expect((await refusal(borrowCalibration(services, silk, silk))).title).toContain('cannot lend');
  });

  it('gives its curves away and takes curves in, as new versions', async () => {
    const [head] = (await versionsOf(services, gloss, 'curves')).slice(-1);
    const csv = await exportCurves(services, head.id, 'csv', 21, []);
    expect(csv.name).toBe('Heron_Lantern_Gloss_150_standard_curves_v2.csv');
    const text = new TextDecoder().decode(csv.content);
    expect(text.split('\r\n')).toHaveLength(23);
    expect((await exportCurves(services, head.id, 'cgats', 256, ['K'])).name).toContain('_K.txt');
    expect((await exportCurves(services, head.id, 'link', 256, [])).content.length).toBeGreaterThan(4000);
    expect((await refusal(exportCurves(services, head.id, 'link', 256, ['C']))).field).toBe('channels');
    const { id } = await importCurves(services, gloss, 'own.csv', text);
    const { summary } = await storedResult(services, id, CURVES);
    expect(summary.imported).toBe('own.csv');
    expect((await refusal(importCurves(services, gloss, 'x.csv', 'input,Q\n0,0\n100,90'))).title).toContain(
      'no curve of C, M, Y, K',
    );
    expect((await refusal(importCurves(services, gloss, 'x.csv', 'input,C\n0,0\n100,400'))).title).toContain(
      'line 3',
    );
    // The balance stood on the curves before.
    expect((await listStaleHeads(services.database, gloss)).map(({ link }) => link)).toContain('balance');
    await putInForce(services, head.id);
  });

  it('is read by the sheet reader and the spot reader, and from a file', async () => {
    const reading = await printAndRead(gloss, { reader: 'sheet', steps: 11 });
    expect((await readingView(services, reading)).instrument).toBe('Sheet reader 1');
    expect(
      (
        await readingView(
          services,
          await printAndRead(gloss, { reader: 'spot', steps: 5, copies: 1, order: 'in order' }),
        )
      ).instrument,
    ).toBe('Spot reader 1');
    const { set } = await loadReading(services, reading);
    const { id } = await createPressChart(services, gloss, {
      kind: 'ramps',
      paper: 'a4',
      reader: 'strip',
      steps: 11,
      copies: 2,
      order: 'scrambled',
    });
    const { sheets } = await printChart(services, id, { ticks: TICKS });
    const imported = await importReading(services, sheets[0], writeCgats(patchSetToCgats(set)));
    expect((await readingView(services, imported.readingId)).source).toBe('file');
  });

  it('is checked by a strip of colours through profile and curves, and by no aims of CMYK', async () => {
    const [head] = (await versionsOf(services, gloss, 'profile')).slice(-1);
    const { sheets } = await printShortCheck(services, gloss, head.id, { ticks: TICKS, paper: 'a4' });
    await advanceClock(services, 3 * HOURS);
    const { readingId, resultId } = await readSheets(services, sheets);
    const { detail, row } = await storedResult(services, resultId ?? 0, SHORT_CHECK);
    expect(row.verdict).toBe('conforms');
    expect(detail.check.reached.mean).toBeLessThan(1.5);
    expect(detail.check.repeats.mean).toBeLessThan(1.2);
    expect(detail.check.patches[0].device).toHaveLength(4);
    expect((await judgeableReadings(services, gloss)).readings.map(({ id }) => id)).not.toContain(readingId);
  });

  it('leaves as files that any program reads, each under a name of its own', async () => {
    const files = new Map<string, Uint8Array>();
    for await (const { path, content } of openFiles(services)) {
      expect(files.has(path), path).toBe(false);
      expect(path).toMatch(/^[\w./-]+$/);
      files.set(path, content);
    }
    const ending = (what: RegExp): [string, Uint8Array][] => [...files].filter(([path]) => what.test(path));
    const words = (bytes: Uint8Array): string => Buffer.from(bytes).toString('utf8');
    const readings = ending(/^conditions\/.*\/readings\/.*\.txt$/);
    expect(readings.length).toBeGreaterThan(5);
    for (const [, content] of readings) expect(unwrap(readPatchSet(words(content))).spectra).toBeDefined();
    const profiles = ending(/results\/profile_.*\.icc$/);
    expect(profiles).not.toHaveLength(0);
    for (const [, content] of profiles) expect(unwrap(readIcc(content)).header.colourSpace).toBe('CMYK');
    const curves = ending(/results\/(curves|balance)_.*\.csv$/);
    expect(curves.length).toBeGreaterThan(2);
    for (const [, content] of curves) expect(unwrap(curvesFromCsv(words(content))).curves.size).toBe(4);
    for (const [, content] of ending(/\.pdf$/)) expect(words(content.subarray(0, 5))).toBe('%PDF-');
    for (const [path, content] of ending(/\.json$/)) expect(JSON.parse(words(content)), path).toBeTruthy();
    const [{ results }] = await services.database.rows<{ results: number }>(
      'SELECT COUNT(*) AS results FROM result',
    );
    expect(ending(/results\/.*\.json$/)).toHaveLength(Number(results));
    expect(words(files.get('people.json') ?? new Uint8Array())).not.toMatch(/passphrase|digest|argon/i);
  });

  it('comes out the same when it is computed again, all but what is changed', async () => {
    const { database } = services;
    const kept: { readonly id: number; readonly detail: string }[] = [];
    const put = ({ id, detail }: { readonly id: number; readonly detail: string }): Promise<unknown> =>
      database.change('UPDATE result SET detail = ? WHERE id = ?', [detail, id]);
    // One number of the newest result of each kind.
    for (const [shape, part] of [
      ['limits', /"dmax":\d*(\.\d+)/],
      ['curves', /"largest":\d*(\.\d+)/],
      ['balance', /"predictedK":\[\d*(\.\d+)/],
      ['evenness', /"mean":\d*(\.\d+)/],
    ] as const) {
      const [row] = await database.rows<{ id: number; detail: string }>(
        'SELECT id, detail FROM result WHERE shape = ? AND summary NOT LIKE \'%imported":"%\' ORDER BY id DESC LIMIT 1',
        [shape],
      );
      const other = row.detail.replace(part, (all, number: string) => all.replace(number, '.123'));
      expect(other, shape).not.toBe(row.detail);
      await put({ id: row.id, detail: other });
      kept.push(row);
    }
    // Profiles are computed again in the way through the job.
    const shapes = ['limits', 'curves', 'balance', 'evenness', 'aim-check', 'short-check'];
    const results = await verifyHouse(services, () => {}, shapes);
    const apart = results.filter(({ outcome }) => outcome === 'differs');
    expect(apart.map(({ id }) => id).sort((a, b) => a - b)).toEqual(
      kept.map(({ id }) => id).sort((a, b) => a - b),
    );
    expect(apart.every(({ why }) => /^its \w+ differ$/.test(why))).toBe(true);
    for (const row of kept) await put(row);
    // Curves of a file follow from no reading.
    const left = results.filter(({ outcome }) => outcome === 'not computed again');
    expect(left.map(({ why }) => why)).toEqual(['they came from the file own.csv']);
    expect(results.filter(({ outcome }) => outcome === 'equal').length).toBeGreaterThan(3);
  });

  it('refuses what does not fit, in words', async () => {
    const near = (await readingsOf(services, gloss)).rows.find(({ purpose }) => purpose === 'near-neutral');
    expect(
      (await refusal(makeCurves(services, gloss, { readingId: near?.id ?? 0, measure: 'sctv' }))).title,
    ).toContain('another chart');
    expect(
      (await refusal(makeCurves(services, silk, { readingId: ramps, measure: 'sctv' }))).title,
    ).toContain('another condition');
    expect((await refusal(makeCurves(services, gloss, { readingId: ramps, measure: 'tvi' }))).field).toBe(
      'tvi',
    );
    const through = (await readingsOf(services, gloss)).rows.find(
      ({ purpose, curvesResultId, withdrawnMs }) =>
        purpose === 'ramps' && curvesResultId !== null && withdrawnMs === null,
    );
    expect((await refusal(proposeLimits(services, gloss, through?.id ?? 0))).title).toContain(
      'through curves',
    );
    for (const [change, field] of [
      [{ steps: 3 }, 'steps'],
      [{ copies: 0 }, 'copies'],
    ] as const)
      expect((await refusal(printAndRead(gloss, change))).field).toBe(field);
    await withdrawReading(services, ramps, true);
    expect(
      (await refusal(makeCurves(services, gloss, { readingId: ramps, measure: 'sctv' }))).title,
    ).toContain('withdrawn');
    expect((await listStaleHeads(services.database, gloss)).some(({ why }) => why === 'withdrawn')).toBe(
      true,
    );
  });
});
