import { transformed } from '../transform/transform.ts';
import type { Transform } from '../transform/transform.ts';

/** Steps of L*, and of a* and b* over −100 to 100. */
const STEPS = 13;

/** The most ink that a way from Lab to a device asks for any colour, 1 = 100 %. */
export function mostInk(toDevice: Transform): number {
  const lab = new Float64Array(3 * STEPS ** 3);
  for (let i = 0; i < STEPS ** 3; i++) {
    const [l, a, b] = [Math.floor(i / STEPS ** 2), Math.floor(i / STEPS) % STEPS, i % STEPS];
    lab.set([(100 * l) / (STEPS - 1), (200 * a) / (STEPS - 1) - 100, (200 * b) / (STEPS - 1) - 100], 3 * i);
  }
  const inks = transformed(toDevice, lab);
  let most = 0;
  for (let row = 0; row < STEPS ** 3; row++) most = Math.max(most, inkSum(inks, row, toDevice.outputs));
  return most;
}

/** Sum of the device values of a row. */
export function inkSum(rows: ArrayLike<number>, row: number, channels: number): number {
  let sum = 0;
  for (let channel = 0; channel < channels; channel++) sum += rows[row * channels + channel];
  return sum;
}
