import type { NamedColour } from '../refine/namedColour.ts';
import type { Xyz } from '../colour/xyz.ts';

/** Spot colours that one wedge may carry. */
export const MOST_SPOT_COLOURS = 60;

/** A spot colour as its inks were read: judged by its own aim, whatever the aim set says of them. */
export interface SpotReading extends NamedColour {
  /** Mean of its patches, Y = 100. */
  readonly xyz: Xyz;
  /** C, M, Y, K that went to the device, 0..1; zeros where it takes no inks. */
  readonly device: readonly number[];
}
