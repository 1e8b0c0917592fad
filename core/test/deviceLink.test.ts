import { beforeAll, describe, expect, it } from 'vitest';
import { fitInkModel } from '@melto/core/characterise/inkModel';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { genericPressLab } from '@melto/core/charts/genericPress';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { labToXyz } from '@melto/core/colour/xyzToLab';
import { compileLut } from '@melto/core/icc/compileLut';
import type { IccProfile, LutTag } from '@melto/core/icc/iccTypes';
import { deviceToLab } from '@melto/core/icc/profileTransform';
import { readIcc } from '@melto/core/icc/readIcc';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { deviceLink } from '@melto/core/link/deviceLink';
import type { LinkChoice } from '@melto/core/link/deviceLink';
import { createRandom } from '@melto/core/numerics/random';
import { mean } from '@melto/core/numerics/statistics';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { unwrap } from '@melto/core/result';
import { inspectProfile } from '@melto/core/profile/inspectProfile';
import { linkSlice } from '@melto/core/profile/tableSlice';
import { separationOf } from '@melto/core/separate/separation';
import { conversion } from '@melto/core/transform/conversion';

const CHOICE: LinkChoice = {
  ...{ intent: 'relative', blackPoint: true, keepBlack: false, keepInks: false },
  ...{ description: 'coated to generic', createdMs: 0 },
};
let from: IccProfile;
let to: IccProfile;

/** A press whose inks gain more or less than the generic one's. */
function press(gain: number, totalInk: number): IccProfile {
  const { device } = makeCmykChart(300, 1, totalInk);
  const xyz = new Float64Array((device.length / 4) * 3);
  const labOf = (inks: Float64Array) => genericPressLab([...inks.map((value) => value ** gain)]);
  for (let i = 0; i < device.length / 4; i++)
    xyz.set(labToXyz(labOf(device.subarray(4 * i, 4 * i + 4)), WHITE_D50_MEASURED), 3 * i);
  const { profile } = buildInkProfile(fitInkModel(device, 4, xyz), {
    ...{ version: 2, tableSize: 'small', description: 'press', copyright: '', createdMs: 0 },
    paperXyz: labToXyz(labOf(new Float64Array(4)), WHITE_D50_MEASURED),
    separation: separationOf('medium', totalInk),
  });
  return unwrap(readIcc(writeIcc(profile)));
}

beforeAll(() => {
  [from, to] = [press(1, 3.2), press(0.8, 2.8)];
});

/** Values through a link, as an engine reads it from its file. */
function through(change: Partial<LinkChoice>, values: readonly number[] | Float64Array): Float64Array {
  const link = unwrap(readIcc(writeIcc(unwrap(deviceLink(from, to, { ...CHOICE, ...change })))));
  expect(link.header).toMatchObject({ deviceClass: 'link', colourSpace: 'CMYK', pcs: 'CMYK' });
  const { run, stride } = compileLut(link.tags.get('A2B0') as LutTag, 'multilinear');
  const rows = Float64Array.from(values);
  expect(stride).toBe(4);
  run(rows, rows.length / 4);
  return rows;
}

