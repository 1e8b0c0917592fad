import { CMYK } from '@melto/core/device/process';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PDFDocument } from 'pdf-lib';

import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { createRandom } from '@melto/core/numerics/random';
import { unwrap } from '@melto/core/result';
import { findPrint, findSheet } from '@melto/store/prints';
import { installedCharacterisations } from '@melto/paper/measured/installedCharacterisations';
import { aimSets, loadAims, registerPublishedAims, sayAimMode } from '../conformity/aimSets.ts';
import {
  createAimSetByHand,
  createAimSetFromFile,
  createAimSetFromReading,
} from '../conformity/newAimSet.ts';
import { buildProfile } from '../profile/buildProfile.ts';
import { createChart } from '../profile/profilingChart.ts';
import { chartReference, loadChart } from '../charts/chart.ts';
import type { JudgedBy } from '../conformity/checkChoice.ts';
import { advanceClock } from '../simulated/advanceClock.ts';
import { conditionChoices, createCondition, DEFAULT_POINTS } from '../house/newCondition.ts';
import { judgeReading } from '../conformity/checks.ts';
import { judgeableReadings } from '../conformity/judgeable.ts';
import { printChart } from '../charts/printChart.ts';
import { printFile } from '../charts/chartPages.ts';
import { readingFile } from '../reading/readingView.ts';
import { readingsToAim } from '../conformity/readingsToAim.ts';
import { named } from '../testing/named.ts';
import { readSheets } from '../testing/readSheets.ts';
import { refusal } from '../testing/refusal.ts';
import { openTestServices } from '../testing/testServices.ts';
import type { TestServices } from '../testing/testServices.ts';
import { saveToleranceSet, toleranceSets } from '../conformity/toleranceSets.ts';
import { trialChecks } from '../conformity/trialChecks.ts';
import { unitOfWork } from '../kernel/context.ts';
import { AIM_CHECK } from '../ledger/kinds/aimCheckKind.ts';
import { storedResult } from '../ledger/storedResult.ts';
import { resultFile } from '../ledger/versions.ts';
import { conformitySurface } from '../overview/proofSurfaces.ts';
import { standingOf } from '../overview/standing.ts';
import { printWedge } from './printWedge.ts';
import type { WedgeInput } from './printWedge.ts';

const TICKS = DEFAULT_POINTS.filter(({ tickAtPrint }) => tickAtPrint).map(({ label }) => label);
const HOUR = 3_600_000;
let services: TestServices;
let proofer = 0;
let newsprint = 0;
let proof = 0;

beforeAll(async () => {
  services = await openTestServices('melto_wedges');
  const wren = named((await conditionChoices(services)).devices, 'Wren');
  proofer = (
    await createCondition(services, {
      deviceId: wren.id,
      stockId: named(wren.stocks, 'Quay Proof 200').id,
      inkSet: wren.inkSet,
      mode: 'fine',
      points: DEFAULT_POINTS,
    })
  ).id;
  await registerPublishedAims(services, installedCharacterisations());
  const full = (await aimSets(services)).find(({ family }) => family === 'tr002')?.id ?? 0;
  newsprint = (await sayAimMode(services, full, 'M1')).id;
  proof = (await toleranceSets(services)).find(({ set }) => set.id === 'iso12647-7-proof')?.id ?? 0;
});
afterAll(async () => services.database.close());

const by = (through: JudgedBy['through'], aimSetId = newsprint): JudgedBy => ({
  aimSetId,
  toleranceSetId: proof,
  substrateCorrected: false,
  through,
});
const print = (input: Partial<WedgeInput>) =>
  printWedge(services, proofer, { kind: 'proof', paper: 'a4', reader: 'strip', ...input }, { ticks: TICKS });

