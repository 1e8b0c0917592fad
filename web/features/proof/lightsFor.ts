import type { ShelfProfile } from '@melto/services/profile/shelf';

/** Other profiles of the same condition, by the lights that they are for: each says how the same print looks in its light. */
export function lightsFor(
  shelf: readonly Pick<ShelfProfile, 'key' | 'condition'>[],
  device: string,
): { readonly key: string; readonly words: string }[] {
  const own = shelf.find(({ key }) => key === device)?.condition;
  const lights = new Map<string, string>();
  // The newest of each light, as the shelf has them.
  for (const { key, condition } of shelf)
    if (condition?.id === own?.id && condition?.light !== own?.light && condition !== null) {
      const words = condition.light ?? 'D50, 2°';
      if (!lights.has(words) && (condition.light !== null || condition.inForceOn > 0)) lights.set(words, key);
    }
  return [...lights].map(([words, key]) => ({ key, words }));
}
