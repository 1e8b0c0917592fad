'use client';

import { useEffect, useState } from 'react';
import { hasGpu } from './gpu/gpuProof';

/** Whether a GPU draws here: undefined until that is known, and no longer once it was lost. */
export function useGpu() {
  const [gpu, setGpu] = useState<boolean>();
  useEffect(() => setGpu(hasGpu()), []);
  return { gpu, lose: () => setGpu(false) };
}
