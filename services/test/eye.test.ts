import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { eyeHypotheses } from '@melto/core/eye/eyeHypotheses';
import type { EyeNote } from '@melto/core/eye/eyeWords';
import { pointOut } from '@melto/core/eye/pointOut';
import { REFERENCE_COLOURS } from '@melto/core/eye/referenceColours';
import { unwrap } from '@melto/core/result';
import { profileInForce } from '../src/ledger/inForce.ts';
import { advanceClock } from '../src/simulated/advanceClock.ts';
import { simulatedNotes } from '../src/simulated/simulatedNotes.ts';
import { printChart } from '../src/charts/printChart.ts';
import { eyeGround } from '../src/eye/eyeGround.ts';
import { eyeFile, eyePage } from '../src/eye/eyePage.ts';
import { eyesChecks, keepEyesCheck } from '../src/eye/eyesChecks.ts';
import { colourListReport } from '../src/lists/colourListReport.ts';
import { takeColourList } from '../src/lists/colourLists.ts';
import { spectralChart } from '../src/lists/spectralChart.ts';
import { viewingLight } from '../src/light/viewingLights.ts';
import { buildProfile } from '../src/profile/buildProfile.ts';
import { createChart } from '../src/profile/profilingChart.ts';
import { conditionChoices, createCondition, DEFAULT_POINTS } from '../src/house/newCondition.ts';
import { HOUR, TICKS } from '../src/testing/heron.ts';
import { named } from '../src/testing/named.ts';
import { readSheets } from '../src/testing/readSheets.ts';
import { refusal } from '../src/testing/refusal.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';

let services: TestServices;
let conditionId = 0;
let readingId = 0;
let listId = 0;
let sheets: readonly string[] = [];
beforeAll(async () => {
  services = await openTestServices('melto_eye');
  const { id: deviceId, stocks, inkSet } = named((await conditionChoices(services)).devices, 'Wren');
  ({ id: conditionId } = await createCondition(services, {
    ...{ deviceId, stockId: named(stocks, 'Lantern Gloss 150').id, inkSet, mode: 'fine' },
    points: DEFAULT_POINTS,
  }));
  const { id } = await createChart(services, conditionId, { patches: 200, paper: 'a3', reader: 'sheet' });
  ({ sheets } = await printChart(services, id, { ticks: TICKS }));
  await advanceClock(services, 4 * HOUR);
  ({ readingId } = await readSheets(services, sheets));
  const rows = ['name,L,a,b', 'paper white,93,1,-3', 'seed red,52,35,18', 'too vivid,60,95,-70'];
  ({ id: listId } = await takeColourList(
    services,
    { name: 'Brand' },
    { name: 'brand.csv', text: rows.join('\n') },
  ));
});
afterAll(() => services.database.close());

const build = async (): Promise<number> => {
  const choices = { readingId, version: 4, tableSize: 'small', namePattern: '{device}' } as const;
  return (await buildProfile(services, { conditionId, choices }, () => {}))(services);
};
const text = ({ content }: { readonly content: Uint8Array }): string => Buffer.from(content).toString('utf8');

