import { TOLERANCE_SETS } from '@melto/core/conformity/data/toleranceSets';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type { CheckDetail } from '@melto/core/conformity/checkDetail';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { labToXyz } from '@melto/core/colour/xyzToLab';
import { verdictSentence } from '@melto/core/conformity/checkWords';
import {
  aimSets,
  aimSetVersions,
  loadAims,
  registerPublishedAims,
  sayAimMode,
  removeAimSet,
} from '../src/conformity/aimSets.ts';
import {
  createAimSetByHand,
  createAimSetFromFile,
  createAimSetFromReading,
} from '../src/conformity/newAimSet.ts';
import type { AimByHand } from '../src/conformity/newAimSet.ts';
import { checkReport, shareReport } from '../src/conformity/checkReports.ts';
import { endPublicLink } from '../src/kernel/publicLink.ts';
import { publicReport } from '../src/overview/publicReport.ts';
import { askedWhite, makePaperAims, papersToMoveTo, previewPaperAims } from '../src/conformity/paperAims.ts';
import { judgeReading } from '../src/conformity/checks.ts';
import type { CheckChoice, JudgedBy } from '../src/conformity/checkChoice.ts';
import { conditionView } from '../src/overview/conditionView.ts';
import { readingFile } from '../src/reading/readingView.ts';
import { seenCheck } from '../src/conformity/seenCheck.ts';
import { withdrawReading } from '../src/watch/withdrawReading.ts';
import { letChange, putRight } from '../src/simulated/simulatedChanges.ts';
import { byDeviceValues, heronOn, readWedge, HOUR, TICKS } from '../src/testing/heron.ts';
import { refusal } from '../src/testing/refusal.ts';
import { staleMarksAgree } from '../src/testing/staleMarksAgree.ts';
import { printWedge } from '../src/wedges/printWedge.ts';
import { advanceClock } from '../src/simulated/advanceClock.ts';
import { readSheets } from '../src/testing/readSheets.ts';
import { versionsOf } from '../src/ledger/versions.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';
import {
  removeToleranceSet,
  saveToleranceSet,
  toleranceSets,
  toleranceSetVersions,
} from '../src/conformity/toleranceSets.ts';
import { AIM_CHECK } from '../src/ledger/kinds/aimCheckKind.ts';
import { storedResult } from '../src/ledger/storedResult.ts';
import type { WedgeInput } from '../src/wedges/printWedge.ts';
import { noteResult } from '../src/ledger/notes.ts';
import { findResult } from '@melto/store/results';

let services: TestServices;
let gloss = 0;

beforeAll(async () => {
  services = await openTestServices('melto_conformity');
  gloss = await heronOn(services, 'Lantern Gloss 150');
});
afterAll(async () => services.database.close());

const wedge = (
  kind: WedgeInput['kind'],
  judgedBy?: JudgedBy,
  mode?: 'M0' | 'M1',
): ReturnType<typeof readWedge> => readWedge(services, gloss, kind, judgedBy, mode);
const detailOf = async (id: number | null): Promise<CheckDetail> =>
  (await storedResult(services, id ?? 0, AIM_CHECK)).detail;
const shipped = async (family: string): Promise<number> => {
  const found = (await toleranceSets(services)).find(({ set }) => set.id === family);
  if (found === undefined) throw new Error(family);
  return found.id;
};

afterEach(() => staleMarksAgree(services));

