import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { patchXyz } from '@melto/core/cgats/patchColours';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { fitInkModel } from '@melto/core/characterise/inkModel';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import type { CheckDetail } from '@melto/core/conformity/checkDetail';
import { CMYK } from '@melto/core/device/process';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { unwrap } from '@melto/core/result';
import { separationFrom } from '@melto/core/separate/separation';
import { findResultFile } from '@melto/store/results';
import { predictedConformity } from '../src/wedges/predictedWedge.ts';
import { printWedge } from '../src/wedges/printWedge.ts';
import { aimSets } from '../src/conformity/aimSets.ts';
import { toleranceSets } from '../src/conformity/toleranceSets.ts';
import { createChart } from '../src/profile/profilingChart.ts';
import { printChart } from '../src/charts/printChart.ts';
import { putInForce, versionsOf } from '../src/ledger/versions.ts';
import { catalogue } from '../src/overview/catalogue.ts';
import { conditionView } from '../src/overview/conditionView.ts';
import { floor } from '../src/overview/floor.ts';
import { conformitySurface } from '../src/overview/proofSurfaces.ts';
import { buildSurface, profileSurface } from '../src/overview/surfaces.ts';
import { buildProfile } from '../src/profile/buildProfile.ts';
import { previewProfile, takeProfile } from '../src/profile/givenProfile.ts';
import {
  changeKeptProfile,
  keepProfile,
  keptProfileFile,
  putKeptProfileAway,
} from '../src/profile/keptProfiles.ts';
import { profileShelf, sourceProfileFile, standardProfileFile } from '../src/profile/shelf.ts';
import { takeSourceProfile } from '../src/charts/sourceProfiles.ts';
import { advanceClock } from '../src/simulated/advanceClock.ts';
import { heronOn, HOUR, TICKS } from '../src/testing/heron.ts';
import { readSheets } from '../src/testing/readSheets.ts';
import { refusal } from '../src/testing/refusal.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';

const SCREEN = { fileName: 'srgb.icc', bytes: readFileSync('/usr/share/color/icc/sRGB.icc') };

/** A profile as a service might have built it: version 2, from published data, which it does not carry. */
function offsetProfile(share = 1): { readonly fileName: string; readonly bytes: Uint8Array } {
  const set = unwrap(readPatchSet(readFileSync('/usr/share/color/icc/FOGRA39L.ti3', 'utf8')));
  const every = 5;
  const rows = Array.from({ length: Math.floor(set.ids.length / every) }, (_, i) => every * i);
  const device = gatherRows(set.device ?? new Float64Array(0), rows, 4);
  const xyz = gatherRows(patchXyz(set) ?? new Float64Array(0), rows, 3).map((value) => share * value);
  const { profile } = buildInkProfile(fitInkModel(device, 4, xyz), {
    ...{ version: 2, description: 'Coated offset', copyright: 'none', createdMs: Date.UTC(2025, 4, 6) },
    ...{ paperXyz: meanPaperXyz(CMYK, device, xyz) ?? [87, 90, 74], tableSize: 'small' },
    separation: separationFrom({ black: 'medium', totalInk: 3 }),
  });
  return { fileName: 'coated offset.icc', bytes: writeIcc(profile) };
}

let services: TestServices;
let press = 0;
let OFFSET: ReturnType<typeof offsetProfile> = { fileName: '', bytes: new Uint8Array(0) };
beforeAll(async () => {
  OFFSET = offsetProfile();
  services = await openTestServices('melto_given');
  press = await heronOn(services, 'Lantern Gloss 150');
});
afterAll(() => services.database.close());

