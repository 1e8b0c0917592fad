import { modeName } from '@melto/core/device/modeName';
import type { Process } from '@melto/core/device/process';
import { installedSpaces } from '@melto/paper/installedSpaces';
import { listKeptProfiles } from '@melto/store/keptProfiles';
import { listShelf } from '@melto/store/shelf';
import { findSourceProfile, listDatedSourceProfiles } from '@melto/store/sourceProfiles';
import type { Context } from '../kernel/context.ts';
import { fileName } from '../kernel/download.ts';
import type { Download } from '../kernel/download.ts';
import { notFound } from '../kernel/problem.ts';
import { GIVEN_PROFILE } from '../ledger/kinds/givenProfileKind.ts';
import { profileSummary } from '../ledger/resultKinds.ts';
import { KEPT_ORIGINS } from '@melto/core/profile/keptOrigin';
import type { KeptOrigin } from '@melto/core/profile/keptOrigin';

/** Where a profile of the house is from. */
export type ShelfOrigin = 'built here' | 'from elsewhere' | 'carried by jobs' | 'kept' | 'standard';

/** A profile that the house can look at. */
export interface ShelfProfile {
  /** Tells it from all others: `result-12`, `source-3`, `standard-sRGB`. */
  readonly key: string;
  readonly name: string;
  readonly origin: ShelfOrigin;
  /** Colour space of its device values. */
  readonly space: string;
  /** Address of its bytes. */
  readonly file: string;
  /** The same for the same bytes. */
  readonly digest: string;
  readonly madeMs: number | null;
  readonly note: string;
  /** Who made it, where it is kept from outside. */
  readonly kept: { readonly id: number; readonly origin: KeptOrigin } | null;
  /** Whose it is, where it stands on a condition. */
  readonly condition: {
    readonly id: number;
    readonly device: string;
    readonly stock: string;
    readonly mode: string;
    readonly inkSet: string;
    readonly version: number;
    readonly inForceOn: number;
    /** The light that it is for, where that is not D50 for the 2° observer. */
    readonly light: string | null;
  } | null;
}

const MOST = 500;
const ICC = 'application/vnd.iccprofile';

/** Every profile of the house, and the standard spaces of this machine: newest first, standards last. */
export async function profileShelf({ database }: Context): Promise<ShelfProfile[]> {
  const [rows, kept, sources] = await Promise.all([
    listShelf(database, MOST),
    listKeptProfiles(database, MOST),
    listDatedSourceProfiles(database, MOST),
  ]);
  return [
    ...rows.map((row): ShelfProfile => {
      const { name, light = null } = profileSummary({ ...row, link: 'profile', verdict: null });
      const { name: space } = JSON.parse(row.process) as Process;
      return {
        key: `result-${row.id}`,
        name,
        origin: row.shape === GIVEN_PROFILE.shape ? 'from elsewhere' : 'built here',
        space,
        file: `/api/results/${row.id}/file`,
        ...{ digest: row.digest, madeMs: row.madeMs, note: row.note, kept: null },
        condition: {
          ...{ id: row.conditionId, device: row.device, stock: row.stock, mode: modeName(row) },
          inkSet: row.inkSet,
          ...{ version: row.version, inForceOn: Number(row.inForceOn), light },
        },
      };
    }),
    ...kept.map(({ id, name, space, origin, note, digest, madeMs }): ShelfProfile => ({
      ...{ key: `kept-${id}`, name, origin: 'kept', space, file: `/api/kept-profiles/${id}/file` },
      ...{ digest, madeMs, note, kept: { id, origin: keptOrigin(origin) }, condition: null },
    })),
    ...sources.map(({ id, name, digest, madeMs }): ShelfProfile => ({
      ...{ key: `source-${id}`, name, origin: 'carried by jobs', space: 'CMYK' },
      ...{ file: `/api/source-profiles/${id}/file`, digest, madeMs, note: '', kept: null, condition: null },
    })),
    ...installedSpaces().map(({ key, name, space }): ShelfProfile => ({
      ...{ key: `standard-${key}`, name, origin: 'standard', space },
      ...{ file: `/api/standard-profiles/${key}/file`, digest: key, madeMs: null, note: '' },
      ...{ kept: null, condition: null },
    })),
  ];
}

const keptOrigin = (word: string): KeptOrigin => KEPT_ORIGINS.find((own) => own === word) ?? 'other';

export async function sourceProfileFile({ database }: Context, id: number): Promise<Download> {
  const row = await findSourceProfile(database, id);
  if (row === undefined) throw notFound(`source profile ${id}`);
  return { name: `${fileName(row.name)}.icc`, mediaType: ICC, content: row.content };
}

export function standardProfileFile(key: string): Download {
  const found = installedSpaces().find((own) => own.key === key);
  if (found === undefined) throw notFound(`standard profile ${key}`);
  return { name: `${key}.icc`, mediaType: ICC, content: found.content };
}
