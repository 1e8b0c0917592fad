import { neutralDensity } from '../density/density.ts';
import { mean } from '../numerics/statistics.ts';
import { evaluateToneCurve } from '../tone/toneCurve.ts';
import type { ToneCurves } from '../tone/toneCurve.ts';

export interface TotalInkStep {
  /** Sum of the device values, 1 = 100 %. */
  readonly total: number;
  /** Neutral density over paper, mean of the copies. */
  readonly density: number;
}

export interface TotalInkProposal {
  /** Total at the device, 1 = 100 %. */
  readonly total: number;
  readonly steps: readonly TotalInkStep[];
  /** Darkness that counts as no worse than the best: 0.03 or twice the repeatability. */
  readonly tolerance: number;
  readonly darkest: number;
}

const LEAST_TOLERANCE = 0.03;

/**
 * The least total ink whose overprint is as dark as the best, within 0.03 D or twice the repeatability of the copies.
 * The series has full black and equal C, M, Y; undefined with fewer than five steps.
 * @param device as it reached the device, row-major × 4.
 */
export function proposeTotalInk(
  device: Float64Array,
  xyz: Float64Array,
  paperY: number,
): TotalInkProposal | undefined {
  const byTotal = new Map<number, number[]>();
  for (let i = 0; i * 4 < device.length; i++) {
    const [c, m, y, k] = device.subarray(4 * i, 4 * i + 4);
    if (k < 0.999 || c < 0.05 || Math.abs(c - m) > 0.004 || Math.abs(c - y) > 0.004) continue;
    const total = Math.round((c + m + y + k) * 1000) / 1000;
    byTotal.set(total, [...(byTotal.get(total) ?? []), neutralDensity(xyz[3 * i + 1], paperY)]);
  }
  if (byTotal.size < 5) return undefined;
  const entries = [...byTotal].sort(([a], [b]) => a - b);
  const steps = entries.map(([total, values]) => ({ total, density: mean(values) }));
  const spreads = entries.flatMap(([, values]) =>
    values.length < 2
      ? []
      : values.map(
          (value) => Math.abs(value - mean(values)) * Math.sqrt(values.length / (values.length - 1)),
        ),
  );
  const repeatability = spreads.length === 0 ? 0 : 1.2533 * mean(spreads);
  const tolerance = Math.max(LEAST_TOLERANCE, 2 * repeatability);
  const darkest = Math.max(...steps.map(({ density }) => density));
  const enough = steps.find(({ density }) => density >= darkest - tolerance);
  return { total: enough?.total ?? steps[steps.length - 1].total, steps, tolerance, darkest };
}

/**
 * Total ink at the input of the curves for which an overprint with full black and equal C, M, Y puts `deviceTotal` on
 * the stock; 4 where it never gets there.
 */
export function inputTotalOf(deviceTotal: number, curves: ToneCurves): number {
  const device = (input: number): number => {
    const share = (input - 1) / 3;
    return (
      evaluateToneCurve(curves[0], share) +
      evaluateToneCurve(curves[1], share) +
      evaluateToneCurve(curves[2], share) +
      evaluateToneCurve(curves[3], 1)
    );
  };
  if (device(4) <= deviceTotal) return 4;
  let low = 1;
  let high = 4;
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (device(middle) < deviceTotal) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
