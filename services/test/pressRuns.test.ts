import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { USUAL_SETTINGS, USUAL_TOLERANCES } from '@melto/core/press/runSettings';
import type { IncomingSheet } from '@melto/core/press/incomingSheet';
import { runAnalysis, outsideReadings } from '../src/press/analysis.ts';
import { changeSettings, markOkSheet, noteMoves, setPhase } from '../src/press/atThePress.ts';
import { barFile } from '../src/press/barFile.ts';
import { counterOf, readFeedFolders } from '../src/press/feedFolders.ts';
import { createFeed, deliver, feeds, removeFeed, setFeedRun, takeWaiting } from '../src/press/feeds.ts';
import { runReport } from '../src/press/runReport.ts';
import { createRun, editionsOf, runOf, runs } from '../src/press/runs.ts';
import type { NewRun } from '../src/press/runs.ts';
import { runView } from '../src/press/runView.ts';
import { takeSheetFile } from '../src/press/sheetFile.ts';
import { takeSheet } from '../src/press/sheets.ts';
import { pullSheet } from '../src/simulated/pressHand.ts';
import { ospreyOn } from '../src/testing/ospreyOn.ts';
import { refusal } from '../src/testing/refusal.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';
import { takeColourList } from '../src/lists/colourLists.ts';

let services: TestServices;
let conditionId: number;
let aimSetId: number;

beforeAll(async () => {
  services = await openTestServices('melto_press_runs');
  ({ conditionId, aimSetId } = await ospreyOn(services, 'Lantern Gloss 150'));
});
afterAll(() => services.database.close());

const asked = (change: Partial<NewRun> = {}): NewRun => ({
  ...{ conditionId, aimSetId, jobNumber: '4711', title: 'Seed catalogue', customer: 'Saltmarsh Seeds' },
  ...{ side: 'front', quantity: 4000, inks: ['K', 'C', 'M', 'Y'], zones: 12, zoneMm: 32, patchMm: 5 },
  settings: USUAL_SETTINGS,
  ...change,
});

/** What the simulated instrument would deliver of a sheet. */
async function scanOf(runId: number, impression: number): Promise<IncomingSheet> {
  const { simulated, plan } = await runOf(services, runId);
  const read = services.press?.read({
    simulated: simulated ?? '',
    bar: plan.bar,
    moves: [],
    impression,
    mode: 'M1',
  });
  if (read === undefined) throw new Error('no simulated press');
  return read;
}

/** What some work is refused with, in one text. */
const said = async (work: Promise<unknown>): Promise<string> => {
  const { title, detail } = await refusal(work);
  return `${title} ${detail}`;
};

