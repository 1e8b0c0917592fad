import { judgeNow } from '../src/judging/judge.ts';
import { unitOfWork } from '../src/kernel/context.ts';
import { PROFILE } from '../src/ledger/kinds/profileKind.ts';
import { SHORT_CHECK } from '../src/ledger/kinds/shortCheckKind.ts';
import { storedResult } from '../src/ledger/storedResult.ts';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { claimJob, finishJob, heartbeat } from '@melto/store/jobs';
import { chartsOf, loadChart } from '../src/charts/chart.ts';
import { createChart } from '../src/profile/profilingChart.ts';
import { advanceClock } from '../src/simulated/advanceClock.ts';
import { domainNow } from '../src/kernel/clock.ts';
import { conditionChoices, createCondition, DEFAULT_POINTS } from '../src/house/newCondition.ts';
import { deskState, markStrip } from '../src/reading/desk.ts';
import { floor } from '../src/overview/floor.ts';
import { importReading } from '../src/reading/importReading.ts';
import { cancelJob, recentJobs } from '../src/kernel/jobs.ts';
import { discardSheet, rack } from '../src/charts/rack.ts';
import { printChart } from '../src/charts/printChart.ts';
import { Problem } from '../src/kernel/problem.ts';
import { buildProfile } from '../src/profile/buildProfile.ts';
import { profileSettings } from '../src/profile/profileSettings.ts';
import { requestProfile } from '../src/profile/requestProfile.ts';
import { putInForce, resultFile, versionsOf } from '../src/ledger/versions.ts';

import { loadReading } from '../src/reading/loadReading.ts';
import { readingsOf, readingView } from '../src/reading/readingView.ts';
import { withdrawReading } from '../src/watch/withdrawReading.ts';
import { search } from '../src/overview/search.ts';
import sharp from 'sharp';
import { samplePressProfile } from '@melto/core/icc/testing/samplePressProfile';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { sourceProfiles, takeSourceProfile } from '../src/charts/sourceProfiles.ts';
import { profileInForce } from '../src/ledger/inForce.ts';
import { printFile } from '../src/charts/chartPages.ts';
import { printJobCheck } from '../src/conformity/jobCheck.ts';
import type { JobMishap } from '../src/conformity/jobCheck.ts';
import { conformitySurface } from '../src/overview/proofSurfaces.ts';
import { printShortCheck } from '../src/conformity/shortChecks.ts';
import { checkReport } from '../src/conformity/checkReports.ts';
import { named } from '../src/testing/named.ts';
import { staleMarksAgree } from '../src/testing/staleMarksAgree.ts';
import { MEASURED_M1 } from '../src/testing/measuredAs.ts';
import { verifyHouse } from '../src/overview/verifyHouse.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';
import { calibrateTile, readStrip } from '../src/simulated/simulatedHand.ts';

const TICKS = DEFAULT_POINTS.filter(({ tickAtPrint }) => tickAtPrint).map(({ label }) => label);
const LONG = { lane: 'long' } as const;
const HOUR_MS = 3_600_000;

let services: TestServices;
let conditionId: number;
let sheets: readonly string[] = [];
let profileId = 0;

beforeAll(async () => {
  services = await openTestServices('melto_way');
});
afterEach(() => staleMarksAgree(services));
afterAll(() => services.database.close());

async function refusal(work: Promise<unknown>): Promise<Problem> {
  const error = await work.then(
    () => undefined,
    (thrown: unknown) => thrown,
  );
  if (!(error instanceof Problem)) throw new Error(`expected a refusal, found ${String(error)}`);
  return error;
}

async function readAll(code: string): Promise<void> {
  for (const { strip, measured } of (await deskState(services, code)).strips) {
    if (measured !== null) continue;
    const answer = await readStrip(services, code, { attempt: `${code}/${strip}`, strip, mode: 'M1' });
    expect(answer.ok).toBe(true);
    if (answer.ok && answer.complete) await judgeNow(services, answer.readingId);
  }
}