describe('a profile from elsewhere', () => {
  it('is refused in one sentence where it cannot be printed through, and nothing is stored', async () => {
    const origin = 'the paper seller';
    const take = (file: { fileName: string; bytes: Uint8Array }): ReturnType<typeof refusal> =>
      refusal(takeProfile(services, press, { ...file, origin }));
    expect((await take(SCREEN)).title).toContain('a profile of a screen or a working space');
    expect((await take({ fileName: 'x.icc', bytes: Buffer.from('no profile') })).title).toContain(
      'x.icc is no ICC profile that can be read',
    );
    const cut = { fileName: 'cut.icc', bytes: OFFSET.bytes.subarray(0, OFFSET.bytes.length - 1000) };
    expect((await take(cut)).title).toContain('cut.icc');
    expect((await refusal(takeProfile(services, press, { ...OFFSET, origin: '  ' }))).field).toBe('origin');
    expect(await versionsOf(services, press, 'profile')).toEqual([]);
  });

  it('is shown before it is taken, and becomes a version with its origin and its file as it came', async () => {
    const preview = await previewProfile(services, press, OFFSET);
    expect(preview.intents).toEqual(['perceptual', 'relative colorimetric', 'saturation']);
    expect(preview.white[0]).toBeGreaterThan(85);
    expect(preview.totalInk).toBeGreaterThan(2);
    expect(await versionsOf(services, press, 'profile')).toEqual([]);
    const { id } = await takeProfile(services, press, { ...OFFSET, origin: ' the paper seller, coated ' });
    const { given, result } = await profileSurface(services, press, NaN);
    expect(result).toBeUndefined();
    expect(given?.summary).toMatchObject({ origin: 'the paper seller, coated', bytes: OFFSET.bytes.length });
    const file = await findResultFile(services.database, id, 'profile');
    expect(file?.name).toBe('coated offset_v1.icc');
    expect(Buffer.compare(file?.content ?? Buffer.alloc(0), Buffer.from(OFFSET.bytes))).toBe(0);
    // Spine, floor and the page that builds another speak of it.
    const spine = (await conditionView(services, press)).links.find(({ link }) => link === 'profile');
    expect(spine).toMatchObject({ version: 1, figures: 'from elsewhere', picture: { kind: 'outline' } });
    expect((await floor(services)).rows.find((row) => row.id === press)?.ramps.length).toBeGreaterThan(0);
    expect((await buildSurface(services, press)).chosen).toEqual([]);
  });

  it('is printed through and judged; its own fit is not known', async () => {
    const { profileResultId } = await conformitySurface(services, press, NaN);
    const [aims] = await aimSets(services);
    const [tolerances] = await toleranceSets(services);
    const { sheets } = await printWedge(
      services,
      press,
      {
        ...{ kind: 'proof', paper: 'a4', reader: 'strip' },
        judgedBy: {
          ...{ aimSetId: aims?.id ?? 0, toleranceSetId: tolerances?.id ?? 0, substrateCorrected: false },
          through: 'profile, absolute',
        },
      },
      { ticks: TICKS, told: { profile: profileResultId } },
    );
    await advanceClock(services, 3 * HOUR);
    const { resultId } = await readSheets(services, sheets);
    const { result } = await conformitySurface(services, press, resultId ?? 0);
    const detail = result?.detail as unknown as { budget: { parts: { source: string }[] } };
    expect(detail.budget.parts.map(({ source }) => source)).not.toContain('model');
  });

  it('stands among versions that were built here, compared with what was in force, and is put back', async () => {
    const chart = await createChart(services, press, { patches: 200, paper: 'a4' });
    const { sheets } = await printChart(services, chart.id, { ticks: TICKS });
    await advanceClock(services, 3 * HOUR);
    const { readingId } = await readSheets(services, sheets);
    // A paper that is an eighth darker is another than the one that was measured.
    const papers = await Promise.all(
      [OFFSET, offsetProfile(7 / 8)].map((file) => previewProfile(services, press, file)),
    );
    expect(papers.map(({ warnings }) => warnings.some((words) => words.includes('another paper')))).toEqual([
      false,
      true,
    ]);
    expect(papers[1].warnings.join()).toContain(`measured on ${sheets[0].slice(0, -2)}`);
    const choices = { readingId, version: 4, tableSize: 'small', namePattern: '{device}' } as const;
    const store = await buildProfile(services, { conditionId: press, choices }, () => undefined);
    await services.database.transaction((database) => store({ ...services, database }));
    expect((await profileSurface(services, press, NaN)).result?.detail.compared?.version).toBe(1);
    const again = await takeProfile(services, press, { ...OFFSET, origin: 'the same again' });
    expect((await profileSurface(services, press, NaN)).given?.detail.compared?.version).toBe(2);
    const versions = await versionsOf(services, press, 'profile');
    expect(versions.map(({ version, inForce }) => [version, inForce])).toEqual([
      [1, false],
      [2, false],
      [3, true],
    ]);
    await putInForce(services, versions[1].id);
    expect((await profileSurface(services, press, NaN)).result?.row.version).toBe(2);
    expect((await profileSurface(services, press, again.id)).given?.row.version).toBe(3);
  });

  it('says before printing what a wedge comes to, and keeps it beside what was measured', async () => {
    const aims = (await aimSets(services)).find(({ family }) => family === 'fogra39l');
    const tolerances = (await toleranceSets(services)).find(({ set }) => set.id === 'iso12647-7-proof');
    const judgedBy = {
      ...{ aimSetId: aims?.id ?? 0, toleranceSetId: tolerances?.id ?? 0, substrateCorrected: false },
      through: 'profile, absolute',
    } as const;
    const predicted = await predictedConformity(services, press, 'proof', judgedBy);
    const { sheets } = await printWedge(
      services,
      press,
      { kind: 'proof', paper: 'a4', reader: 'strip', judgedBy },
      { ticks: TICKS },
    );
    await advanceClock(services, 3 * HOUR);
    const { resultId } = await readSheets(services, sheets);
    const { result } = await conformitySurface(services, press, resultId ?? NaN);
    if (predicted === null || result === undefined) throw new Error('no check');
    const detail = result.detail as CheckDetail;
    expect(detail.header.predicted).toEqual(predicted);
    // One print is within what nine in ten are, and a little more for its instrument.
    expect(detail.distribution.mean).toBeGreaterThan(predicted.meanBetween[0] - 0.3);
    expect(detail.distribution.mean).toBeLessThan(predicted.meanBetween[1] + 0.3);
    expect(predicted.verdict).toBe(detail.verdict);
    // As device values an uncalibrated press is far from it, and that is known before as well.
    const raw = await predictedConformity(services, press, 'proof', {
      ...judgedBy,
      through: 'device values',
    });
    expect(raw).toMatchObject({ verdict: 'does-not-conform', chance: 0 });
    expect(raw?.meanBetween[0]).toBeGreaterThan(2 * predicted.meanBetween[1]);
    expect(raw?.closest?.value).toBeGreaterThan(raw?.closest?.limit ?? 0);
  });

  it('is taken sixteen times at once as sixteen versions', async () => {
    const taken = await Promise.all(
      Array.from({ length: 16 }, (_, i) => takeProfile(services, press, { ...OFFSET, origin: `desk ${i}` })),
    );
    expect(new Set(taken.map(({ id }) => id)).size).toBe(16);
    const versions = await versionsOf(services, press, 'profile');
    expect(versions.map(({ version }) => version)).toEqual(Array.from({ length: 19 }, (_, i) => i + 1));
  });
});

