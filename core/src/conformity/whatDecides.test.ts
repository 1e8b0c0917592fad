import { describe, expect, it } from 'vitest';
import { controlWedge } from '../charts/controlWedge.ts';
import { genericPressLab } from '../charts/genericPress.ts';
import type { Lab } from '../colour/lab.ts';
import { TOLERANCE_SETS } from './data/toleranceSets.ts';
import { inkEffects } from './inkEffects.ts';
import { judgeColours } from './judgeColours.ts';
import type { ColourPair } from './judgeColours.ts';
import { shareOf, whatDecides } from './whatDecides.ts';

const { device, names } = controlWedge('proof');
const onAim = names.map((_, row): ColourPair => {
  const own = device.subarray(4 * row, 4 * row + 4);
  const aim = genericPressLab(own, 0) as Lab;
  return { device: own, aim, measured: aim };
});
const [PROOF] = TOLERANCE_SETS;

describe('what decides a check', () => {
  it('names nothing where all is within', () => {
    const judged = judgeColours(onAim, PROOF);
    expect(whatDecides(onAim, judged, PROOF)).toEqual({ deciding: [], share: shareOf(judged), remedies: [] });
  });

  it('names the fewest patches whose mending makes a metric pass', () => {
    const greys = names.map((name, row) => (name.startsWith('grey') ? row : -1)).filter((row) => row >= 0);
    const off = onAim.map((pair, row) => {
      const place = greys.indexOf(row);
      // Twelve greys; three by 9, the rest by 0.1: the mean of 2.325 passes with one of them mended, 1.575.
      const b = place < 0 ? 0 : place < 3 ? 9 : 0.1;
      return { ...pair, measured: [pair.aim[0], pair.aim[1], pair.aim[2] + b] as Lab };
    });
    const judged = judgeColours(off, PROOF);
    const { deciding } = whatDecides(off, judged, PROOF);
    const mean = deciding.find(({ metric }) => metric.group === 'greys' && metric.statistic === 'mean');
    expect(mean?.metric.value).toBeCloseTo(2.325, 9);
    expect(mean?.rows).toEqual([greys[0]]);
    const most = deciding.find(({ metric }) => metric.group === 'greys' && metric.statistic === 'largest');
    expect(most?.rows).toEqual(greys.slice(0, 3));
  });

  it.each([
    [0, -0.1, 'density'],
    [1, 0.12, 'density'],
    [2, 0.05, 'gain'],
    [1, -0.06, 'gain'],
  ] as const)('finds that ink %i is off by %d of %s', (ink, off, kind) => {
    const effects = inkEffects(onAim);
    if (effects === undefined) throw new Error('no effects');
    const moved = onAim.map((pair) => ({
      ...pair,
      measured: (kind === 'density' ? effects.withDensity : effects.withGain)(pair, ink, off),
    }));
    // Tight limits, so that it fails.
    const tight = { ...PROOF, metrics: PROOF.metrics.map((line) => ({ ...line, limit: line.limit / 6 })) };
    const judged = judgeColours(moved, tight);
    expect(judged.verdict).toBe('does-not-conform');
    const [best] = whatDecides(moved, judged, tight).remedies;
    expect(best).toMatchObject({ kind, ink });
    expect(Math.sign(best.change)).toBe(-Math.sign(off));
    expect(best.share).toBeLessThan(0.5 * shareOf(judged));
  });
});
