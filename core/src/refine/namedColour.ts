import type { Lab } from '../colour/lab.ts';

/** A colour of a colour list: D50/2°, absolute. */
export interface NamedColour {
  readonly name: string;
  readonly lab: Lab;
}
