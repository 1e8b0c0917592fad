import { inkRamps } from '@melto/core/tone/inkRamps';
import type { PressReading } from './pressReading.ts';

/** Mean density over paper of the full tones as printed. */
export function fullDensities({ condition, device, xyz, densities }: PressReading): number[] {
  return inkRamps(condition.process, device, xyz, densities).map(({ tone, density }) => {
    const full = Array.from(density).filter((_, i) => tone[i] > 0.995);
    return full.reduce((sum, value) => sum + value, 0) / Math.max(1, full.length);
  });
}

const RAMP_STEPS = 9;

/** Lab of the patches nearest to nine even steps along each ink's ramp. */
export function printedRamps({ condition, device, xyz, densities, lab }: PressReading): number[][][] {
  return inkRamps(condition.process, device, xyz, densities).map(({ rows, tone }) =>
    Array.from({ length: RAMP_STEPS }, (_, step) => {
      let nearest = 0;
      tone.forEach((value, i) => {
        if (Math.abs(value - step / (RAMP_STEPS - 1)) < Math.abs(tone[nearest] - step / (RAMP_STEPS - 1)))
          nearest = i;
      });
      return [...lab.subarray(3 * rows[nearest], 3 * rows[nearest] + 3)];
    }),
  );
}
