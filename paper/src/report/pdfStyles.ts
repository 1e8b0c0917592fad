import { StyleSheet } from '@react-pdf/renderer';
import { TEXT_FAMILY } from './pdfFonts.ts';

export const FONT_SIZE = 8.5;
const MARGIN = 42;
/** Room for content on an A4 page, points. */
export const PAGE = { width: 595.28 - 2 * MARGIN } as const;
export const QUIET = '#5C5C5C';
export const RULE = '#D6D6D6';
export const styles = StyleSheet.create({
  page: {
    fontFamily: TEXT_FAMILY as unknown as string,
    fontSize: FONT_SIZE,
    color: '#1B1B1B',
    paddingHorizontal: MARGIN,
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
  // A page that goes on over others has no height for `bottom` to go by.
  foot: { position: 'absolute', top: 806, left: 42, right: 42, flexDirection: 'row', color: QUIET },
});
