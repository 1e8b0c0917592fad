import { Document, Page, renderToBuffer, Image, StyleSheet, Text, View } from '@react-pdf/renderer';
import bwipjs from 'bwip-js/node';
import { createElement as h } from 'react';
import type { StatusName } from '../statusShape.ts';
import { CODE_FAMILY, registerPdfFonts, TEXT_FAMILY } from './pdfFonts.ts';
import { pdfStatus } from './pdfStatus.ts';

/** What stands on the label of a proof. */
export interface SlipModel {
  readonly status: StatusName;
  /** `conforms to ISO 12647-7 proof (substrate-corrected)`. */
  readonly words: string;
  readonly figures: readonly {
    readonly name: string;
    readonly value: string;
    readonly limit: string;
    readonly status: StatusName;
  }[];
  readonly facts: readonly (readonly [name: string, value: string])[];
  /** Code of the check: text and Data Matrix. */
  readonly code: string;
}

const POINTS_PER_MM = 72 / 25.4;
const WIDTH = 100 * POINTS_PER_MM;
const HEIGHT = 60 * POINTS_PER_MM;
const QUIET = '#5C5C5C';
/** More figures do not fit on a label. */
const MOST_FIGURES = 6;

const styles = StyleSheet.create({
  page: {
    fontFamily: TEXT_FAMILY as unknown as string,
    fontSize: 6.6,
    color: '#1B1B1B',
    padding: 9,
    lineHeight: 1.2,
  },
  head: { flexDirection: 'row', alignItems: 'center', marginBottom: 5 },
  words: { fontSize: 11, fontWeight: 700, marginLeft: 6, flex: 1, lineHeight: 1.05, paddingBottom: 2 },
  body: { flexDirection: 'row', flex: 1 },
  left: { flex: 1, paddingRight: 8 },
  right: { width: 86 },
  figure: {
    flexDirection: 'row',
    alignItems: 'center',
    paddingVertical: 1.6,
    borderBottomWidth: 0.4,
    borderBottomColor: '#B0B0B0',
  },
  fact: { marginBottom: 2.4 },
  code: { position: 'absolute', left: 9, bottom: 8, flexDirection: 'row', alignItems: 'center' },
  codeText: {
    fontFamily: CODE_FAMILY as unknown as string,
    fontWeight: 700,
    fontSize: 8,
    marginLeft: 6,
  },
});

/** The label of a proof, 100 × 60 mm. */
export async function slipPdf(slip: SlipModel): Promise<Uint8Array> {
  registerPdfFonts();
  const matrix = await bwipjs.toBuffer({ bcid: 'datamatrix', text: slip.code, scale: 4 });
  const shown = slip.figures.slice(0, MOST_FIGURES);
  const page = h(
    Page,
    { size: [WIDTH, HEIGHT], style: styles.page },
    h(View, { style: styles.head }, pdfStatus(slip.status, 16), h(Text, { style: styles.words }, slip.words)),
    h(
      View,
      { style: styles.body },
      h(
        View,
        { style: styles.left },
        ...shown.map(({ name, value, limit, status }) =>
          h(
            View,
            { key: name, style: styles.figure },
            pdfStatus(status, 6),
            h(Text, { style: { flex: 1, marginLeft: 4 } }, name),
            h(Text, { style: { fontWeight: 700, textAlign: 'right' } }, value),
            h(Text, { style: { width: 30, textAlign: 'right', color: QUIET } }, `/ ${limit}`),
          ),
        ),
        ...(slip.figures.length > shown.length
          ? [
              h(
                Text,
                { key: 'more', style: { color: QUIET, marginTop: 3 } },
                `and ${slip.figures.length - shown.length} more, farther within their limits`,
              ),
            ]
          : []),
      ),
      h(
        View,
        { style: styles.right },
        ...slip.facts.map(([name, value]) =>
          h(
            View,
            { key: name, style: styles.fact },
            h(Text, { style: { color: QUIET, fontSize: 5.6 } }, name),
            h(Text, {}, value),
          ),
        ),
      ),
    ),
    h(
      View,
      { style: styles.code },
      h(Image, { src: { data: matrix, format: 'png' }, style: { width: 24, height: 24 } }),
      h(Text, { style: styles.codeText }, slip.code),
    ),
  );
  return new Uint8Array(
    await renderToBuffer(
      h(Document, { title: `${slip.code}: ${slip.words}`, producer: 'Melto', creator: 'Melto' }, page),
    ),
  );
}
