import { Document, Image, Line, Page, Rect, renderToBuffer, Svg, Text, View } from '@react-pdf/renderer';
import { createElement as h } from 'react';
import type { ReactElement } from 'react';
import { longTablePages } from './longTable.ts';
import { registerPdfFonts } from './pdfFonts.ts';
import { pdfStatus } from './pdfStatus.ts';
import { QUIET, RULE, styles } from './pdfStyles.ts';
import { sentence } from './reportHtml.ts';
import { logoSize } from './reportModel.ts';
import type { ReportHistogram, ReportModel, ReportSection } from './reportModel.ts';

/** A longer table gets pages of its own. */
const KEPT_ROWS = 16;

/** A report as PDF, A4. */
export async function reportPdf(model: ReportModel): Promise<Uint8Array> {
  registerPdfFonts();
  const { title, logo, verdict, facts, notices, sections, statement } = model;
  const foot = h(
    View,
    { style: styles.foot, fixed: true },
    h(Text, { style: { flex: 1 } }, `${title}: ${verdict.words}`),
    h(Text, {
      render: ({ pageNumber, totalPages }) => `${pageNumber} of ${totalPages}`,
    }),
  );
  const page = h(
    Page,
    { size: 'A4', style: styles.page },
    logo === undefined
      ? null
      : h(Image, {
          src: `data:image/png;base64,${logo.png}`,
          style: { ...logoSize(logo), position: 'absolute', top: 28, right: 36 },
        }),
    h(Text, { style: styles.title }, title),
    h(
      View,
      { style: styles.verdict },
      pdfStatus(verdict.status, 18),
      h(Text, { style: styles.verdictWords }, verdict.words),
    ),
    h(Text, { style: styles.reason }, sentence(verdict.reason)),
    h(
      View,
      { style: styles.facts },
      ...facts.map(([name, value]) =>
        h(
          View,
          { key: name, style: styles.fact },
          h(Text, { style: styles.factName }, name),
          h(Text, { style: styles.factValue }, value),
        ),
      ),
    ),
    ...notices.map((notice) => h(Text, { key: notice, style: styles.notice }, notice)),
    ...sections
      .filter((section) => !isLong(section))
      .map((section) => h(View, { key: section.title, wrap: wraps(section) }, ...sectionParts(section))),
    h(Text, { style: styles.heading, minPresenceAhead: 40 }, 'How it was judged'),
    ...statement.map((text) => h(Text, { key: text, style: styles.statement }, text)),
    foot,
  );
  const document = h(
    Document,
    { title: `${title}: ${verdict.words}`, producer: 'Melto', creator: 'Melto' },
    page,
    ...sections.filter(isLong).flatMap((section) => longTablePages(section, foot)),
  );
  return new Uint8Array(await renderToBuffer(document));
}

type Table = Extract<ReportSection, { kind: 'table' }>;

/** Small sections are kept together. */
function wraps(section: ReportSection): boolean {
  return section.kind === 'table' && section.rows.length > KEPT_ROWS;
}

/** Lists of patches; rows with a verdict are few. */
function isLong(section: ReportSection): section is Table {
  return wraps(section) && (section as Table).rows.every(({ status }) => status === undefined);
}

function sectionParts(section: ReportSection): ReactElement[] {
  const heading = h(
    Text,
    { key: 'heading', style: styles.heading, minPresenceAhead: 60 },
    section.title,
    ...(section.kind === 'table' && section.note !== undefined
      ? [h(Text, { key: 'note', style: styles.note }, `   ${section.note}`)]
      : []),
  );
  switch (section.kind) {
    case 'sentences':
      return [
        heading,
        ...section.sentences.map((text) => h(Text, { key: text, style: { marginBottom: 2 } }, text)),
      ];
    case 'histogram':
      return [heading, histogram(section.histogram)];
    case 'table':
      return [heading, ...table(section)];
  }
}

function table({ columns, rows }: Table): ReactElement[] {
  const marked = rows.some(({ status, swatch }) => status !== undefined || swatch !== undefined);
  const cell = (text: string, column: number, key: number): ReactElement =>
    h(
      Text,
      {
        key,
        style: [
          styles.cell,
          { flex: columns[column].width },
          ...(columns[column].numeric === true ? [styles.numeric] : []),
        ],
      },
      text,
    );
  return [
    h(
      View,
      { key: 'head', style: [styles.row, styles.head] },
      ...(marked ? [h(View, { key: 'mark', style: styles.mark })] : []),
      ...columns.map(({ name }, i) => cell(name, i, i)),
    ),
    ...rows.map(({ status, swatch, cells }, index) =>
      h(
        View,
        { key: index, style: styles.row, wrap: false },
        ...(marked
          ? [
              h(
                View,
                { key: 'mark', style: styles.mark },
                status !== undefined
                  ? pdfStatus(status, 10)
                  : swatch !== undefined
                    ? h(
                        View,
                        { style: [styles.swatch, { backgroundColor: swatch.measured }] },
                        h(View, { style: { marginTop: 7, height: 3.5, backgroundColor: swatch.aim } }),
                      )
                    : null,
              ),
            ]
          : []),
        ...cells.map((text, i) => cell(text, i, i)),
      ),
    ),
  ];
}

/** Bars, their bins below, the marks above. */
function histogram({ counts, binWidth, unit, marks }: ReportHistogram): ReactElement {
  const width = 510;
  const bar = width / Math.max(8, counts.length);
  const most = Math.max(1, ...counts);
  const x = (value: number): number => (value / binWidth) * bar;
  const label = (text: string, left: number, top: number, key: string): ReactElement =>
    h(Text, { key, style: { position: 'absolute', left, top, fontSize: 7.5, color: QUIET } }, text);
  return h(
    View,
    { key: 'histogram', style: { height: 104 }, wrap: false },
    h(
      Svg,
      { viewBox: `0 0 ${width} 92`, style: { width, height: 92 } },
      ...counts.map((count, i) =>
        h(Rect, {
          key: i,
          x: i * bar + 1,
          y: 90 - (count / most) * 62,
          width: bar - 2,
          height: (count / most) * 62,
          fill: '#8F8F8F',
        }),
      ),
      h(Line, { key: 'base', x1: 0, x2: width, y1: 90, y2: 90, stroke: RULE, strokeWidth: 1 }),
      ...marks.map(({ at, words }, i) =>
        h(Line, {
          key: words,
          x1: x(at),
          x2: x(at),
          y1: 6 + 11 * i,
          y2: 90,
          stroke: '#1B1B1B',
          strokeWidth: 0.8,
        }),
      ),
    ),
    ...marks.map(({ at, words }, i) => label(words, x(at) + 3, 2 + 11 * i, `mark ${words}`)),
    ...counts.map((_, i) => label((i * binWidth).toFixed(1), i * bar, 93, `bin ${i}`)),
    label(unit, width - 26, 2, 'unit'),
  );
}
