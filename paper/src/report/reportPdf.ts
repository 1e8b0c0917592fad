import { Document, Page, renderToBuffer, StyleSheet, Svg, Line, Rect, Text, View } from '@react-pdf/renderer';
import { createElement as h } from 'react';
import type { ReactElement } from 'react';
import { registerPdfFonts, TEXT_FAMILY } from './pdfFonts.ts';
import { pdfStatus } from './pdfStatus.ts';
import { sentence } from './reportHtml.ts';
import type { ReportHistogram, ReportModel, ReportSection } from './reportModel.ts';

const QUIET = '#5C5C5C';
const RULE = '#D6D6D6';
const KEPT_ROWS = 16;
const styles = StyleSheet.create({
  page: {
    fontFamily: TEXT_FAMILY as unknown as string,
    fontSize: 8.5,
    color: '#1B1B1B',
    paddingHorizontal: 42,
    paddingTop: 40,
    paddingBottom: 46,
    lineHeight: 1.3,
  },
  title: { fontSize: 12, fontWeight: 700 },
  verdict: { flexDirection: 'row', alignItems: 'center', marginTop: 10, marginBottom: 4 },
  verdictWords: { fontSize: 17, marginLeft: 8, flex: 1 },
  reason: { fontSize: 10 },
  facts: { flexDirection: 'row', flexWrap: 'wrap', marginVertical: 10 },
  fact: { width: '50%', flexDirection: 'row', paddingVertical: 1.5, paddingRight: 10 },
  factName: { width: 56, color: QUIET },
  factValue: { flex: 1 },
  notice: { fontWeight: 700, marginBottom: 4 },
  heading: { fontSize: 10, fontWeight: 700, marginTop: 14, marginBottom: 4 },
  note: { color: QUIET, fontWeight: 400, fontSize: 8.5 },
  row: {
    flexDirection: 'row',
    borderBottomWidth: 0.5,
    borderBottomColor: RULE,
    paddingVertical: 2.5,
    alignItems: 'center',
  },
  head: { color: QUIET, alignItems: 'flex-end' },
  mark: { width: 28 },
  cell: { paddingRight: 6 },
  numeric: { textAlign: 'right' },
  swatch: { width: 22, height: 11, borderWidth: 0.5, borderColor: RULE },
  statement: { color: QUIET, marginBottom: 3 },
  foot: { position: 'absolute', bottom: 22, left: 42, right: 42, flexDirection: 'row', color: QUIET },
});

/** A report as PDF, A4. */
export async function reportPdf(model: ReportModel): Promise<Uint8Array> {
  registerPdfFonts();
  const { title, verdict, facts, notices, sections, statement } = model;
  const page = h(
    Page,
    { size: 'A4', style: styles.page },
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
    ...sections.map((section) =>
      h(View, { key: section.title, wrap: wraps(section) }, ...sectionParts(section)),
    ),
    h(Text, { style: styles.heading, minPresenceAhead: 40 }, 'How it was judged'),
    ...statement.map((text) => h(Text, { key: text, style: styles.statement }, text)),
    h(
      View,
      { style: styles.foot, fixed: true },
      h(Text, { style: { flex: 1 } }, `${title}: ${verdict.words}`),
      h(Text, {
        render: ({ pageNumber, totalPages }) => `${pageNumber} of ${totalPages}`,
      }),
    ),
  );
  const document = h(
    Document,
    { title: `${title}: ${verdict.words}`, producer: 'Melto', creator: 'Melto' },
    page,
  );
  return new Uint8Array(await renderToBuffer(document));
}

/** Small sections are kept together; long tables go on over the page. */
function wraps(section: ReportSection): boolean {
  return section.kind === 'table' && section.rows.length > KEPT_ROWS;
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

function table({ columns, rows }: Extract<ReportSection, { kind: 'table' }>): ReactElement[] {
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