describe('a run', () => {
  it('is found again by what it is known by, and starts another', async () => {
    const { id } = await createRun(services, asked());
    const { id: second } = await createRun(
      services,
      asked({ jobNumber: '4712', title: 'Tide tables', fromRunId: id }),
    );
    expect((await runOf(services, second)).fromRunId).toBe(id);
    const found = async (find: string): Promise<number[]> =>
      (await runs(services, { find })).rows.map((row) => row.id);
    expect(await found('4712')).toEqual([second]);
    expect(await found('tide')).toEqual([second]);
    expect(await found('Seeds')).toEqual([second, id]);
    expect(await found('osprey')).toEqual([second, id]);
    expect(await found('%')).toEqual([]);
    expect((await runs(services, { after: second })).rows.map((row) => row.id)).toEqual([id]);
  });

  it('is refused without what it needs', async () => {
    expect(await said(createRun(services, asked({ inks: [] })))).toContain('1 to 8 units');
    expect(await said(createRun(services, asked({ inks: ['C', 'C'] })))).toContain('C stands in two units');
    expect(await said(createRun(services, asked({ inks: ['Marsh Green'] })))).toContain('of no colour list');
    expect(await said(createRun(services, asked({ zoneMm: 19 })))).toContain('room for the 4 solids');
    expect(await said(createRun(services, asked({ jobNumber: ' ' })))).toContain('no name');
    const byDensity = { ...USUAL_SETTINGS, guide: 'density', densities: { K: 1.7, C: 1.4, M: 1.4 } } as const;
    expect(await said(createRun(services, asked({ settings: byDensity })))).toContain(
      'No density is told for Y',
    );
    expect(await said(createRun(services, asked({ fromRunId: 99_999 })))).toContain('no run 99999');
  });

  it('carries spot colours with the aims of their list', async () => {
    const { id: listId } = await takeColourList(
      services,
      { name: 'House colours' },
      { name: 'house.csv', text: 'name,L,a,b\nMarsh Green,50,-45,0\nHull Grey,60,1,-2' },
    );
    expect(await said(createRun(services, asked({ inks: ['Tar'], listId })))).toContain(
      'Tar is not in this list',
    );
    const { id } = await createRun(services, asked({ inks: ['K', 'Marsh Green', 'Hull Grey'], listId }));
    const { plan, simulated } = await runOf(services, id);
    // No simulated press prints them.
    expect(simulated).toBeNull();
    expect(plan.units).toEqual([
      { ink: 'K', filter: 'visual' },
      { ink: 'Marsh Green', filter: 'red' },
      { ink: 'Hull Grey', filter: 'visual' },
    ]);
    const green = plan.bar.patches.findIndex(({ kind, tones }) => kind === 'solid' && tones[1] > 0);
    expect([...plan.aims.lab.subarray(3 * green, 3 * green + 3)]).toEqual([50, -45, 0]);
    const pdf = Buffer.from((await barFile(services, id)).content).toString('latin1');
    expect(pdf).toContain('/DeviceN');
    expect(pdf).toContain('/Marsh#20Green');
  });
});

