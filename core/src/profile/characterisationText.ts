import type { PatchSet } from '../cgats/patchSet.ts';
import { patchSetToCgats } from '../cgats/patchSetToCgats.ts';
import { writeCgats } from '../cgats/writeCgats.ts';

/** The reading a profile is made from as the text of its `targ` tag, without where patches stood on paper. */
export function characterisationText(set: PatchSet): string {
  return writeCgats(patchSetToCgats({ ...set, layout: undefined }));
}
