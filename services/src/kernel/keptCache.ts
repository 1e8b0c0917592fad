import type { Acting } from '@melto/store/database';

/**
 * Keeps the latest things of a kind that never change once they are stored (charts, profiles, aims), by house and id,
 * so that none is parsed at each pass or poll. Whoever asks first makes it; whoever asks meanwhile waits for the same.
 */
export class KeptCache {
  readonly #kinds = new Map<string, Map<string, Promise<unknown>>>();

  /** @param most how many of the kind are kept. */
  keep<T>(kind: string, most: number, { house }: Acting, id: number, make: () => Promise<T>): Promise<T> {
    const kept = this.#kinds.get(kind) ?? new Map<string, Promise<unknown>>();
    this.#kinds.set(kind, kept);
    const key = `${house} ${id}`;
    const known = kept.get(key) as Promise<T> | undefined;
    kept.delete(key);
    const value = known ?? make();
    kept.set(key, value);
    // What could not be made is asked for again next time.
    if (known === undefined) value.catch(() => kept.get(key) === value && kept.delete(key));
    const [oldest] = kept.keys();
    if (kept.size > most && oldest !== undefined) kept.delete(oldest);
    return value;
  }
}