describe('at the press', () => {
  it('goes from a first sheet by moves to an OK sheet, production and its analysis', async () => {
    const { id } = await createRun(services, asked());
    expect((await runView(services, id)).lines.map(({ word }) => word)).toEqual([
      'read',
      'read',
      'read',
      'read',
    ]);
    let impression = 200;
    for (let sheet = 0; sheet < 6; sheet++) {
      await pullSheet(services, id, impression);
      const { lines } = await runView(services, id);
      const moves = lines
        .filter(({ word }) => word === 'move')
        .map(({ unit, changes }) => ({ unit, changes }));
      if (moves.length === 0) break;
      await noteMoves(services, id, { impression, moves });
      const waiting = (await runView(services, id)).lines.filter(({ unit }) =>
        moves.some((move) => move.unit === unit),
      );
      expect(new Set(waiting.map(({ word, from }) => `${word} ${from}`))).toEqual(
        new Set([`wait ${impression + 150}`]),
      );
      impression += 160;
    }
    const settled = await runView(services, id);
    expect(settled.lines.every(({ word }) => word === 'leave')).toBe(true);
    // What the sensor missed comes with another look at the same sheet, until nothing is open.
    const sheet = await scanOf(id, 90);
    await takeSheet(services, id, { ...sheet, patches: sheet.patches.slice(0, 30) });
    expect(await said(markOkSheet(services, id, { impression: 90, lock: true }))).toMatch(
      /^4\d patches of this sheet are open/,
    );
    expect(await said(markOkSheet(services, id, { impression: 91, lock: true }))).toContain(
      'No sheet was read at impression 91',
    );
    const plan = (await runOf(services, id)).plan;
    const whole = plan.bar.patches.map(
      (_, at) =>
        sheet.patches.find(({ patch }) => patch === at + 1) ?? { ...sheet.patches[0], patch: at + 1 },
    );
    expect(await takeSheet(services, id, { ...sheet, patches: whole })).toMatchObject({
      completed: true,
      open: 0,
    });
    await markOkSheet(services, id, { impression: 90, lock: true });
    // Sheets keep the verdict of then, also where they are drawn.
    for (const { zonesOutside, outside } of (await runView(services, id)).strips)
      expect(zonesOutside.reduce((sum, count) => sum + count, 0)).toBe(outside);
    const { okImpression } = await runOf(services, id);
    expect(okImpression).toBe(90);
    await setPhase(services, id, { phase: 'production', from: impression + 100 });
    for (let at = 1; at <= 3; at++) await pullSheet(services, id, impression + 100 * at);
    const analysis = await runAnalysis(services, id, { scope: 'run', phase: 'production' });
    expect(analysis).toMatchObject({ sheets: 3, runs: 1, zones: 12 });
    expect(analysis.variation.map(({ ink }) => ink)).toEqual(['K', 'C', 'M', 'Y']);
    expect(analysis.rows.find(({ key }) => key === 'solid K')?.zones).toHaveLength(12);
    const row = (await runAnalysis(services, id, { scope: 'run' })).rows.find(
      ({ share }) => (share?.share ?? 1) < 1,
    );
    const outside = await outsideReadings(services, id, { key: row?.key ?? '' });
    expect(outside).toHaveLength((row?.share?.of ?? 0) - (row?.share?.within ?? 0));
    // This OK sheet was taken before the moves.
    expect(analysis.variation.some(({ kept }) => !kept)).toBe(true);
    const page = Buffer.from(
      (await runReport(services, id, { scope: 'run', format: 'html' })).content,
    ).toString();
    for (const words of [
      'Varies from its OK sheet',
      'Saltmarsh Seeds',
      'Osprey / Lantern Gloss 150',
      'K solid, ΔE',
    ])
      expect(page).toContain(words);
    const pdf = await runReport(services, id, { scope: 'job', phase: 'production', format: 'pdf' });
    expect(Buffer.from(pdf.content.subarray(0, 5)).toString()).toBe('%PDF-');
    expect(pdf.name).toBe('run_4711_Seed_catalogue.pdf');
    await setPhase(services, id, { phase: 'finished' });
    expect(await said(pullSheet(services, id, 5000))).toContain('finished');
    expect(
      await said(
        noteMoves(services, id, {
          impression: 5000,
          moves: [{ unit: 0, changes: new Array<number>(12).fill(0.1) }],
        }),
      ),
    ).toContain('finished');
  });

  it('judges all sheets again by other tolerances', async () => {
    const { id } = await createRun(services, asked());
    await pullSheet(services, id, 200);
    const before = (await runView(services, id)).strips[0].outside;
    const wide = {
      ...USUAL_TOLERANCES['ΔE00'],
      solids: 60,
      blackSolid: 60,
      overprints: 60,
      greys: 60,
      tone: 60,
      paper: 60,
    };
    const bare = Buffer.from(
      (await runReport(services, id, { scope: 'run', format: 'html' })).content,
    ).toString();
    expect(bare).toContain('No OK sheet was marked');
    await changeSettings(services, id, { ...USUAL_SETTINGS, tolerances: wide });
    expect(before).toBeGreaterThan(0);
    expect((await runView(services, id)).strips[0].outside).toBe(0);
  });

  it('refuses moves that are none, and the same one twice', async () => {
    const { id } = await createRun(services, asked());
    const move = (changes: number[], unit = 0) =>
      noteMoves(services, id, { impression: 100, moves: [{ unit, changes }] });
    const tenth = new Array<number>(12).fill(0.1);
    expect(await said(move(tenth.slice(1)))).toContain('12 zones');
    expect(await said(move(tenth, 4))).toContain('12 zones');
    expect(await said(move(tenth.map(() => 0)))).toContain('changes a zone');
    expect(await said(move(tenth.map(() => 1.01)))).toContain('changes a zone');
    await move(tenth.map(() => 1));
    expect(await said(move(tenth))).toContain('was moved at impression 100 already');
  });

  it('takes a file of measurements, whichever way round the sheet lay', async () => {
    const { id } = await createRun(services, asked());
    const scan = await scanOf(id, 300);
    const { plan } = await runOf(services, id);
    const rows = [...scan.patches].reverse();
    const file = cgatsOf({ ...scan, patches: rows });
    const taken = await takeSheetFile(services, id, file, { impression: 300 });
    expect(taken).toMatchObject({ turned: true, surplus: 0, open: plan.bar.patches.length - rows.length });
    const view = await runView(services, id);
    const direct = await createRun(services, asked());
    await takeSheet(services, direct.id, scan);
    const numbered = await runView(services, direct.id);
    expect(view.patches.map(({ lab }) => lab?.[0].toFixed(1))).toEqual(
      numbered.patches.map(({ lab }) => lab?.[0].toFixed(1)),
    );
    expect(
      await said(takeSheetFile(services, id, file.replace('"M1"', '"M0"'), { impression: 301 })),
    ).toContain('this run goes by M1');
    const untold = file.replace('MEASUREMENT_CONDITION "M1"\n', '');
    expect(await said(takeSheetFile(services, id, untold, { impression: 301 }))).toContain(
      'does not tell its measurement mode',
    );
    expect(await takeSheetFile(services, id, untold, { impression: 301, modeTold: true })).toMatchObject({
      impression: 301,
    });
  });

  it('of two who note a move at once keeps one, and of two halves of a sheet both', async () => {
    const { id } = await createRun(services, asked());
    const changes = new Array<number>(12).fill(0.05);
    const both = await Promise.allSettled(
      [0, 1].map(() => noteMoves(services, id, { impression: 200, moves: [{ unit: 1, changes }] })),
    );
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    const scan = await scanOf(id, 400);
    const halves = [scan.patches.slice(0, 40), scan.patches.slice(40)];
    await Promise.all(halves.map((patches) => takeSheet(services, id, { ...scan, patches })));
    const { plan } = await runOf(services, id);
    const [strip] = (await runView(services, id)).strips;
    expect(strip.openPatches).toBe(plan.bar.patches.length - scan.patches.length);
  });
});

