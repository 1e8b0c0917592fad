'use client';

import { useEffect, useState } from 'react';
import type { DrawnComparison } from '@/workers/gamut.worker';

/** A cut through the bodies that are compared, as the worker answers for where it is wanted now. */
export function useCut<Cut>(
  /** Asks the worker; the same function for as long as the worker is. */
  ask: (at: number) => Promise<Cut | undefined>,
  at: number,
  comparison: DrawnComparison,
): Cut | undefined {
  const [cut, setCut] = useState<Cut>();
  useEffect(() => {
    let left = false;
    void ask(at).then((found) => {
      if (!left) setCut(() => found);
    });
    return () => {
      left = true;
    };
  }, [ask, at, comparison]);
  return cut;
}
