import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { deltaEAb } from '@melto/core/colour/deltaEAb';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { deviceToLab } from '@melto/core/icc/profileTransform';
import { profileText } from '@melto/core/icc/profileText';
import { readIcc } from '@melto/core/icc/readIcc';
import { estimateUvShare, studyFields } from '@melto/core/light/brightenerStudy';
import { predictStudyPage } from '@melto/core/light/predictStudyPage';
import { ROOM_LIGHTS } from '@melto/simulator/roomLights';
import { adaptationOf, coloursUnder } from '@melto/core/light/colourUnder';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab, xyzToLab } from '@melto/core/colour/xyzToLab';
import { mean, percentile } from '@melto/core/numerics/statistics';
import { unwrap } from '@melto/core/result';
import { findResultFile } from '@melto/store/results';
import { advanceClock } from '../src/simulated/advanceClock.ts';
import { loadChart } from '../src/charts/chart.ts';
import { printChart } from '../src/charts/printChart.ts';
import {
  changeLight,
  putLightAway,
  takeLights,
  tellUltraviolet,
  viewingLight,
  viewingLights,
} from '../src/light/viewingLights.ts';
import { barePaper, pooledReadings } from '../src/profile/pooledReadings.ts';
import { studyData, studyPage } from '../src/profile/study.ts';
import { simulatedPicks } from '../src/simulated/simulatedEye.ts';
import { sheetBrightener, tellsShares } from '../src/profile/ultraviolet.ts';
import { withdrawReading } from '../src/watch/withdrawReading.ts';
import { buildProfile } from '../src/profile/buildProfile.ts';
import { createChart } from '../src/profile/profilingChart.ts';
import { requestProfile } from '../src/profile/requestProfile.ts';
import { printShortCheck } from '../src/conformity/shortChecks.ts';
import { putInForce, versionsOf } from '../src/ledger/versions.ts';
import { PROFILE } from '../src/ledger/kinds/profileKind.ts';
import { storedResult } from '../src/ledger/storedResult.ts';
import { verifyHouse } from '../src/overview/verifyHouse.ts';
import { loadReading } from '../src/reading/loadReading.ts';
import { readingUnder } from '../src/reading/readingUnder.ts';
import { importReading } from '../src/reading/importReading.ts';
import { conditionChoices, createCondition, DEFAULT_POINTS } from '../src/house/newCondition.ts';
import { HOUR, TICKS } from '../src/testing/heron.ts';
import { named } from '../src/testing/named.ts';
import { readSheets } from '../src/testing/readSheets.ts';
import { refusal } from '../src/testing/refusal.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';

let services: TestServices;
beforeAll(async () => {
  services = await openTestServices('melto_lights');
});
afterAll(() => services.database.close());

/** The Wren with a stock and its inks, as a new condition asks for them. */
async function wrenOn(stock: string) {
  const { id: deviceId, stocks, inkSet } = named((await conditionChoices(services)).devices, 'Wren');
  return { deviceId, stockId: named(stocks, stock).id, inkSet };
}

/** A warm lamp of blue diode and phosphor, as a file. */
const track = (scale = 1): Buffer =>
  Buffer.from(
    [
      'nm;Gallery track',
      ...Array.from({ length: 89 }, (_, i) => {
        const nm = 340 + 5 * i;
        const bump = (at: number, width: number, height: number): number =>
          height * Math.exp(-0.5 * ((nm - at) / width) ** 2);
        return `${nm};${(scale * (bump(452, 10, 0.28) + bump(530, 36, 0.23) + bump(612, 50, 0.44) + bump(640, 30, 0.2))).toFixed(5)}`;
      }),
    ].join('\n'),
  );

