import { describe, expect, it } from 'vitest';
import { controlWedge, WATCH_PLACES } from '../charts/controlWedge.ts';
import { genericPressLab } from '../charts/genericPress.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz, xyzToLab } from '../colour/xyzToLab.ts';
import { inkEffects } from '../conformity/inkEffects.ts';
import { createRandom } from '../numerics/random.ts';
import { unwrap } from '../result.ts';
import { causeSentence } from './causeWords.ts';
import { BASELINE_CHECKS, controlChart } from '../series/controlChart.ts';
import { WATCH_LIMITS } from './data/watchLimits.ts';
import { simulateLimits, STEADY, steadySeries } from './simulateLimits.ts';
import { watchCause } from './watchCause.ts';
import { watchCharts } from './watchCharts.ts';
import { watchDifferences } from './watchDifferences.ts';
import { meanFigures, watchFigures, watchLab, WATCH_PATCHES, WATCH_VALUES } from './watchFigures.ts';
import { WATCH_SERIES } from './watchSeries.ts';

const WEDGE = controlWedge('watch');
const ACROSS = WEDGE.names.map((_, row) => ((row % 21) + 0.5) / 21);
const TRUTH = Float64Array.from(
  WEDGE.names.flatMap((_, row) => [...labToXyz(genericPressLab(WEDGE.device, 4 * row), WHITE_D50_MEASURED)]),
);

/** A reading of the wedge: the truth with scatter in Lab, changed by `change`. */
function check(
  seed: number,
  change: (row: number, lab: readonly [number, number, number]) => readonly number[] = (_, lab) => lab,
): Float64Array {
  const random = createRandom(seed);
  const xyz = new Float64Array(TRUTH.length);
  WEDGE.names.forEach((_, row) => {
    const lab = xyzToLab([TRUTH[3 * row], TRUTH[3 * row + 1], TRUTH[3 * row + 2]], WHITE_D50_MEASURED);
    const moved = change(row, lab);
    const [l, a, b] = moved.map((value) => value + 0.1 * random.normal());
    xyz.set(labToXyz([l, a, b], WHITE_D50_MEASURED), 3 * row);
  });
  return unwrap(watchFigures(WEDGE.device, xyz, ACROSS));
}

describe('figures of a watch', () => {
  it('are the patches of the wedge by their place across the width', () => {
    const figures = unwrap(watchFigures(WEDGE.device, TRUTH, ACROSS));
    expect(figures).toHaveLength(WATCH_VALUES);
    expect(WATCH_PATCHES).toHaveLength(14);
    WATCH_PATCHES.forEach(({ device }, patch) => {
      const lab = genericPressLab(device, 0);
      watchLab(figures, patch).forEach((value, axis) => expect(value).toBeCloseTo(lab[axis], 6));
    });
    expect(watchDifferences(figures, figures)).toMatchObject({ mean: 0, largest: 0 });
  });

  it('say which patch a sheet lacks', () => {
    const short = watchFigures(WEDGE.device.slice(0, 84), TRUTH.slice(0, 63), ACROSS.slice(0, 21));
    expect(short.ok ? '' : short.issues[0].found).toBe('none of C 50 at place 1');
  });
});

