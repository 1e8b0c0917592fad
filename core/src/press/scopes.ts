/** Runs whose sheets are put together: one, those of its job, or all of its device on the same bar. */
export const SCOPES = ['run', 'job', 'press'] as const;
export type Scope = (typeof SCOPES)[number];