describe('lights of the house', () => {
  it('stand behind the standard ones, with what they are like', async () => {
    const { taken } = await takeLights(services, 'gallery.csv', track());
    expect(taken.map(({ name }) => name)).toEqual(['Gallery track']);
    const lights = await viewingLights(services);
    expect(lights.map(({ key }) => key)).toEqual([
      'D50',
      'D55',
      'D65',
      'D75',
      'A',
      'F2',
      'F8',
      'F11',
      `own-${taken[0].id}`,
    ]);
    const own = lights[8];
    expect(own.figures.temperature?.kelvin).toBeCloseTo(2990, -1);
    expect(own.figures.rendering?.general).toBeCloseTo(91.4, 0);
    expect(own.figures.uvShare).toBeLessThan(0.001);
    expect(lights[0].figures.uvShare).toBeNull();
    expect(lights.every(({ power }) => Math.max(...power) === 1)).toBe(true);
  });

  it('are taken once, also where two take the same at once; of another strength they are the same light', async () => {
    expect((await refusal(takeLights(services, 'again.csv', track()))).title).toContain(
      'already, as Gallery track',
    );
    const other = (): Buffer =>
      Buffer.from(
        ['nm,Booth', ...Array.from({ length: 36 }, (_, i) => `${380 + 10 * i},${1 + i}`)].join('\n'),
      );
    const both = await Promise.allSettled([1, 2].map(() => takeLights(services, 'booth.csv', other())));
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    expect((await viewingLights(services)).filter(({ name }) => name === 'Booth')).toHaveLength(1);
  });

  it('are refused in a sentence where the file has none, and nothing is stored', async () => {
    const before = (await viewingLights(services)).length;
    for (const [text, words] of [
      ['hello', 'a column for each wavelength (380, 390, … or SPECTRAL_NM380), or one named nm'],
      ['nm,x\n380,1\n390,1', '400 to 700 nm'],
      [
        'CMYK_C,CMYK_M,CMYK_Y,CMYK_K,SPECTRAL_NM380,SPECTRAL_NM390,SPECTRAL_NM400\n0,0,0,0,1,1,1',
        'device values beside it',
      ],
      ['<!DOCTYPE a [<!ENTITY b "c">]><CxF>&b;</CxF>', 'holds no light'],
    ] as const) {
      const refused = await refusal(takeLights(services, 'x.csv', Buffer.from(text)));
      expect(refused.title).toContain(words);
      expect(refused.detail).toContain('Nothing was stored');
    }
    expect(await viewingLights(services)).toHaveLength(before);
  });

  it('are named, put away and taken out; their spectrum stays', async () => {
    const [own] = (await viewingLights(services)).filter(({ name }) => name === 'Booth');
    const id = own.id ?? 0;
    await changeLight(services, id, { name: ' Proofing   booth ', note: ' tubes ' });
    expect((await refusal(changeLight(services, id, { name: ' ', note: '' }))).field).toBe('name');
    await putLightAway(services, id, true);
    const after = (await viewingLights(services)).find((light) => light.id === id);
    expect(after).toMatchObject({ name: 'Proofing booth', note: 'tubes', away: true, power: own.power });
    // What was made under it is computed again under it.
    expect((await viewingLight(services, own.key)).power[0]).toBeCloseTo(1 / 36, 6);
    await putLightAway(services, id, false);
    for (const work of [
      () => changeLight(services, 999, { name: 'x', note: '' }),
      () => putLightAway(services, 999, true),
    ])
      expect((await refusal(work())).title).toBe('There is no light 999.');
    for (const key of ['own-999', 'own-', 'own-1e3', 'X9', 'own-1 OR 1=1'])
      expect((await refusal(viewingLight(services, key))).title).toBe(`There is no light ${key}.`);
  });
});

describe('the ultraviolet of a light', () => {
  it('is what the latest study told, kept with its range', async () => {
    const own = async () => (await viewingLights(services)).find(({ name }) => name === 'Gallery track');
    const id = (await own())?.id ?? 0;
    expect((await own())?.ultraviolet).toBeNull();
    await tellUltraviolet(services, id, { share: 0.3, low: 0.2, high: 0.4 });
    await Promise.all([0.1, 0.2].map((share) => tellUltraviolet(services, id, { share, low: 0, high: 0.5 })));
    expect([0.1, 0.2]).toContain((await own())?.ultraviolet?.share);
    for (const wrong of [
      { share: 0.1, low: 0.2, high: 0.4 },
      { share: 0.5, low: 0.2, high: 0.4 },
    ])
      expect((await refusal(tellUltraviolet(services, id, wrong))).field).toBe('share');
    expect((await refusal(tellUltraviolet(services, 999, { share: 0, low: 0, high: 0 }))).title).toBe(
      'There is no light 999.',
    );
  });
});

