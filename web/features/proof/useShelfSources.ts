import { useMemo, useRef } from 'react';
import type { ShelfProfile } from '@melto/services/profile/shelf';
import { shelfSource } from '@/features/profiles/profileSource';
import type { ProfileSource } from '@/features/profiles/profileSource';

/** The profiles of the shelf as sources, each the same one for as long as nothing is new of it: others may come meanwhile. */
export function useShelfSources(shelf: readonly ShelfProfile[]): readonly ProfileSource[] {
  const kept = useRef(new Map<string, { readonly told: string; readonly source: ProfileSource }>());
  return useMemo(
    () =>
      shelf.map((profile) => {
        const told = JSON.stringify(profile);
        const before = kept.current.get(profile.key);
        if (before?.told === told) return before.source;
        const source = shelfSource(profile);
        kept.current.set(profile.key, { told, source });
        return source;
      }),
    [shelf],
  );
}
