import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { USUAL_SETTINGS } from '@melto/core/press/runSettings';
import { updateRun } from '@melto/store/pressRuns';
import { findSheet } from '@melto/store/pressSheets';
import { aimSets } from '../src/conformity/aimSets.ts';
import { changeHouse, ownHouse } from '../src/house/ownHouse.ts';
import { changeColourList, takeColourList } from '../src/lists/colourLists.ts';
import { openFiles } from '../src/overview/openFiles.ts';
import { publicReport } from '../src/overview/publicReport.ts';
import { changeSettings, markOkSheet } from '../src/press/atThePress.ts';
import { runAnalysis } from '../src/press/analysis.ts';
import { compareRuns } from '../src/press/compareRuns.ts';
import { createRun, runOf, runs } from '../src/press/runs.ts';
import { runView } from '../src/press/runView.ts';
import { endSharedRun, sharedRunCode, shareRun } from '../src/press/sharedRun.ts';
import { takeSheet } from '../src/press/sheets.ts';
import { pullSheet } from '../src/simulated/pressHand.ts';
import { ospreyOn } from '../src/testing/ospreyOn.ts';
import { refusal } from '../src/testing/refusal.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';

const HOUR = 3_600_000;
let services: TestServices;
let conditionId = 0;
let aimSetId = 0;
let first = 0;
let second = 0;

beforeAll(async () => {
  services = await openTestServices('melto_run_analyses');
  await changeHouse(services, { ...(await ownHouse(services)), timeZone: 'Europe/London' });
  services.time.ms = Date.parse('2026-01-14T12:00:00Z');
  ({ conditionId, aimSetId } = await ospreyOn(services, 'Lantern Gloss 150', 'cold set'));
  first = await begin('4711');
  second = await begin('4712');
  // Two sheets of each before the shift ends at 14:00, and one of the second after.
  for (const id of [first, second]) for (const at of [200, 260]) await pullSheet(services, id, at);
  services.time.ms += 2 * HOUR;
  await pullSheet(services, second, 320);
});
afterAll(() => services.database.close());

const begin = async (jobNumber: string): Promise<number> =>
  (
    await createRun(services, {
      ...{ conditionId, aimSetId, jobNumber, title: 'Tide tables', customer: '', side: '', quantity: 900 },
      ...{ inks: ['K', 'C', 'M', 'Y'], zones: 12, zoneMm: 32, patchMm: 5, settings: USUAL_SETTINGS },
    })
  ).id;
const page = async (code: string): Promise<string> =>
  Buffer.from((await publicReport(services, code, 'html')).content).toString();

describe('a shift', () => {
  it('puts together what its hours read of all runs of the press, its end left out', async () => {
    const late = await runAnalysis(services, second, { scope: 'shift' });
    expect(late).toMatchObject({ sheets: 1, runs: 1, shift: { words: '2026-01-14, 14:00 to 22:00' } });
    const atMs = (late.shift?.fromMs ?? 0) - 1;
    const early = await runAnalysis(services, second, { scope: 'shift', atMs });
    expect(early).toMatchObject({ sheets: 4, runs: 2, shift: { words: '2026-01-14, 06:00 to 14:00' } });
    expect(await runAnalysis(services, first, { scope: 'shift' })).toMatchObject({ sheets: 4, runs: 2 });
    const empty = await runAnalysis(services, first, {
      scope: 'shift',
      atMs: (late.shift?.toMs ?? 0) + HOUR,
    });
    expect(empty).toMatchObject({ sheets: 0, runs: 0, sheetShare: undefined });
  });

  it('follows the house where it begins them otherwise', async () => {
    const own = await ownHouse(services);
    await changeHouse(services, { ...own, shifts: '7:00, 15:00' });
    const whole = await runAnalysis(services, second, { scope: 'shift' });
    expect(whole).toMatchObject({ sheets: 5, shift: { words: '2026-01-14, 07:00 to 15:00' } });
    await changeHouse(services, own);
  });
});

