import { expose } from 'comlink';
import { eyeHypotheses } from '@melto/core/eye/eyeHypotheses';
import type { EyeGround } from '@melto/core/eye/eyeHypotheses';
import type { EyeNote } from '@melto/core/eye/eyeWords';
import { pointOut } from '@melto/core/eye/pointOut';
import type { PointedCause } from '@melto/core/eye/pointOut';
import { readIcc } from '@melto/core/icc/readIcc';
import { issueText } from '@melto/core/result';

const api = {
  /** What notes point to; a sentence where the profile cannot be used. */
  points(
    ground: Omit<EyeGround, 'profile'>,
    profile: Uint8Array,
    notes: readonly EyeNote[],
  ): PointedCause[] | string {
    const read = readIcc(profile);
    const hypotheses = read.ok ? eyeHypotheses({ ...ground, profile: read.value }) : read;
    return hypotheses.ok
      ? pointOut(
          ground.colours.map(({ lab }) => lab),
          notes,
          hypotheses.value,
        )
      : hypotheses.issues.map(issueText).join('; ');
  },
};

export type EyeWorker = typeof api;

expose(api);
