/** A print rests two weeks at the most. */
export const MOST_REST_MINUTES = 14 * 24 * 60;
