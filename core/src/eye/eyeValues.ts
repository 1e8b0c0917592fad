import { eightBit } from '../charts/namedPatches.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { placeList } from '../proof/placeList.ts';
import type { PrintedColour } from '../proof/placeList.ts';
import type { NamedColour } from '../refine/namedColour.ts';
import { success } from '../result.ts';
import type { Result } from '../result.ts';

/** Colours of an eye's page as a profile prints them, absolute. */
export interface EyeValues {
  /** As files and drivers take them: 8 bits, row-major × channel. */
  readonly device: Float64Array;
  readonly printed: readonly PrintedColour[];
}

export function eyeValues(profile: IccProfile, colours: readonly NamedColour[]): Result<EyeValues> {
  const placed = placeList(profile, Float64Array.from(colours.flatMap(({ lab }) => [...lab])));
  if (!placed.ok) return placed;
  const printed = placed.value.colours;
  return success({
    device: Float64Array.from(printed.flatMap((colour) => colour.device.map(eightBit))),
    printed,
  });
}