describe('control charts', () => {
  it('judge nothing within the baseline, and a step after it by single value, EWMA and CUSUM', () => {
    const steady = Array.from({ length: BASELINE_CHECKS }, (_, i) => (i % 2 === 0 ? 1 : -1));
    expect(controlChart(steady.slice(0, 9), 0.1, WATCH_LIMITS)).toBeUndefined();
    const chart = controlChart([...steady, 0, 0, 9, 9, 9, 9], 0.1, WATCH_LIMITS);
    expect(chart?.centre).toBeCloseTo(0, 12);
    // (6·0.1² + 9·(10/9)) / 15 = 0.67066…
    expect(chart?.sigma).toBeCloseTo(Math.sqrt((6 * 0.01 + 10) / 15), 12);
    expect(chart?.over.slice(0, 12).every((own) => own.length === 0)).toBe(true);
    expect(chart?.over[12]).toContain('individual');
    expect(chart?.over[13]).toContain('EWMA');
    expect(chart?.over[15]).toContain('CUSUM');
    // EWMA: 0, 0, then 0.2·9, and so on.
    expect(chart?.ewma[12]).toBeCloseTo(1.8, 12);
    expect(chart?.ewma[13]).toBeCloseTo(0.8 * 1.8 + 1.8, 12);
    // Its variance after n checks is λ/(2−λ)·(1 − (1−λ)^2n), and what a centre of ten values leaves open, so far as it counts.
    for (const after of [1, 2, 6])
      expect(chart?.ewmaLimit[BASELINE_CHECKS + after - 1]).toBeCloseTo(
        WATCH_LIMITS.ewma *
          Math.sqrt((0.2 / 1.8) * (1 - 0.8 ** (2 * after)) + (1 - 0.8 ** after) ** 2 / BASELINE_CHECKS) *
          (chart?.sigma ?? 0),
        12,
      );
    expect(chart?.ewmaLimit[BASELINE_CHECKS - 1]).toBe(0);
  });

  it('have limits that a simulation gives again, and that steady series seldom cross', () => {
    const again = simulateLimits(0.12, 250, 77);
    for (const kind of ['individual', 'ewma', 'cusum'] as const) {
      expect(again[kind]).toBeGreaterThan(0.8 * WATCH_LIMITS[kind]);
      expect(again[kind]).toBeLessThan(1.25 * WATCH_LIMITS[kind]);
    }
    const random = createRandom(9);
    let alarmed = 0;
    const watches = 60;
    for (let watch = 0; watch < watches; watch++) {
      const over = new Set<number>();
      for (let series = 0; series < STEADY.series; series++)
        controlChart(steadySeries(random, STEADY), STEADY.leastSigma, WATCH_LIMITS)?.over.forEach(
          (own, i) => {
            if (own.length > 0) over.add(i);
          },
        );
      alarmed += over.size;
    }
    // At most one check in fifty.
    expect(alarmed / (watches * STEADY.checks)).toBeLessThan(1 / 50);
  });
});

describe('what moved', () => {
  const baseline = Array.from({ length: BASELINE_CHECKS }, (_, i) => check(100 + i));
  const zero = meanFigures(baseline);
  const pairs = WATCH_PATCHES.map(({ device }, patch) => {
    const lab = watchLab(zero, patch);
    return { device, aim: lab, measured: lab };
  });
  const effects = inkEffects(pairs);
  if (effects === undefined) throw new Error('no effects');
  const moved = (ink: number, more: number, where: (row: number) => boolean = () => true) =>
    Array.from({ length: 3 }, (_, i) =>
      check(500 + i, (row, lab) =>
        where(row)
          ? effects.withDensity(
              { device: WEDGE.device.subarray(4 * row, 4 * row + 4), aim: lab, measured: lab },
              ink,
              more,
            )
          : lab,
      ),
    );

  it.each([0, 1, 2, 3])('is ink %i where its solid and tints moved', (ink) => {
    const cause = watchCause([...baseline, ...moved(ink, -0.08)], BASELINE_CHECKS);
    expect(cause).toMatchObject({ kind: 'ink', ink });
    expect(cause?.size ?? 0).toBeLessThan(-0.03);
    expect(cause === undefined ? '' : causeSentence(cause)).toMatch(
      /has moved, solid and tints, about \d+ % weaker/,
    );
  });

  it.each([0, 1, 2])('is evenness where it moved at place %i alone', (place) => {
    const cause = watchCause(
      [...baseline, ...moved(0, -0.12, (row) => Math.floor(ACROSS[row] * WATCH_PLACES) === place)],
      BASELINE_CHECKS,
    );
    expect(cause).toMatchObject({ kind: 'zone', ink: 0, place });
  });

  it('is the instrument where everything moved with the white', () => {
    const dimmed = Array.from({ length: 3 }, (_, i) => check(700 + i).map((value) => 0.97 * value));
    const cause = watchCause([...baseline, ...dimmed], BASELINE_CHECKS);
    expect(cause?.kind).toBe('instrument');
    expect(cause?.size ?? 0).toBeCloseTo(-0.03, 2);
  });

  it('is nothing while nothing has been read after the baseline', () => {
    expect(watchCause(baseline, BASELINE_CHECKS)).toBeUndefined();
    const { alarms, over, cause } = watchCharts([...baseline, check(900)]);
    expect(alarms).toEqual([]);
    expect(over).toEqual([]);
    expect(cause).toBeUndefined();
    expect(watchCharts([...baseline, check(900)]).series).toHaveLength(WATCH_SERIES.length);
    expect(WATCH_SERIES).toHaveLength(STEADY.series);
  });
});