describe('an analysis by other aims', () => {
  it('judges the same sheets anew: by the run’s own set as before, by another otherwise', async () => {
    const own = await runAnalysis(services, first, { scope: 'run' });
    const same = await runAnalysis(services, first, { scope: 'run', aimSetId });
    expect(same.patchShare).toEqual(own.patchShare);
    expect(same.rows.map(({ mean }) => mean)).toEqual(
      own.rows.map(({ mean }) => expect.closeTo(mean, 3) as number),
    );
    const other = (await aimSets(services)).find(({ id }) => id !== aimSetId);
    const moved = await runAnalysis(services, first, { scope: 'run', aimSetId: other?.id });
    expect(moved.against).toEqual({ id: other?.id, name: other?.name });
    expect(moved.rows.map(({ mean }) => mean)).not.toEqual(own.rows.map(({ mean }) => mean));
    const early = { scope: 'shift', aimSetId, atMs: Date.parse('2026-01-14T08:00:00Z') } as const;
    expect(await runAnalysis(services, second, early)).toMatchObject({ sheets: 4, runs: 2 });
    expect((await runAnalysis(services, first, { scope: 'run', aimSetId, phase: 'production' })).sheets).toBe(
      0,
    );
    const { code } = await shareRun(services, first, { scope: 'run', aimSetId: other?.id });
    expect(await page(code)).toContain(`Aims: ${other?.name ?? ''}, for all sheets`);
    expect((await refusal(runAnalysis(services, first, { scope: 'run', aimSetId: 99_999 }))).type).toBe(
      'not-found',
    );
  });
});

describe('runs beside each other', () => {
  it('have each their own shares, in the order asked for', async () => {
    const { runs: both, keys, unlike } = await compareRuns(services, [second, first]);
    expect(both.map(({ run, sheets }) => [run.jobNumber, sheets])).toEqual([
      ['4712', 3],
      ['4711', 2],
    ]);
    const alone = await runAnalysis(services, first, { scope: 'run' });
    expect(both[1].patchShare).toEqual(alone.patchShare);
    expect(Object.keys(both[1].rows)).toEqual(
      alone.rows.filter(({ share }) => share !== undefined).map(({ key }) => key),
    );
    expect(keys.map(({ key }) => key)).toContain('solid K');
    expect(unlike).toEqual([]);
  });

  it('say what makes them unlike, and are two to eight, none twice', async () => {
    const other = await begin('4713');
    await updateRun(services.database, other, {
      settings: { ...USUAL_SETTINGS, mode: 'M0', formula: 'ΔE*ab' },
    });
    expect((await compareRuns(services, [first, other])).unlike).toEqual([
      'They are judged by different formulas.',
      'They are read in different modes.',
    ]);
    await markOkSheet(services, second, { impression: 200, lock: false });
    expect((await compareRuns(services, [first, second])).unlike).toEqual([]);
    for (const ids of [[first], [first, first], Array.from({ length: 9 }, (_, i) => i + 1)])
      expect((await refusal(compareRuns(services, ids))).field).toBe('runs');
    expect((await refusal(compareRuns(services, [first, 99_999]))).type).toBe('not-found');
  });
});

