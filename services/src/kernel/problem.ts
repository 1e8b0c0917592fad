/** Kinds of refusal that callers can tell apart, with their HTTP status. */
export const PROBLEM_STATUS = {
  'not-found': 404,
  'bad-input': 400,
  'wrong-method': 405,
  conflict: 409,
  'not-ready': 409,
  'too-large': 413,
  unsupported: 415,
  forbidden: 403,
  unauthenticated: 401,
  'too-many': 429,
  'no-room': 507,
} as const;

export type ProblemType = keyof typeof PROBLEM_STATUS;

/** A refusal that is nobody's bug: says what, where and what to do. */
export class Problem extends Error {
  constructor(
    readonly type: ProblemType,
    /** What happened. */
    readonly title: string,
    /** What to do. */
    readonly detail: string,
    readonly field?: string,
  ) {
    super(title);
  }
}

export function notFound(what: string): Problem {
  return new Problem('not-found', `There is no ${what}.`, 'It may have been removed; go back to the floor.');
}
