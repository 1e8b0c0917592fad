import { expose } from 'comlink';
import { eyeHypotheses } from '@melto/core/eye/eyeHypotheses';
import type { EyeGround } from '@melto/core/eye/eyeHypotheses';
import type { EyeHypothesis } from '@melto/core/eye/pointOut';
import { readIcc } from '@melto/core/icc/readIcc';
import { issueText } from '@melto/core/result';

const api = {
  /** How each cause would show on a page; a sentence where the profile cannot be used. */
  hypotheses(ground: Omit<EyeGround, 'profile'>, profile: Uint8Array): EyeHypothesis[] | string {
    const read = readIcc(profile);
    const made = read.ok ? eyeHypotheses({ ...ground, profile: read.value }) : read;
    return made.ok ? made.value : made.issues.map(issueText).join('; ');
  },
};

export type EyeWorker = typeof api;

expose(api);