describe('the catalogue', () => {
  it('has each condition with a profile in force by what it prints, and its best check', async () => {
    const [row, ...more] = await catalogue(services);
    expect(more).toEqual([]);
    const { inForce, summary } = (await profileInPlace()) ?? {};
    expect(row).toMatchObject({ conditionId: press, device: 'Heron', stock: 'Lantern Gloss 150' });
    expect(row.profile.key).toBe(`result-${inForce ?? 0}`);
    expect(row.gamut?.volume).toBe(summary?.gamut?.volume);
    // An offset press on coated paper prints some 400 thousand.
    expect(row.gamut?.volume).toBeGreaterThan(300_000);
    expect(row.gamut?.volume).toBeLessThan(600_000);
    expect(row.gamut?.density).toBeGreaterThan(1);
    expect(row.gamut?.density).toBeLessThan(2.5);
    const checks = await services.database.rows<{ summary: string }>(
      "SELECT summary FROM result WHERE link = 'conformity'",
      [],
    );
    const means = checks.map((check) => (JSON.parse(check.summary) as { mean: number }).mean);
    expect(means.length).toBeGreaterThan(1);
    expect(row.best?.mean).toBeCloseTo(Math.min(...means), 9);
  });

  async function profileInPlace() {
    const [found] = (await versionsOf(services, press, 'profile')).filter(({ inForce }) => inForce);
    if (found === undefined) return undefined;
    const { given, result } = await profileSurface(services, press, found.id);
    return { inForce: found.id, summary: given?.summary ?? result?.summary };
  }
});

