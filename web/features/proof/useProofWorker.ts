'use client';

import { wrap } from 'comlink';
import type { Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { ProofWorker } from '@/workers/proof.worker';

/** A worker that proofs one picture, for as long as the surface is open. */
export function useProofWorker(): Remote<ProofWorker> | undefined {
  const [remote, setRemote] = useState<{ readonly api: Remote<ProofWorker> }>();
  useEffect(() => {
    const worker = new Worker(new URL('../../workers/proof.worker.ts', import.meta.url), { type: 'module' });
    setRemote({ api: wrap<ProofWorker>(worker) });
    return () => {
      setRemote(undefined);
      worker.terminate();
    };
  }, []);
  return remote?.api;
}
