/**
 * The tristimulus value that sees an ink best, by ink C, M, Y, K: X, Y, Z and Y. Differences of tone values may go by it
 * alone; areas of cyan are better taken from `inkSignal`.
 */
export const MAIN_AXIS = [0, 1, 2, 1] as const;
