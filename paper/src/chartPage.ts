import { channelCount } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import { paperMm, patchRectangle, STRIP_READER_NEEDS } from '@melto/core/charts/pageGeometry';
import type { InstrumentNeeds, PaperName, RectangleMm } from '@melto/core/charts/pageGeometry';
import { dataMatrix } from './dataMatrix.ts';

/** One page of a chart with everything that stands on it. */
export interface ChartPage {
  readonly paper: PaperName;
  readonly process: Process;
  /** What the layout was made for; a profiling chart for the strip reader where absent. */
  readonly needs?: InstrumentNeeds;
  /** For each strip its patches' device values, row-major × channel. */
  readonly strips: readonly Float64Array[];
  readonly sheetCode: string;
  readonly title: string;
  readonly condition: string;
  readonly date: string;
  /** The page ends below the last strip: a wedge that is placed beside a picture. */
  readonly cut?: boolean;
  /** What the front end is to do, in place of nothing. */
  readonly words?: string;
  /** The space that its values are meant in, whose profile the picture carries; none for values of a device. */
  readonly tag?: PageTag;
  readonly page: number;
  readonly pages: number;
}

/** An ink by its name in a file, with the process inks that stand for it where it is not known. */
export interface NamedInk {
  readonly name: string;
  /** C, M, Y, K of its solid, 0..1. */
  readonly cmyk: readonly [number, number, number, number];
}

/** sRGB, the profile that inks are meant by, as a file, or inks of their own by name. */
export type PageTag = 'sRGB' | { readonly profile: Uint8Array } | { readonly inks: readonly NamedInk[] };

/** Words on a page: baseline at the left, mm from the top left corner. */
export interface PageText {
  readonly text: string;
  readonly x: number;
  readonly y: number;
  readonly sizeMm: number;
  readonly font: 'text' | 'textBold' | 'code';
}

/** What is drawn on a page, in mm from the top left corner; the same for PDF and for pixels. */
export interface PageDrawing {
  readonly width: number;
  readonly height: number;
  readonly patches: readonly { readonly rectangle: RectangleMm; readonly device: readonly number[] }[];
  readonly marks: readonly RectangleMm[];
  readonly texts: readonly PageText[];
  /** Open lozenges, our shape for what does not conform: centre and half of their height. */
  readonly lozenges?: readonly { readonly x: number; readonly y: number; readonly halfMm: number }[];
  /** Thin lines, as where to cut. */
  readonly lines?: readonly { readonly from: PointMm; readonly to: PointMm }[];
}

export interface PointMm {
  readonly x: number;
  readonly y: number;
}

const MATRIX_MM = 15;
/** White that a cut page keeps below its last strip. */
const CUT_BELOW_MM = 5;

export function drawChartPage(page: ChartPage): PageDrawing {
  const { width, height: whole } = paperMm(page.paper);
  const needs = page.needs ?? STRIP_READER_NEEDS;
  const channels = channelCount(page.process);
  const patches = page.strips.flatMap((strip, index) =>
    Array.from({ length: strip.length / channels }, (_, place) => ({
      rectangle: patchRectangle(index, place, needs),
      device: Array.from(strip.subarray(place * channels, (place + 1) * channels)),
    })),
  );
  const height =
    page.cut === true
      ? Math.max(...patches.map(({ rectangle }) => rectangle.y + rectangle.height)) + CUT_BELOW_MM
      : whole;
  const left = needs.margin;
  const top = needs.margin;
  const code = dataMatrix(page.sheetCode);
  const module = MATRIX_MM / code.size;
  const matrixX = width - needs.margin - MATRIX_MM;
  const marks: RectangleMm[] = code.dark.flatMap((dark, i) =>
    dark
      ? [
          {
            x: matrixX + (i % code.size) * module,
            y: top + Math.floor(i / code.size) * module,
            width: module,
            height: module,
          },
        ]
      : [],
  );
  const texts: PageText[] = [
    { text: page.sheetCode, x: left, y: top + 6, sizeMm: 6.5, font: 'code' },
    { text: page.title, x: left, y: top + 11.5, sizeMm: 3.6, font: 'textBold' },
    { text: page.condition, x: left, y: top + 16, sizeMm: 3.2, font: 'text' },
    {
      text: `${page.date} · page ${page.page} of ${page.pages}`,
      x: left + 62,
      y: top + 11.5,
      sizeMm: 3.2,
      font: 'text',
    },
    {
      text: page.words ?? 'print without colour management',
      x: left + 62,
      y: top + 6,
      sizeMm: 3.6,
      font: 'textBold',
    },
    {
      text: 'read each strip from left to right, white to white',
      x: left,
      y: top + 20.5,
      sizeMm: 3.2,
      font: 'text',
    },
  ];
  page.strips.forEach((_, index) => {
    const rectangle = patchRectangle(index, 0, needs);
    const middle = rectangle.y + rectangle.height / 2;
    texts.push({ text: String(index + 1), x: left, y: middle + 1.3, sizeMm: 3.6, font: 'code' });
    // A short bar that points at the strip's start; it stands clear of the white the instrument starts on.
    marks.push({ x: left + needs.numberColumn - 3, y: middle - 0.25, width: 3, height: 0.5 });
  });
  return { width, height, patches, marks, texts };
}
