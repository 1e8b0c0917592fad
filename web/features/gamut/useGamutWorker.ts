'use client';

import { useRemoteWorker } from '@/ui/useRemoteWorker';
import type { GamutWorker } from '@/workers/gamut.worker';

// The address stands where the bundler finds it.
const start = (): Worker =>
  new Worker(new URL('../../workers/gamut.worker.ts', import.meta.url), { type: 'module' });

/** A worker that makes and compares bodies. */
export const useGamutWorker = () => useRemoteWorker<GamutWorker>(start);
