import { expose, transfer } from 'comlink';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import type { RenderingIntent } from '@melto/core/icc/profileTransform';
import { readIcc } from '@melto/core/icc/readIcc';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { inspectProfile } from '@melto/core/profile/inspectProfile';
import type { ProfileInspection } from '@melto/core/profile/inspectProfile';
import { otherVersion } from '@melto/core/profile/otherVersion';
import { profileDifference, profileFigures } from '@melto/core/profile/profileFigures';
import type { ProfileFigures } from '@melto/core/profile/profileFigures';
import { deviceSlice, labSlice, linkSlice, TABLE_INTENTS } from '@melto/core/profile/tableSlice';
import type { TableSlice } from '@melto/core/profile/tableSlice';
import type { ErrorSummary } from '@melto/core/numerics/statistics';
import { issueText } from '@melto/core/result';
import type { Result } from '@melto/core/result';
import { channelPictures, colourPicture } from './slicePictures';
import type { SlicePicture } from './slicePictures';

/** Where a table is cut. */
export type SliceCut =
  | {
      readonly way: 'from device' | 'to another';
      readonly across: number;
      readonly down: number;
      readonly fixed: readonly number[];
    }
  | { readonly way: 'to device'; readonly lightness: number };

/** Two profiles beside each other. */
export interface ProfilesBeside {
  readonly own: ProfileFigures | null;
  readonly other: ProfileFigures | null;
  /** ΔE00 between what they predict for the same device values; null where their channels differ. */
  readonly difference: ErrorSummary | null;
}

const SIDE = 65;

function withProfile<T>(name: string, bytes: Uint8Array, what: (profile: IccProfile) => T): T | string {
  const read = readIcc(bytes);
  return read.ok ? what(read.value) : `${name}: ${read.issues.map(issueText).join('; ')}`;
}

function sliceOf(profile: IccProfile, intent: RenderingIntent, cut: SliceCut): Result<TableSlice> {
  if (cut.way === 'to device') return labSlice(profile, intent, cut.lightness, SIDE);
  return cut.way === 'from device'
    ? deviceSlice(profile, intent, { ...cut, side: SIDE })
    : linkSlice(profile, { ...cut, side: SIDE });
}

const api = {
  /** What a profile is and does; a sentence where its file cannot be read. */
  inspect: (name: string, bytes: Uint8Array): ProfileInspection | string =>
    withProfile(name, bytes, inspectProfile),

  /** A table cut flat, as pictures; a sentence where there is none. */
  slice(name: string, bytes: Uint8Array, table: number, cut: SliceCut): readonly SlicePicture[] | string {
    return withProfile(name, bytes, (profile): readonly SlicePicture[] | string => {
      const intent = TABLE_INTENTS[table];
      const made = sliceOf(profile, intent, cut);
      if (!made.ok) return `${name}: ${made.issues.map(issueText).join('; ')}`;
      const pictures = cut.way === 'from device' ? [colourPicture(made.value)] : channelPictures(made.value);
      return transfer(
        pictures,
        pictures.map(({ rgba }) => rgba.buffer),
      );
    });
  },

  /** The same profile in the other version of the specification; a sentence where that cannot hold it. */
  inOtherVersion(name: string, bytes: Uint8Array): Uint8Array<ArrayBuffer> | string {
    return withProfile(name, bytes, (profile) => {
      const made = otherVersion(profile, profile.header.version.major >= 4 ? 2 : 4);
      return made.ok
        ? new Uint8Array(writeIcc(made.value))
        : `${name}: ${made.issues.map(issueText).join('; ')}`;
    });
  },

  beside(
    name: string,
    bytes: Uint8Array,
    otherName: string,
    otherBytes: Uint8Array,
  ): ProfilesBeside | string {
    return withProfile(name, bytes, (own) =>
      withProfile(otherName, otherBytes, (other) => ({
        own: profileFigures(own) ?? null,
        other: profileFigures(other) ?? null,
        difference: profileDifference(own, other) ?? null,
      })),
    );
  },
};

export type InspectionWorker = typeof api;

expose(api);
