'use client';

import { wrap } from 'comlink';
import type { Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { GamutWorker } from '@/workers/gamut.worker';

/** A worker that makes and compares bodies, for as long as the surface is open. */
export function useGamutWorker(): Remote<GamutWorker> | undefined {
  const [remote, setRemote] = useState<{ readonly api: Remote<GamutWorker> }>();
  useEffect(() => {
    const worker = new Worker(new URL('../../workers/gamut.worker.ts', import.meta.url), { type: 'module' });
    setRemote({ api: wrap<GamutWorker>(worker) });
    return () => {
      setRemote(undefined);
      worker.terminate();
    };
  }, []);
  return remote?.api;
}
