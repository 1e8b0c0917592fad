import { evaluateToneCurve } from '../tone/toneCurve.ts';
import type { ToneCurves } from '../tone/toneCurve.ts';
import { curveInputs } from './curvesToCsv.ts';

/** Curves as JSON, tone values 0..1: `{ title, inputs, curves: { C: […], … } }`. */
export function curvesToJson(
  curves: ToneCurves,
  channels: readonly string[],
  title: string,
  points = 256,
): string {
  const inputs = curveInputs(points);
  const round = (value: number): number => Math.round(value * 1e6) / 1e6;
  return `${JSON.stringify(
    {
      title,
      inputs: inputs.map(round),
      curves: Object.fromEntries(
        curves.map((curve, i) => [
          channels[i],
          inputs.map((input) => round(evaluateToneCurve(curve, input))),
        ]),
      ),
    },
    null,
    1,
  )}\n`;
}
