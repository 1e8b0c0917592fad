import { describe, expect, it } from 'vitest';
import { balanceNeutrals } from './balanceNeutrals.ts';
import { aimStanding, greyAim, neutralDensityAim, neutralLightness, neutralWeight } from './neutralAim.ts';
import { greyCyan, greyMagentaYellow } from './greyTriplet.ts';
import { judgeNeutrals } from './judgeNeutrals.ts';
import { neutralReading } from './neutralScales.ts';
import { labToXyz, xyzToLab } from '../colour/xyzToLab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { evaluateToneCurve, sampleToneCurve, straightCurve } from '../tone/toneCurve.ts';
import type { ToneCurve } from '../tone/toneCurve.ts';

describe('grey triplet', () => {
  it('is the published one at 25, 50, 75, 100', () => {
    expect([25, 50, 75, 100].map((c) => Math.round(1000 * greyMagentaYellow(c / 100)) / 10)).toEqual([
      18.9, 40, 66.1, 100,
    ]);
  });
  it('is inverted', () => {
    for (const c of [0.02, 0.3, 0.77, 1]) expect(greyCyan(greyMagentaYellow(c))).toBeCloseTo(c, 9);
  });
});

describe('neutral tone aim', () => {
  it('gives the tabulated densities', () => {
    const at = (scale: 'cmy' | 'k', d: number): number[] =>
      [0.25, 0.5, 0.75].map((t) => Math.round(1000 * neutralDensityAim(scale, t, d)) / 1000);
    expect(at('cmy', 1.2)).toEqual([0.248, 0.517, 0.834]);
    expect(at('cmy', 1.4)).toEqual([0.254, 0.546, 0.919]);
    expect(at('k', 1.4)).toEqual([0.221, 0.49, 0.851]);
    expect(at('k', 1.7)).toEqual([0.222, 0.498, 0.902]);
  });

  it('rises for every density and is exact at both ends', () => {
    for (const scale of ['cmy', 'k'] as const)
      for (const d of [0.6, 0.9, 1.2, 1.6, 2.1]) {
        let before = 0;
        for (let t = 0.01; t <= 1.0001; t += 0.01) {
          const now = neutralDensityAim(scale, t, d);
          expect(now).toBeGreaterThan(before);
          before = now;
        }
        expect(neutralDensityAim(scale, 1, d)).toBeCloseTo(d, 9);
        expect(neutralDensityAim(scale, 0, d)).toBe(0);
      }
  });

  it('says where it may be trusted', () => {
    expect(aimStanding('cmy', 1.3)).toBe('fitted');
    expect(aimStanding('cmy', 1.02)).toBe('extrapolated');
    expect(aimStanding('k', 1.8)).toBe('extrapolated');
    expect(aimStanding('k', 0.7)).toBe('none');
  });

  it('fades the tint of the paper', () => {
    const aim = greyAim(0.5, 1.3, [95, 1, -4], 88);
    expect(aim[1]).toBeCloseTo(0.575, 9);
    expect(aim[2]).toBeCloseTo(-2.3, 9);
    expect(aim[0]).toBeCloseTo(neutralLightness(neutralDensityAim('cmy', 0.5, 1.3), 88), 12);
  });

  it('weighs shadows less', () =>
    expect([0.3, 0.5, 0.75, 1].map(neutralWeight)).toEqual([1, 1, 0.625, 0.25]));
});

const TONES = [0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1];

/** A sheet that stands exactly on its aims, two copies, with an offset of L* and b* on the CMY scale. */
function sheet(dL: number, db: number, dmax = 1.35): { device: Float64Array; xyz: Float64Array } {
  const device: number[] = [];
  const xyz: number[] = [];
  const paper = [95, 0.5, -3] as const;
  const paperXyz = labToXyz([...paper], WHITE_D50_MEASURED);
  for (let copy = 0; copy < 2; copy++)
    for (const tone of TONES) {
      const grey = greyMagentaYellow(tone);
      const [l, a, b] = greyAim(tone, dmax, [...paper], paperXyz[1]);
      const off = tone > 0 && tone < 1 ? 1 : 0;
      device.push(tone, grey, grey, 0, 0, 0, 0, tone);
      xyz.push(...labToXyz([l + off * dL, a, b + off * db], WHITE_D50_MEASURED));
      xyz.push(
        ...labToXyz(
          [neutralLightness(neutralDensityAim('k', tone, 1.55), paperXyz[1]), a, b],
          WHITE_D50_MEASURED,
        ),
      );
    }
  return { device: Float64Array.from(device), xyz: Float64Array.from(xyz) };
}

function judged(dL: number, db: number, dmax?: number): ReturnType<typeof judgeNeutrals> {
  const { device, xyz } = sheet(dL, db, dmax);
  const reading = neutralReading(device, xyz);
  if (reading === undefined) throw new Error('no scales');
  return judgeNeutrals(reading);
}

