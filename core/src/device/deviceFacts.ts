import type { PaperName } from '../charts/pageGeometry.ts';

/** Formats of curves that a front end may take. */
export const CURVE_FORMATS = ['link', 'csv', 'cgats', 'json'] as const;
export type CurveFormat = (typeof CURVE_FORMATS)[number];

/** What a house knows of a device besides its inks and modes; what nobody told is left out. */
export interface DeviceFacts {
  /** Pages of its own, such as the widths of its rolls. */
  readonly pages?: readonly PaperName[];
  /** Width that it prints, in mm. */
  readonly printedWidthMm?: number;
  /** Ink zones across its width. */
  readonly zones?: number;
  /** Its screen, in lines/cm; none where dots are scattered. */
  readonly screenPerCm?: number;
  /** What its front end takes curves in. */
  readonly curveFormats?: readonly CurveFormat[];
}

export const DEVICE_BOUNDS = {
  pages: 12,
  printedWidthMm: { least: 50, most: 6000 },
  zones: { least: 1, most: 128 },
  screenPerCm: { least: 4, most: 200 },
} as const;
