import { CMYK } from '../device/process.ts';
import { describe, expect, it } from 'vitest';
import { createRandom } from '../numerics/random.ts';
import { evaluateCubicSpline, fitSmoothingSpline, naturalSpline } from '../numerics/smoothingSpline.ts';
import { fitResponse } from './fitResponse.ts';
import { meanPaperXyz } from '../device/meanPaperXyz.ts';
import { inkRamps } from './inkRamps.ts';
import { linearise } from './linearise.ts';
import { spotColourToneValue } from './sctv.ts';
import { smoothToneCurve } from './smoothToneCurve.ts';
import {
  applyToneCurves,
  chainToneCurves,
  evaluateToneCurve,
  invertToneCurve,
  isToneCurve,
  largestBend,
  sampleToneCurve,
  straightCurve,
} from './toneCurve.ts';
import { TVI_AT_50, tviAim, tviAimOfPoints } from './tviAim.ts';

describe('tone curves', () => {
  const curve = sampleToneCurve((t) => 0.9 * t ** 1.4);

  it('are inverted by bisection, within their range', () => {
    for (const t of [0.001, 0.2, 0.5, 0.93, 1])
      expect(invertToneCurve(curve, evaluateToneCurve(curve, t))).toBeCloseTo(t, 6);
    expect(invertToneCurve(curve, 0.95)).toBe(1);
    expect(invertToneCurve(curve, 0)).toBe(0);
  });

  it('chain: first one, then the other', () => {
    const square = sampleToneCurve((t) => t * t);
    expect(evaluateToneCurve(chainToneCurves(square, straightCurve(0.5)), 0.5)).toBeCloseTo(0.125, 4);
  });

  it('apply to rows by channel', () =>
    expect([...applyToneCurves([straightCurve(), straightCurve(0.5)], [1, 1, 0.5, 0.5])]).toEqual([
      1, 0.5, 0.5, 0.25,
    ]));

  it('are told from lists that fall, leave 0..1 or have another length', () => {
    expect(isToneCurve(curve)).toBe(true);
    expect(isToneCurve(curve.slice(1))).toBe(false);
    expect(isToneCurve(curve.map((value) => 1 - value))).toBe(false);
    expect(isToneCurve(curve.map((value) => 2 * value))).toBe(false);
  });

  it('are smoothed where they have a kink and left alone elsewhere', () => {
    const kinked = sampleToneCurve((t) => (t < 0.5 ? 0.6 * t : 0.3 + 1.4 * (t - 0.5)));
    expect(largestBend(kinked)).toBeGreaterThan(100);
    const smooth = smoothToneCurve(kinked);
    expect(largestBend(smooth)).toBeLessThanOrEqual(40);
    expect(isToneCurve(smooth)).toBe(true);
    expect(evaluateToneCurve(smooth, 0.25)).toBeCloseTo(0.15, 1);
    expect(smooth[256]).toBe(kinked[256]);
    expect(smoothToneCurve(curve)).toBe(curve);
  });
});

