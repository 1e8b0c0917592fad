import type { StatusName } from '../statusShape.ts';

/** The content of a report, without its form: HTML and PDF are made from the same. */
export interface ReportModel {
  readonly title: string;
  /** The house's logo: PNG, base64, and its size in pixels. */
  readonly logo?: { readonly png: string; readonly width: number; readonly height: number };
  readonly verdict: { readonly status: StatusName; readonly words: string; readonly reason: string };
  readonly facts: readonly (readonly [name: string, value: string])[];
  /** Sentences that must be seen before any figure. */
  readonly notices: readonly string[];
  readonly sections: readonly ReportSection[];
  /** What the aims are, how it was judged. */
  readonly statement: readonly string[];
}

export type ReportSection =
  | {
      readonly kind: 'table';
      readonly title: string;
      readonly note?: string;
      readonly columns: readonly ReportColumn[];
      readonly rows: readonly ReportRow[];
    }
  | { readonly kind: 'sentences'; readonly title: string; readonly sentences: readonly string[] }
  | { readonly kind: 'histogram'; readonly title: string; readonly histogram: ReportHistogram };

export interface ReportColumn {
  readonly name: string;
  readonly numeric?: boolean;
  /** Relative width. */
  readonly width: number;
}

export interface ReportRow {
  readonly status?: StatusName;
  /** Screen colours: measured above, the aim in the lower third. */
  readonly swatch?: { readonly measured: string; readonly aim: string };
  readonly cells: readonly string[];
}

/** Counts of values in bins of equal width from 0 on. */
export interface ReportHistogram {
  readonly unit: string;
  readonly binWidth: number;
  readonly counts: readonly number[];
  readonly marks: readonly { readonly at: number; readonly words: string }[];
}

/** Bins of a list of values, as many as hold the largest. */
export function histogramOf(
  values: readonly number[],
  binWidth: number,
  unit: string,
  marks: ReportHistogram['marks'],
): ReportHistogram {
  const bins = Math.max(1, Math.floor(Math.max(0, ...values) / binWidth) + 1);
  const counts = new Array<number>(bins).fill(0);
  for (const value of values) counts[Math.floor(value / binWidth)]++;
  return { unit, binWidth, counts, marks };
}

export function triple(values: readonly number[]): string {
  return values.map((value) => value.toFixed(2).replace(/^-/, '−')).join(' ');
}

export function signed(value: number): string {
  return `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(2)}`;
}

/** What a logo takes of a report's head at most, in points. */
const LOGO_BOX = { width: 150, height: 44 };

/** Size of a logo in the head of a report, in points. */
export function logoSize({ width, height }: { readonly width: number; readonly height: number }): {
  readonly width: number;
  readonly height: number;
} {
  const scale = Math.min(LOGO_BOX.width / width, LOGO_BOX.height / height, 1);
  return { width: width * scale, height: height * scale };
}
