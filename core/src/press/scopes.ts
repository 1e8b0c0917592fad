/** Runs whose sheets are put together: one, those of its job, all of its device on the same bar, or what of these one shift read. */
export const SCOPES = ['run', 'job', 'press', 'shift'] as const;
export type Scope = (typeof SCOPES)[number];

/** Runs that stand beside each other at most. */
export const MOST_COMPARED = 8;
