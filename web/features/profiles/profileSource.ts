import { SaidError } from '@/ui/api';
import type { BodySource } from '@melto/services/overview/bodySources';
import type { ShelfProfile } from '@melto/services/profile/shelf';

/** A profile, or what a body can be made from, and how to come by its bytes. */
export interface ProfileSource {
  readonly key: string;
  readonly label: string;
  readonly group: string;
  readonly bytes: () => Promise<Uint8Array>;
  /** Where it is a file that is not kept. */
  readonly file?: File;
}

const GROUPS: Readonly<Record<ShelfProfile['origin'], string>> = {
  'built here': 'Conditions',
  'from elsewhere': 'Conditions',
  kept: 'Kept on the shelf',
  'carried by jobs': 'Carried by jobs',
  standard: 'Standard spaces',
};
const MOST_BYTES = 32_000_000;

/** Bytes that are fetched once, and again only where that failed. */
function once(fetched: () => Promise<Uint8Array>): () => Promise<Uint8Array> {
  let kept: Promise<Uint8Array> | undefined;
  return () => {
    kept ??= fetched().catch((error: unknown) => {
      kept = undefined;
      throw error;
    });
    return kept;
  };
}

/** Bytes at an address of the house. */
const fetchedFrom = (file: string, name: string): (() => Promise<Uint8Array>) =>
  once(async () => {
    const answer = await fetch(file);
    if (!answer.ok) throw new SaidError(`${name} cannot be fetched (${answer.status}).`);
    return new Uint8Array(await answer.arrayBuffer());
  });

/** A reading or an aim set, as its file. */
export const bodySource = ({ key, label, group, file }: BodySource): ProfileSource => ({
  ...{ key, label, group },
  bytes: fetchedFrom(file, label),
});

export function shelfSource({ key, name, origin, file, condition }: ShelfProfile): ProfileSource {
  return {
    key,
    label:
      condition === null
        ? name
        : `${condition.device} / ${condition.stock} / ${condition.mode}, v${condition.version}${statusWords(condition)}`,
    group: condition === null ? GROUPS[origin] : 'Conditions',
    bytes: fetchedFrom(file, name),
  };
}

/** A profile for a light stands beside the one in force. */
const statusWords = ({ light, inForceOn }: NonNullable<ShelfProfile['condition']>): string => {
  if (light !== null) return ` for ${light}`;
  return inForceOn > 0 ? '' : ' (not in force)';
};

/** A file of one's own, for as long as the surface is open. */
export function fileSource(file: File): ProfileSource {
  return {
    key: `file-${file.name}-${file.size}-${file.lastModified}`,
    label: file.name,
    group: 'Own files',
    file,
    bytes: async () => {
      if (file.size > MOST_BYTES)
        throw new SaidError(`${file.name} is larger than 32 MB, which no profile is.`);
      return new Uint8Array(await file.arrayBuffer());
    },
  };
}