describe('from a blank stock to a proven profile', () => {
  it('makes a condition once, with colour management off in its record', async () => {
    const { devices } = await conditionChoices(services);
    expect(devices.map(({ name }) => name)).toEqual([
      'Curlew',
      'Heron',
      'Osprey',
      'Redshank',
      'Tern',
      'Wren',
    ]);
    const wren = named(devices, 'Wren');
    const stock = wren.stocks.find(({ name }) => name === 'Quay Proof 200');
    const input = {
      deviceId: wren.id,
      stockId: stock?.id ?? 0,
      inkSet: wren.inkSet,
      mode: 'fine',
      points: DEFAULT_POINTS,
    };
    conditionId = (await createCondition(services, input)).id;
    expect((await refusal(createCondition(services, input))).type).toBe('conflict');
    expect((await refusal(createCondition(services, { ...input, mode: 'slow' }))).field).toBe('mode');
    expect((await refusal(createCondition(services, { ...input, points: [] }))).field).toBe('points');
    const state = await floor(services);
    expect(state.rows[0]).toMatchObject({ stock: 'Quay Proof 200', whatNow: { words: 'Print a chart' } });
  });

  it('prints a chart only when the settings are ticked; its sheets rest', async () => {
    const { id } = await createChart(services, conditionId, { patches: 300, paper: 'a4' });
    expect((await refusal(printChart(services, id, { ticks: [] }))).title).toContain('Colour management off');
    expect((await refusal(createChart(services, conditionId, { patches: 99, paper: 'a4' }))).field).toBe(
      'patches',
    );
    const printed = await printChart(services, id, { ticks: TICKS });
    sheets = printed.sheets;
    expect(sheets).toEqual(['WRN-0001-1']);
    expect((await rack(services)).slips[0].state).toBe('resting');
    expect((await floor(services)).rows[0].whatNow?.words).toBe('One sheet rests');
    await advanceClock(services, 2 * HOUR_MS);
    expect(await domainNow(services)).toBe(services.time.ms + 2 * HOUR_MS);
    expect((await rack(services)).slips[0].state).toBe('ready');
  });

  it('asks for the tile, says why a pass failed, turns a strip and tells strips apart', async () => {
    const [code] = sheets;
    const pass = (attempt: string, extra = {}): ReturnType<typeof readStrip> =>
      readStrip(services, code, { attempt, strip: 1, mode: 'M1', ...extra });
    expect(await pass('a')).toMatchObject({ ok: false, reason: 'tile-needed' });
    await calibrateTile(services);
    expect(await pass('b', { hand: 'too-fast' })).toMatchObject({ ok: false, reason: 'too-fast' });
    expect(await pass('c', { hand: 'other-strip' })).toMatchObject({
      ok: false,
      reason: 'other-strip',
      looksLike: 2,
    });
    expect((await deskState(services, code)).readingId).toBeNull();
    const turned = await pass('d', { hand: 'backwards' });
    expect(turned).toMatchObject({ ok: true, reversed: true });
    const forward = await pass('e');
    expect(forward).toMatchObject({ ok: true, reversed: false, complete: false });
    expect((await refusal(readStrip(services, code, { attempt: 'x', strip: 99, mode: 'M1' }))).field).toBe(
      'strip',
    );
  });

  it('stores a retried pass once and keeps the newest of several', async () => {
    const [code] = sheets;
    await Promise.all(
      [1, 2, 3].map(() => readStrip(services, code, { attempt: 'again', strip: 2, mode: 'M1' })),
    );
    const { readingId } = await deskState(services, code);
    const rows = await services.database.rows<{ passes: number }>(
      'SELECT COUNT(*) AS passes FROM strip_reading WHERE reading_id = ? AND strip = 2',
      [readingId],
    );
    expect(rows[0].passes).toBe(1);
    // Three passes averaged: the mean is in force, its spread is told, the passes are kept.
    for (const [i, attempt] of ['m1', 'm2', 'm3'].entries()) {
      const averageWith = ['m1', 'm2', 'm3'].slice(0, i);
      const answer = await readStrip(services, code, {
        attempt,
        strip: 2,
        mode: 'M1',
        averageWith,
        more: i < 2,
      });
      expect(
        answer.ok &&
          (i === 0 ? answer.spread === null : (answer.spread ?? 0) > 0.01 && (answer.spread ?? 1) < 0.4),
      ).toBe(true);
    }
    const kept = await services.database.rows<{ attempt: string }>(
      'SELECT attempt FROM strip_reading WHERE reading_id = ? AND strip = 2 ORDER BY id',
      [readingId],
    );
    expect(kept.map(({ attempt }) => attempt)).toEqual([
      'again',
      'm1',
      'm2',
      'mean of 2 m2',
      'm3',
      'mean of 3 m3',
    ]);
    expect(await markStrip(services, code, 5, true)).toEqual([5]);
    expect(await markStrip(services, code, 5, false)).toEqual([]);
  });

  it('completes the reading, finds no fault and shows what was read', async () => {
    await readAll(sheets[0]);
    const state = await deskState(services, sheets[0]);
    expect(state.strips.every(({ measured }) => measured !== null)).toBe(true);
    expect(state.faults).toEqual([]);
    const [reading] = (await readingsOf(services, conditionId)).rows;
    expect(reading.finishedMs).not.toBeNull();
    const view = await readingView(services, reading.id);
    expect(view.patches).toHaveLength(300);
    const { lab, xyz, set } = await loadReading(services, reading.id);
    const bands = set.spectra?.grid.count ?? 0;
    view.patches.forEach((patch, i) => {
      expect(patch.lab).toEqual([0, 1, 2].map((k) => expect.closeTo(lab[3 * i + k], 3) as number));
      expect(patch.xyz).toEqual([0, 1, 2].map((k) => expect.closeTo(xyz[3 * i + k], 3) as number));
      expect(patch.spectrum?.[bands - 1]).toBeCloseTo(set.spectra?.values[bands * (i + 1) - 1] ?? NaN, 4);
    });
    const darkest = Math.min(...view.patches.map(({ xyz: [, y] }) => y));
    expect(view.dmax).toBeCloseTo(-Math.log10(darkest / 100), 3);
    expect(view.dmax).toBeGreaterThan(1.6);
    expect(view.paper?.[0]).toBeGreaterThan(94);
    expect(view.repeatability?.mean).toBeLessThan(0.8);
    expect((await rack(services)).slips).toEqual([]);
    expect((await floor(services)).rows[0].whatNow?.words).toBe('Build the profile');
  });

  it('builds a profile as a job whose result needs the lease', async () => {
    const [reading] = (await readingsOf(services, conditionId)).rows;
    const choices = {
      readingId: reading.id,
      version: 4,
      tableSize: 'small',
      namePattern: '{device}_{stock}_{date}',
    } as const;
    const { jobId } = await requestProfile(services, conditionId, choices);
    const job = await claimJob(services.database, 'runner-1', services.time.ms, 1000, LONG);
    expect(job?.id).toBe(jobId);
    if (job === undefined) return;
    expect(await claimJob(services.database, 'runner-2', services.time.ms, 1000, LONG)).toBeUndefined();
    expect(await heartbeat(services.database, job, 0.5, 'half', services.time.ms + 1000)).toBe('kept');
    const words: string[] = [];
    const store = await buildProfile(services, { conditionId, choices }, (_, text) => words.push(text));
    expect(new Set(words).size).toBeGreaterThan(3);
    // Another runner takes over when the lease has run out; the first one can then store nothing.
    const second = await claimJob(services.database, 'runner-2', services.time.ms + 2000, 1000, LONG);
    expect(second?.id).toBe(jobId);
    expect(await heartbeat(services.database, job, 0.6, 'late', services.time.ms + 3000)).toBe('lost');
    await expect(
      unitOfWork(services, async (inner) => {
        await store(inner);
        if (!(await finishJob(inner.database, job, { state: 'done' }, 0)))
          throw new Error('the lease was lost');
      }),
    ).rejects.toThrow('lease');
    expect(await versionsOf(services, conditionId, 'profile')).toEqual([]);
    profileId = await unitOfWork(services, async (inner) => {
      const id = await store(inner);
      expect(
        second !== undefined &&
          (await finishJob(inner.database, second, { state: 'done', resultId: id }, services.time.ms)),
      ).toBe(true);
      return id;
    });
    const { summary } = await storedResult(services, profileId, PROFILE);
    expect(summary.name).toBe('Wren_QuayProof200_2026-03-14');
    expect(summary.mean).toBeLessThan(0.9);
    expect((await resultFile(services, profileId, 'profile')).content.length).toBe(summary.bytes);
    expect((await recentJobs(services)).find(({ id }) => id === jobId)?.state).toBe('done');
  });

  it('hands the settings out with it, and says what was not recorded', async () => {
    const { name, content } = await profileSettings(services, profileId);
    expect(name).toBe('Wren_QuayProof200_2026_03_14_settings.txt');
    const lines = Buffer.from(content).toString().split('\r\n');
    expect(lines[0]).toBe('Settings of Wren / Quay Proof 200 / fine');
    for (const line of [
      /^Profile +Wren_QuayProof200_2026-03-14\.icc, version 1, 2026-03-14/,
      /^Device +Wren, channels RGB$/,
      /^Colour management off +driver set to no colour adjustment$/,
      /^Media setting +not recorded$/,
      /^Scaling +100 %, no fit to page$/,
    ])
      expect(lines.filter((own) => line.test(own))).toHaveLength(1);
  });

  it('proves it by a short check', async () => {
    const printed = await printShortCheck(services, conditionId, profileId, { ticks: TICKS, paper: 'a4' });
    await advanceClock(services, 2 * HOUR_MS);
    await calibrateTile(services);
    const chart = await loadChart(services, (await chartsOf(services, conditionId)).rows[0].id);
    expect(chart.layout.pages).toHaveLength(1);
    expect(chart.layout.pages[0]).toHaveLength(1);
    await readAll(printed.sheets[0]);
    const [version] = await versionsOf(services, conditionId, 'conformity');
    const { summary, detail } = await storedResult(services, version.id, SHORT_CHECK);
    expect(version.verdict).toBe('conforms');
    expect(summary.mean).toBeLessThan(1.5);
    expect(summary.repeats).toBeLessThan(1.2);
    expect(detail.check.inGamutShare).toBeGreaterThan(0.8);
    const html = Buffer.from((await checkReport(services, version.id, 'html')).content).toString();
    expect(html).toContain('<span>conforms');
    expect(html).toContain(printed.sheets[0]);
    expect((await deskState(services, printed.sheets[0])).resultId).toBe(version.id);
    expect((await floor(services)).rows[0]).toMatchObject({ whatNow: null, check: { verdict: 'conforms' } });
  });

  it('judges a short check by limits of the house’s own, chosen when it is printed', async () => {
    const limits = { mean: 0.1, largest: 12 };
    const print = { ticks: TICKS, paper: 'a4', limits } as const;
    const { sheets: codes } = await printShortCheck(services, conditionId, profileId, print);
    await advanceClock(services, 2 * HOUR_MS);
    await calibrateTile(services);
    await readAll(codes[0]);
    const version = (await versionsOf(services, conditionId, 'conformity')).at(-1);
    const { detail } = await storedResult(services, version?.id ?? 0, SHORT_CHECK);
    expect(detail.check.limits).toEqual({ name: 'Own limits', ...limits });
    expect(detail.check.metrics.map(({ verdict }) => verdict)).toEqual(['does-not-conform', 'conforms']);
    const wrong = { ...print, limits: { mean: 3, largest: 2.9 } };
    expect((await refusal(printShortCheck(services, conditionId, profileId, wrong))).field).toBe('limits');
    // Later tests go on from the check that conforms.
    const first = (await versionsOf(services, conditionId, 'conformity'))[0];
    await putInForce(services, first.id);
  });

  it('comes out the same when it is computed again, and what was changed since is named', async () => {
    const outcomes = async (): Promise<string[]> =>
      (await verifyHouse(services)).map(({ what, outcome, why }) => `${what.split(',')[0]} ${outcome}${why}`);
    const before = await outcomes();
    expect(before).toContain('profile equal');
    expect(before).toContain('short check equal');
    expect(before.filter((words) => words.includes('differs'))).toEqual([]);
    const { database } = services;
    const flip =
      "UPDATE file f JOIN result_file rf ON rf.file_id = f.id SET f.content = INSERT(f.content, 2001, 1, CHAR(ASCII(SUBSTRING(f.content, 2001, 1)) ^ 1)) WHERE rf.role = 'profile'";
    const [check] = await database.rows<{ id: number; detail: string }>(
      "SELECT id, detail FROM result WHERE shape = 'short-check' ORDER BY id LIMIT 1",
    );
    const stored = (detail: string): Promise<unknown> =>
      database.change('UPDATE result SET detail = ? WHERE id = ?', [detail, check.id]);
    await database.change(flip);
    await stored(check.detail.replace('"mean":', '"mean":1'));
    const after = await outcomes();
    expect(after.some((words) => words === 'profile differsits file differs from byte 2000 on')).toBe(true);
    expect(after.some((words) => /^short check differsits \w+ differ$/.test(words))).toBe(true);
    await stored('{"check":{}}');
    expect((await outcomes()).some((words) => words.startsWith('short check differsdetail of result'))).toBe(
      true,
    );
    await database.change(flip);
    await stored(check.detail);
    expect(await outcomes()).toEqual(before);
  });

  it('finds out by a picture how jobs are converted', async () => {
    expect((await conformitySurface(services, conditionId, NaN)).jobCheck).toBeUndefined();
    const job = async (happens?: JobMishap, sourceId?: number): Promise<string> => {
      const printed = await printJobCheck(services, conditionId, {
        ...{ intent: 'relative-black', paper: 'a4', reader: 'strip', happens, sourceId },
      });
      await advanceClock(services, 2 * HOUR_MS);
      await calibrateTile(services);
      return printed.sheets[0];
    };
    const right = await job();
    expect((await conformitySurface(services, conditionId, NaN)).waitingJobs).toEqual([
      { code: right, job: 'RGB' },
    ]);
    // The picture says that it is sRGB and holds its values, as a PDF does.
    const png = await printFile(services, right, 'png');
    const { icc, space } = await sharp(png.content).metadata();
    expect([space, icc?.subarray(36, 40).toString()]).toEqual(['srgb', 'acsp']);
    const { data } = await sharp(png.content).removeAlpha().raw().toBuffer({ resolveWithObject: true });
    const colours = new Set<number>();
    for (let i = 0; i < data.length; i += 3) colours.add((data[i] << 16) | (data[i + 1] << 8) | data[i + 2]);
    for (const level of [85, 170]) expect(colours).toContain((level << 16) | (0 << 8) | 255);
    expect(Buffer.from((await printFile(services, right, 'pdf')).content).toString('latin1')).toContain(
      'ICCBased',
    );
    await readAll(right);
    const found = async (): Promise<unknown> =>
      (await conformitySurface(services, conditionId, NaN)).jobCheck?.finding.cause;
    expect(await found()).toBe('right');
    for (const mishap of ['no-profile', 'twice'] as const) {
      await readAll(await job(mishap));
      expect(await found()).toBe(mishap);
    }
    // A job of inks is meant by a profile that is taken once, and carried by its files.
    const { profile } = (await profileInForce(services, conditionId)) ?? {};
    if (profile === undefined) throw new Error('no profile in force');
    expect((await refusal(takeSourceProfile(services, 'own.icc', writeIcc(profile)))).title).toContain('RGB');
    expect((await refusal(takeSourceProfile(services, 'x.icc', new Uint8Array(99)))).title).toContain(
      'x.icc',
    );
    const inks = writeIcc(samplePressProfile('Inks of a test'));
    const taken = await Promise.all(
      Array.from({ length: 8 }, () => takeSourceProfile(services, 'inks.icc', inks)),
    );
    expect(new Set(taken.map(({ id }) => id)).size).toBe(1);
    expect(await sourceProfiles(services)).toEqual([{ id: taken[0].id, name: 'Inks of a test' }]);
    const ofInks = await job('no-profile', taken[0].id);
    expect((await conformitySurface(services, conditionId, NaN)).waitingJobs.map((one) => one.job)).toEqual([
      'CMYK',
    ]);
    const tiff = await sharp((await printFile(services, ofInks, 'tiff')).content).metadata();
    expect([tiff.space, Buffer.compare(tiff.icc ?? Buffer.alloc(0), Buffer.from(inks))]).toEqual(['cmyk', 0]);
    expect((await refusal(printFile(services, ofInks, 'png'))).field).toBe('format');
    await readAll(ofInks);
    expect((await conformitySurface(services, conditionId, NaN)).jobCheck).toMatchObject({
      ...{ source: 'Inks of a test', finding: { cause: 'no-profile' } },
    });
    expect((await refusal(job('right', 99))).title).toContain('source profile 99');
    // It is no fault of the sheet, and no check.
    const [{ id }] = (await readingsOf(services, conditionId)).rows;
    expect((await readingView(services, id)).faults).toEqual([]);
    expect(await versionsOf(services, conditionId, 'conformity')).toHaveLength(2);
  });

  it('marks a profile stale when its reading is withdrawn, and current again', async () => {
    const reading = (await readingsOf(services, conditionId)).rows.find(
      ({ purpose }) => purpose === 'profile',
    );
    await withdrawReading(services, reading?.id ?? 0, true);
    expect((await versionsOf(services, conditionId, 'profile'))[0].stale?.words).toBe(
      'Its reading was withdrawn.',
    );
    expect((await floor(services)).rows[0].links[0].state).toBe('stale');
    await withdrawReading(services, reading?.id ?? 0, false);
    expect((await versionsOf(services, conditionId, 'profile'))[0].stale).toBeNull();
  });

  it('marks a profile stale when a strip of its reading is read again, until another is built', async () => {
    await advanceClock(services, 1000);
    expect((await readStrip(services, sheets[0], { attempt: 'later', strip: 3, mode: 'M1' })).ok).toBe(true);
    expect((await versionsOf(services, conditionId, 'profile'))[0].stale?.words).toContain('read again');
    const [reading] = (await readingsOf(services, conditionId)).rows.filter(
      ({ purpose }) => purpose === 'profile',
    );
    const choices = { readingId: reading.id, version: 2, tableSize: 'small', namePattern: 'again' } as const;
    const store = await buildProfile(services, { conditionId, choices }, () => {});
    await unitOfWork(services, store);
    const [first, second] = await versionsOf(services, conditionId, 'profile');
    expect([first.inForce, second.inForce, second.stale]).toEqual([false, true, null]);
    // The check was made of the earlier version.
    expect((await versionsOf(services, conditionId, 'conformity'))[0].stale?.words).toContain('not in force');
    await putInForce(services, first.id);
    // In force again, but what it was made from has changed.
    expect((await versionsOf(services, conditionId, 'conformity'))[0].stale?.words).toContain('read again');
  });

  it('takes a file in place of reading, with all its values, and names what does not fit', async () => {
    const { id } = await createChart(services, conditionId, { patches: 100, paper: 'letter' });
    const { sheets: codes } = await printChart(services, id, { ticks: TICKS });
    const [first] = (await readingsOf(services, conditionId)).rows.filter(
      ({ purpose }) => purpose === 'profile',
    );
    const loaded = await loadReading(services, first.id);
    expect(
      (await refusal(importReading(services, codes[0], writeCgats(patchSetToCgats(loaded.set))))).title,
    ).toMatch(/Only \d+ of the file’s \d+ rows are patches of this chart/);
    expect((await refusal(importReading(services, codes[0], 'no file at all'))).title).toContain(
      'cannot be used',
    );
    const chart = await loadChart(services, id);
    const lab = new Float64Array(300).map((_, i) => (i % 3 === 0 ? 20 + (i % 70) : 5));
    const imported = await importReading(
      services,
      codes[0],
      writeCgats(patchSetToCgats({ ...chart.set, lab, conditions: { ...MEASURED_M1, mode: 'M2' } })),
    );
    const view = await readingView(services, imported.readingId);
    expect(view.mode).toBe('M2');
    expect(view.patches[40].lab[0]).toBeCloseTo(lab[120], 3);
    expect(view.source).toBe('file');
    // White, as Lab: the mean of the patches that are to be bare.
    expect(view.paper).toHaveLength(3);
    expect(view.paper?.every(Number.isFinite)).toBe(true);
  });

  it('sees colour management left on and names it on the floor', async () => {
    const { devices } = await conditionChoices(services);
    const wren = named(devices, 'Wren');
    const stock = wren.stocks.find(({ name }) => name === 'Chalk Rag 310');
    const other = await createCondition(services, {
      deviceId: wren.id,
      stockId: stock?.id ?? 0,
      inkSet: 'Pigment four',
      mode: 'fine',
      points: DEFAULT_POINTS,
    });
    const { id } = await createChart(services, other.id, { patches: 150, paper: 'a4' });
    const printed = await printChart(services, id, { ticks: TICKS, conversion: 'office relative' });
    // Read before its rest: recorded, and said.
    await readAll(printed.sheets[0]);
    const kinds = (await deskState(services, printed.sheets[0])).faults.map(({ kind }) => kind);
    expect(kinds).toContain('colour-management-on');
    expect(kinds).toContain('read-early');
    const row = (await floor(services)).rows.find((candidate) => candidate.id === other.id);
    expect(row?.whatNow?.words).toBe('Print again: colour management was on');
  });

  it('throws a sheet away and takes it back, cancels a job, puts a version in force, finds things', async () => {
    const [chart] = (await chartsOf(services, conditionId)).rows;
    const profile = (await versionsOf(services, conditionId, 'profile'))[0];
    await putInForce(services, profile.id);
    const { sheets: codes } = await printChart(
      services,
      (await createChart(services, chart.conditionId, { patches: 100, paper: 'a4' })).id,
      { ticks: TICKS },
    );
    await discardSheet(services, codes[0], false);
    expect((await rack(services)).slips.map(({ code }) => code)).not.toContain(codes[0]);
    await discardSheet(services, codes[0], true);
    expect((await rack(services)).slips.map(({ code }) => code)).toContain(codes[0]);
    const reading = (await readingsOf(services, conditionId)).rows.find(
      ({ purpose, finishedMs }) => purpose === 'profile' && finishedMs !== null,
    );
    const { jobId } = await requestProfile(services, conditionId, {
      readingId: reading?.id ?? 0,
      version: 2,
      tableSize: 'small',
      namePattern: 'x',
    });
    await cancelJob(services, jobId);
    expect((await recentJobs(services)).find(({ id }) => id === jobId)?.state).toBe('cancelled');
    expect(await claimJob(services.database, 'r', services.time.ms, 1000, LONG)).toBeUndefined();
    expect((await search(services, 'quay fine')).map(({ kind }) => kind)).toContain('condition');
    expect((await search(services, 'WRN-0001')).map(({ kind }) => kind)).toEqual(
      expect.arrayContaining(['sheet', 'reading']),
    );
    expect((await refusal(deskState(services, 'NONE'))).type).toBe('not-found');
  });
});