describe('a run in another light', () => {
  const lamp = { ...USUAL_SETTINGS, light: 'A', observer: '10deg' } as const;
  const figures = async (id: number) =>
    (await runAnalysis(services, id, { scope: 'run' })).rows.map(({ mean }) => mean);
  let id = 0;
  beforeAll(async () => {
    id = await begin('4720');
    for (const at of [200, 260]) await pullSheet(services, id, at);
  });

  it('is refused while its aims are colours alone', async () => {
    const said = await refusal(changeSettings(services, id, lamp));
    expect([said.field, said.title]).toEqual(['light', expect.stringContaining('not known under A/10°')]);
    expect((await runOf(services, id)).settings.light).toBe('D50');
    expect((await runView(services, id)).aimsInLights).toBe(false);
    const input = { jobNumber: '1', title: 'T', customer: '', side: '', quantity: 1, inks: ['K'] };
    const shape = { zones: 12, zoneMm: 32, patchMm: 5, settings: lamp };
    expect((await refusal(createRun(services, { conditionId, aimSetId, ...input, ...shape }))).field).toBe(
      'light',
    );
  });

  it('judges all its sheets by the OK sheet as that light shows both, and back again', async () => {
    await markOkSheet(services, id, { impression: 200, lock: true });
    await changeSettings(services, id, USUAL_SETTINGS);
    const usual = await figures(id);
    await changeSettings(services, id, lamp);
    expect((await runView(services, id)).aimsInLights).toBe(true);
    const seen = await figures(id);
    expect(seen).not.toEqual(usual);
    expect(seen.every(Number.isFinite)).toBe(true);
    // The OK sheet itself is at its aims in any light.
    const own = await findSheet(services.database, id, 200);
    expect(Math.max(...[...(own?.figures ?? [])].filter((_, i) => i % 3 === 0))).toBeLessThan(1e-3);
    await pullSheet(services, id, 320);
    const view = await runAnalysis(services, id, { scope: 'run' });
    expect(view).toMatchObject({ sheets: 3, seen: { formula: 'ΔE00', light: 'A/10°' } });
    // Others of its press are judged for D50, and are not put among them.
    expect(await runAnalysis(services, id, { scope: 'press' })).toMatchObject({ sheets: 3, runs: 1 });
    expect((await runAnalysis(services, id, { scope: 'press' })).otherwise).toBeGreaterThan(1);
    expect((await runAnalysis(services, first, { scope: 'job' })).otherwise).toBe(0);
    expect((await refusal(runAnalysis(services, id, { scope: 'run', aimSetId }))).field).toBe('aims');
    expect((await compareRuns(services, [first, id])).unlike).toEqual([
      '4720: judged by its own OK sheet, the other by its aim set.',
      'They are judged under different lights.',
    ]);
    await changeSettings(services, id, USUAL_SETTINGS);
    expect((await figures(id)).slice(0, 1)).not.toEqual(seen.slice(0, 1));
  });

  it('is refused where a sheet was read without spectra, and takes none such', async () => {
    const density = [0.5, 0.5, 0.5, 0.5];
    const bare = { impression: 380, patches: [{ patch: 1, lab: [50, 0, 0], density }] };
    await changeSettings(services, id, lamp);
    expect((await refusal(takeSheet(services, id, bare))).title).toContain('judged under A/10°');
    await changeSettings(services, id, USUAL_SETTINGS);
    await takeSheet(services, id, bare);
    expect((await refusal(changeSettings(services, id, lamp))).title).toContain(
      '1 sheet of this run was read',
    );
    // An OK sheet of colours alone is no aim in other lights.
    await takeSheet(services, id, {
      impression: 440,
      patches: (await runOf(services, id)).plan.bar.patches.map((_, at) => ({
        ...{ patch: at + 1, lab: [50, 0, 0], density },
      })),
    });
    await markOkSheet(services, id, { impression: 440, lock: true });
    expect((await runView(services, id)).aimsInLights).toBe(false);
  });
});

describe('a public analysis', () => {
  it('has one link for each way of looking, shows the run as it stands, and ends', async () => {
    const asked = { scope: 'run' } as const;
    const [one, two] = await Promise.all([
      shareRun(services, first, asked),
      shareRun(services, first, asked),
    ]);
    expect(two).toEqual(one);
    expect(await sharedRunCode(services, first, asked)).toBe(one.code);
    expect(await sharedRunCode(services, first, { scope: 'job' })).toBeNull();
    const job = await shareRun(services, first, { scope: 'job', phase: 'make-ready' });
    expect(job.code).not.toBe(one.code);
    expect(await page(one.code)).toContain('2 of this run');
    expect(await page(job.code)).toContain('make-ready alone');
    expect(await page(one.code)).not.toContain('Reported by');
    await pullSheet(services, first, 400);
    expect(await page(one.code)).toContain('3 of this run');
    expect((await refusal(publicReport(services, one.code, 'slip'))).field).toBe('format');
    await endSharedRun(services, first, asked);
    expect((await refusal(publicReport(services, one.code, 'html'))).type).toBe('not-found');
    expect(await page(job.code)).toContain('4711');
  });

  it('keeps to the shift that was looked at', async () => {
    const { code } = await shareRun(services, second, { scope: 'shift' });
    services.time.ms += 12 * HOUR;
    await pullSheet(services, second, 900);
    expect(await page(code)).toContain('2026-01-14, 14:00 to 22:00');
    expect((await shareRun(services, second, { scope: 'shift' })).code).not.toBe(code);
  });
});

