import type { ChainIntent } from '@melto/core/chain/chainIntent';

/** Options of LittleCMS for each way that jobs are converted. */
export const JOB_OPTIONS: Readonly<Record<ChainIntent, readonly string[]>> = {
  'relative-black': ['-t1', '-b'],
  relative: ['-t1'],
  perceptual: ['-t0'],
  saturation: ['-t2'],
  absolute: ['-t3'],
};
