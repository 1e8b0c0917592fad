/** The first of the parts of a stored value that another differs in, as a sentence; both as they are stored. */
export function partThatDiffers<T>(parts: readonly (keyof T)[], before: T, again: T): string | undefined {
  const plain = (value: unknown): string => JSON.stringify(value ?? null);
  const other = parts.find((part) => plain(before[part]) !== plain(again[part]));
  return other === undefined ? undefined : `its ${String(other)} differ`;
}
