/** What is wrong with an input, as data; words are made from it in `issueText`. */
export interface Issue {
  /** Stable, machine readable, for example `cgats.field-count`. */
  readonly code: string;
  /** The field, tag or keyword concerned. */
  readonly path?: string;
  /** 1-based line and column of a text file. */
  readonly line?: number;
  readonly column?: number;
  /** Byte offset in a binary file. */
  readonly offset?: number;
  readonly expected: string;
  readonly found: string;
}

export type Result<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly issues: readonly Issue[] };

export function success<T>(value: T): Result<T> {
  return { ok: true, value };
}

export function failure<T>(...issues: Issue[]): Result<T> {
  return { ok: false, issues };
}

/** Letters of what a file holds that are said again. */
const MOST_FOUND = 160;

/** What stands in a file may be of any length: its beginning tells enough. */
const cut = (words: string): string =>
  words.length > MOST_FOUND ? `${words.slice(0, MOST_FOUND).trimEnd()}…` : words;

/** One sentence for people: where, what was found, what was expected. */
export function issueText(issue: Issue): string {
  const place =
    issue.line !== undefined
      ? `line ${issue.line}${issue.column !== undefined ? `, column ${issue.column}` : ''}: `
      : issue.offset !== undefined
        ? `byte ${issue.offset}: `
        : '';
  const path = issue.path !== undefined ? `${issue.path}: ` : '';
  return `${place}${path}found ${cut(issue.found)}, expected ${cut(issue.expected)}`;
}

/** Unwraps a result where a failure is a programmer's mistake; throws with the issue texts otherwise. */
export function unwrap<T>(result: Result<T>): T {
  if (result.ok) return result.value;
  throw new Error(result.issues.map(issueText).join('; '));
}