describe('a run', () => {
  it('is named with what tells its condition from others', async () => {
    expect((await runs(services, { find: '4711' })).rows[0].condition).toMatch(/^Osprey \/ .*, cold set$/);
  });

  it('judges a spot ink by what its list allows, where the formula is that of the list', async () => {
    const { id: listId } = await takeColourList(
      services,
      { name: 'House colours' },
      { name: 'house.csv', text: 'name,L,a,b\nMarsh Green,50,-45,0' },
    );
    const spot = async (): Promise<number | undefined> => {
      const { id } = await createRun(services, {
        ...{
          conditionId,
          aimSetId,
          listId,
          jobNumber: 'S',
          title: 'Spot',
          customer: '',
          side: '',
          quantity: 1,
        },
        ...{ inks: ['K', 'Marsh Green'], zones: 12, zoneMm: 32, patchMm: 5, settings: USUAL_SETTINGS },
      });
      return (await runView(services, id)).lines.find(({ ink }) => ink === 'Marsh Green')?.tolerance;
    };
    expect(await spot()).toBe(USUAL_SETTINGS.tolerances.spots);
    await changeColourList(services, listId, { name: 'House colours', note: '', tolerance: 1.2 });
    expect(await spot()).toBe(1.2);
  });

  it('reads a bar that is on the sheet already, and is started anew with it', async () => {
    const bar = '6 x K, C, M, Y, paper\n6 x C50, M50, Y50, K50, C50+M40+Y40, C+M';
    const shape = {
      conditionId,
      aimSetId,
      jobNumber: 'B',
      title: 'Own bar',
      customer: '',
      side: '',
      quantity: 1,
    };
    const own = { ...shape, inks: ['K', 'C', 'M', 'Y'], zones: 1, zoneMm: 32, patchMm: 5 };
    const { id } = await createRun(services, { ...own, bar, settings: USUAL_SETTINGS });
    await pullSheet(services, id, 200);
    const { bar: shown, lines, strips, patches } = await runView(services, id);
    expect(shown).toMatchObject({ zones: 12, patches: 66, described: bar });
    expect(strips[0].judged).toBeGreaterThan(50);
    expect(patches.filter(({ kind }) => kind === 'grey').every(({ zone }) => zone >= 6)).toBe(true);
    // Zones without a solid have nothing to be set by.
    const [line] = lines;
    expect(line.zones.slice(6).every(({ density }) => density === null)).toBe(true);
    expect(line.changes.slice(6).every((change) => change === 0)).toBe(true);
    const said = await refusal(
      createRun(services, { ...own, bar: '12 x K, C, M', settings: USUAL_SETTINGS }),
    );
    expect([said.field, said.title]).toEqual(['bar', expect.stringContaining('none of Y')]);
  });

  it('leaves with the house: what it is, and each patch of each sheet', async () => {
    const files = new Map<string, string>();
    for await (const { path, content } of openFiles(services))
      if (path.startsWith('runs/')) files.set(path, Buffer.from(content).toString());
    const folder = `runs/4711_Tide_tables_${first}`;
    const { plan } = await runOf(services, first);
    const told = JSON.parse(files.get(`${folder}/run.json`) ?? '{}') as {
      readonly bar: { readonly patches: unknown[] };
    };
    expect(told.bar.patches).toHaveLength(plan.bar.patches.length);
    const lines = (files.get(`${folder}/sheets_1.csv`) ?? '').trim().split(/\r?\n/);
    expect(lines).toHaveLength(1 + 3 * plan.bar.patches.length);
    expect(lines[1].split(',').slice(0, 5)).toEqual([
      '200',
      'make-ready',
      String(Date.parse('2026-01-14T12:00:00Z')),
      '1',
      '1',
    ]);
    expect(files.has(`${folder}/sheets_2.csv`)).toBe(false);
    const spectra = (files.get(`${folder}/spectra_1_380-730-10.csv`) ?? '').trim().split(/\r?\n/);
    expect(spectra[0].split(',').slice(0, 4)).toEqual(['impression', 'patch', 'nm_380', 'nm_390']);
    const open = lines.filter((line) => line.endsWith(',,,,,,,')).length;
    expect(spectra).toHaveLength(lines.length - open);
    expect(open).toBeGreaterThan(0);
    const { reading } = (await findSheet(services.database, first, 200)) ?? {};
    expect(spectra[1].split(',').slice(2).map(Number)).toEqual(
      [...(reading?.spectra?.subarray(0, 36) ?? [])].map((value) => expect.closeTo(value, 5) as number),
    );
    // A sheet of colours alone has none.
    const bare = [...files.keys()].filter((path) => /runs\/4720.*spectra/.test(path));
    expect(bare).toHaveLength(1);
    expect(files.get(bare[0])).not.toMatch(/^440,/m);
  });
});
