'use client';

import { useQuery } from '@tanstack/react-query';
import type { Observer } from '@melto/core/spectral/xyzWeights';
import type { ViewingLight } from '@melto/services/light/viewingLights';
import { LIGHTS } from '@/endpoints/light';
import { ask } from '@/ui/api';

/** Lights that can be chosen: the standard ones and those of the house that were not put away. */
export function useLights(): readonly ViewingLight[] {
  const { data = [] } = useQuery({ queryKey: ['lights'], queryFn: () => ask(LIGHTS, {}), staleTime: 60_000 });
  return data.filter(({ away }) => !away);
}

/** A light and who looks, as one word for a list: `F11/2deg`. */
export type SeenInKey = `${string}/${Observer}`;

/** D50 for the 2° observer: how prints are compared. */
export const DAYLIGHT: SeenInKey = 'D50/2deg';

/** Its parts, as a request takes them. */
export function partsOf(seen: SeenInKey): { readonly key: string; readonly observer: Observer } {
  const [key, observer] = seen.split('/');
  return { key, observer: observer === '10deg' ? '10deg' : '2deg' };
}

/** A light's name in short: `F11` of a standard one. */
export const shortName = ({ id, key, name }: Pick<ViewingLight, 'id' | 'key' | 'name'>): string =>
  id === null ? key : name;