describe('verdict on the near-neutral scales', () => {
  it('is nought on the aims', () => {
    const { figures, verdict, extrapolated, cmyDensity } = judged(0, 0);
    expect(verdict).toBe('conforms');
    expect(extrapolated).toBe(false);
    expect(cmyDensity).toBeCloseTo(1.35, 2);
    for (const f of Object.values(figures)) expect(f.largest).toBeLessThan(0.15);
  });

  it('weighs a constant offset by hand', () => {
    // Weights at 0.1 … 1: five of 1, then 0.85, 0.7, 0.55, 0.4, and 0.25 without offset.
    const mean = (5 + 0.85 + 0.7 + 0.55 + 0.4) / 10;
    const { figures } = judged(2, -1);
    expect(figures.cmyL.mean).toBeCloseTo(2 * mean, 1);
    expect(figures.cmyL.largest).toBeCloseTo(2, 1);
    expect(figures.cmyCh.mean).toBeCloseTo(1 * mean, 1);
    expect(figures.kL.mean).toBeLessThan(0.1);
    expect(judged(3.5, -1).verdict).toBe('does-not-conform');
    expect(judged(1.7, 0).verdict).toBe('near');
  });

  it('says extrapolated, or nothing, where the scale is too light', () => {
    expect(judged(0, 0, 1.05).extrapolated).toBe(true);
    expect(judged(0, 0, 0.7).verdict).toBe('not-judged');
  });

  it('names a wrong grey and does not use it', () => {
    const { device, xyz } = sheet(0, 0);
    // The second copy of the grey at 50 %.
    const row = 2 * TONES.length + 2 * 5;
    const [l, a, b] = xyzToLab([xyz[3 * row], xyz[3 * row + 1], xyz[3 * row + 2]], WHITE_D50_MEASURED);
    xyz.set(labToXyz([l - 7, a + 4, b], WHITE_D50_MEASURED), 3 * row);
    const reading = neutralReading(device, xyz);
    expect(reading?.wrong.map((wrong) => wrong.row)).toEqual([row]);
    expect(reading === undefined ? 9 : judgeNeutrals(reading).figures.cmyL.largest).toBeLessThan(0.2);
  });

  it('needs paper and both scales', () => {
    const { device, xyz } = sheet(0, 0);
    expect(
      neutralReading(
        device.map((v) => v * 0.9),
        xyz,
      ),
    ).toBeUndefined();
  });
});

describe('a round of balance', () => {
  const PAPER = [95, 0.5, -3] as const;
  const paperXyz = labToXyz([...PAPER], WHITE_D50_MEASURED);
  const straight = [0, 1, 2, 3].map(() => straightCurve());
  /** Darkness of black ink: fuller than its aim in the middle. */
  const blackLightness = (k: number): number =>
    PAPER[0] - (PAPER[0] - neutralLightness(1.55, paperXyz[1])) * (0.3 * k + 0.7 * k ** 0.8);

  /** A press whose greys are too blue by 1.5 up to the solid, and whose black gains too much. */
  function round(present: readonly ToneCurve[] = straight): ReturnType<typeof balanceNeutrals> {
    const lab = (c: number, m: number, y: number): [number, number, number] => {
      const grey = greyMagentaYellow(c);
      const [l, a, b] = greyAim(c, 1.35, [...PAPER], paperXyz[1]);
      const blue = c > 0 ? 1.5 : 0;
      return [l - 20 * (m - grey) - 4 * (y - grey), a + 38 * (m - grey), b - blue + 45 * (y - grey)];
    };
    const device: number[] = [];
    const colours: [number, number, number][] = [];
    const put = (values: number[], colour: [number, number, number]): void => {
      device.push(...values);
      colours.push(colour);
    };
    for (const tone of TONES) {
      const grey = greyMagentaYellow(tone);
      put([tone, grey, grey, 0], lab(tone, grey, grey));
      put([0, 0, 0, tone], [blackLightness(tone), PAPER[1] * (1 - tone), PAPER[2] * (1 - tone)]);
      if (tone > 0.2 && tone < 0.9)
        for (const [dm, dy] of [
          [0.03, 0],
          [-0.03, 0],
          [0, 0.03],
          [0, -0.03],
        ])
          put([tone, grey + dm, grey + dy, 0], lab(tone, grey + dm, grey + dy));
    }
    const xyz = colours.flatMap((colour) => [...labToXyz(colour, WHITE_D50_MEASURED)]);
    const reading = neutralReading(Float64Array.from(device), Float64Array.from(xyz));
    if (reading === undefined) throw new Error('no scales');
    return balanceNeutrals(reading, present);
  }

  it('puts yellow in where greys are blue, and lets it fade to the solid above 90 %', () => {
    const { next } = round();
    const shift = (cyan: number): number => {
      const grey = greyMagentaYellow(cyan);
      return evaluateToneCurve(next[2], grey) - grey;
    };
    for (const tone of [0.4, 0.6, 0.8]) expect(shift(tone)).toBeCloseTo(1.5 / 45, 2);
    // Half of it at 95 %, a sixth at 97.5 %, nothing at the solid.
    expect(shift(0.95) / (1.5 / 45)).toBeGreaterThan(0.3);
    expect(shift(0.95) / (1.5 / 45)).toBeLessThan(0.7);
    expect(shift(0.975) / (1.5 / 45)).toBeLessThan(0.35);
    for (const curve of next) expect([curve[0], curve[curve.length - 1]]).toEqual([0, 1]);
  });

  it('pulls black to its own curve', () => {
    const { next, predictedK, judgement } = round();
    for (const tone of [0.25, 0.5, 0.75]) {
      const aim = neutralLightness(neutralDensityAim('k', tone, judgement.kDensity), paperXyz[1]);
      expect(Math.abs(blackLightness(tone) - aim)).toBeGreaterThan(1);
      expect(Math.abs(blackLightness(evaluateToneCurve(next[3], tone)) - aim)).toBeLessThan(0.4);
    }
    judgement.k.forEach(({ tone, aim }, i) => {
      if (tone <= 0.9) expect(Math.abs(predictedK[i] - aim[0])).toBeLessThan(0.6);
    });
  });

  it('chains before the curves that the sheet was printed through', () => {
    const present = straight.map(() => sampleToneCurve((t) => 0.8 * t));
    const [alone, chained] = [round(), round(present)];
    for (let channel = 0; channel < 4; channel++)
      for (const tone of [0.3, 0.6, 1])
        expect(evaluateToneCurve(chained.next[channel], tone)).toBeCloseTo(
          0.8 * evaluateToneCurve(alone.next[channel], tone),
          3,
        );
  });
});
