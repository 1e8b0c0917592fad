import { describe, expect, it } from 'vitest';
import type { Lab } from '../colour/lab.ts';
import { TOLERANCE_SETS } from './data/toleranceSets.ts';
import { judgeColours } from './judgeColours.ts';
import type { ColourPair } from './judgeColours.ts';
import { patchGroups } from './patchGroups.ts';
import { substrateCorrected } from './substrateCorrected.ts';
import type { ToleranceSet } from './toleranceSet.ts';

const setOf = (id: string): ToleranceSet => {
  const found = TOLERANCE_SETS.find((set) => set.id === id);
  if (found === undefined) throw new Error(id);
  return found;
};

/**
 * Forty patches whose differences were chosen so that every metric follows by hand. Aims with a* = b* = 0 have
 * ΔE00 = ΔL/S_L with S_L = 1 at L* 50 only; so what ΔE00 judges lies about L* 50, ±d/2, where S_L is 1 at the mean.
 */
function wedge(change: (row: number) => number = () => 0): ColourPair[] {
  const devices: number[][] = [
    [0, 0, 0, 0],
    [1, 0, 0, 0],
    [0, 1, 0, 0],
    [0, 0, 1, 0],
    [0, 0, 0, 1],
    [0.25, 0.19, 0.19, 0],
    [0.5, 0.4, 0.4, 0],
    [0.75, 0.66, 0.66, 0],
    [0.9, 0.3, 0, 0],
    [0, 0.8, 0.5, 0],
    ...Array.from({ length: 30 }, (_, i) => [0.2, 0.6, 0.3, 0.02 + i / 100]),
  ];
  return devices.map((device, row) => {
    const difference = 1 + change(row);
    return { device, aim: [50 - difference / 2, 0, 0], measured: [50 + difference / 2, 0, 0] };
  });
}

describe('an aim that is an estimate', () => {
  const pair = (device: readonly number[], measured: number, estimated: boolean) => ({
    device,
    aim: [50, 0, 0] as const,
    measured: [measured, 0, 0] as const,
    estimated,
  });
  const judged = (estimated: boolean) =>
    judgeColours([pair([0.3, 0.6, 0.1, 0], 90, estimated), pair([1, 0, 0, 0], 50, false)], {
      metrics: [
        { group: 'all', statistic: 'mean', quantity: 'ΔE00', limit: 1 },
        { group: 'solids', statistic: 'largest', quantity: 'ΔE00', limit: 1 },
      ],
    });

  it('is shown and gives no verdict, whichever way it would fall; what is known is judged', () => {
    const { verdict, metrics } = judged(true);
    expect(metrics.map((line) => line.verdict)).toEqual(['not-judged', 'conforms']);
    expect(metrics.map((line) => line.estimated)).toEqual([1, 0]);
    expect(metrics[0].value).toBeGreaterThan(10);
    expect(verdict).toBe('not-judged');
    expect(judged(false).verdict).toBe('does-not-conform');
  });
});

describe('groups of patches', () => {
  it('count less than half a per cent of an ink as none of it', () => {
    expect([...patchGroups([0, 0, 0, 0.005])]).toContain('substrate');
    expect([...patchGroups([0, 0, 0, 0.0051])]).toContain('black scale');
    expect([...patchGroups([1, 0, 0, 0.005])]).toContain('solids');
    expect([...patchGroups([0.9951, 0, 0, 0.0049])]).toContain('chromatic solids');
    expect([...patchGroups([0.995, 0, 0, 0])]).not.toContain('solids');
  });

  it.each([
    [
      [0, 0, 0, 0],
      ['all', 'substrate'],
    ],
    [
      [0, 0, 0, 1],
      ['all', 'solids', 'black solid', 'black scale'],
    ],
    [
      [0, 1, 0, 0],
      ['all', 'solids', 'chromatic solids', 'outer gamut'],
    ],
    [
      [1, 1, 0, 0],
      ['all', 'overprints', 'outer gamut'],
    ],
    [
      [1, 1, 1, 0],
      ['all', 'overprints', 'grey scale'],
    ],
    [
      [0.5, 0, 0, 0],
      ['all', 'midtones', 'chromatic midtones'],
    ],
    [
      [0.5, 0.4, 0.4, 0],
      ['all', 'greys', 'grey scale'],
    ],
    [
      [0.5, 0.4059, 0.3941, 0],
      ['all', 'greys', 'grey scale'],
    ],
    [
      [0.5, 0.4061, 0.4, 0],
      ['all', 'greys'],
    ],
    [
      [0.5, 0.4, 0.3699, 0],
      ['all', 'tertiaries'],
    ],
    [
      [0.1, 0.1, 0.1, 0],
      ['all', 'greys'],
    ],
    [
      [0.5, 0.5, 0.5, 0],
      ['all', 'tertiaries'],
    ],
    [
      [0.5, 0.4, 0.4, 0.2],
      ['all', 'tertiaries'],
    ],
    [
      [0.2, 0.75, 0, 0],
      ['all', 'outer gamut'],
    ],
  ] as const)('of %j are %j', (device, groups) => {
    expect([...patchGroups(device)].sort()).toEqual([...groups].sort());
  });
});

