'use client';

import { useRemoteWorker } from '@/ui/useRemoteWorker';
import type { InspectionWorker } from '@/workers/inspection.worker';

// The address stands where the bundler finds it.
const start = (): Worker =>
  new Worker(new URL('../../workers/inspection.worker.ts', import.meta.url), { type: 'module' });

/** A worker that looks into profiles. */
export const useInspectionWorker = () => useRemoteWorker<InspectionWorker>(start);
