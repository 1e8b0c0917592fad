import { Line, Page, Rect, Svg, Text, View } from '@react-pdf/renderer';
import { createElement as h } from 'react';
import type { ReactElement } from 'react';
import type { ReportColumn, ReportRow, ReportSection } from './reportModel.ts';
import { FONT_SIZE, PAGE, RULE, styles } from './pdfStyles.ts';
import { wrapCell } from './wrapCell.ts';

type Table = Extract<ReportSection, { kind: 'table' }>;

const LINE = 14;
/** Lines of a page below its heading and the table's head. */
const PAGE_LINES = 49;
const MARK_WIDTH = 28;
const GAP = 6;

/** One row with its cells broken into lines. */
interface Laid {
  readonly row: ReportRow;
  readonly cells: readonly (readonly string[])[];
  readonly lines: number;
}

/**
 * A table of many rows on pages of its own. The layout engine takes about 40 ms for a row of cells; here each column of
 * a page is one text, whose lines were broken before, so that thousands of rows take seconds.
 */
export function longTablePages(section: Table, foot: ReactElement): ReactElement[] {
  const widths = columnWidths(section.columns);
  const laid = section.rows.map((row): Laid => {
    const cells = row.cells.map((text, i) => wrapCell(text, widths[i] - GAP, FONT_SIZE));
    return { row, cells, lines: Math.max(1, ...cells.map(({ length }) => length)) };
  });
  const pages = pagesOf(laid);
  return pages.map((rows, index) =>
    h(
      Page,
      { key: `${section.title} ${index}`, size: 'A4', style: styles.page },
      h(
        Text,
        { style: [styles.heading, { marginTop: 0 }] },
        section.title,
        h(
          Text,
          { style: styles.note },
          `   ${[section.note, pages.length > 1 ? `part ${index + 1} of ${pages.length}` : undefined].filter((words) => words !== undefined).join('; ')}`,
        ),
      ),
      head(section.columns, widths),
      body(rows, section.columns, widths),
      foot,
    ),
  );
}

function columnWidths(columns: readonly ReportColumn[]): number[] {
  const whole = columns.reduce((sum, { width }) => sum + width, 0);
  return columns.map(({ width }) => ((PAGE.width - MARK_WIDTH) * width) / whole);
}

function pagesOf(rows: readonly Laid[]): Laid[][] {
  const pages: Laid[][] = [];
  let left = 0;
  for (const row of rows) {
    if (row.lines > left) {
      pages.push([]);
      left = PAGE_LINES;
    }
    pages[pages.length - 1].push(row);
    left -= row.lines;
  }
  return pages;
}

function head(columns: readonly ReportColumn[], widths: readonly number[]): ReactElement {
  return h(
    View,
    { style: [styles.row, styles.head] },
    h(View, { style: { width: MARK_WIDTH } }),
    ...columns.map(({ name, numeric }, i) =>
      h(
        Text,
        {
          key: i,
          style: [{ width: widths[i], paddingRight: GAP }, ...(numeric === true ? [styles.numeric] : [])],
        },
        name,
      ),
    ),
  );
}

function body(
  rows: readonly Laid[],
  columns: readonly ReportColumn[],
  widths: readonly number[],
): ReactElement {
  let top = 0;
  const tops = rows.map(({ lines }) => (top += lines * LINE) - lines * LINE);
  return h(
    View,
    { style: { flexDirection: 'row', height: top } },
    h(
      Svg,
      {
        viewBox: `0 0 ${PAGE.width} ${top}`,
        style: { position: 'absolute', left: 0, top: 0, width: PAGE.width, height: top },
      },
      ...rows.flatMap(({ row: { swatch }, lines }, i) => [
        h(Line, {
          key: `rule ${i}`,
          x1: 0,
          x2: PAGE.width,
          y1: tops[i] + lines * LINE,
          y2: tops[i] + lines * LINE,
          stroke: RULE,
          strokeWidth: 0.5,
        }),
        ...(swatch === undefined
          ? []
          : [
              h(Rect, { key: `m ${i}`, x: 0, y: tops[i] + 2, width: 22, height: 10, fill: swatch.measured }),
              h(Rect, { key: `a ${i}`, x: 0, y: tops[i] + 8.6, width: 22, height: 3.4, fill: swatch.aim }),
            ]),
      ]),
    ),
    h(View, { style: { width: MARK_WIDTH } }),
    ...columns.map(({ numeric }, column) =>
      h(
        Text,
        {
          key: column,
          style: [
            // The height of a line goes by the size beside it, not by the page's.
            { width: widths[column], paddingRight: GAP, fontSize: FONT_SIZE, lineHeight: LINE / FONT_SIZE },
            ...(numeric === true ? [styles.numeric] : []),
          ],
        },
        rows
          .flatMap(({ cells, lines }) => Array.from({ length: lines }, (_, i) => cells[column][i] ?? ' '))
          .join('\n'),
      ),
    ),
  );
}
