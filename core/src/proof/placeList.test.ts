import { describe, expect, it } from 'vitest';
import { unwrap } from '../result.ts';
import { deltaE2000 } from '../colour/deltaE2000.ts';
import type { Lab } from '../colour/lab.ts';
import { readIcc } from '../icc/readIcc.ts';
import { deviceToLab } from '../icc/profileTransform.ts';
import { transformed } from '../transform/transform.ts';
import { wrenModel, wrenProfileBytes } from '../../test/wrenProfile.ts';
import { placeList } from './placeList.ts';

const profile = unwrap(readIcc(wrenProfileBytes(4, wrenModel(200))));

describe('a colour list on a device', () => {
  it('comes out as asked where it prints, and says how far it is where it does not', () => {
    const inside = transformed(unwrap(deviceToLab(profile, 'absolute')), [0.4, 0.5, 0.6, 0.8, 0.3, 0.2]);
    const asked = Float64Array.of(...inside, 60, 110, -90);
    const placed = unwrap(placeList(profile, asked));
    expect(placed.colours).toHaveLength(3);
    for (const { deltaE, device } of placed.colours.slice(0, 2)) {
      expect(deltaE).toBeLessThan(0.5);
      expect(device).toHaveLength(3);
    }
    const lost = placed.colours[2];
    expect(lost.deltaE).toBeGreaterThan(3);
    expect(lost.deltaE).toBeCloseTo(deltaE2000([60, 110, -90], lost.printed as Lab), 9);
    expect(placed.over3).toBe(1);
    expect(placed.largest).toBe(lost.deltaE);
    expect(placed.mean).toBeCloseTo(placed.colours.reduce((sum, { deltaE }) => sum + deltaE, 0) / 3, 9);
  });

  it('is refused by a profile that leads to no device', () => {
    const oneWay = {
      ...profile,
      tags: new Map([...profile.tags].filter(([name]) => !name.startsWith('B2A'))),
    };
    const placed = placeList(oneWay, Float64Array.of(50, 0, 0));
    expect(placed.ok).toBe(false);
  });
});
