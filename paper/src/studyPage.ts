import { paperMm } from '@melto/core/charts/pageGeometry';
import type { PaperName } from '@melto/core/charts/pageGeometry';
import { rowLetter, STUDY_FIELDS, STUDY_LIGHTNESSES } from '@melto/core/light/brightenerStudy';
import type { PageDrawing, PageText } from './chartPage.ts';

const MARGIN_MM = 12;
const LETTER_MM = 10;
const ROW_MM = 34;
const GAP_MM = 14;
const TOP_MM = 46;

/** The page of greys of a brightener study: rows with a letter, fields with a number, edge to edge so that an eye compares them. */
export function drawStudyPage(
  paper: PaperName,
  /** Device values of all fields, row by row. */
  device: readonly (readonly number[])[],
  words: { readonly condition: string; readonly date: string; readonly how: string },
): PageDrawing {
  const { width, height } = paperMm(paper);
  const fieldMm = (width - 2 * MARGIN_MM - LETTER_MM) / STUDY_FIELDS;
  const left = MARGIN_MM + LETTER_MM;
  const texts: PageText[] = [
    { text: 'Brightener study', x: MARGIN_MM, y: MARGIN_MM + 6, sizeMm: 6, font: 'textBold' },
    {
      text: `${words.condition} · ${words.date}`,
      x: MARGIN_MM,
      y: MARGIN_MM + 12,
      sizeMm: 3.4,
      font: 'text',
    },
    { text: words.how, x: MARGIN_MM, y: MARGIN_MM + 17, sizeMm: 3.4, font: 'textBold' },
    {
      text: 'Look at it in the light that prints hang in, a grey card beside it; cover the white around the rows.',
      x: MARGIN_MM,
      y: MARGIN_MM + 22,
      sizeMm: 3.4,
      font: 'text',
    },
  ];
  const patches = device.map((values, i) => {
    const row = Math.floor(i / STUDY_FIELDS);
    const field = i % STUDY_FIELDS;
    const y = TOP_MM + row * (ROW_MM + GAP_MM);
    return { rectangle: { x: left + field * fieldMm, y, width: fieldMm, height: ROW_MM }, device: values };
  });
  STUDY_LIGHTNESSES.forEach((_, row) => {
    const y = TOP_MM + row * (ROW_MM + GAP_MM);
    texts.push({ text: rowLetter(row), x: MARGIN_MM, y: y + ROW_MM / 2 + 2, sizeMm: 7, font: 'textBold' });
    for (let field = 0; field < STUDY_FIELDS; field++)
      texts.push({
        text: String(field + 1),
        x: left + (field + 0.5) * fieldMm - (field < 9 ? 0.9 : 1.8),
        y: y + ROW_MM + 5,
        sizeMm: 3.4,
        font: 'text',
      });
  });
  return { width, height, patches, marks: [], texts };
}
