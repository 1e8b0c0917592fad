import { ByteWriter } from './byteWriter.ts';
import { iccDateOf } from './iccDate.ts';
import type { IccProfile, IccTag, LutAbTag, LutTag } from './iccTypes.ts';

interface Link {
  /** Colour spaces of the values that come and go, as in the header of a profile. */
  readonly from: string;
  readonly to: string;
  readonly table: LutTag | LutAbTag;
  readonly description: string;
  readonly createdMs: number;
  readonly version: 2 | 4;
  /** Rendering intent that it was made by, as the header counts them. */
  readonly intent?: number;
  /** Colorant tables of the values that come and go, where their spaces do not name them. */
  readonly colorants?: { readonly from?: IccTag; readonly to?: IccTag };
}

/** An ICC device link of one table (ICC.1:2022, 8.6: `A2B0`, `pseq`). */
export function linkProfile({
  from,
  to,
  table,
  description,
  createdMs,
  version,
  intent = 0,
  colorants = {},
}: Link): IccProfile {
  return {
    header: {
      version: { major: version, minor: version === 4 ? 4 : 2 },
      deviceClass: 'link',
      colourSpace: from,
      pcs: to,
      created: iccDateOf(createdMs),
      ...{ intent, flags: 0, creator: '', manufacturer: '', model: '' },
    },
    tags: new Map<string, IccTag>([
      ['desc', textTag(description, version)],
      ['cprt', textTag('No rights reserved', version, 'text')],
      ['A2B0', table],
      ['pseq', { type: 'raw', bytes: emptySequence() }],
      ...(colorants.from === undefined ? [] : [['clrt', colorants.from] as const]),
      ...(colorants.to === undefined ? [] : [['clot', colorants.to] as const]),
    ]),
  };
}

function textTag(text: string, version: 2 | 4, old: 'desc' | 'text' = 'desc'): IccTag {
  if (version === 2) return old === 'desc' ? { type: 'desc', text } : { type: 'text', text };
  return { type: 'mluc', records: [{ language: 'en', country: 'GB', text }] };
}

/** `pseq` that lists no profiles: what a link was made of stands in its description. */
function emptySequence(): Uint8Array {
  const writer = new ByteWriter();
  writer.signature('pseq');
  writer.u32(0);
  writer.u32(0);
  return writer.toBytes();
}
