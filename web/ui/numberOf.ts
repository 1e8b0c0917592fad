/** A number as people type it, with a point or a comma; NaN where it is none. */
export function numberOf(text: string): number {
  const plain = text.trim().replace(',', '.').replace('−', '-');
  return plain === '' ? NaN : Number(plain);
}

/** A whole number within bounds. */
export function isWhole(text: string, least: number, most: number): boolean {
  const value = numberOf(text);
  return Number.isInteger(value) && value >= least && value <= most;
}