describe('aims and tolerances', () => {
  it('come with Melto, are registered once, and stay as they are', async () => {
    const aims = await aimSets(services);
    expect(aims.map(({ family }) => family).sort()).toHaveLength(9);
    expect(aims.every(({ completed }) => completed)).toBe(true);
    expect((await toleranceSets(services)).filter((each) => each.shipped)).toHaveLength(
      TOLERANCE_SETS.length,
    );
    await registerPublishedAims(services);
    expect(await aimSets(services)).toHaveLength(9);
    for (const name of ['FOGRA39L', 'G7 of ours'])
      expect((await refusal(createAimSetByHand(services, { name }, [], {}))).title).toContain(
        'it would be taken for',
      );
    const proof = await shipped('iso12647-7-proof');
    const own = { name: 'x', source: 'x', substrateUncorrected: false, metrics: [] };
    expect((await refusal(saveToleranceSet(services, { ...own, versionOf: proof }))).title).toContain(
      'stays',
    );
    expect((await refusal(removeToleranceSet(services, proof, true))).title).toContain('comes with Melto');
    expect((await refusal(removeAimSet(services, aims[0].id, true))).title).toContain('comes with Melto');
  });

  it('of one’s own get versions, and are removed and taken back', async () => {
    const metrics = [{ group: 'all', statistic: 'mean', quantity: 'ΔE00', limit: 1 }] as const;
    const draft = { name: 'House', source: 'tried on the Heron', substrateUncorrected: false, metrics };
    const { id } = await saveToleranceSet(services, draft);
    const next = await saveToleranceSet(services, { ...draft, name: 'House, wider', versionOf: id });
    const versions = await toleranceSetVersions(services, next.id);
    expect(versions.map(({ version, set }) => `${version} ${set.name}`)).toEqual([
      '2 House, wider',
      '1 House',
    ]);
    await removeToleranceSet(services, next.id, true);
    expect((await toleranceSets(services)).some(({ set }) => set.name.startsWith('House, w'))).toBe(false);
    await removeToleranceSet(services, next.id, false);
    expect((await toleranceSets(services)).some(({ set }) => set.name.startsWith('House, w'))).toBe(true);

    const rows: readonly AimByHand[] = [
      { device: [0, 0, 0, 0], lab: [95, 0, -2] },
      { device: [100, 0, 0, 0], lab: [55, -37, -50] },
    ];
    const hand = await createAimSetByHand(services, { name: 'By hand' }, rows, { mode: 'M1' });
    const again = await createAimSetByHand(services, { name: 'By hand', versionOf: hand.id }, rows, {});
    expect((await aimSetVersions(services, again.id)).map(({ version }) => version)).toEqual([2, 1]);
    const { aims, view } = await loadAims(services, hand.id);
    expect(view.conditions.mode).toBe('M1');
    expect([...aims.device]).toEqual([0, 0, 0, 0, 1, 0, 0, 0]);
    const refused = await refusal(
      createAimSetFromFile(services, { name: 'x' }, 'bad.txt', Buffer.from('CGATS.17\nnothing')),
    );
    expect(refused.field).toBe('file');
  });

  it('that do not tell their mode are asked once, and keep what is said as a version', async () => {
    const before = (await aimSets(services)).find(({ family }) => family === 'fogra28l')?.id ?? 0;
    const said = await Promise.allSettled([
      sayAimMode(services, before, 'M0'),
      sayAimMode(services, before, 'M1'),
    ]);
    const done = said.flatMap((each) => (each.status === 'fulfilled' ? [each.value.id] : []));
    expect(done).toHaveLength(1);
    const { view, aims } = await loadAims(services, done[0]);
    expect(view.version).toBe(2);
    expect(view.conditions).toMatchObject({ filter: 'none', mode: view.conditions.mode });
    expect(view.origin).toMatch(/Taken for M[01], as the house said\.$/);
    expect(aims.conditions.mode).toBe(view.conditions.mode);
    expect(aims.published?.key).toBe('fogra28l');
    expect((await refusal(sayAimMode(services, done[0], 'M2'))).title).toContain('already');
    expect((await refusal(sayAimMode(services, 99999, 'M2'))).type).toBe('not-found');
    const row: AimByHand = { device: [0, 0, 0, 0], lab: [95, 0, -2] };
    const first = await createAimSetByHand(services, { name: 'Untold' }, [row], {});
    await createAimSetByHand(services, { name: 'Untold', versionOf: first.id }, [row], {});
    expect((await refusal(sayAimMode(services, first.id, 'M1'))).title).toContain('newer version');
    await registerPublishedAims(services);
    expect(await aimSetVersions(services, done[0])).toHaveLength(2);
  });
});

