import { colorantNames, countedInks } from '../icc/colorantNames.ts';
import type { IccProfile, IccTag } from '../icc/iccTypes.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';

/** The inks of one side of a device link. */
export interface LinkInks {
  /** Colour space as in the header of its profile: `CMYK`, `6CLR`. */
  readonly space: string;
  readonly count: number;
  /** Names in lower case, by which inks of two sides are the same; undefined where the profile does not tell. */
  readonly names: readonly string[] | undefined;
  /** The colorant table of its profile for spaces that do not name their inks, in the Lab of version 4. */
  readonly table: IccTag | undefined;
}

type Colorant = Extract<IccTag, { type: 'clrt' }>['colorants'][number];

const CMYK_NAMES = ['cyan', 'magenta', 'yellow', 'black'];
const MOST_INKS = 8;

export const isBlackInk = (name: string): boolean => name === 'black' || name === 'k';

/** Version 2 writes 100 of L* as FF00, version 4 as FFFF. */
const asVersion4 =
  (major: number) =>
  ({ name, pcs }: Colorant): Colorant => {
    const encoded = (value: number): number =>
      major >= 4 ? value : Math.min(65535, Math.round((value * 65535) / 65280));
    return { name, pcs: [encoded(pcs[0]), encoded(pcs[1]), encoded(pcs[2])] };
  };

/** Inks of a profile that a link can go from or to. */
export function linkInks(profile: IccProfile, path: string): Result<LinkInks> {
  const { header, tags } = profile;
  const space = header.colourSpace.trim();
  if (space === 'CMYK') return success({ space, count: 4, names: CMYK_NAMES, table: undefined });
  const count = countedInks(space);
  if (count === 0 || count > MOST_INKS)
    return failure({
      code: 'link.space',
      path,
      expected: `a profile of CMYK or of up to ${MOST_INKS} inks`,
      found: space,
    });
  const table = tags.get('clrt');
  const told = table?.type === 'clrt' && table.colorants.length === count ? table : undefined;
  const names = colorantNames(profile, count)?.map((name) => name.toLowerCase());
  return success({
    ...{
      space,
      count,
      table: told && { ...told, colorants: told.colorants.map(asVersion4(header.version.major)) },
    },
    // Two of one name are not told apart.
    names: names !== undefined && new Set(names).size === count ? names : undefined,
  });
}
