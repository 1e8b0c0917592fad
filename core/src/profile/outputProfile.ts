import type { Xyz } from '../colour/xyz.ts';
import { iccDateOf } from '../icc/iccDate.ts';
import type { IccProfile, IccTag } from '../icc/iccTypes.ts';
import type { Matrix3 } from '../numerics/matrix3.ts';
import type { IccVersion } from './profileTables.ts';

/** What every output profile says of itself. */
export interface OutputProfileOptions {
  readonly version: IccVersion;
  readonly description: string;
  readonly copyright: string;
  readonly createdMs: number;
  /** Characterisation data as CGATS text for the `targ` tag. */
  readonly characterisation?: string;
  /** Mean measured XYZ of the bare stock (Y = 100). */
  readonly paperXyz: Xyz;
  /** From XYZ in the light that it is for to D50; absent where that is D50 itself. */
  readonly adaptation?: Matrix3;
}

const IDENTITY: Matrix3 = [1, 0, 0, 0, 1, 0, 0, 0, 1];

/** An output profile of the tables given, with the tags that every one has. */
export function outputProfile(
  options: OutputProfileOptions,
  colourSpace: string,
  tables: ReadonlyMap<string, IccTag>,
): IccProfile {
  const version4 = options.version === 4;
  const textTag = (text: string): IccTag =>
    version4 ? { type: 'mluc', records: [{ language: 'en', country: 'GB', text }] } : { type: 'text', text };
  const { description, paperXyz } = options;
  const tags = new Map<string, IccTag>([
    ['desc', version4 ? textTag(description) : { type: 'desc', text: description }],
    ['cprt', textTag(options.copyright)],
    ['wtpt', { type: 'XYZ', values: [[paperXyz[0] / 100, paperXyz[1] / 100, paperXyz[2] / 100]] }],
  ]);
  if (version4) tags.set('chad', { type: 'sf32', values: [...(options.adaptation ?? IDENTITY)] });
  for (const [signature, tag] of tables) tags.set(signature, tag);
  if (options.characterisation !== undefined)
    tags.set('targ', { type: 'text', text: options.characterisation });
  return {
    header: {
      version: version4 ? { major: 4, minor: 4 } : { major: 2, minor: 4 },
      deviceClass: 'prtr',
      colourSpace,
      pcs: 'Lab ',
      created: iccDateOf(options.createdMs),
      intent: 0,
      flags: 0,
      creator: '',
      manufacturer: '',
      model: '',
    },
    tags,
  };
}