describe('wedges on a device that takes RGB', () => {
  let profileId = 0;
  let sheet = '';

  it('are refused without a profile, and as device values', async () => {
    expect((await refusal(print({ judgedBy: by('profile, absolute') }))).title).toBe(
      'There is no profile in force.',
    );
    expect((await refusal(print({ judgedBy: by('device values') }))).field).toBe('through');
    expect((await refusal(print({ judgedBy: undefined }))).field).toBe('judgedBy');
    expect((await refusal(print({ kind: 'watch' }))).type).toBe('conflict');
  });

  it('go through the profile: CMYK is asked for, RGB is sent', async () => {
    const { id } = await createChart(services, proofer, { patches: 300, paper: 'a4' });
    const { sheets } = await printChart(services, id, { ticks: TICKS });
    await advanceClock(services, 3 * HOUR);
    const { readingId } = await readSheets(services, sheets);
    const choices = { readingId, version: 4, tableSize: 'small', namePattern: 'x' } as const;
    const store = await buildProfile(services, { conditionId: proofer, choices }, () => {});
    profileId = await unitOfWork(services, store);
    const printed = await print({ judgedBy: by('profile, absolute') });
    [sheet] = printed.sheets;
    const row = await findPrint(services.database, printed.printId);
    const chart = await loadChart(services, row?.chartId ?? 0);
    expect(chart.set.process).toEqual(CMYK);
    expect(chart.set.device).toHaveLength(84 * 4);
    expect(row?.deviceValues).toHaveLength(84 * 3);
    expect(row?.profileResultId).toBe(profileId);
    for (const value of row?.deviceValues ?? []) expect(255 * value).toBeCloseTo(Math.round(255 * value), 3);
  });

  it('are cut to their strips in a PDF, as sent or in CMYK', async () => {
    for (const asked of [false, true]) {
      const { content } = await printFile(services, sheet, 'pdf', asked);
      const { width, height } = (await PDFDocument.load(content)).getPage(0).getSize();
      expect((width * 25.4) / 72).toBeCloseTo(210, 1);
      // Head of 36 mm, four strips of 8.5 mm with 1.5 mm between, 5 mm below.
      expect((height * 25.4) / 72).toBeCloseTo(36 + 4 * 8.5 + 3 * 1.5 + 5, 1);
    }
    const [sent, asked] = await Promise.all([
      printFile(services, sheet, 'pdf'),
      printFile(services, sheet, 'pdf', true),
    ]);
    expect(Buffer.from(sent.content).equals(Buffer.from(asked.content))).toBe(false);
    const chart = await findSheet(services.database, sheet);
    const reference = await chartReference(services, chart?.chartId ?? 0);
    expect(Buffer.from(reference.content).toString('utf8')).toContain('CMYK_C');
  });

  it('conform where the aims lie within the gamut, with gamut and model in the budget', async () => {
    await advanceClock(services, 3 * HOUR);
    const { resultId } = await readSheets(services, [sheet]);
    const { detail } = await storedResult(services, resultId ?? 0, AIM_CHECK);
    expect(['conforms', 'near']).toContain(detail.verdict);
    expect(detail.header.through).toBe('profile v1, absolute colorimetric');
    expect(detail.budget?.parts.map(({ source }) => source)).toEqual([
      'instrument',
      'model',
      'gamut',
      'rest',
    ]);
    expect(detail.decides.outOfReach.length).toBeLessThan(12);
    const [trial] = await trialChecks(services);
    expect(trial).toMatchObject({ id: resultId, verdict: detail.verdict });
    expect(trial.patches).toHaveLength(detail.patches.length);
  });

  it('do not conform where they lie outside, and the check says that no calibration brings them there', async () => {
    const coated = (await aimSets(services)).find(({ family }) => family === 'fogra39l')?.id ?? 0;
    const { sheets } = await print({ judgedBy: by('profile, absolute', coated) });
    await advanceClock(services, 3 * HOUR);
    const { resultId } = await readSheets(services, sheets);
    const { detail } = await storedResult(services, resultId ?? 0, AIM_CHECK);
    expect(detail.verdict).toBe('does-not-conform');
    const deciding = new Set(detail.decides.deciding.flatMap(({ rows }) => rows));
    expect(detail.decides.outOfReach.some((row) => deciding.has(row))).toBe(true);
  });

  it('of own patches are taken as they are, within bounds', async () => {
    const patches = [
      { name: 'paper', device: [0, 0, 0, 0] },
      { name: 'our green', device: [70, 0, 90, 10] },
    ];
    const { printId } = await print({ kind: 'own', patches, judgedBy: by('profile, relative') });
    const row = await findPrint(services.database, printId);
    const chart = await loadChart(services, row?.chartId ?? 0);
    expect(chart.set.names).toEqual(['paper', 'our green']);
    expect(
      (await refusal(print({ kind: 'own', patches: [], judgedBy: by('profile, relative') }))).field,
    ).toBe('patches');
    const few = await createAimSetByHand(
      services,
      { name: 'few' },
      [{ device: [0, 0, 0, 0], lab: [95, 0, 0] }],
      {},
    );
    const refused = await refusal(print({ kind: 'own', patches, judgedBy: by('profile, relative', few.id) }));
    expect(refused.title).toContain('no aim for C M Y K 70 0 90 10');
  });

  it('carry spot colours, judged by their own aims and kept out of a house standard', async () => {
    const spots = [
      { name: 'Seed red', lab: [52, 48, 26] },
      { name: 'Neon', lab: [75, -90, 80] },
    ] as const;
    const judgedBy = by('profile, absolute');
    const { sheets, printId } = await print({ judgedBy, spots });
    const row = await findPrint(services.database, printId);
    expect((await loadChart(services, row?.chartId ?? 0)).set.names?.slice(-4)).toEqual([
      ...['Seed red', 'Seed red', 'Neon', 'Neon'],
    ]);
    await advanceClock(services, 3 * HOUR);
    const { resultId, readingId } = await readSheets(services, sheets);
    const { detail } = await storedResult(services, resultId ?? 0, AIM_CHECK);
    const [red, neon] = detail.patches.slice(-2);
    expect(red).toMatchObject({ name: 'Seed red', aim: [52, 48, 26], groups: ['spot colours'], device: [] });
    expect(red.deltaE).toBeLessThan(2.5);
    // No ink of this device is so bright: its metric fails, and its profile knows why.
    expect(neon.deltaE).toBeGreaterThan(5);
    expect(detail.decides.outOfReach).toContain(detail.patches.indexOf(neon));
    expect(detail.metrics.filter(({ verdict }) => verdict === 'does-not-conform')).toMatchObject([
      { group: 'spot colours', count: 2, worst: detail.patches.indexOf(neon) },
    ]);
    expect(detail.distribution.count).toBe(detail.patches.length - 2);
    expect(new Set(detail.sheet.flat(2)).has(detail.patches.indexOf(red))).toBe(true);
    const [trial] = await trialChecks(services);
    expect(trial.patches.map(({ spot }) => spot).slice(-3)).toEqual([undefined, 'Seed red', 'Neon']);
    const standard = await createAimSetFromReading(services, { name: 'With spots' }, readingId);
    expect((await loadAims(services, standard.id)).view.patches).toBe(84);
    for (const [wrong, field] of [
      [{ spots, judgedBy: by('device values') }, 'through'],
      [{ spots: [spots[0], spots[0]], judgedBy }, 'spots'],
      [{ spots: [{ name: ' ', lab: [50, 0, 0] }], judgedBy }, 'spots'],
    ] as const)
      expect((await refusal(print(wrong))).field).toBe(field);
  });

  it('are what can be judged again, or become a house standard', async () => {
    const { readings, curves } = await judgeableReadings(services, proofer);
    expect(readings.map(({ title }) => title)).toEqual(Array(3).fill('Proof wedge'));
    expect(curves).toBeNull();
    const offered = await readingsToAim(services);
    expect(offered.map(({ id }) => id)).toEqual(readings.map(({ id }) => id));
    const { id } = await createAimSetFromReading(services, { name: 'Proof as it is' }, readings[1].id);
    const { aims, view } = await loadAims(services, id);
    expect(view).toMatchObject({ source: 'reading', patches: 84, conditions: { mode: 'M1' } });
    expect(aims.spectra?.values).toHaveLength(84 * 36);
  });

  it('of a list alone is due again by its own days, and told over time', async () => {
    const { id } = await saveToleranceSet(services, {
      ...{ name: 'House colours', source: 'agreed with the foundry' },
      metrics: [{ group: 'spot colours', statistic: 'largest', quantity: 'ΔE00', limit: 3 }],
      substrateUncorrected: false,
    });
    const asked = {
      kind: 'own',
      patches: [{ name: 'paper', device: [0, 0, 0, 0] }],
      judgedBy: { ...by('profile, absolute'), toleranceSetId: id, everyDays: 7 },
      spots: [
        { name: 'Seed red', lab: [52, 48, 26] },
        { name: 'Clay', lab: [60, 20, 25] },
      ],
    } as const;
    const weekly = async (): Promise<number> => {
      const { sheets } = await print(asked);
      await advanceClock(services, 3 * HOUR);
      return (await readSheets(services, sheets)).resultId ?? 0;
    };
    const first = await weekly();
    const { row, detail } = await storedResult(services, first, AIM_CHECK);
    expect(row).toMatchObject({ verdict: 'conforms', validDays: 7 });
    expect(detail.patches.map(({ name }) => name)).toEqual(['paper', 'Seed red', 'Clay']);
    expect((await conformitySurface(services, proofer, NaN)).spots).toBeUndefined();
    const saysDue = async (): Promise<boolean> =>
      (await standingOf(services, proofer)).reasons.includes('The last conformity check is over 7 days old.');
    await advanceClock(services, 6 * 24 * HOUR);
    expect(await saysDue()).toBe(false);
    await advanceClock(services, 25 * HOUR);
    expect(await saysDue()).toBe(true);
    await weekly();
    expect(await saysDue()).toBe(false);
    const { spots } = await conformitySurface(services, proofer, NaN);
    expect(spots?.madeMs).toHaveLength(2);
    expect(spots?.colours.map(({ name }) => name).sort()).toEqual(['Clay', 'Seed red']);
    for (const { deltaE, moved } of spots?.colours ?? []) {
      expect(deltaE.every((own) => own < 3)).toBe(true);
      expect(moved).toBeGreaterThan(0);
    }
    // Judged anew, without a word of its days.
    const again = await judgeReading(services, (await judgeableReadings(services, proofer)).readings[0].id, {
      ...{ aimSetId: newsprint, toleranceSetId: id, substrateCorrected: false },
    });
    expect((await storedResult(services, again.id, AIM_CHECK)).row.validDays).toBeNull();
  });

  it('aims come from characterisation files and refuse what is none, whatever is done to the bytes', async () => {
    const [reading] = (await judgeableReadings(services, proofer)).readings;
    const rgb = await readingFile(services, reading.id);
    expect(
      (await refusal(createAimSetFromFile(services, { name: 'x' }, 'rgb.txt', rgb.content))).title,
    ).toContain('no CMYK values');
    const profile = await resultFile(services, profileId, 'profile');
    expect(
      (await refusal(createAimSetFromFile(services, { name: 'x' }, 'rgb.icc', profile.content))).title,
    ).toContain('expected a CMYK output profile');
    const rows = Array.from(
      { length: 220 },
      (_, i) => `${i % 100}\t${(7 * i) % 100}\t${(3 * i) % 100}\t0\t${90 - i / 4}\t0\t0`,
    );
    const text = `CGATS.17\nNUMBER_OF_FIELDS 7\nBEGIN_DATA_FORMAT\nCMYK_C CMYK_M CMYK_Y CMYK_K LAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nNUMBER_OF_SETS 220\nBEGIN_DATA\n${rows.join('\n')}\nEND_DATA\n`;
    const { id } = await createAimSetFromFile(services, { name: 'Data' }, 'data.txt', Buffer.from(text));
    expect(unwrap(readPatchSet(text)).ids).toHaveLength(220);
    expect((await loadAims(services, id)).view).toMatchObject({ source: 'data', patches: 220 });
    const random = createRandom(31);
    const before = (await aimSets(services)).length;
    let refusedCount = 0;
    for (const source of [Buffer.from(text), Buffer.from(profile.content)])
      for (let i = 0; i < 25; i++) {
        const bytes = Buffer.from(source.subarray(0, 40 + random.below(source.length - 40)));
        for (let flips = 0; flips < 4; flips++) bytes[random.below(bytes.length)] = random.below(256);
        const answer = await createAimSetFromFile(services, { name: `f${i}` }, 'f', bytes).then(
          () => undefined,
          (error: unknown) => error,
        );
        if (answer === undefined) continue;
        refusedCount++;
        expect(answer).toMatchObject({ field: 'file' });
      }
    expect(refusedCount).toBeGreaterThan(25);
    expect((await aimSets(services)).length).toBe(before + 50 - refusedCount);
  });
});
