import { expose } from 'comlink';
import type { Process } from '@melto/core/device/process';
import { issueText } from '@melto/core/result';
import { trialFigures } from '@melto/core/stock/trialFigures';
import type { TrialFigures } from '@melto/core/stock/trialFigures';

const api = {
  /** Figures of a chart on a stock; a sentence where it tells none. */
  figures(process: Process, device: readonly number[], xyz: readonly number[]): TrialFigures | string {
    const made = trialFigures(process, Float64Array.from(device), Float64Array.from(xyz));
    return made.ok ? made.value : made.issues.map(issueText).join('; ');
  },
};

export type TrialWorker = typeof api;

expose(api);
