import { baseInks } from '../device/baseInks.ts';
import { channelCount, CMYK } from '../device/process.ts';
import type { Process } from '../device/process.ts';
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
 * The series has full black and equal C, M, Y, and no other ink; undefined with fewer than five steps, and where the
 * process has not these four.
 * @param device as it reached the device, row-major × channel.
 */
export function proposeTotalInk(
  device: Float64Array,
  xyz: Float64Array,
  paperY: number,
  process: Process = CMYK,
): TotalInkProposal | undefined {
  const roles = baseInks(process);
  if (roles === undefined) return undefined;
  const channels = channelCount(process);
  const byTotal = new Map<number, number[]>();
  for (let i = 0; i * channels < device.length; i++) {
    const values = device.subarray(channels * i, channels * (i + 1));
    const [c, m, y] = roles.base.map((ink) => values[ink]);
    const k = values[roles.black];
    const all = values.reduce((sum, value) => sum + value, 0);
    if (all - (c + m + y + k) > 1e-6) continue;
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
 * the stock; 4 where it never gets there, and the total at the device where the process has not these four.
 */
export function inputTotalOf(deviceTotal: number, curves: ToneCurves, process: Process = CMYK): number {
  const roles = baseInks(process);
  if (roles === undefined) return deviceTotal;
  const [c, m, y] = roles.base.map((ink) => curves[ink]);
  const k = curves[roles.black];
  const device = (input: number): number => {
    const share = (input - 1) / 3;
    return (
      evaluateToneCurve(c, share) +
      evaluateToneCurve(m, share) +
      evaluateToneCurve(y, share) +
      evaluateToneCurve(k, 1)
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