describe('a profile for a light', () => {
  let conditionId = 0;
  let readingId = 0;
  let key = '';
  let sheets: readonly string[] = [];
  const choices = () => ({ readingId, version: 4, tableSize: 'small', namePattern: '{device}' }) as const;

  beforeAll(async () => {
    ({ id: conditionId } = await createCondition(services, {
      ...(await wrenOn('Lantern Gloss 150')),
      mode: 'fine',
      points: DEFAULT_POINTS,
    }));
    const { id } = await createChart(services, conditionId, { patches: 400, paper: 'a3', reader: 'sheet' });
    ({ sheets } = await printChart(services, id, { ticks: TICKS }));
    await advanceClock(services, 4 * HOUR);
    ({ readingId } = await readSheets(services, sheets));
    key = (await viewingLights(services)).find(({ name }) => name === 'Gallery track')?.key ?? '';
  });

  const build = async (light?: {
    readonly key: string;
    readonly observer: '2deg' | '10deg';
  }): Promise<number> => {
    const store = await buildProfile(services, { conditionId, choices: { ...choices(), light } }, () => {});
    return store(services);
  };

  it('shows in that light what was asked for, as well as that of D50 does in D50', async () => {
    const light = await viewingLight(services, key);
    const [plainId, ownId] = [await build(), await build({ key, observer: '2deg' })];
    const { set } = await loadReading(services, readingId);
    if (set.spectra === undefined || set.device === undefined) throw new Error('no spectra');
    const { spectra, device } = set;
    const errors = async (id: number, seen: typeof light): Promise<number[]> => {
      const file = await findResultFile(services.database, id, 'profile');
      const profile = unwrap(readIcc(file?.content ?? new Uint8Array()));
      const wanted = new Float64Array((device.length / 3) * 3);
      xyzRowsToLab(coloursUnder(spectra, { light: seen, observer: '2deg' }), WHITE_D50_MEASURED, wanted);
      const told = new Float64Array(wanted.length);
      unwrap(deviceToLab(profile, 'absolute')).apply(device, told);
      return [...deltaE2000Rows(wanted, told)];
    };
    const d50 = await viewingLight(services, 'D50');
    const [own, plain, wrong] = [
      await errors(ownId, light),
      await errors(plainId, d50),
      await errors(plainId, light),
    ];
    expect(mean(own)).toBeLessThan(mean(plain) + 0.05);
    expect(percentile(own, 95)).toBeLessThan(percentile(plain, 95) + 0.15);
    // The one of D50 is another one: in that light its colours are not what it says.
    expect(mean(wrong)).toBeGreaterThan(3 * mean(own));
  });

  it('says so in its name and its file, and leaves the one in force', async () => {
    const versions = await versionsOf(services, conditionId, 'profile');
    expect(versions.map(({ inForce }) => inForce)).toEqual([true, false]);
    const { summary, detail } = await storedResult(services, versions[1].id, PROFILE);
    expect(summary.light).toBe('Gallery track, 2°');
    expect(detail.choices.light).toEqual({ key, observer: '2deg' });
    const file = await findResultFile(services.database, versions[1].id, 'profile');
    expect(file?.name).toBe('Wren_Gallerytrack2_v2.icc');
    const profile = unwrap(readIcc(file?.content ?? new Uint8Array()));
    expect(profileText(profile, 'desc')).toBe('Wren_Gallerytrack2');
    const chad = profile.tags.get('chad');
    const wanted = adaptationOf({ light: await viewingLight(services, key), observer: '2deg' });
    expect(chad?.type).toBe('sf32');
    if (chad?.type === 'sf32') chad.values.forEach((value, i) => expect(value).toBeCloseTo(wanted[i], 4));
    // From D50 to the colours of the light, in words of ΔE00.
    expect(detail.compared?.difference.mean).toBeGreaterThan(1);
    // Colour by colour, the one that moves most first, no two alike.
    const moved = detail.compared?.moved ?? [];
    expect(moved).toHaveLength(8);
    expect(moved[0].deltaE).toBe(detail.compared?.difference.largest);
    for (let i = 1; i < moved.length; i++) {
      expect(moved[i].deltaE).toBeLessThanOrEqual(moved[i - 1].deltaE);
      for (const other of moved.slice(0, i)) expect(deltaEAb(moved[i].a, other.a)).toBeGreaterThanOrEqual(25);
    }
  });

  it('neither comes in force nor is checked: prints are proven in D50', async () => {
    const [plain, own] = await versionsOf(services, conditionId, 'profile');
    const print = { ticks: TICKS, paper: 'a4' } as const;
    for (const work of [
      () => putInForce(services, own.id),
      () => printShortCheck(services, conditionId, own.id, print),
    ])
      expect((await refusal(work())).title).toBe(
        'This profile is for Gallery track, 2°; prints are compared and proven in D50.',
      );
    await putInForce(services, plain.id);
    expect((await printShortCheck(services, conditionId, plain.id, print)).sheets).toHaveLength(1);
  });

  it('comes out the same when it is computed again', async () => {
    const results = await verifyHouse(services);
    expect(results.map(({ outcome }) => outcome)).toEqual(['equal', 'equal']);
  });

  it('is for whoever looks at that size', async () => {
    const [two, ten] = await Promise.all(
      (['2deg', '10deg'] as const).map((observer) => readingUnder(services, readingId, key, observer)),
    );
    expect(two).toHaveLength(400);
    expect(Math.max(...two.map(({ lab }, i) => Math.abs(lab[1] - ten[i].lab[1])))).toBeGreaterThan(0.3);
    expect(
      Math.max(...(await readingUnder(services, readingId, 'D50', '2deg')).map(({ moved }) => moved)),
    ).toBeLessThan(1e-9);
  });

  it('takes the ultraviolet that acts in it, where the sheet was read in M1 and in M2', async () => {
    expect(await sheetBrightener(services, readingId)).toBeNull();
    const uv = (share: number, withoutReadingIds: readonly number[]) =>
      requestProfile(services, conditionId, {
        ...choices(),
        light: { key, observer: '2deg', uv: { share, withoutReadingIds } },
      });
    expect((await refusal(uv(0, []))).title).toContain('was not read without ultraviolet');
    expect((await refusal(uv(0, [readingId]))).title).toContain('was read in M1 and M1');
    const { readingId: dark } = await readSheets(services, sheets, 'M2');
    const found = await sheetBrightener(services, readingId);
    expect(found).toMatchObject({ withId: readingId, withoutId: dark });
    expect(await sheetBrightener(services, dark)).toEqual(found);
    expect([tellsShares(found, readingId), tellsShares(found, dark)]).toEqual([true, false]);
    // How much ultraviolet a lamp of M0 has nobody knows: what it does is told, and no share of it.
    const { readingId: lamp } = await readSheets(services, sheets, 'M0');
    const byLamp = await sheetBrightener(services, lamp);
    expect(byLamp).toMatchObject({ withId: lamp, withMode: 'M0', withoutId: dark });
    expect(byLamp?.paper?.b).toBeLessThan(-0.5);
    expect(tellsShares(byLamp, lamp)).toBe(false);
    expect((await sheetBrightener(services, dark))?.withMode).toBe('M1');
    // A bright paper is bluer and whiter with ultraviolet, and its light tints turn most.
    expect(found?.paper?.b).toBeLessThan(-1);
    const [withUv, without] = found?.paper?.whiteness ?? [];
    expect(withUv?.whiteness ?? 0).toBeGreaterThan((without?.whiteness ?? 0) + 5);
    expect(found?.bent[0].deltaE).toBeGreaterThan(found?.patches.mean ?? 99);
    const whiteOf = async (share: number): Promise<number> => {
      const light = { key: 'D50', observer: '2deg', uv: { share, withoutReadingIds: [dark] } } as const;
      const pooled = await pooledReadings(services, readingId, [], light);
      const [x, y, z] = barePaper(pooled.first.condition.process, pooled);
      return xyzToLab([x, y, z], WHITE_D50_MEASURED)[2];
    };
    const [none, half, whole] = [await whiteOf(0), await whiteOf(0.5), await whiteOf(1)];
    expect(half).toBeLessThan(none - 0.5);
    expect(whole).toBeLessThan(half - 0.5);
    expect((await uv(0.4, [dark])).jobId).toBeGreaterThan(0);
    // A study of the same sheet, by an eye in a light of the sample house: the share that its author gave it.
    const window = ROOM_LIGHTS.find(({ name }) => name === 'Shop window, noon');
    const rows = window?.power.map((value, i) => `${window.startNm + i * window.stepNm},${value}`) ?? [];
    const file = Buffer.from(['nm,"Shop window, noon"', ...rows].join('\n'));
    const [{ id }] = (await takeLights(services, 'window.csv', file)).taken;
    const seen = { key: `own-${id}`, observer: '2deg' } as const;
    const data = await studyData(services, conditionId, seen);
    expect([data.device.length / 3, data.without.length / 3, data.lit.length / 3]).toEqual([400, 400, 400]);
    const picks = await simulatedPicks(services, conditionId, seen);
    expect(picks).toHaveLength(12);
    const told = estimateUvShare(predictStudyPage(data), studyFields(), picks);
    expect(Math.abs(told.share - (window?.ultraviolet ?? 9))).toBeLessThan(0.2);
    expect(told.range[0]).toBeLessThan(told.share);
    expect((await refusal(simulatedPicks(services, conditionId, { ...seen, key: 'A' }))).title).toContain(
      'simulated eye',
    );
    const page = await studyPage(services, conditionId, 'a4');
    expect(Buffer.from(page.content).subarray(0, 5).toString()).toBe('%PDF-');
    await withdrawReading(services, dark, true);
    expect((await refusal(uv(0.4, [dark]))).title).toContain('withdrawn');
    expect(await sheetBrightener(services, readingId)).toBeNull();
    expect((await refusal(studyData(services, conditionId, seen))).title).toContain(
      'was not read in M1 and in M2',
    );
    const bare = await createCondition(services, {
      ...(await wrenOn('Quay Proof 200')),
      mode: 'fine',
      points: DEFAULT_POINTS,
    });
    expect((await refusal(studyPage(services, bare.id, 'a4'))).title).toContain('none was built here yet');
  });

  it('takes spectra, and a light that is there', async () => {
    expect(
      (
        await refusal(
          requestProfile(services, conditionId, {
            ...choices(),
            light: { key: 'own-999', observer: '2deg' },
          }),
        )
      ).title,
    ).toBe('There is no light own-999.');
    const { id } = await createChart(services, conditionId, { patches: 100, paper: 'a4', reader: 'strip' });
    const printed = await printChart(services, id, { ticks: TICKS });
    const { set } = await loadChart(services, id);
    const device = [...(set.device ?? [])];
    const rows = set.ids.map((name, i) => {
      const rgb = device.slice(3 * i, 3 * i + 3);
      const light = 12 + 28 * (rgb[0] + rgb[1] + rgb[2]);
      return [
        name,
        ...rgb.map((value) => 255 * value),
        light,
        40 * (rgb[0] - rgb[1]),
        30 * (rgb[1] - rgb[2]),
      ].join(',');
    });
    const own = ['SAMPLE_ID,RGB_R,RGB_G,RGB_B,LAB_L,LAB_A,LAB_B', ...rows].join('\n');
    const imported = await importReading(services, printed.sheets[0], own, { mode: 'M1', light: 'D50 2°' });
    const refused = await refusal(
      requestProfile(services, conditionId, {
        ...choices(),
        readingId: imported.readingId,
        light: { key, observer: '2deg' },
      }),
    );
    expect(refused).toMatchObject({ field: 'light' });
    expect(refused.title).toContain('was read as colours only');
    expect((await refusal(readingUnder(services, imported.readingId, key, '2deg'))).title).toContain(
      'colours only',
    );
  });
});