describe('a judgement', () => {
  const pairSets = ['iso12647-7-proof', 'iso12647-8-validation', 'house-photo'].map(setOf);
  it.each(pairSets.map((set) => [set.name, set] as const))(
    '%s: all metrics of a wedge that is 1 off everywhere',
    (_, set) => {
      const { verdict, metrics, deltaE } = judgeColours(wedge(), set);
      expect(verdict).toBe('conforms');
      deltaE.forEach((value) => expect(value).toBeCloseTo(1, 9));
      for (const line of metrics) {
        // Differences are of lightness alone: ΔCh and ΔH are nought.
        expect(line.value).toBeCloseTo(line.quantity === 'ΔE00' ? 1 : 0, 9);
        expect(line.margin).toBeCloseTo(line.limit - line.value, 9);
      }
    },
  );

  it('takes means, percentiles and the largest as worked out by hand', () => {
    // 40 differences: 1, 1.1 … 4.9. Mean 2.95; the 95th percentile lies at 37.05 of 0…39: 1 + 3.705.
    const pairs = wedge((row) => row / 10);
    const values = new Map(
      judgeColours(pairs, setOf('iso12647-7-proof')).metrics.map((line) => [
        `${line.group} ${line.statistic} ${line.quantity}`,
        line,
      ]),
    );
    expect(values.get('all mean ΔE00')?.value).toBeCloseTo(2.95, 9);
    expect(values.get('all mean ΔE00')?.verdict).toBe('does-not-conform');
    expect(values.get('all 95th percentile ΔE00')?.value).toBeCloseTo(4.705, 9);
    expect(values.get('solids largest ΔE00')).toMatchObject({ count: 4, worst: 4 });
    expect(values.get('solids largest ΔE00')?.value).toBeCloseTo(1.4, 9);
    // Solids C and M, and the two of 70 % and more: 1.1, 1.2, 1.3 (Y), 1.8, 1.9.
    expect(values.get('outer gamut mean ΔE00')?.value).toBeCloseTo((1.1 + 1.2 + 1.3 + 1.8 + 1.9) / 5, 9);
  });

  it.each([
    ['iso12647-7-proof', 'substrate', 0, 2.01],
    ['iso12647-7-proof', 'solids', 4, 2.01],
    ['iso12647-8-validation', 'substrate', 0, 2.01],
    ['iso12647-8-validation', 'solids', 2, 2.01],
    ['house-photo', 'all', 20, 7.01],
  ] as const)('%s fails by 0.01 in %s alone', (id, group, at, over) => {
    const { verdict, metrics } = judgeColours(
      wedge((row) => (row === at ? over : 0)),
      setOf(id),
    );
    expect(verdict).toBe('does-not-conform');
    const failing = metrics.filter((line) => line.verdict === 'does-not-conform');
    expect(failing).toHaveLength(1);
    expect(failing[0]).toMatchObject({ group, statistic: 'largest', worst: at });
    expect(failing[0].margin).toBeCloseTo(-0.01, 9);
    // The same on its limit conforms, nearly.
    expect(
      judgeColours(
        wedge((row) => (row === at ? over - 0.0101 : 0)),
        setOf(id),
      ).verdict,
    ).toBe('near');
  });

  it.each([
    ['greys', 'mean', [5, 6, 7], 2.01, 1],
    ['greys', 'largest', [6], 3.51, 1],
    ['chromatic solids', 'largest', [2], 2.51, 0],
  ] as const)(
    'of the proof fails by 0.01 in %s, %s of chroma or hue, alone',
    (group, statistic, rows, size, kind) => {
      const pairs = wedge().map((pair, row): ColourPair => {
        if (!(rows as readonly number[]).includes(row)) return pair;
        // Greys move in a*; a solid turns its hue at C* 60, where ΔE00 stays small.
        const half = Math.asin(size / 2 / 60);
        const turned = (h: number): Lab => [50, 60 * Math.cos(h), 60 * Math.sin(h)];
        return kind === 1
          ? { ...pair, aim: [50, 0, 0], measured: [50, 0, size] }
          : { ...pair, aim: turned(0.4 - half), measured: turned(0.4 + half) };
      });
      const failing = judgeColours(pairs, setOf('iso12647-7-proof')).metrics.filter(
        (line) => line.verdict === 'does-not-conform',
      );
      expect(failing.map((line) => `${line.group} ${line.statistic}`)).toEqual([`${group} ${statistic}`]);
      expect(failing[0].margin).toBeCloseTo(-0.01, 9);
    },
  );

  it('says nothing where a group is missing, unless something fails', () => {
    const pairs = wedge().filter((_, row) => row < 5 || row > 7);
    const proof = judgeColours(pairs, setOf('iso12647-7-proof'));
    expect(proof.verdict).toBe('not-judged');
    expect(proof.metrics.find(({ group }) => group === 'greys')).toMatchObject({
      count: 0,
      worst: undefined,
    });
    const off = pairs.map((pair, row) => (row === 0 ? { ...pair, measured: [60, 0, 0] as const } : pair));
    expect(judgeColours(off, setOf('iso12647-7-proof')).verdict).toBe('does-not-conform');
  });
});

describe('substrate-corrected aims', () => {
  it('take the paper to the paper, leave the darkest, and shrink in between', () => {
    const aims = Float64Array.of(90, 94, 78, 1, 1.2, 1.1, 40, 45, 30);
    const out = substrateCorrected(aims, [90, 94, 78], [81, 85, 60]);
    [81, 85, 60, 1, 1.2, 1.1].forEach((value, i) => expect(out[i]).toBeCloseTo(value, 9));
    // c = −9/89: 40·(1 + c) − 1·c.
    expect(out[6]).toBeCloseTo(40 * (1 - 9 / 89) + 9 / 89, 9);
  });

  it('refuse a paper that is not the lightest', () => {
    expect(() => substrateCorrected(Float64Array.of(5, 5, 5), [5, 5, 5], [4, 4, 4])).toThrow(RangeError);
  });
});
