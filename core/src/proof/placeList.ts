import { deltaE2000Rows } from '../colour/deltaE2000.ts';
import type { Lab } from '../colour/lab.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { absoluteWays } from '../icc/absoluteWays.ts';
import { mostInk } from '../icc/mostInk.ts';
import { summariseErrors } from '../numerics/statistics.ts';
import { gatherRows } from '../numerics/gatherRows.ts';
import { success } from '../result.ts';
import type { Result } from '../result.ts';
import { transformed } from '../transform/transform.ts';
import type { Transform } from '../transform/transform.ts';
import type { PlacedJob } from './placedJob.ts';
import { nearestDevice } from './nearestColours.ts';

/** ΔE00 up to which a colour counts as reached, and up to which one sees the difference only side by side. */
export const REACHED = 1;
export const NEARLY = 3;

/** Whether a colour at such a distance counts as reached. */
export function reachOf(deltaE: number): 'yes' | 'nearly' | 'no' {
  return deltaE <= REACHED ? 'yes' : deltaE <= NEARLY ? 'nearly' : 'no';
}

/** ΔE00 that the table of a profile may be off where a colour prints. */
const AS_ASKED = 0.4;

/** What a device prints for a colour. */
export interface PrintedColour {
  /** Device values, 0..1. */
  readonly device: readonly number[];
  readonly printed: Lab;
  /** ΔE00 to what is asked. */
  readonly deltaE: number;
}

/** A colour list on one device. */
export interface PlacedList extends PlacedJob {
  /** In the order of the list. */
  readonly colours: readonly PrintedColour[];
  /** How many are over 3 ΔE00. */
  readonly over3: number;
}

/**
 * Where the colours of a list come out on a device, by its profile and absolute: colours that print as they are, others
 * as near as the profile brings them.
 * @param lab D50/2°, row-major × 3, one colour at least.
 */
export function placeList(profile: IccProfile, lab: Float64Array): Result<PlacedList> {
  const ways = absoluteWays(profile);
  if (!ways.ok) return ways;
  const { toDevice, toLab } = ways.value;
  const { outputs } = toDevice;
  const device = transformed(toDevice, lab);
  const colours = printedColours(lab, device, toLab);
  const errors = Float64Array.from(colours, ({ deltaE }) => deltaE);
  return success({
    colours,
    ...summariseErrors(errors),
    over3: errors.filter((error) => error > NEARLY).length,
    ink: device.reduce((sum, value) => sum + value, 0) / errors.length,
    amounts: Array.from({ length: outputs }, (_, ink) => {
      let sum = 0;
      for (let at = ink; at < device.length; at += outputs) sum += device[at];
      return sum / errors.length;
    }),
  });
}

/**
 * The colours of a device that come nearest to those of a list by ΔE00, whatever its profile makes of them: a profile
 * keeps hue where a colour does not print. What the profile brings within `AS_ASKED` stays as it is.
 * @param lab D50/2°, absolute, row-major × 3.
 */
export function nearestColours(profile: IccProfile, lab: Float64Array): Result<PrintedColour[]> {
  const ways = absoluteWays(profile);
  if (!ways.ok) return ways;
  const { toDevice, toLab } = ways.value;
  const { outputs } = toDevice;
  const device = transformed(toDevice, lab);
  const far = printedColours(lab, device, toLab).flatMap(({ deltaE }, i) => (deltaE > AS_ASKED ? [i] : []));
  const most = outputs === 3 ? outputs : mostInk(toDevice);
  const found = nearestDevice(
    { toLab, mostInk: most },
    gatherRows(lab, far, 3),
    gatherRows(device, far, outputs),
  );
  far.forEach((row, i) => device.set(found.subarray(i * outputs, (i + 1) * outputs), row * outputs));
  return success(printedColours(lab, device, toLab));
}

function printedColours(lab: Float64Array, device: Float64Array, toLab: Transform): PrintedColour[] {
  const printed = transformed(toLab, device);
  return Array.from(deltaE2000Rows(lab, printed), (deltaE, i) => ({
    device: [...device.subarray(toLab.inputs * i, toLab.inputs * (i + 1))],
    printed: [printed[3 * i], printed[3 * i + 1], printed[3 * i + 2]] as const,
    deltaE,
  }));
}
