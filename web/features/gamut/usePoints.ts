'use client';

import type { Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { NamedColour } from '@melto/core/refine/namedColour';
import { openToldPicture } from '@/features/proof/openPicture';
import { SaidError } from '@/ui/api';
import type { DrawnComparison, DrawnPoints, GamutWorker } from '@/workers/gamut.worker';

/** A colour list that is laid beside the bodies. */
export interface LaidList {
  readonly name: string;
  readonly colours: readonly NamedColour[];
}

/** More than a chart of the most patches with spectra has. */
const MOST_TEXT = 8_000_000;

/** How far the colours of a list lie beyond the bodies that are shown; undefined until it is worked out for this list. */
export function usePoints(
  worker: Remote<GamutWorker> | undefined,
  comparison: DrawnComparison | undefined,
  list: LaidList | undefined,
): DrawnPoints | undefined {
  const [points, setPoints] = useState<DrawnPoints>();
  useEffect(() => {
    let left = false;
    setPoints(undefined);
    if (worker === undefined || comparison === undefined || list === undefined) return undefined;
    void worker.points(Float32Array.from(list.colours.flatMap(({ lab }) => [...lab]))).then((found) => {
      if (!left) setPoints(found);
    });
    return () => {
      left = true;
    };
  }, [worker, comparison, list]);
  return points;
}

/** Whether a file tells device values with its colours, so that a body can be made from it: a chart, not a list. */
export async function hasDeviceValues(worker: Remote<GamutWorker> | undefined, file: File): Promise<boolean> {
  if (worker === undefined || !/\.(txt|cgats|it8)$/i.test(file.name) || file.size > MOST_TEXT) return false;
  return worker.hasDeviceValues(await file.text());
}

/** The colours that cover most of a picture; its error says in words why there are none. */
export async function coloursOfPicture(
  worker: Remote<GamutWorker> | undefined,
  file: File,
): Promise<readonly NamedColour[]> {
  const { name, values, channels, icc } = await openToldPicture(file);
  if (worker === undefined) return [];
  const colours = await worker.picture(name, values, channels, icc);
  if (typeof colours === 'string') throw new SaidError(colours);
  return colours;
}
