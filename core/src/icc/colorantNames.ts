import type { IccProfile } from './iccTypes.ts';

const KNOWN: Readonly<Record<string, readonly string[]>> = {
  RGB: ['red', 'green', 'blue'],
  CMY: ['cyan', 'magenta', 'yellow'],
  CMYK: ['cyan', 'magenta', 'yellow', 'black'],
  GRAY: ['grey'],
};

/** How many inks a space counts without naming them, as `6CLR`; none where it is no such space. */
export const countedInks = (space: string): number =>
  /^[1-9A-F]CLR$/.test(space) ? Number.parseInt(space[0], 16) : 0;

/**
 * Names of the inks of a profile in the order of its channels, by its colorant table; undefined where that tells others or
 * is missing.
 * @param tag `clot` for the side that a device link goes to.
 */
export function colorantNames(
  { tags }: IccProfile,
  channels: number,
  tag: 'clrt' | 'clot' = 'clrt',
): readonly string[] | undefined {
  const table = tags.get(tag);
  return table?.type === 'clrt' && table.colorants.length === channels
    ? table.colorants.map(({ name }) => name.trim())
    : undefined;
}

/**
 * What the channels of a profile are called: by their space, by its colorant table, else by number.
 * @param side the side that a device link goes to is its connection space.
 * @returns none for a space that is no device's.
 */
export function channelNames(profile: IccProfile, side: 'from' | 'to' = 'from'): readonly string[] {
  const { colourSpace, pcs } = profile.header;
  const space = (side === 'from' ? colourSpace : pcs).trim();
  const known = KNOWN[space];
  if (known !== undefined) return known;
  const count = countedInks(space);
  return (
    colorantNames(profile, count, side === 'from' ? 'clrt' : 'clot')?.map((name) => name.toLowerCase()) ??
    Array.from({ length: count }, (_, i) => `ink ${i + 1}`)
  );
}