describe('an eye’s check', () => {
  it('waits for a profile', async () => {
    expect((await refusal(eyePage(services, conditionId, undefined))).title).toContain('none was built here');
  });

  it('is a page of the reference colours or of a list, in values of the device, with what it does not reach', async () => {
    const resultId = await build();
    const page = await eyePage(services, conditionId, undefined);
    expect(page).toMatchObject({ resultId, version: 1, listName: 'Reference colours' });
    expect(page.device).toHaveLength(3 * REFERENCE_COLOURS.length);
    for (const value of page.device) expect(value * 255).toBeCloseTo(Math.round(value * 255), 9);
    const ground = await eyeGround(services, conditionId, listId);
    expect(ground.listName).toBe('Brand v1');
    expect(ground.beyond.map(({ colour }) => colour)).toContain(2);
    expect(ground.beyond.map(({ colour }) => colour)).not.toContain(1);
    expect(ground.chart?.device).toHaveLength(600);
    expect(ground.dark).toBeNull();
    const file = await eyeFile(services, conditionId, listId, 'a4');
    expect(Buffer.from(file.content).subarray(0, 5).toString()).toBe('%PDF-');
    await readSheets(services, sheets, 'M2');
    expect((await eyeGround(services, conditionId, undefined)).dark).toHaveLength(200 * 36);
  });

  it('has as many colours as an eye can look at, and no more', async () => {
    const take = (count: number) =>
      takeColourList(
        services,
        { name: `${count}` },
        { name: 'x.csv', text: `name,L,a,b\n${'x,50,0,0\n'.repeat(count)}` },
      );
    expect((await eyePage(services, conditionId, (await take(60)).id)).colours).toHaveLength(60);
    const { id } = await take(61);
    expect((await refusal(eyePage(services, conditionId, id))).title).toContain('60 at most');
    expect((await refusal(eyePage(services, conditionId, 999_999))).title).toContain('colour list 999999');
  });

  it.each([
    ['nothing', 'reach'],
    ['profile', 'profile'],
    ['ink', 'ink'],
  ] as const)('with %s wrong points to %s', async (wrong, cause) => {
    const ground = await eyeGround(services, conditionId, undefined);
    const notes = await simulatedNotes(services, conditionId, undefined, 'D50', wrong);
    const head = await profileInForce(services, conditionId);
    if (head === undefined || ground.chart === null || ground.dark === null) throw new Error('no ground');
    const { chart, dark, colours, device } = ground;
    const hypotheses = unwrap(
      eyeHypotheses({
        ...{ colours, device, chart, dark, profile: head.profile },
        seen: { light: await viewingLight(services, 'D50'), observer: '2deg' },
      }),
    );
    const [first] = pointOut(
      colours.map(({ lab }) => lab),
      notes,
      hypotheses,
    );
    expect(first.cause).toBe(cause);
    expect(first.share).toBeGreaterThan(0.5);
  });

  const look =
    (change: Partial<Parameters<typeof keepEyesCheck>[2]> = {}) =>
    async () => {
      const { resultId } = await eyePage(services, conditionId, undefined);
      return keepEyesCheck(services, conditionId, {
        ...{ resultId, light: 'D50', notes: [{ colour: 0, words: [] }], points: [] },
        ...change,
      });
    };

  it('is kept with who looked and in which light, also by two at once; the newest first', async () => {
    const notes: EyeNote[] = [
      { colour: 0, words: ['redder', 'darker'] },
      { colour: 2, words: [] },
    ];
    await Promise.all([look({ listId, notes, light: 'A' })(), look()()]);
    const kept = await eyesChecks(services, conditionId);
    expect(kept).toHaveLength(2);
    expect(kept[0].id).toBeGreaterThan(kept[1].id);
    const own = kept.find(({ light }) => light === 'A');
    expect(own).toMatchObject({ listName: 'Brand v1', version: 1, notes });
    expect(own?.names).toEqual(['paper white', 'seed red', 'too vivid']);
  });

  it.each([
    ['a colour twice', look({ notes: [0, 0].map((colour) => ({ colour, words: [] })) }), 'noted twice'],
    ['one that is not there', look({ notes: [{ colour: 20, words: [] }] }), 'is not on the page'],
    ['the last one', look({ notes: [{ colour: 19, words: [] }] }), undefined],
    [
      'what excludes itself',
      look({ notes: [{ colour: 1, words: ['redder', 'greener'] }] }),
      'redder and greener',
    ],
    ['an unknown light', look({ light: 'own-99999' }), 'light own-99999'],
  ] as const)('notes %s', async (_, act, words) => {
    const before = (await eyesChecks(services, conditionId)).length;
    if (words === undefined) await act();
    else expect((await refusal(act())).title).toContain(words);
    expect(await eyesChecks(services, conditionId)).toHaveLength(before + Number(words === undefined));
  });

  it('is refused where another profile has come in force since', async () => {
    const { resultId } = await eyePage(services, conditionId, undefined);
    await build();
    expect((await refusal(look({ resultId })())).title).toContain('Another profile has come in force');
  });
});

describe('a colour list on a condition', () => {
  it('has a report as page and as PDF, which says what is reached', async () => {
    const page = await colourListReport(services, listId, conditionId, 'html');
    expect(page.name).toBe('Brand_on_Wren_Lantern_Gloss_150_fine.html');
    expect(text(page)).toContain('2 of 3 reached');
    expect(text(page)).toContain('too vivid</td><td');
    const pdf = await colourListReport(services, listId, conditionId, 'pdf');
    expect(Buffer.from(pdf.content).subarray(0, 5).toString()).toBe('%PDF-');
  });

  it('has the chart of its profile to look at in other lights', async () => {
    const { channels, device, grid, spectra } = await spectralChart(services, conditionId);
    expect([channels, device.length / 3, spectra.length / grid.count]).toEqual([3, 200, 200]);
  });
});
