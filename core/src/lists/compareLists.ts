import { deltaE2000 } from '../colour/deltaE2000.ts';
import type { NamedColour } from '../refine/namedColour.ts';

/** ΔE00 up to which a colour counts as the same in two versions of a list: what is lost where Lab is written with two decimals. */
const SAME = 0.02;

/** What became of the colours of a list from one version to the next, by their names. */
export interface ListChanges {
  readonly added: readonly string[];
  readonly left: readonly string[];
  /** The farthest first. */
  readonly moved: readonly { readonly name: string; readonly deltaE: number }[];
}

/** Colours that have the same name more than once are told apart by their order. */
export function compareLists(before: readonly NamedColour[], after: readonly NamedColour[]): ListChanges {
  const known = byName(before);
  const now = byName(after);
  const moved = [...now].flatMap(([name, colour]) => {
    const own = known.get(name);
    const deltaE = own === undefined ? 0 : deltaE2000(own.lab, colour.lab);
    return deltaE > SAME ? [{ name, deltaE }] : [];
  });
  return {
    added: [...now.keys()].filter((name) => !known.has(name)),
    left: [...known.keys()].filter((name) => !now.has(name)),
    moved: moved.sort((a, b) => b.deltaE - a.deltaE),
  };
}

function byName(colours: readonly NamedColour[]): Map<string, NamedColour> {
  const named = new Map<string, NamedColour>();
  const seen = new Map<string, number>();
  for (const colour of colours) {
    const times = (seen.get(colour.name) ?? 0) + 1;
    seen.set(colour.name, times);
    named.set(times === 1 ? colour.name : `${colour.name} (${times})`, colour);
  }
  return named;
}
