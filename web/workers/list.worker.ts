import { expose } from 'comlink';
import { readIcc } from '@melto/core/icc/readIcc';
import { placeList } from '@melto/core/proof/placeList';
import type { PlacedList } from '@melto/core/proof/placeList';
import { issueText } from '@melto/core/result';

const api = {
  /** A colour list on a device; a sentence where its profile cannot be used. */
  place(name: string, bytes: Uint8Array, lab: Float64Array): PlacedList | string {
    const profile = readIcc(bytes);
    if (!profile.ok) return `${name}: ${profile.issues.map(issueText).join('; ')}`;
    const placed = placeList(profile.value, lab);
    return placed.ok ? placed.value : `${name}: ${placed.issues.map(issueText).join('; ')}`;
  },
};

export type ListWorker = typeof api;

expose(api);