describe('a feed', () => {
  it('keeps what comes before it has a run, knows it again, and restores the order', async () => {
    const { id } = await createRun(services, asked());
    expect(await said(createFeed(services, { name: 'Folder', kind: 'folder', byItself: true }))).toContain(
      'folder is not told',
    );
    const { id: feedId } = await createFeed(services, {
      name: 'Over the sheet',
      kind: 'sensor',
      byItself: true,
    });
    const first = { key: 'a', ...(await scanOf(id, 500)) };
    expect(await deliver(services, feedId, first)).toEqual({ state: 'waiting' });
    expect(await deliver(services, feedId, first)).toEqual({ state: 'again' });
    expect(await said(deliver(services, feedId, { ...first, impression: 501 }))).toContain(
      'has come before with other values',
    );
    expect((await feeds(services))[0]).toMatchObject({ waiting: 1, runId: null });
    expect(await said(takeWaiting(services, feedId))).toContain('reads no run');
    await setFeedRun(services, feedId, { runId: id, byItself: true });
    expect((await feeds(services))[0]).toMatchObject({ waiting: 0, runId: id });
    // Out of order, and the same twice at once.
    const later = { key: 'c', ...(await scanOf(id, 700)) };
    const between = { key: 'b', ...(await scanOf(id, 600)) };
    const states = await Promise.all([later, between, later].map((one) => deliver(services, feedId, one)));
    expect(states.map(({ state }) => state).sort()).toEqual(['again', 'taken', 'taken']);
    expect((await runView(services, id)).strips.map(({ impression }) => impression)).toEqual([500, 600, 700]);
    const edition = (await editionsOf(services, [id])).get(id);
    await deliver(services, feedId, between);
    expect((await editionsOf(services, [id])).get(id)).toBe(edition);
  });

  it('by hand waits until it is taken in, and says what the run refuses', async () => {
    const { id } = await createRun(services, asked());
    const { id: feedId } = await createFeed(services, { name: 'By hand', kind: 'sensor', byItself: false });
    await setFeedRun(services, feedId, { runId: id, byItself: false });
    await deliver(services, feedId, { key: '1', ...(await scanOf(id, 10)) });
    await deliver(services, feedId, {
      key: '2',
      impression: 11,
      patches: [{ patch: 900, density: [1, 1, 1, 1] }],
    });
    expect((await runView(services, id)).strips).toEqual([]);
    expect(await takeWaiting(services, feedId)).toEqual({ taken: 1, refused: 1 });
    expect((await runView(services, id)).strips).toHaveLength(1);
    // Taken in by itself such a delivery is refused at once, and nothing of it stays.
    await setFeedRun(services, feedId, { runId: id, byItself: true });
    const bad = { key: '3', impression: 12, patches: [{ patch: 900, density: [1, 1, 1, 1] }] };
    expect(await said(deliver(services, feedId, bad))).toContain('expected 1 to 72');
    expect(
      await deliver(services, feedId, { ...bad, patches: [{ patch: 1, density: [1, 1, 1, 1] }] }),
    ).toMatchObject({ state: 'taken' });
    await removeFeed(services, feedId, true);
    expect(await said(deliver(services, feedId, bad))).toContain(`no feed ${feedId}`);
    await removeFeed(services, feedId, false);
    expect((await feeds(services)).map(({ name }) => name)).toContain('By hand');
  });

  it('looks through a folder for whole files, takes each once, and says what it cannot take', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'melto-feed-'));
    const { id } = await createRun(services, asked());
    const { id: feedId } = await createFeed(services, {
      name: 'Folder',
      kind: 'folder',
      folder,
      byItself: true,
    });
    const put = (name: string, text: string): Promise<void> => writeFile(join(folder, name), text);
    const seen = new Map<string, string>();
    const look = (aheadMs = 5000): Promise<number> => readFeedFolders(services, seen, Date.now() + aheadMs);
    const trouble = async (): Promise<string | null | undefined> =>
      (await feeds(services)).find((feed) => feed.id === feedId)?.trouble;
    await put('bar-000200.txt', cgatsOf(await scanOf(id, 200)));
    // It reads no run yet, then the file is still being written.
    expect(await look()).toBe(0);
    await setFeedRun(services, feedId, { runId: id, byItself: true });
    expect(await look(0)).toBe(0);
    expect(await look()).toBe(1);
    expect(await look()).toBe(0);
    expect((await runView(services, id)).strips.map(({ impression }) => impression)).toEqual([200]);
    // The same bytes again: nothing new, also for a runner that was started again.
    await put('copy of bar-000200.txt', cgatsOf(await scanOf(id, 200)));
    expect(await look()).toBe(0);
    expect(await readFeedFolders(services, new Map(), Date.now() + 5000)).toBe(0);
    await put('bar.txt', cgatsOf(await scanOf(id, 300)));
    await put('bar-000300.txt', 'no measurements');
    await put('notes.md', 'no file of measurements by its name');
    expect(await look()).toBe(0);
    expect(await trouble()).toContain('bar.txt: the name does not end with the counter');
    await rm(join(folder, 'bar.txt'));
    await put('bar-000300.txt', cgatsOf(await scanOf(id, 300)));
    expect(await look()).toBe(1);
    expect(await trouble()).toBeNull();
    await rm(folder, { recursive: true });
    await look();
    expect(await trouble()).toContain('There is no folder');
    expect([
      counterOf('bar-001250.txt'),
      counterOf('1250'),
      counterOf('a.b.7.csv'),
      counterOf('bar.txt'),
    ]).toEqual([1250, 1250, 7, undefined]);
  });
});

/** A scan as a file of measurements. */
function cgatsOf({ patches }: IncomingSheet): string {
  return [
    'CGATS.17',
    'MEASUREMENT_CONDITION "M1"',
    `NUMBER_OF_FIELDS 37\nBEGIN_DATA_FORMAT\nSAMPLE_ID ${Array.from({ length: 36 }, (_, i) => `SPECTRAL_NM${380 + 10 * i}`).join(' ')}\nEND_DATA_FORMAT`,
    `NUMBER_OF_SETS ${patches.length}\nBEGIN_DATA`,
    ...patches.map(
      ({ spectrum = [] }, i) => `${i + 1} ${spectrum.map((value) => value.toFixed(6)).join(' ')}`,
    ),
    'END_DATA',
  ].join('\n');
}
