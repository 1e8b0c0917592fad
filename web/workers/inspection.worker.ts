import { expose } from 'comlink';
import { readIcc } from '@melto/core/icc/readIcc';
import { inspectProfile } from '@melto/core/profile/inspectProfile';
import type { ProfileInspection } from '@melto/core/profile/inspectProfile';
import { issueText } from '@melto/core/result';

const api = {
  /** What a profile is and does; a sentence where its file cannot be read. */
  inspect(name: string, bytes: Uint8Array): ProfileInspection | string {
    const read = readIcc(bytes);
    return read.ok ? inspectProfile(read.value) : `${name}: ${read.issues.map(issueText).join('; ')}`;
  },
};

export type InspectionWorker = typeof api;

expose(api);
