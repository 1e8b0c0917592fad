import { issueText } from '@melto/core/result';
import { proofPicture } from '@melto/paper/proofPicture';
import type { ProofPicture } from '@melto/paper/proofPicture';
import { Problem } from '../kernel/problem.ts';

/** A picture's values as a browser takes them. */
export type PictureValues = Omit<ProofPicture, 'values' | 'icc'> & {
  /** Base 64. */
  readonly values: string;
  readonly icc: string | null;
};

/** Reads a picture for a proof on screen; nothing is stored. */
export async function pictureValues(file: Uint8Array, mostSide: number): Promise<PictureValues> {
  const read = await proofPicture(file, mostSide);
  if (!read.ok)
    throw new Problem(
      'bad-input',
      `The file is no picture that can be proofed: ${read.issues.map(issueText).join('; ')}.`,
      'Nothing was stored. Save it as TIFF, PNG or JPEG, and give that.',
    );
  const { values, icc, ...rest } = read.value;
  return {
    ...rest,
    values: Buffer.from(values).toString('base64'),
    icc: icc === undefined ? null : Buffer.from(icc).toString('base64'),
  };
}
