import { evaluateToneCurve } from '../tone/toneCurve.ts';
import type { ToneCurves } from '../tone/toneCurve.ts';

/** Inputs of a file: `points` from 0 to 1, evenly. */
export function curveInputs(points: number): number[] {
  if (!Number.isInteger(points) || points < 2 || points > 4096)
    throw new RangeError(`${points} points, expected 2 to 4,096`);
  return Array.from({ length: points }, (_, i) => i / (points - 1));
}

/** Curves as CSV: input and a column a channel, per cent with six decimals. */
export function curvesToCsv(curves: ToneCurves, channels: readonly string[], points = 256): string {
  const rows = curveInputs(points).map((input) =>
    [input, ...curves.map((curve) => evaluateToneCurve(curve, input))]
      .map((value) => (100 * value).toFixed(6))
      .join(','),
  );
  return [['input', ...channels].join(','), ...rows, ''].join('\r\n');
}
