'use client';

import { useRemoteWorker } from '@/ui/useRemoteWorker';
import type { ProofWorker } from '@/workers/proof.worker';

// The address stands where the bundler finds it.
const start = (): Worker =>
  new Worker(new URL('../../workers/proof.worker.ts', import.meta.url), { type: 'module' });

/** A worker that proofs one picture. */
export const useProofWorker = () => useRemoteWorker<ProofWorker>(start);
