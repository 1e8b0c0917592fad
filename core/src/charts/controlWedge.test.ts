import { describe, expect, it } from 'vitest';
import { OPTIONAL_GROUPS, patchGroups } from '../conformity/patchGroups.ts';
import type { PatchGroup } from '../conformity/patchGroups.ts';
import { TOLERANCE_SETS } from '../conformity/data/toleranceSets.ts';
import type { WEDGE_KINDS } from './controlWedge.ts';
import { controlWedge } from './controlWedge.ts';

const countOf = (kind: (typeof WEDGE_KINDS)[number], group: PatchGroup): number => {
  const { device, names } = controlWedge(kind);
  return names.filter((_, row) => patchGroups(device.subarray(4 * row, 4 * row + 4)).has(group)).length;
};

describe('control wedges', () => {
  it.each([
    ['proof', 84],
    ['near-neutral', 63],
    ['watch', 42],
  ] as const)('%s fills whole strips of 21: %i patches, in whole 8-bit levels', (kind, count) => {
    const { device, names } = controlWedge(kind);
    expect(names).toHaveLength(count);
    expect(device).toHaveLength(4 * count);
    for (const value of device) {
      expect(value * 255).toBeCloseTo(Math.round(value * 255), 9);
      expect(value).toBeGreaterThanOrEqual(0);
      expect(value).toBeLessThanOrEqual(1);
    }
  });

  it('proof has each primary and overprint under its own name', () => {
    const { device, names } = controlWedge('proof');
    for (const [name, values] of [
      ['C 100', [1, 0, 0, 0]],
      ['M 100', [0, 1, 0, 0]],
      ['Y 100', [0, 0, 1, 0]],
      ['K 100', [0, 0, 0, 1]],
      ['MY 100', [0, 1, 1, 0]],
      ['CY 100', [1, 0, 1, 0]],
      ['CM 100', [1, 1, 0, 0]],
    ] as const) {
      const row = names.indexOf(name);
      expect(row, names.join()).toBeGreaterThanOrEqual(0);
      expect([...device.subarray(4 * row, 4 * row + 4)]).toEqual(values);
    }
  });

  it('proof has the patches that every shipped tolerance set asks for, without repeats but of paper', () => {
    for (const { metrics, id } of TOLERANCE_SETS)
      // Spot colours are a house's own; none is part of the wedge.
      for (const { group } of metrics)
        if (group === 'spot colours') expect(countOf('proof', group)).toBe(0);
        else if (!OPTIONAL_GROUPS.has(group))
          expect(countOf('proof', group), `${id} ${group}`).toBeGreaterThan(0);
    const { device, names } = controlWedge('proof');
    const keys = new Set(names.map((_, row) => device.subarray(4 * row, 4 * row + 4).join()));
    expect(keys.size).toBe(names.length - 2);
    expect(countOf('proof', 'greys')).toBe(12);
    expect(countOf('proof', 'outer gamut')).toBeGreaterThan(12);
  });

  it.each(['proof', 'near-neutral', 'watch'] as const)('%s asks for ink areas and no more', (kind) => {
    const { device } = controlWedge(kind);
    for (const value of device) expect(value >= 0 && value <= 1).toBe(true);
  });

  it('watch shows the same at each place across the width', () => {
    const { names } = controlWedge('watch');
    for (const strip of [names.slice(0, 21), names.slice(21)]) {
      expect(strip.slice(7, 14)).toEqual(strip.slice(0, 7));
      expect(strip.slice(14)).toEqual(strip.slice(0, 7));
    }
  });
});
