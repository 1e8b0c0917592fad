import type { PressUnit } from './pressUnit.ts';
import { unitOf } from './pressUnit.ts';
import { failure, success } from '../result.ts';
import type { Issue, Result } from '../result.ts';

/** Slur fields are lines along the sheet's travel and across it: where they differ, dots are drawn out. */
export const BAR_PATCH_KINDS = [
  'paper',
  'solid',
  'tint',
  'overprint',
  'grey',
  'slur along',
  'slur across',
] as const;
export type BarPatchKind = (typeof BAR_PATCH_KINDS)[number];

/** One patch of a colour bar. */
export interface BarPatch {
  readonly kind: BarPatchKind;
  /** Ink zone, from 0 at the left. */
  readonly zone: number;
  /** Tone of each unit as it stands on the plates, 0..1. */
  readonly tones: readonly number[];
}

/** Patches from left to right over the width of the sheet. */
export interface ColourBar {
  readonly zones: number;
  readonly zoneMm: number;
  readonly patchMm: number;
  readonly patches: readonly BarPatch[];
}

export const BAR_ZONES = { least: 1, most: 60 } as const;
export const ZONE_MM = { least: 15, most: 100 } as const;
export const PATCH_MM = { least: 3, most: 15 } as const;

/** Tones of the greys, in which the inks of a neutral stand by G7 and ISO 12647-2. */
const GREYS: readonly (readonly [number, number, number])[] = [
  [0.5, 0.4, 0.4],
  [0.25, 0.19, 0.19],
  [0.75, 0.66, 0.66],
];
const TINTS = [0.5, 0.75, 0.25] as const;
/** Tone of the lines of slur fields. */
export const SLUR_LINES = 0.4;

/**
 * A bar over all ink zones: each zone has the solids of all units, which its keys are set by, and in what room is left the
 * tints, greys, overprints, slur fields and paper follow each other over the width.
 */
export function designBar(
  units: readonly PressUnit[],
  shape: Pick<ColourBar, 'zones' | 'zoneMm' | 'patchMm'>,
): Result<ColourBar> {
  const { zones, zoneMm, patchMm } = shape;
  const issues = [...outside('zones', zones, BAR_ZONES), ...shapeIssues(shape)];
  if (issues.length > 0) return failure(...issues);
  const room = roomOf(shape);
  if (room < units.length)
    return failure({
      code: 'bar.room',
      path: 'zoneMm',
      expected: `room for the ${units.length} solids: zones of at least ${units.length * patchMm} mm, or narrower patches`,
      found: `${room} patches of ${patchMm} mm`,
    });
  const others = otherPatches(units);
  let next = 0;
  const patches: BarPatch[] = [];
  for (let zone = 0; zone < zones; zone++) {
    const solids = units.map((_, unit) => ({ kind: 'solid' as const, zone, tones: alone(units, unit, 1) }));
    const rest = Array.from({ length: room - units.length }, () => ({
      ...others[next++ % others.length],
      zone,
    }));
    patches.push(...rest.slice(0, rest.length >> 1), ...solids, ...rest.slice(rest.length >> 1));
  }
  return success({ zones, zoneMm, patchMm, patches });
}

/** What is wrong with the size of zones and patches. */
export function shapeIssues({ zoneMm, patchMm }: Pick<ColourBar, 'zoneMm' | 'patchMm'>): Issue[] {
  return [...outside('zoneMm', zoneMm, ZONE_MM), ...outside('patchMm', patchMm, PATCH_MM)];
}

/** Patches that fit into a zone. */
export const roomOf = ({ zoneMm, patchMm }: Pick<ColourBar, 'zoneMm' | 'patchMm'>): number =>
  Math.floor(zoneMm / patchMm + 1e-9);

function outside(
  path: string,
  value: number,
  { least, most }: { readonly least: number; readonly most: number },
): Issue[] {
  if (value >= least && value <= most && (path !== 'zones' || Number.isInteger(value))) return [];
  return [{ code: 'bar.range', path, expected: `${least} to ${most}`, found: String(value) }];
}

function alone(units: readonly PressUnit[], unit: number, tone: number): number[] {
  return units.map((_, other) => (other === unit ? tone : 0));
}

/** What follows each other in the room beside the solids: first what is judged most. */
function otherPatches(units: readonly PressUnit[]): Omit<BarPatch, 'zone'>[] {
  const [c, m, y, k] = ['C', 'M', 'Y', 'K'].map((ink) => unitOf(units, ink));
  const together = (
    kind: BarPatchKind,
    parts: readonly (readonly [number, number])[],
  ): Omit<BarPatch, 'zone'>[] =>
    parts.every(([unit]) => unit >= 0)
      ? [{ kind, tones: units.map((_, unit) => parts.find(([other]) => other === unit)?.[1] ?? 0) }]
      : [];
  const tints = (tone: number): Omit<BarPatch, 'zone'>[] =>
    units.map((_, unit) => ({ kind: 'tint', tones: alone(units, unit, tone) }));
  const grey = (level: readonly [number, number, number]): Omit<BarPatch, 'zone'>[] =>
    together('grey', [
      [c, level[0]],
      [m, level[1]],
      [y, level[2]],
    ]);
  const pairs: (readonly [number, number])[] = [
    [c, m],
    [m, y],
    [c, y],
  ];
  const slurred = k >= 0 ? k : 0;
  return [
    { kind: 'paper', tones: units.map(() => 0) },
    ...tints(TINTS[0]),
    ...grey(GREYS[0]),
    ...pairs.flatMap(([one, other]) =>
      together('overprint', [
        [one, 1],
        [other, 1],
      ]),
    ),
    ...tints(TINTS[1]),
    ...grey(GREYS[1]),
    ...tints(TINTS[2]),
    ...grey(GREYS[2]),
    { kind: 'slur along', tones: alone(units, slurred, SLUR_LINES) },
    { kind: 'slur across', tones: alone(units, slurred, SLUR_LINES) },
  ];
}

/** Where the patches of a kind lie: indices into `patches`, of one unit alone where it is told. */
export function patchesOf({ patches }: ColourBar, kind: BarPatchKind, unit?: number): number[] {
  return patches.flatMap((patch, at) =>
    patch.kind === kind && (unit === undefined || patch.tones[unit] > 0) ? [at] : [],
  );
}

/** What a patch shows, in words: “C 50 %”, “M + Y”, “grey C 50 M 40 Y 40”. */
export function barPatchWords(units: readonly PressUnit[], { kind, tones }: BarPatch): string {
  const inks = units.flatMap(({ ink }, unit) => (tones[unit] > 0 ? [{ ink, tone: tones[unit] }] : []));
  if (kind === 'paper') return 'paper';
  if (kind === 'solid') return `${inks[0].ink} solid`;
  if (kind === 'tint') return `${inks[0].ink} ${Math.round(100 * inks[0].tone)} %`;
  if (kind === 'overprint') return inks.map(({ ink }) => ink).join(' + ');
  if (kind === 'grey')
    return `grey ${inks.map(({ ink, tone }) => `${ink} ${Math.round(100 * tone)}`).join(' ')}`;
  return `${inks[0].ink} lines ${kind === 'slur along' ? 'along' : 'across'}`;
}
