/** Wrong use or bad input: one line on stderr, exit code 2. */
export class UsageError extends Error {}