describe('smoothing spline', () => {
  const x = Array.from({ length: 21 }, (_, i) => i / 20);

  it('goes through its points where nothing is smoothed', () => {
    const spline = naturalSpline(x, x.map(Math.sin));
    for (const t of x) expect(evaluateCubicSpline(spline, t)).toBeCloseTo(Math.sin(t), 12);
    expect(evaluateCubicSpline(spline, 0.333)).toBeCloseTo(Math.sin(0.333), 4);
  });

  // Beyond the factors that are tried, the least one asked for is taken: how much it smooths follows from the scale of x.
  const FACTOR = 4;
  const uneven = (scale: number): { x: number[]; y: number[]; weights: number[] } => {
    const random = createRandom(5);
    const at = x.map((t, i) => scale * (t + (i % 3) / 70));
    return {
      x: at,
      y: x.map((t) => t * t + 0.05 * random.normal()),
      weights: x.map((_, i) => (i === 0 ? 1000 : 1 + (i % 4))),
    };
  };

  it.each([1, 10, 100])('gives each point the residual of the fit without it, on %d wide', (scale) => {
    const { x: at, y, weights } = uneven(scale);
    const fit = fitSmoothingSpline(at, y, weights, FACTOR);
    expect(fit.smoothing).toBe(FACTOR);
    for (const without of at.keys()) {
      const left = (list: readonly number[]): number[] => list.filter((_, i) => i !== without);
      const { spline } = fitSmoothingSpline(left(at), left(y), left(weights), FACTOR);
      expect(fit.leftOut[without]).toBeCloseTo(y[without] - evaluateCubicSpline(spline, at[without]), 9);
    }
  });

  it.each([1, 10, 100])('is the least of misfit and bend together, on %d wide', (scale) => {
    const { x: at, y, weights } = uneven(scale);
    const cost = (knots: ArrayLike<number>): number => {
      const { bend } = naturalSpline(at, knots);
      let sum = 0;
      for (let i = 0; i < at.length; i++) {
        sum += weights[i] * (y[i] - knots[i]) ** 2;
        // The bend is straight between knots.
        if (i > 0)
          sum +=
            (FACTOR * (at[i] - at[i - 1]) * (bend[i - 1] ** 2 + bend[i - 1] * bend[i] + bend[i] ** 2)) / 3;
      }
      return sum;
    };
    const { spline } = fitSmoothingSpline(at, y, weights, FACTOR);
    const least = cost(spline.y);
    for (const i of at.keys())
      for (const step of [-1e-3, 1e-3])
        expect(cost(spline.y.map((value, k) => (k === i ? value + step : value)))).toBeGreaterThan(least);
    expect(Array.from(naturalSpline(at, spline.y).bend)).toEqual(
      Array.from(spline.bend, (bend) => expect.closeTo(bend, 6) as number),
    );
  });

  it('takes more smoothing for more noise', () => {
    const random = createRandom(2);
    const clean = fitSmoothingSpline(
      x,
      x.map((t) => Math.sin(3 * t)),
      x.map(() => 1),
    );
    const noisy = fitSmoothingSpline(
      x,
      x.map((t) => Math.sin(3 * t) + 0.1 * random.normal()),
      x.map(() => 1),
    );
    expect(noisy.smoothing).toBeGreaterThan(clean.smoothing);
  });

  it('refuses knots that do not rise', () =>
    expect(() => fitSmoothingSpline([0, 1, 1, 2], [0, 1, 2, 3], [1, 1, 1, 1])).toThrow('must rise'));

  it.each([0, -1, NaN])('refuses a weight of %d', (weight) =>
    expect(() => fitSmoothingSpline([0, 1, 2, 3], [0, 1, 2, 3], [1, 1, weight, 1])).toThrow('over zero'),
  );

  it('refuses knots, values and weights of other counts, and fewer than four', () => {
    expect(() => fitSmoothingSpline([0, 1, 2], [0, 1, 2], [1, 1, 1])).toThrow('3 knots');
    expect(() => fitSmoothingSpline([0, 1, 2, 3], [0, 1, 2], [1, 1, 1, 1])).toThrow('3 values');
    expect(() => fitSmoothingSpline([0, 1, 2, 3], [0, 1, 2, 3], [1, 1, 1])).toThrow('3 weights');
  });
});

