import { describe, expect, it } from 'vitest';
import { makeCmykChart } from '../charts/cmykChart.ts';
import { controlWedge } from '../charts/controlWedge.ts';
import { genericPressLab } from '../charts/genericPress.ts';
import { deltaE2000 } from '../colour/deltaE2000.ts';
import type { Lab } from '../colour/lab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz, xyzToLab } from '../colour/xyzToLab.ts';
import { aimsFor, publishedAims } from './aims.ts';
import { completedAims } from './completedAims.ts';
import { PUBLISHED_CONDITIONS } from './data/publishedConditions.ts';

const labAt = (xyz: Float64Array, row: number): Lab =>
  xyzToLab([xyz[3 * row], xyz[3 * row + 1], xyz[3 * row + 2]], WHITE_D50_MEASURED);

function press(device: Float64Array): Float64Array {
  const out = new Float64Array((device.length / 4) * 3);
  for (let i = 0; i < out.length / 3; i++)
    out.set(labToXyz(genericPressLab(device, 4 * i), WHITE_D50_MEASURED), 3 * i);
  return out;
}

describe('where aims come from', () => {
  it('is told patch by patch: given, or none where nothing is known', () => {
    const device = Float64Array.of(0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0);
    const aims = { device, xyz: press(device), conditions: {} };
    const { origins, xyz } = aimsFor(aims, Float64Array.of(0, 1, 0, 0, 0, 0.5, 0, 0, 0, 0, 0, 0));
    expect(origins).toEqual(['given', 'none', 'given']);
    expect([...xyz.subarray(0, 3)]).toEqual([...aims.xyz.subarray(6, 9)]);
    expect([...xyz.subarray(3, 6)].every(Number.isNaN)).toBe(true);
  });
});

describe('aims completed from published solids', () => {
  it.each(PUBLISHED_CONDITIONS.map((condition) => [condition.name, condition] as const))(
    '%s gives its primaries and tone values back',
    (_, condition) => {
      const primaries = completedAims(
        condition,
        Float64Array.from(
          [
            [0, 0, 0, 0],
            [1, 0, 0, 0],
            [0, 1, 0, 0],
            [0, 0, 1, 0],
            [0, 0, 0, 1],
            [1, 1, 1, 0],
          ].flat(),
        ),
      );
      (['paper', 'C', 'M', 'Y', 'K', 'CMY'] as const).forEach((name, row) => {
        const lab = labAt(primaries, row);
        condition.lab[name].forEach((value, axis) => expect(lab[axis]).toBeCloseTo(value, 6));
      });
      const axis = { C: 0, M: 1, Y: 2, K: 1 } as const;
      (['C', 'M', 'Y', 'K'] as const).forEach((ink, channel) => {
        for (const [tone, increase] of condition.tvi[ink]) {
          const device = new Float64Array(4);
          device[channel] = tone / 100;
          const [value] = [completedAims(condition, device)[axis[ink]]];
          const paper = primaries[axis[ink]];
          const solid = primaries[3 * (channel + 1) + axis[ink]];
          expect((100 * (paper - value)) / (paper - solid)).toBeCloseTo(tone + increase, 6);
        }
      });
    },
  );

  it('all values of a wedge have an aim, and it says where from', () => {
    const { device } = controlWedge('proof');
    const { xyz, origins } = aimsFor(publishedAims(PUBLISHED_CONDITIONS[0]), device);
    expect(xyz.every((value) => value > 0)).toBe(true);
    expect(origins.filter((origin) => origin === 'given')).toHaveLength(3 + 9 - 1);
    expect(new Set(origins)).toEqual(new Set(['given', 'completed']));
  });
});

describe('aims of a characterisation', () => {
  const chart = makeCmykChart(800, 5, 3.6, genericPressLab);
  const aims = { conditions: {}, device: chart.device, xyz: press(chart.device) };

  it('are as given where they are, and interpolated elsewhere', () => {
    const { device } = controlWedge('proof');
    const { xyz, origins, paper } = aimsFor(aims, device);
    const truth = press(device);
    const errors = origins.map((_, row) => deltaE2000(labAt(xyz, row), labAt(truth, row)));
    origins.forEach((origin, row) => {
      if (origin === 'given') expect(errors[row]).toBeLessThan(1e-6);
    });
    expect(origins).toContain('interpolated');
    expect(errors.reduce((sum, error) => sum + error, 0) / errors.length).toBeLessThan(0.4);
    expect(Math.max(...errors)).toBeLessThan(3);
    paper?.forEach((value, axis) => expect(value).toBeCloseTo(truth[axis], 9));
  });

  it('of a handful of patches are not stretched to others', () => {
    const few = { conditions: {}, device: chart.device.slice(0, 400), xyz: aims.xyz.slice(0, 300) };
    const { xyz, origins } = aimsFor(few, Float64Array.of(0.123, 0.456, 0.789, 0.1));
    expect(origins).toEqual(['none']);
    expect(xyz[0]).toBeNaN();
  });
});
