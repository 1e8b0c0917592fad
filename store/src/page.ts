/** A page of a list: its rows, and where the next page begins; null after the last. */
export interface Page<T> {
  readonly rows: readonly T[];
  readonly next: number | null;
}

/** Which part of a list is asked for: what comes after the id that the page before ended with. */
export interface PageAsked {
  readonly after?: number;
  readonly limit: number;
  /** Only rows whose names hold this, as it is typed. */
  readonly find?: string;
}

/** What holds a text wherever it stands, for LIKE: signs that patterns are made of are taken as they are. */
export function holding(text: string): string {
  return `%${text.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`;
}

/** The same for what begins with a text. */
export const beginningWith = (text: string): string => holding(text).slice(1);

/** Largest id there can be: a list that goes down begins under it. */
export const LAST_ID = Number.MAX_SAFE_INTEGER;

/** Makes a page of rows of which one more than the limit was asked for. */
export function pageOf<T>(rows: readonly T[], limit: number, idOf: (row: T) => number): Page<T> {
  const shown = rows.slice(0, limit);
  const last = shown.at(-1);
  return { rows: shown, next: rows.length > limit && last !== undefined ? idOf(last) : null };
}