describe('responses', () => {
  const tone = Array.from({ length: 42 }, (_, i) => Math.floor(i / 2) / 20);
  const random = createRandom(9);
  const value = tone.map((t) => 70 * (t + 0.5 * t * (1 - t)) + 0.3 * random.normal());

  it('name a wrong patch and leave it out', () => {
    const broken = [...value];
    broken[21] += 9;
    const fit = fitResponse({ tone, value: broken });
    expect(fit.wrong.map(({ index }) => index)).toEqual([21]);
    expect(fit.wrong[0].off).toBeCloseTo(9 / 70, 1);
    for (let t = 0; t <= 1; t += 0.05)
      expect(Math.abs(evaluateCubicSpline(fit.spline, t) - 70 * (t + 0.5 * t * (1 - t)))).toBeLessThan(0.6);
    expect(fitResponse({ tone, value }).wrong).toEqual([]);
  });

  it('rise even where the readings do not', () => {
    const saturated = tone.map((t) => Math.min(1, 1.2 * t) + 0.01 * random.normal());
    const { spline } = fitResponse({ tone, value: saturated });
    for (let t = 0; t < 1; t += 0.01)
      expect(evaluateCubicSpline(spline, t + 0.01)).toBeGreaterThan(evaluateCubicSpline(spline, t));
  });
});

describe('SCTV (ISO 20654)', () => {
  it('is 0 on paper, 1 on the solid, and by hand in between', () => {
    const paper = [80, 83, 70];
    const solid = [15, 25, 60];
    expect(spotColourToneValue(paper, paper, solid)).toBe(0);
    expect(spotColourToneValue(solid, paper, solid)).toBe(1);
    // V = 116·(X/Xn)^(1/3) − 16 by hand for X, Y, Z of the tint, paper and solid.
    const v = (xyz: number[]): number[] =>
      xyz.map((s, i) => 116 * Math.cbrt(s / [96.422, 100, 82.521][i]) - 16);
    const length = (a: number[], b: number[]): number => Math.hypot(...a.map((x, i) => x - b[i]));
    const tint = [40, 47, 65];
    expect(spotColourToneValue(tint, paper, solid)).toBeCloseTo(
      length(v(tint), v(paper)) / length(v(solid), v(paper)),
      12,
    );
  });
});

describe('TVI aims', () => {
  it('hold the standard figures at 50 % and vanish at the ends', () => {
    for (const letter of ['A', 'B', 'C', 'D', 'E'] as const) {
      const aim = tviAim(letter, -0.28);
      expect(aim.increase(0.5)).toBeCloseTo(TVI_AT_50[letter], 12);
      expect(aim.increase(0)).toBe(0);
      expect(aim.increase(1)).toBe(0);
      expect(aim.increase(0.75)).toBeGreaterThan(aim.increase(0.25));
    }
  });

  it('are as wide in the lights as in the shadows unless they are skewed', () => {
    for (const tone of [0.1, 0.25, 0.4])
      expect(tviAim('A').increase(tone)).toBeCloseTo(tviAim('A').increase(1 - tone), 12);
    expect(tviAim('A').increase(0.25)).toBeCloseTo(4 * 0.16 * 0.25 * 0.75, 12);
    const skewed = tviAim('A', -0.28);
    expect(skewed.increase(0.25)).toBeCloseTo(0.12 * (1 - 0.28 * 0.5), 12);
    expect(skewed.increase(0.5)).toBeCloseTo(0.16, 12);
  });

  it('join own points by lines', () => {
    const aim = tviAimOfPoints([
      { tone: 0.75, increase: 0.12 },
      { tone: 0.5, increase: 0.16 },
    ]);
    expect(aim.increase(0.25)).toBeCloseTo(0.08, 12);
    expect(aim.increase(0.625)).toBeCloseTo(0.14, 12);
    expect(aim.increase(1)).toBe(0);
  });
});

/** Ramps of a made-up device: each ink takes light from the axes it covers. */
function madeUp(tones: readonly number[], gain: number): { device: Float64Array; xyz: Float64Array } {
  const device: number[] = [0, 0, 0, 0];
  const white = [88, 92, 74];
  const xyz: number[] = [...white];
  const cover = [
    [0.85, 0.5, 0.1],
    [0.4, 0.85, 0.5],
    [0.05, 0.1, 0.9],
    [0.95, 0.95, 0.95],
  ];
  for (let ink = 0; ink < 4; ink++)
    for (const tone of tones) {
      const values = [0, 0, 0, 0];
      values[ink] = tone;
      device.push(...values);
      const area = tone + 4 * gain * tone * (1 - tone);
      xyz.push(...white.map((w, axis) => w * (1 - area * cover[ink][axis])));
    }
  return { device: Float64Array.from(device), xyz: Float64Array.from(xyz) };
}