describe('a device link', () => {
  it('goes the way of both profiles where nothing is kept', () => {
    const random = createRandom(6);
    const values: number[] = [];
    while (values.length < 4 * 600) {
      const own = [0, 1, 2, 3].map(() => random.uniform());
      if (own.reduce((a, b) => a + b, 0) <= 3.2) values.push(...own);
    }
    const linked = through({}, values);
    const exact = new Float64Array(values.length);
    unwrap(conversion({ from, to, intent: 'relative', blackPoint: true })).apply(values, exact);
    const labOf = (inks: Float64Array): Float64Array => {
      const out = new Float64Array((inks.length / 4) * 3);
      unwrap(deviceToLab(to, 'relative')).apply(inks, out);
      return out;
    };
    expect(mean(deltaE2000Rows(labOf(exact), labOf(linked)))).toBeLessThan(0.5);
  });

  it('is seen cut over two of its inks, with their names on either side', () => {
    const link = unwrap(deviceLink(from, to, { ...CHOICE, keepBlack: true }));
    const cut = { across: 3, down: 1, fixed: [0.2, 0.9, 0, 0.9], side: 9 };
    const { values, outputs } = unwrap(linkSlice(link, cut));
    expect(outputs).toBe(4);
    const at = (row: number, column: number): number[] => [
      ...values.subarray(4 * (9 * row + column), 4 * (9 * row + column) + 4),
    ];
    const wanted = through({ keepBlack: true }, [0.2, 0.5, 0, 0.25, 0.2, 1, 0, 0]);
    // Between nodes four inks go by tetrahedra here, by all corners there.
    at(4, 2).forEach((value, i) => expect(value).toBeCloseTo(wanted[i], 1));
    at(8, 0).forEach((value, i) => expect(value).toBeCloseTo(wanted[4 + i], 1));
    expect(Math.abs(at(8, 0)[1] - at(0, 0)[1])).toBeGreaterThan(0.5);
    expect(inspectProfile(link)).toMatchObject({
      kind: 'device link',
      channels: ['cyan', 'magenta', 'yellow', 'black'],
      goal: ['cyan', 'magenta', 'yellow', 'black'],
    });
    expect(linkSlice({ ...link, tags: new Map() }, cut).ok).toBe(false);
  });

  it('leaves black alone, and solid where it is solid', () => {
    const plain = through({}, [0, 0, 0, 1, 0, 0, 0, 0.5]);
    expect(Math.max(...plain.subarray(0, 3))).toBeGreaterThan(0.1);
    const kept = through({ keepBlack: true }, [0, 0, 0, 1, 0, 0, 0, 0.5, 0, 0, 0, 0]);
    expect([...kept.subarray(0, 4)]).toEqual([0, 0, 0, 1]);
    expect(Math.max(...kept.subarray(4, 7))).toBe(0);
    // The other press gains more: it takes less for the same grey.
    expect(kept[7]).toBeGreaterThan(0.3);
    expect(kept[7]).toBeLessThan(0.5);
    expect(Math.max(...kept.subarray(8))).toBeLessThan(1e-4);
  });

  it('leaves each ink alone at every tone, and grows with it', () => {
    for (let ink = 0; ink < 3; ink++) {
      const ramp = Array.from({ length: 21 }, (_, i) =>
        [0, 1, 2, 3].map((own) => (own === ink ? i / 20 : 0)),
      );
      const kept = through({ keepInks: true }, ramp.flat());
      ramp.forEach((_, i) => {
        for (let other = 0; other < 4; other++)
          if (other !== ink) expect(kept[4 * i + other]).toBeLessThan(0.01);
        if (i > 0) expect(kept[4 * i + ink]).toBeGreaterThan(kept[4 * i - 4 + ink]);
      });
      expect(kept[80 + ink]).toBe(1);
    }
    // Black was not asked to stay.
    expect(Math.max(...through({ keepInks: true }, [0, 0, 0, 1]).subarray(0, 3))).toBeGreaterThan(0.1);
  });

  it('keeps to a limit of total ink, the other profile’s or one’s own', () => {
    const random = createRandom(8);
    const values = Float64Array.from({ length: 4 * 2000 }, () => random.uniform());
    const most = (rows: Float64Array): number =>
      Math.max(
        ...Array.from({ length: rows.length / 4 }, (_, i) =>
          rows.subarray(4 * i, 4 * i + 4).reduce((a, b) => a + b, 0),
        ),
      );
    expect(most(through({ keepBlack: true, keepInks: true }, values))).toBeLessThanOrEqual(2.801);
    expect(most(through({ totalInk: 2.4 }, values))).toBeLessThanOrEqual(2.4001);
  });

  it('is refused for what is no CMYK, and for a limit that is none', () => {
    const screen = { ...from, header: { ...from.header, colourSpace: 'RGB ' } };
    const refused = deviceLink(screen, to, CHOICE);
    expect(!refused.ok && refused.issues[0]).toMatchObject({ path: 'from', found: 'RGB' });
    expect(deviceLink(from, to, { ...CHOICE, totalInk: 0.9 }).ok).toBe(false);
    expect(deviceLink(from, to, { ...CHOICE, totalInk: 1 }).ok).toBe(true);
    expect(deviceLink(from, to, { ...CHOICE, totalInk: 4.1 }).ok).toBe(false);
  });
});
