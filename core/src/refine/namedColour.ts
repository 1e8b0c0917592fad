import type { Lab } from '../colour/lab.ts';
import type { SpectrumOn } from '../light/metamerism.ts';

/** A colour of a colour list: D50/2°, absolute. */
export interface NamedColour {
  readonly name: string;
  readonly lab: Lab;
}

/** A colour of a list with the spectrum that its Lab was computed from, where the list has one. */
export interface ListedColour extends NamedColour {
  readonly spectrum?: SpectrumOn & { readonly values: readonly number[] };
}
