'use client';

import { useEffect, useState } from 'react';
import type { DensityStatus } from '@melto/core/density/density';
import type { Lab } from '@melto/core/colour/lab';
import type { ListedColour } from '@melto/core/refine/namedColour';

/** A colour of the list. */
export interface MeasuredColour {
  readonly id: string;
  readonly name: string;
  readonly lab: Lab;
  /** Where it is from: an instrument and its mode, or typed. */
  readonly from: string;
  /** Densities, where it came with its spectrum. */
  readonly density: {
    /** E in lists that were kept before there was a choice. */
    readonly status?: DensityStatus;
    readonly red: number;
    readonly green: number;
    readonly blue: number;
    readonly visual: number;
  } | null;
  /** Where it came with one. */
  readonly spectrum?: ListedColour['spectrum'];
}

const KEY = 'melto-measured';
const MOST = 500;

/** The list of single colours of this browser: kept until it is emptied. */
export function useMeasured() {
  const [colours, setColours] = useState<readonly MeasuredColour[]>([]);
  const [loaded, setLoaded] = useState(false);
  useEffect(() => {
    try {
      setColours(JSON.parse(localStorage.getItem(KEY) ?? '[]') as MeasuredColour[]);
    } catch {
      // What cannot be read is begun anew.
    }
    setLoaded(true);
  }, []);
  useEffect(() => {
    if (!loaded) return;
    try {
      localStorage.setItem(KEY, JSON.stringify(colours));
    } catch {
      // Without storage the list is kept as long as the page is.
    }
  }, [colours, loaded]);
  return {
    colours,
    add: (more: readonly MeasuredColour[]) => setColours((before) => [...before, ...more].slice(-MOST)),
    rename: (id: string, name: string) =>
      setColours((before) => before.map((one) => (one.id === id ? { ...one, name } : one))),
    put: (next: readonly MeasuredColour[]) => setColours(next),
  };
}
