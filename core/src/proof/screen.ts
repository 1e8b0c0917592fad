import { P3, SRGB } from '../chain/sourceSpaces.ts';
import { srgbEncode } from '../colour/srgb.ts';
import { matrixStage } from '../icc/compileLut.ts';
import { labToXyzStage } from '../icc/pcsEncoding.ts';
import { invertMatrix3 } from '../numerics/matrix3.ts';
import { ofStages } from '../transform/transform.ts';
import type { Transform } from '../transform/transform.ts';

/** Spaces that a screen is drawn in, by their names in CSS; the curve of both is that of sRGB. */
export type ScreenSpace = 'srgb' | 'display-p3';

const MATRICES = { srgb: SRGB.matrix, 'display-p3': P3.matrix } as const;

const STEPS = 4096;
/** The signal at even steps of the square root of light, where its curve is nearly straight. */
const SIGNAL = Float64Array.from({ length: STEPS + 2 }, (_, i) =>
  srgbEncode((Math.min(i, STEPS) / STEPS) ** 2),
);

/** Lab (D50) to the signal of a screen, 0..1, clipped. */
export function labToScreenSignal(space: ScreenSpace = 'srgb'): Transform {
  return ofStages({
    ...{ inputs: 3, outputs: 3, stride: 3 },
    stages: [
      labToXyzStage(3),
      matrixStage([...invertMatrix3(MATRICES[space]), 0, 0, 0], 3),
      (rows, count) => {
        for (let at = 0; at < 3 * count; at++) {
          const root = Math.sqrt(Math.min(1, Math.max(0, rows[at]))) * STEPS;
          const step = Math.floor(root);
          rows[at] = SIGNAL[step] + (root - step) * (SIGNAL[step + 1] - SIGNAL[step]);
        }
      },
    ],
  });
}
