import { deltaE2000Rows } from '../colour/deltaE2000.ts';
import type { Lab } from '../colour/lab.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { deviceToLab, labToDevice } from '../icc/profileTransform.ts';
import { summariseErrors } from '../numerics/statistics.ts';
import { success } from '../result.ts';
import type { Result } from '../result.ts';
import { transformed } from '../transform/transform.ts';

/** A colour of a list as a device comes nearest to it. */
export interface PlacedColour {
  /** Device values, 0..1. */
  readonly device: readonly number[];
  readonly printed: Lab;
  /** ΔE00 to what is asked. */
  readonly deltaE: number;
}

/** A colour list on one device. */
export interface PlacedList {
  /** In the order of the list. */
  readonly colours: readonly PlacedColour[];
  /** ΔE00 over all of them. */
  readonly mean: number;
  readonly p95: number;
  readonly largest: number;
  /** How many are over 3 ΔE00. */
  readonly over3: number;
  /** Mean sum of the device values, 1 = one full channel. */
  readonly ink: number;
  /** Mean of each channel. */
  readonly amounts: readonly number[];
}

/**
 * Where the colours of a list come out on a device, by its profile and absolute: colours that print as they are, others
 * as near as the profile brings them.
 * @param lab D50/2°, row-major × 3, one colour at least.
 */
export function placeList(profile: IccProfile, lab: Float64Array): Result<PlacedList> {
  const to = labToDevice(profile, 'absolute');
  if (!to.ok) return to;
  const back = deviceToLab(profile, 'absolute');
  if (!back.ok) return back;
  const device = transformed(to.value, lab);
  const printed = transformed(back.value, device);
  const errors = deltaE2000Rows(lab, printed);
  const { outputs } = to.value;
  return success({
    colours: Array.from(errors, (deltaE, i) => ({
      device: [...device.subarray(outputs * i, outputs * (i + 1))],
      printed: [printed[3 * i], printed[3 * i + 1], printed[3 * i + 2]] as const,
      deltaE,
    })),
    ...summariseErrors(errors),
    over3: errors.filter((error) => error > 3).length,
    ink: device.reduce((sum, value) => sum + value, 0) / errors.length,
    amounts: Array.from({ length: outputs }, (_, ink) => {
      let sum = 0;
      for (let at = ink; at < device.length; at += outputs) sum += device[at];
      return sum / errors.length;
    }),
  });
}