describe('the shelf', () => {
  it('has the profiles of conditions, those that jobs carry and the standard ones, and knows the same file again', async () => {
    const before = await profileShelf(services);
    const built = before.filter(({ condition }) => condition !== null);
    expect(built.length).toBeGreaterThanOrEqual(2);
    expect(built.map(({ origin }) => origin)).toContain('from elsewhere');
    expect(built[0].condition).toMatchObject({ device: 'Heron', stock: 'Lantern Gloss 150' });
    expect(built.filter(({ condition }) => (condition?.inForceOn ?? 0) > 0)).toHaveLength(1);
    expect(before.find(({ key }) => key === 'standard-sRGB')).toMatchObject({
      origin: 'standard',
      space: 'RGB',
    });
    const { id } = await takeSourceProfile(services, OFFSET.fileName, OFFSET.bytes);
    const after = await profileShelf(services);
    expect(after).toHaveLength(before.length + 1);
    const taken = after.find(({ key }) => key === `source-${id}`);
    const same = after.filter(({ digest }) => digest === taken?.digest);
    expect(same.map(({ origin }) => origin)).toContain('from elsewhere');
    const file = await sourceProfileFile(services, id);
    expect([...file.content]).toEqual([...OFFSET.bytes]);
    expect((await refusal(sourceProfileFile(services, 9999))).type).toBe('not-found');
    expect(standardProfileFile('sRGB').content.length).toBeGreaterThan(400);
    expect(() => standardProfileFile('../../etc/passwd')).toThrow(/standard profile/);
  });

  it('keeps a profile from outside once, tells it anew, and takes it off and back', async () => {
    const kept = async () => (await profileShelf(services)).filter(({ origin }) => origin === 'kept');
    const words = { origin: 'maker', note: ' with the device ' } as const;
    const keep = () => keepProfile(services, SCREEN, words);
    // Many desks at once: one file, one place.
    const ids = new Set((await Promise.all(Array.from({ length: 8 }, keep))).map(({ id }) => id));
    expect(ids.size).toBe(1);
    const [id] = ids;
    const [own, ...more] = await kept();
    expect(more).toEqual([]);
    expect(own).toMatchObject({ key: `kept-${id}`, space: 'RGB', note: 'with the device' });
    expect(own.kept).toEqual({ id, origin: 'maker' });
    expect([...(await keptProfileFile(services, id)).content]).toEqual([...SCREEN.bytes]);
    await changeKeptProfile(services, id, { origin: 'service', note: 'new' });
    // What is told again as it was is no error.
    await changeKeptProfile(services, id, { origin: 'service', note: 'new' });
    expect((await kept())[0]).toMatchObject({ note: 'new', kept: { origin: 'service' } });
    await putKeptProfileAway(services, id, true);
    expect(await kept()).toEqual([]);
    await putKeptProfileAway(services, id, false);
    expect(await kept()).toHaveLength(1);
    await putKeptProfileAway(services, id, true);
    expect((await keep()).id).toBe(id);
    expect(await kept()).toHaveLength(1);
    const refused = await Promise.all(
      [
        changeKeptProfile(services, 9999, words),
        putKeptProfileAway(services, 9999, true),
        keptProfileFile(services, 9999),
      ].map(refusal),
    );
    expect(refused.map(({ type }) => type)).toEqual(['not-found', 'not-found', 'not-found']);
    const bad = await refusal(keepProfile(services, { fileName: 'x.icc', bytes: Buffer.from('no') }, words));
    expect(bad.title).toContain('x.icc is no ICC profile');
    expect(await kept()).toHaveLength(1);
  });
});
