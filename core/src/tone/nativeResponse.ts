import { evaluateCubicSpline } from '../numerics/smoothingSpline.ts';
import type { Process } from '../device/process.ts';
import { fitResponse } from './fitResponse.ts';
import { meanPaperXyz } from '../device/meanPaperXyz.ts';
import { inkRamps, patchOf } from './inkRamps.ts';
import { evaluateToneCurve, sampleToneCurve, straightCurve } from './toneCurve.ts';
import type { ToneCurves } from './toneCurve.ts';
import { toneQuantity } from './toneMeasure.ts';

/**
 * A device's own spot colour tone value by device value, one curve an ink, from single-ink ramps.
 * @param present curves that the ramps were printed through; none for a linear front end.
 */
export function nativeResponse(
  process: Process,
  device: Float64Array,
  xyz: Float64Array,
  present?: ToneCurves,
): ToneCurves {
  const paper = meanPaperXyz(process, device, xyz);
  if (paper === undefined) throw new RangeError('ramps without bare paper');
  const ramps = inkRamps(process, device, xyz);
  return process.channels.map(({ name: ink }, channel) => {
    const ramp = ramps.find((other) => other.channel === channel);
    if (ramp === undefined) return straightCurve();
    const value = Array.from(ramp.tone, (_, i) => toneQuantity('sctv', ink, patchOf(ramp, i), paper));
    // The ramp's place at the device: the tone as sent, through the curve.
    const tone = Array.from(ramp.tone, (t) =>
      present === undefined ? t : evaluateToneCurve(present[channel], t),
    );
    const { spline } = fitResponse({ tone, value });
    const [zero, full] = [evaluateCubicSpline(spline, 0), evaluateCubicSpline(spline, 1)];
    const curve = sampleToneCurve((t) =>
      Math.min(1, Math.max(0, (evaluateCubicSpline(spline, t) - zero) / (full - zero))),
    );
    for (let i = 1; i < curve.length; i++) curve[i] = Math.max(curve[i], curve[i - 1]);
    return curve;
  });
}