describe('a check', () => {
  let standard = 0;
  let house = 0;
  let choice: CheckChoice;
  let failing = 0;
  let passing = 0;
  let reading = 0;

  it('against a house standard made of a reading conforms', async () => {
    const published = (await aimSets(services)).find(({ family }) => family === 'fogra39l');
    const first = await wedge('proof', {
      aimSetId: published?.id ?? 0,
      toleranceSetId: await shipped('iso12647-7-proof'),
      substrateCorrected: false,
      through: 'device values',
    });
    // A press that was never calibrated is far from the published condition; the reasons are computed.
    const detail = await detailOf(first.resultId);
    expect(detail.verdict).toBe('does-not-conform');
    expect(detail.patches).toHaveLength(82);
    expect(detail.patches.filter(({ origin }) => origin === 'completed').length).toBeGreaterThan(60);
    expect(detail.decides.deciding.length).toBeGreaterThan(0);
    expect(detail.header.chosen).toBe('before the reading');
    const made = await createAimSetFromReading(services, { name: 'Heron gloss' }, first.readingId);
    standard = made.id;
    choice = {
      aimSetId: standard,
      toleranceSetId: await shipped('iso12647-7-proof'),
      substrateCorrected: false,
    };
    const second = await wedge('proof', { ...choice, through: 'device values' });
    const good = await detailOf(second.resultId);
    // There is no profile that could have told what would print.
    expect(good.header.predicted).toBeUndefined();
    // The same press, another sheet: within all limits, perhaps near one of them.
    expect(['conforms', 'near']).toContain(good.verdict);
    expect(good.distribution.mean).toBeGreaterThan(0.05);
    expect(good.budget?.parts.map(({ source }) => source)).toEqual(['instrument', 'rest']);
    expect((await conditionView(services, gloss)).links.at(-2)?.state).toBe(good.verdict);
  });

  it('of a reading in another mode gets no plain conforms', async () => {
    const { resultId } = await wedge('proof', { ...choice, through: 'device values' }, 'M0');
    const detail = await detailOf(resultId);
    expect(detail.verdict).not.toBe('conforms');
    expect(detail.verdict).not.toBe('near');
    expect(detail.otherwise).toEqual(['read in M0, the aims are for M1']);
  });

  it('of a sheet that was read in its mode stays, whatever is read of it in another; in turn the one that fits counts', async () => {
    const judgedBy = { ...choice, through: 'device values' } as const;
    const input = { kind: 'proof', paper: 'a4', reader: 'strip', judgedBy } as const;
    const sheets = async (): Promise<readonly string[]> => {
      const printed = await printWedge(services, gloss, input, { ticks: TICKS });
      await advanceClock(services, 3 * HOUR);
      return printed.sheets;
    };
    const heads = async (): Promise<number> => (await versionsOf(services, gloss, 'conformity')).length;
    const first = await sheets();
    expect((await readSheets(services, first, 'M1')).resultId).not.toBeNull();
    const before = await heads();
    expect((await readSheets(services, first, 'M2')).resultId).toBeNull();
    expect(await heads()).toBe(before);
    const second = await sheets();
    expect((await readSheets(services, second, 'M2')).resultId).not.toBeNull();
    const { resultId } = await readSheets(services, second, 'M1');
    expect((await detailOf(resultId)).otherwise).toEqual([]);
    expect(await heads()).toBe(before + 2);
  });

  it('on a new lot of stock does not conform, but does by substrate-corrected aims, and says so', async () => {
    const metrics = [
      { group: 'substrate', statistic: 'largest', quantity: 'ΔE00', limit: 1 },
      { group: 'all', statistic: 'mean', quantity: 'ΔE00', limit: 1.5 },
    ] as const;
    const draft = { name: 'House, tight', source: 'house', substrateUncorrected: false, metrics };
    house = (await saveToleranceSet(services, draft)).id;
    await letChange(services, gloss, 'stock-lot', 0);
    const off = await wedge('proof', {
      aimSetId: standard,
      toleranceSetId: house,
      substrateCorrected: false,
      through: 'device values',
    });
    failing = off.resultId ?? 0;
    reading = off.readingId;
    const detail = await detailOf(failing);
    expect(detail.verdict).toBe('does-not-conform');
    const failed = detail.metrics.filter(({ verdict }) => verdict === 'does-not-conform');
    expect(failed.map(({ group }) => group)).toEqual(['substrate']);
    expect(detail.decides.remedies[0]).toMatchObject({ kind: 'substrate', verdict: 'conforms' });
    expect(detail.decides.drift?.mean).toBeGreaterThan(0.2);
    const again = await judgeReading(services, reading, {
      aimSetId: standard,
      toleranceSetId: house,
      substrateCorrected: true,
    });
    passing = again.id;
    const corrected = await detailOf(again.id);
    expect(verdictSentence(corrected)).toBe('conforms to House, tight (own tolerances, substrate-corrected)');
    expect(corrected.header.chosen).toBe('after the reading');
    expect(corrected.white).not.toBeNull();
    await putRight(services, gloss);
  });

  it('is seen under another light where the aims are spectra, and says so where they are not', async () => {
    const under = await seenCheck(services, failing, 'A', '10deg');
    expect(under.length).toBe((await detailOf(failing)).patches.length);
    const plain = await seenCheck(services, failing, 'D50', '2deg');
    const patches = (await detailOf(failing)).patches;
    plain.forEach(({ device, measured }) => {
      const own = patches.find((patch) =>
        patch.device.every((ink, i) => Math.abs(ink - 100 * device[i]) < 0.2),
      );
      measured.forEach((value, axis) => expect(value).toBeCloseTo(own?.measured[axis] ?? NaN, 6));
    });
    expect((await refusal(seenCheck(services, failing, 'own-7', '2deg'))).title).toBe(
      'There is no light own-7.',
    );
    const published = (await aimSets(services)).find(({ family }) => family === 'fogra39l');
    const other = await judgeReading(services, reading, {
      aimSetId: published?.id ?? 0,
      toleranceSetId: house,
      substrateCorrected: false,
    });
    expect((await refusal(seenCheck(services, other.id, 'A', '2deg'))).title).toContain('found colours only');
  });

  it('carries a note that a person keeps with it, into its report; what was judged stays', async () => {
    const report = async (): Promise<string> =>
      Buffer.from((await checkReport(services, failing, 'html')).content).toString('utf8');
    const before = await report();
    expect(before).not.toContain('<dt>Note</dt>');
    await Promise.all(
      ['first', 'second'].map((words) =>
        noteResult(services, failing, ` ${words}: the blanket was new <b> `),
      ),
    );
    const noted = await report();
    expect(noted).toMatch(
      /<dt>Note<\/dt><dd>(first|second): the blanket was new &(lt|#60);b&(gt|#62);<\/dd>/,
    );
    const { note, verdict, detail } = (await findResult(services.database, failing)) ?? { detail: '' };
    expect([note?.slice(-22), verdict]).toEqual(['the blanket was new <b>'.slice(-22), 'does-not-conform']);
    expect(JSON.parse(detail)).toEqual(await detailOf(failing));
    await noteResult(services, failing, '  ');
    expect(await report()).toBe(before);
    expect((await refusal(noteResult(services, 99_999, 'x'))).title).toContain('99999');
  });

  it('has a report in two forms, a slip, and a public link that ends', async () => {
    const html = Buffer.from((await checkReport(services, failing, 'html')).content).toString('utf8');
    for (const words of [
      'does not conform to House, tight',
      'substrate, largest ΔE00',
      'All patches',
      'Saltmarsh Works',
      'Heron gloss',
    ])
      expect(html).toContain(words);
    const detail = await detailOf(failing);
    expect(html.match(/class="sw"/g)).toHaveLength(detail.patches.length + 10);
    for (const format of ['pdf', 'slip'] as const) {
      const { content, mediaType } = await checkReport(services, failing, format);
      expect(mediaType).toBe('application/pdf');
      expect(Buffer.from(content.subarray(0, 5)).toString('latin1')).toBe('%PDF-');
    }
    const drawn: string[][] = [];
    const drawing = {
      ...services,
      drawFile: async (job: Parameters<typeof services.drawFile>[0]) => {
        if (job.kind === 'slip') drawn.push(job.model.facts.map(([name]) => name));
        return new Uint8Array();
      },
    };
    await checkReport(drawing, failing, 'slip');
    await checkReport(drawing, passing, 'slip');
    expect(drawn.map((names) => names.includes('Valid until'))).toEqual([false, true]);
    expect(drawn.map((names) => names.includes('Aims and tolerances'))).toEqual([false, true]);
    const { code } = await shareReport(services, failing);
    expect(code).toMatch(/^[A-Za-z0-9_-]{32}$/);
    expect((await shareReport(services, failing)).code).toBe(code);
    expect(Buffer.from((await publicReport(services, code, 'html')).content).toString('utf8')).toBe(html);
    // A reading that is withdrawn leaves no report that looks as if it stood.
    const shared = async (): Promise<string> =>
      Buffer.from((await publicReport(services, code, 'html')).content).toString('utf8');
    await withdrawReading(services, reading, true);
    expect(await shared()).toContain('Its reading was withdrawn on');
    drawn.length = 0;
    await checkReport(drawing, passing, 'slip');
    await withdrawReading(services, reading, false);
    await checkReport(drawing, passing, 'slip');
    expect(drawn.map((names) => [names.includes('Valid until'), names.includes('Not valid')])).toEqual([
      [false, true],
      [true, false],
    ]);
    expect(await shared()).toBe(html);
    await endPublicLink(services, { resultId: failing });
    expect((await refusal(publicReport(services, code, 'html'))).type).toBe('not-found');
    expect((await refusal(publicReport(services, '../../etc', 'html'))).type).toBe('not-found');
  });

  it('refuses what cannot be judged', async () => {
    const { readingId } = await wedge('watch');
    expect((await refusal(judgeReading(services, readingId))).title).toContain('made for no aims');
    expect((await refusal(judgeReading(services, readingId, { ...choice, aimSetId: 99_999 }))).type).toBe(
      'not-found',
    );
    expect((await refusal(wedge('proof'))).field).toBe('judgedBy');
    const { content } = await readingFile(services, readingId);
    expect(Buffer.from(content).toString('utf8')).toContain('CMYK_C');
  });
});

describe('aims on this paper', () => {
  const base = async (): Promise<number> => {
    const published = (await aimSets(services)).find(({ family }) => family === 'fogra39l');
    if (published === undefined) throw new Error('fogra39l');
    return published.conditions.mode === undefined
      ? (await sayAimMode(services, published.id, 'M1')).id
      : published.id;
  };

  it('are kept with what they were made of; a sheet on that paper has its white as its aim', async () => {
    const { readingId } = await wedge('proof', await byDeviceValues(services));
    const aimSetId = await base();
    expect((await papersToMoveTo(services)).map(({ id }) => id)).toContain(readingId);
    const shift = await previewPaperAims(services, aimSetId, { readingId });
    const name = 'House coated on Lantern Gloss';
    const { id } = await makePaperAims(services, { name }, aimSetId, { readingId });
    const { view } = await loadAims(services, id);
    expect(view).toMatchObject({ source: 'on paper', completed: true, conditions: { mode: 'M1' } });
    expect(view.moved).toMatchObject({ fromId: aimSetId, fromFamily: 'fogra39l' });
    expect(view.origin).toContain(`${shift.deltaE.toFixed(2)} ΔE00 from its own`);
    const toleranceSetId = await shipped('iso12647-7-proof');
    const judged = await judgeReading(services, readingId, {
      ...{ aimSetId: id, toleranceSetId },
      substrateCorrected: false,
    });
    const onPaper = await detailOf(judged.id);
    expect(verdictSentence(onPaper)).toContain('(aims of FOGRA39L on this paper)');
    const { patches } = onPaper;
    const paper = patches.find(({ device }) => device.every((value) => value === 0));
    expect(paper?.deltaE).toBeLessThan(1e-6);
    expect(patches.some(({ origin }) => origin === 'completed')).toBe(true);
    // The same reading, its aims corrected for the paper while it is judged: the same aims.
    const corrected = await judgeReading(services, readingId, {
      ...{ aimSetId, toleranceSetId },
      substrateCorrected: true,
    });
    const other = (await detailOf(corrected.id)).patches;
    patches.forEach((patch, i) => {
      if (patch.groups.includes('substrate')) return;
      patch.aim.forEach((value, axis) => expect(value).toBeCloseTo(other[i].aim[axis], 9));
    });
    // Two that keep it at once follow each other as versions.
    const again = { name, versionOf: id };
    await Promise.all([1, 2].map(() => makePaperAims(services, again, aimSetId, { readingId })));
    expect((await aimSetVersions(services, id)).map(({ version }) => version)).toEqual([3, 2, 1]);
  });

  it('keep characterisation data as data', async () => {
    const rows = [
      { device: [0, 0, 0, 0], lab: [95, 0, -2] },
      { device: [100, 0, 0, 0], lab: [55, -37, -50] },
      { device: [0, 0, 0, 100], lab: [16, 0, 0] },
    ] satisfies AimByHand[];
    const own = await createAimSetByHand(services, { name: 'Coated by hand' }, rows, { mode: 'M1' });
    const white = { lab: [90, 0, 4], mode: 'M1' } as const;
    const { id } = await makePaperAims(services, { name: 'By hand on ivory' }, own.id, white);
    const { view, aims } = await loadAims(services, id);
    expect(view).toMatchObject({ patches: 3, completed: false });
    expect([...aims.xyz.subarray(0, 3)].map((value) => value.toFixed(3))).toEqual(
      [...labToXyz([90, 0, 4], WHITE_D50_MEASURED)].map((value) => value.toFixed(3)),
    );
    expect((await refusal(previewPaperAims(services, id, white))).title).toContain('is on a paper already');
  });

  it('refuse what cannot be laid beside them, and store nothing', async () => {
    const before = (await aimSets(services)).length;
    const aimSetId = await base();
    const lab = [93, 0, -3] as const;
    const make = (id: number, white: Parameters<typeof askedWhite>[0]) =>
      refusal((async () => makePaperAims(services, { name: 'On x' }, id, askedWhite(white)))());
    expect((await make(aimSetId, { lab, mode: 'M0' })).title).toContain('read in M0, the aims are for M1');
    expect((await make(aimSetId, { lab })).title).toContain('mode of the white is not told');
    expect((await make(aimSetId, {})).title).toContain('There is no white');
    expect((await make(aimSetId, { lab: [5, 0, 0], mode: 'M1' })).title).toContain('darkest aim');
    const untold = (await aimSets(services)).find(({ conditions }) => conditions.mode === undefined);
    expect((await make(untold?.id ?? 0, { lab, mode: 'M1' })).title).toContain(
      'does not tell its measurement mode',
    );
    const named = await refusal(
      makePaperAims(services, { name: 'FOGRA39L on x' }, aimSetId, { lab, mode: 'M1' }),
    );
    expect(named.title).toContain('taken for');
    expect(await aimSets(services)).toHaveLength(before);
  });
});
