import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import type { Lab } from '@melto/core/colour/lab';
import type { ListedColour } from '@melto/core/refine/namedColour';
import type { MeasuredColour } from './useMeasured';

/** What a colour is compared with, and how far it is from it. */
export interface Compared {
  readonly to: string;
  readonly aim?: Lab;
  readonly deltaE?: number;
  /** Of what it is compared with, where there is one. */
  readonly spectrum?: ListedColour['spectrum'];
}

/** What each colour is compared with: the nearest of a list where there is one, else the colour of that id. */
export function comparison(
  colours: readonly MeasuredColour[],
  reference: string,
  list: readonly ListedColour[] | undefined,
): (one: MeasuredColour) => Compared {
  const chosen = colours.find(({ id }) => id === reference);
  return ({ id, lab }) => {
    if (list !== undefined) {
      if (list.length === 0) return { to: '' };
      const aims = list.map((aim) => ({ ...aim, deltaE: deltaE2000(aim.lab, lab) }));
      const nearest = aims.reduce((best, aim) => (aim.deltaE < best.deltaE ? aim : best));
      return { to: nearest.name, aim: nearest.lab, deltaE: nearest.deltaE, spectrum: nearest.spectrum };
    }
    if (chosen === undefined || chosen.id === id) return { to: '' };
    const { name, spectrum } = chosen;
    return { to: name, aim: chosen.lab, deltaE: deltaE2000(chosen.lab, lab), spectrum };
  };
}
