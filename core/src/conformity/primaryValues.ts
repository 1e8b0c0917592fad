const VALUES: readonly (readonly [string, readonly [number, number, number, number]])[] = [
  ['paper', [0, 0, 0, 0]],
  ['C', [1, 0, 0, 0]],
  ['M', [0, 1, 0, 0]],
  ['Y', [0, 0, 1, 0]],
  ['K', [0, 0, 0, 1]],
  ['M+Y', [0, 1, 1, 0]],
  ['C+Y', [1, 0, 1, 0]],
  ['C+M', [1, 1, 0, 0]],
  ['C+M+Y', [1, 1, 1, 0]],
];

/** Names of the rows of `PRIMARY_VALUES`. */
export const PRIMARY_NAMES: readonly string[] = VALUES.map(([name]) => name);
/** Paper, solids and overprints: C, M, Y, K row-major × 4, 0..1. */
export const PRIMARY_VALUES: Float64Array = Float64Array.from(VALUES.flatMap(([, device]) => device));
