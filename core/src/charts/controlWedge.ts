import { greyMagentaYellow } from '../balance/greyTriplet.ts';
import { NEUTRAL_STEPS } from './nearNeutralChart.ts';
import { eightBit, pushPatch } from './namedPatches.ts';
import type { NamedPatches } from './namedPatches.ts';

/** Control wedges for CMYK aims, chosen by Melto; no published set. */
export const WEDGE_KINDS = ['proof', 'near-neutral', 'watch'] as const;
export type WedgeKind = (typeof WEDGE_KINDS)[number];

/** Patches that any of the wedges may have at most, also one of one's own. */
export const MOST_WEDGE_PATCHES = 400;

export function controlWedge(kind: WedgeKind): NamedPatches {
  switch (kind) {
    case 'proof':
      return proofWedge();
    case 'near-neutral':
      return nearNeutralWedge();
    case 'watch':
      return watchWedge();
  }
}

const INKS = ['C', 'M', 'Y', 'K'] as const;
const PRIMARIES: readonly (readonly [string, readonly [number, number, number]])[] = [
  ['C', [1, 0, 0]],
  ['M', [0, 1, 0]],
  ['Y', [0, 0, 1]],
  ['MY', [0, 1, 1]],
  ['CY', [1, 0, 1]],
  ['CM', [1, 1, 0]],
];
/** Hues between primaries and overprints, at the outside of the gamut. */
const OUTER: readonly (readonly [number, number, number])[] = [
  [1, 0.4, 0],
  [0.4, 1, 0],
  [0, 1, 0.4],
  [0, 0.4, 1],
  [0.4, 0, 1],
  [1, 0, 0.4],
];
const SKIN: readonly (readonly [number, number, number, number])[] = [
  [0.05, 0.25, 0.25, 0],
  [0.1, 0.4, 0.45, 0],
  [0.15, 0.5, 0.55, 0.05],
  [0.3, 0.6, 0.7, 0.2],
  [0.4, 0.7, 0.75, 0.45],
];
const TERTIARIES: readonly (readonly [number, number, number, number])[] = [
  [0.7, 0.4, 0.3, 0],
  [0.3, 0.7, 0.4, 0],
  [0.4, 0.3, 0.7, 0],
  [0.6, 0.2, 0.7, 0.2],
  [0.2, 0.7, 0.7, 0.3],
  [0.7, 0.7, 0.2, 0.3],
  [0.75, 0.66, 0.66, 0.5],
];

class Wedge {
  private readonly device: number[] = [];
  private readonly names: string[] = [];

  add(name: string, values: readonly number[]): void {
    pushPatch(this.device, this.names, values.map(eightBit), name);
  }

  ink(ink: number, percent: number): void {
    const values = [0, 0, 0, 0];
    values[ink] = percent / 100;
    this.add(`${INKS[ink]} ${percent}`, values);
  }

  grey(percent: number): void {
    const other = greyMagentaYellow(eightBit(percent / 100));
    this.add(`grey ${percent}`, [percent / 100, other, other, 0]);
  }

  done(): NamedPatches {
    return { device: Float64Array.from(this.device), names: this.names };
  }
}

/** 84 patches, four strips of a hand-held reader: for proofs, validation prints, production prints and G7. */
function proofWedge(): NamedPatches {
  const wedge = new Wedge();
  for (let i = 0; i < 3; i++) wedge.add('paper', [0, 0, 0, 0]);
  for (let ink = 0; ink < 4; ink++) for (const percent of [100, 75, 50, 25, 10]) wedge.ink(ink, percent);
  for (const percent of [5, 20, 40, 60, 80, 90]) wedge.ink(3, percent);
  for (const percent of [5, 10, 20, 25, 30, 40, 50, 60, 70, 75, 80, 90]) wedge.grey(percent);
  wedge.add('CMY 100', [1, 1, 1, 0]);
  for (const [name, inks] of PRIMARIES)
    for (const percent of name.length === 1 ? [70, 40] : [100, 70, 40])
      wedge.add(`${name} ${percent}`, [...inks.map((value) => (value * percent) / 100), 0]);
  for (const inks of OUTER) {
    wedge.add('outer', [...inks, 0]);
    wedge.add('outer, lighter', [...inks.map((value) => 0.7 * value), 0]);
  }
  for (const values of SKIN) wedge.add('skin', values);
  for (const values of TERTIARIES) wedge.add('tertiary', values);
  wedge.add('darkest', [0.8, 0.7, 0.7, 0.8]);
  wedge.add('black over colour', [0.6, 0, 0, 1]);
  wedge.add('black over colour', [0, 0.6, 0.6, 1]);
  return wedge.done();
}

/** Both near-neutral scales with paper, solids and overprints: 63 patches, three strips. */
function nearNeutralWedge(): NamedPatches {
  const wedge = new Wedge();
  for (let i = 0; i < 3; i++) wedge.add('paper', [0, 0, 0, 0]);
  for (const percent of NEUTRAL_STEPS) {
    wedge.ink(3, percent);
    if (percent === 100) wedge.add('CMY 100', [1, 1, 1, 0]);
    else wedge.grey(percent);
  }
  for (const [name, inks] of PRIMARIES) {
    wedge.add(`${name} 100`, [...inks, 0]);
    wedge.add(`${name} 50`, [...inks.map((value) => value / 2), 0]);
  }
  return wedge.done();
}

/** Places of the watch wedge across the width. */
export const WATCH_PLACES = 3;

/** What a watch looks at, 14 patches, at the left, in the middle and at the right: 42 patches, two strips. */
function watchWedge(): NamedPatches {
  const halves: ((wedge: Wedge) => void)[][] = [
    [
      (wedge) => wedge.add('paper', [0, 0, 0, 0]),
      ...[0, 1, 2, 3].map((ink) => (wedge: Wedge) => wedge.ink(ink, 100)),
      (wedge) => wedge.grey(25),
      (wedge) => wedge.grey(75),
    ],
    [
      ...[0, 1, 2, 3].map((ink) => (wedge: Wedge) => wedge.ink(ink, 50)),
      (wedge) => wedge.grey(50),
      (wedge) => wedge.add('MY 100', [0, 1, 1, 0]),
      (wedge) => wedge.add('CY 100', [1, 0, 1, 0]),
    ],
  ];
  const wedge = new Wedge();
  for (const half of halves)
    for (let place = 0; place < WATCH_PLACES; place++) for (const add of half) add(wedge);
  return wedge.done();
}