describe('linearisation', () => {
  const tones = Array.from({ length: 20 }, (_, i) => (i + 1) / 20);
  const present = [0, 1, 2, 3].map(() => straightCurve());
  const run = (measure: 'sctv' | 'density' | 'delta-e' | 'tvi', curves = present, limits = [1, 1, 1, 1]) => {
    const sent = madeUp(tones, 0.16);
    // Through the curves: the device prints what they make of the tones.
    const printed = applyToneCurves(curves, sent.device);
    const { xyz } = printThrough(printed);
    const paper = meanPaperXyz(CMYK, sent.device, xyz);
    if (paper === undefined) throw new Error('no paper');
    return linearise({
      ramps: inkRamps(CMYK, sent.device, xyz),
      paper,
      present: curves,
      limits,
      measure,
      tviAims: [0, 1, 2, 3].map(() => tviAim('C', -0.28)),
    });
  };
  const printThrough = (device: Float64Array): { xyz: Float64Array } => {
    const white = [88, 92, 74];
    const cover = [
      [0.85, 0.5, 0.1],
      [0.4, 0.85, 0.5],
      [0.05, 0.1, 0.9],
      [0.95, 0.95, 0.95],
    ];
    return {
      xyz: Float64Array.from({ length: (device.length / 4) * 3 }, (_, i) => {
        const row = Math.floor(i / 3);
        let share = 1;
        for (let ink = 0; ink < 4; ink++) {
          const t = device[4 * row + ink];
          share *= 1 - (t + 0.64 * t * (1 - t)) * cover[ink][i % 3];
        }
        return white[i % 3] * share;
      }),
    };
  };

  it.each(['sctv', 'density', 'delta-e', 'tvi'] as const)(
    'reaches an even scale by %s in one round',
    (measure) => {
      const first = run(measure);
      expect(Math.max(...first.map(({ largest }) => largest))).toBeGreaterThan(0.03);
      const second = run(
        measure,
        first.map(({ next }) => next),
      );
      for (const ink of second) expect(ink.largest).toBeLessThan(0.007);
    },
  );

  it('ends at the limit and stays there in the next round', () => {
    const limits = [0.9, 1, 0.85, 1];
    const first = run('sctv', present, limits);
    expect(first.map(({ next }) => next[256])).toEqual([
      expect.closeTo(0.9, 2),
      1,
      expect.closeTo(0.85, 2),
      1,
    ]);
    const curves = first.map(({ next }) => next);
    const second = run('sctv', curves, limits);
    second.forEach(({ next, largest }, i) => {
      expect(next[256]).toBeCloseTo(curves[i][256], 6);
      expect(largest).toBeLessThan(0.012);
    });
  });

  it('judges the steps along the scale that ends at the limit', () => {
    const [cyan, magenta, yellow] = run('sctv', present, [0.9, 1, 0.85, 1]);
    expect([cyan, magenta, yellow].map(({ steps }) => steps.length)).toEqual([18, 20, 17]);
    for (const [ink, end] of [
      [cyan, 0.9],
      [magenta, 1],
      [yellow, 0.85],
    ] as const) {
      ink.steps.forEach(({ nominal, aim }, i) => {
        expect(nominal).toBeCloseTo(tones[i] / end, 4);
        expect(aim).toBeCloseTo(nominal, 12);
      });
      expect(ink.steps.at(-1)?.measured).toBeCloseTo(1, 2);
    }
  });

  it('says what the next sheet should give', () => {
    const first = run('sctv');
    for (const { steps } of first)
      for (const { predicted, nominal } of steps) expect(predicted).toBeCloseTo(nominal, 2);
  });
});
