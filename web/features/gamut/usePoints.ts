'use client';

import { useQuery } from '@tanstack/react-query';
import type { Remote } from 'comlink';
import type { NamedColour } from '@melto/core/refine/namedColour';
import { openPicture } from '@/features/proof/openPicture';
import { SaidError } from '@/ui/api';
import type { DrawnComparison, DrawnPoints, GamutWorker } from '@/workers/gamut.worker';

/** A colour list that is laid beside the bodies. */
export interface LaidList {
  readonly name: string;
  readonly colours: readonly NamedColour[];
}

/** How far the colours of a list lie beyond the bodies that are shown. */
export function usePoints(
  worker: Remote<GamutWorker> | undefined,
  comparison: DrawnComparison | undefined,
  list: LaidList | undefined,
): DrawnPoints | undefined {
  const { data } = useQuery({
    // A comparison is told apart by when it came: the worker knows the last one.
    queryKey: ['gamut points', comparison?.a.name, comparison?.b.name, comparison?.tookMs, list?.name],
    queryFn: async () => {
      const lab = Float32Array.from((list?.colours ?? []).flatMap((colour) => [...colour.lab]));
      return (await worker?.points(lab)) ?? null;
    },
    enabled: worker !== undefined && comparison !== undefined && list !== undefined,
    gcTime: 0,
  });
  return list === undefined ? undefined : (data ?? undefined);
}

/** The colours that cover most of a picture; its error says in words why there are none. */
export async function coloursOfPicture(
  worker: Remote<GamutWorker> | undefined,
  file: File,
): Promise<readonly NamedColour[]> {
  const opened = await openPicture(file);
  if (worker === undefined || opened.file === undefined) return [];
  const { values, channels, icc } = opened.file;
  if (icc === undefined)
    throw new SaidError(
      `${file.name} tells no profile, so its colours are not known. Open it in the soft proof, and say what its values are meant by.`,
    );
  const colours = await worker.picture(file.name, values, channels, icc);
  if (typeof colours === 'string') throw new SaidError(colours);
  return colours;
}
