/** A row of a table as it stands in a file: its cells as text, and the line it begins on. */
export interface MeasuredRow {
  readonly line: number;
  readonly cells: readonly string[];
}

/** Something a file says about itself: `ILLUMINATION_NAME "D50"`. */
export interface MeasuredKeyword {
  readonly name: string;
  readonly value: string;
}

export type MeasuredForm = 'CGATS' | 'CSV' | 'CxF';

/** A table of measurements as a file holds it, before anything is made of its columns. */
export interface MeasuredTable {
  readonly form: MeasuredForm;
  readonly keywords: readonly MeasuredKeyword[];
  readonly fields: readonly string[];
  readonly rows: readonly MeasuredRow[];
  /** Rows that could not be read, each with its line and the reason in words. */
  readonly damaged: readonly DamagedRow[];
}

export interface DamagedRow {
  readonly line: number;
  readonly why: string;
}

/** Caps that keep a hostile file from using up memory. */
export const MEASURED_LIMITS = {
  characters: 24_000_000,
  fields: 1000,
  values: 3_000_000,
  tables: 64,
  keywords: 2000,
} as const;
