import { scaleBlackPoint } from '../colour/scaleBlackPoint.ts';
import type { Xyz } from '../colour/xyz.ts';
import { evaluateToneCurve } from '../tone/toneCurve.ts';
import type { ToneCurves } from '../tone/toneCurve.ts';
import { ofStages } from './transform.ts';
import type { Transform } from './transform.ts';

/** Lab to Lab, D50: a linear scaling of XYZ that takes one black to another and keeps white (ISO 18619); Y = 1. */
export function blackPoint(from: Xyz, to: Xyz): Transform {
  return ofStages({
    ...{ inputs: 3, outputs: 3, stride: 3 },
    stages: [
      (rows, count) => {
        for (let at = 0, end = 3 * count; at < end; at += 3)
          rows.set(scaleBlackPoint([rows[at], rows[at + 1], rows[at + 2]], from, to), at);
      },
    ],
  });
}

/** Device values through the curve of each channel, as a front end applies them. */
export function toneCurves(curves: ToneCurves): Transform {
  const channels = curves.length;
  return ofStages({
    ...{ inputs: channels, outputs: channels, stride: channels },
    stages: [
      (rows, count) => {
        for (let at = 0, end = channels * count; at < end; at += channels)
          for (let c = 0; c < channels; c++) rows[at + c] = evaluateToneCurve(curves[c], rows[at + c]);
      },
    ],
  });
}
