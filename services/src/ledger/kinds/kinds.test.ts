import { describe, expect, it } from 'vitest';
import { straightCurve } from '@melto/core/tone/toneCurve';
import { CURVES, keptToCurves, roundCurves } from './curvesKind.ts';
import { AIM_CHECK } from './aimCheckKind.ts';
import { SHORT_CHECK } from './shortCheckKind.ts';

type Curves = Parameters<typeof CURVES.picture>[0];

describe('curves as they are kept', () => {
  const kept = roundCurves([straightCurve(), straightCurve()]);
  const stored = (imported: string | null): Curves =>
    ({
      summary: { round: 3, imported },
      detail: { curves: kept, colours: ['#00a0e0', '#c02080'] },
    }) as unknown as Curves;

  it('are read back as they were, to a millionth, and refused where they are none', () => {
    const bent = Float64Array.from(straightCurve(), (value) => value ** 1.3);
    const [back] = keptToCurves(roundCurves([bent]));
    bent.forEach((value, i) => expect(Math.abs(back[i] - value)).toBeLessThanOrEqual(0.5e-6));
    const falling = [...bent];
    falling[100] = 0;
    expect(() => keptToCurves([falling])).toThrow('none');
    expect(() => keptToCurves([bent.slice(1) as unknown as number[]])).toThrow('none');
  });

  it('have a picture from end to end, and say which round they are or that they came from a file', () => {
    const { picture, figures } = CURVES.picture(stored(null), undefined);
    expect(figures).toBe('round 3');
    expect(CURVES.picture(stored('press.csv'), undefined).figures).toBe('from a file');
    const curves = picture?.kind === 'curves' ? picture.curves : [];
    expect(curves.map((curve) => [curve.length, curve[0], curve.at(-1)])).toEqual([
      [17, 0, 1],
      [17, 0, 1],
    ]);
  });
});

describe('checks as small pictures', () => {
  it('show each patch against a limit, and the figure that is nearest to its own', () => {
    const aims = {
      summary: { value: 1.234, limit: 2.5 },
      detail: { patches: [{ deltaE: 0.5 }, { deltaE: 3 }] },
    } as unknown as Parameters<typeof AIM_CHECK.picture>[0];
    expect(AIM_CHECK.picture(aims, undefined)).toEqual({
      picture: { kind: 'dots', differences: [0.5, 3], limit: 5 },
      figures: '1.23 / 2.5',
    });
    const short = {
      summary: { mean: 0.567, meanLimit: 3, largestLimit: 8 },
      detail: { check: { patches: [{ reached: 1 }, { reached: 2 }] } },
    } as unknown as Parameters<typeof SHORT_CHECK.picture>[0];
    expect(SHORT_CHECK.picture(short, undefined)).toEqual({
      picture: { kind: 'dots', differences: [1, 2], limit: 8 },
      figures: '0.57 / 3.0',
    });
  });
});
