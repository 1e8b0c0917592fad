import { CMYK } from '@melto/core/device/process';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { aimsApart } from '@melto/core/conformity/aimPrimaries';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { unwrap } from '@melto/core/result';
import { aimColours, aimSetDetail, aimSetFile } from './aimSetDetail.ts';
import { aimSets, loadAims } from './aimSets.ts';
import { createAimSetByHand, createAimSetFromFile, createAimSetFromReading } from './newAimSet.ts';
import type { AimByHand } from './newAimSet.ts';
import { heronOn, readWedge } from '../testing/heron.ts';
import { refusal } from '../testing/refusal.ts';
import { openTestServices } from '../testing/testServices.ts';
import type { TestServices } from '../testing/testServices.ts';

let services: TestServices;
beforeAll(async () => {
  services = await openTestServices('melto_aim_detail');
});
afterAll(async () => services.database.close());

const HAND: readonly AimByHand[] = [
  { device: [0, 0, 0, 0], lab: [95, 0, -2] },
  { device: [0, 0, 0, 100], lab: [49.5, 0, 0] },
  { device: [100, 0, 0, 0], lab: [55, -37, -50] },
];
const M1 = { mode: 'M1', illuminant: 'D50', observer: '2' } as const;

describe('an aim set in few numbers', () => {
  it('that is published has its nine primaries, and says that the rest is completed', async () => {
    for (const { id } of await aimSets(services)) {
      const { primaries, versions, sinceBefore, view, hasSpectra } = await aimSetDetail(services, id);
      expect(primaries).toHaveLength(9);
      expect(versions.map((each) => each.id)).toEqual([id]);
      expect(sinceBefore).toBeNull();
      expect(view.completed).toBe(true);
      expect(hasSpectra).toBe(false);
    }
  });

  it('gives its primaries as named colours, and only those that it has', async () => {
    const { id } = await createAimSetByHand(services, { name: 'Three' }, HAND, M1);
    const { colours, conditions } = await aimColours(services, id);
    expect(colours.map(({ name }) => name)).toEqual(['paper', 'C', 'K']);
    expect([...(colours[1]?.lab ?? [])]).toEqual([55, -37, -50].map((v) => expect.closeTo(v, 2) as number));
    expect(conditions.mode).toBe('M1');
    expect((await refusal(aimColours(services, 99999))).type).toBe('not-found');
  });

  it('has versions, each beside the one before it', async () => {
    const first = await createAimSetByHand(services, { name: 'Ours' }, HAND, M1);
    // Black goes from L* 49.5 to 50.5 on the grey axis: 1 ΔE00; paper and cyan stay.
    const rows = HAND.map((row) => (row.device[3] === 100 ? { ...row, lab: [50.5, 0, 0] as const } : row));
    const second = await createAimSetByHand(services, { name: 'Ours', versionOf: first.id }, rows, M1);
    const detail = await aimSetDetail(services, second.id);
    expect(detail.versions.map(({ version }) => version)).toEqual([2, 1]);
    expect(detail.sinceBefore?.common).toBe(3);
    expect(detail.sinceBefore?.largest).toBeCloseTo(1, 3);
    expect(detail.sinceBefore?.mean).toBeCloseTo(1 / 3, 3);
    const earlier = await aimSetDetail(services, first.id);
    expect(earlier.view.version).toBe(1);
    expect(earlier.versions).toEqual(detail.versions);
    expect(earlier.sinceBefore).toBeNull();
    expect(earlier.primaries.map(({ name }) => name)).toEqual(['paper', 'C', 'K']);
  });

  it('is not there under another number', async () => {
    expect((await refusal(aimSetDetail(services, 99_999))).type).toBe('not-found');
    expect((await refusal(aimSetFile(services, 99_999))).type).toBe('not-found');
  });
});

describe('an aim set as a file', () => {
  it('of a reading comes back with spectra and conditions, and as the same aims', async () => {
    const condition = await heronOn(services, 'Lantern Gloss 150');
    const { readingId } = await readWedge(services, condition, 'watch');
    const made = await createAimSetFromReading(services, { name: 'As it is: gloss/150' }, readingId);
    const { name, mediaType, content } = await aimSetFile(services, made.id);
    expect(name).toBe('As it is gloss150 v1.txt');
    expect(mediaType).toBe('text/plain');
    const back = await createAimSetFromFile(services, { name: 'Back' }, 'back.txt', content);
    const [one, other] = await Promise.all([loadAims(services, made.id), loadAims(services, back.id)]);
    expect(other.view.conditions.mode).toBe('M1');
    expect(other.view.patches).toBe(one.view.patches);
    const apart = aimsApart(one.aims, other.aims);
    // Fourteen patches, each at three places across the width.
    expect(apart.common).toBe(14);
    expect(apart.largest).toBeLessThan(0.01);
    expect((await aimSetDetail(services, back.id)).hasSpectra).toBe(true);
  });

  it('of colours that no print has is refused, and leaves nothing behind', async () => {
    const count = async (): Promise<number> => (await aimSets(services)).length;
    const before = await count();
    const file = (last: string): Uint8Array =>
      Buffer.from(
        `CGATS.17\nBEGIN_DATA_FORMAT\nSAMPLE_ID CMYK_C CMYK_M CMYK_Y CMYK_K LAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nBEGIN_DATA\n1 0 0 0 0 95 0 -2\n2 100 0 0 0 ${last}\nEND_DATA\n`,
      );
    const take = (last: string) => createAimSetFromFile(services, { name: 'Odd' }, 'odd.txt', file(last));
    for (const last of ['1e308 1e308 0', '50 5000 0', '-50 0 0', '55 -36 nan'])
      expect((await refusal(take(last))).title, last).toContain('cannot be used');
    expect(await count()).toBe(before);
    await take('55 -36 -50');
    expect(await count()).toBe(before + 1);
  });

  it('of a published condition gives what is published, not what is completed', async () => {
    const [published] = await aimSets(services).then((sets) => sets.filter(({ completed }) => completed));
    const { content } = await aimSetFile(services, published.id);
    const set = unwrap(readPatchSet(Buffer.from(content).toString('utf8')));
    expect(set.process).toEqual(CMYK);
    expect(set.ids).toHaveLength(9);
    expect(set.title).toBe(published.name);
  });
});
