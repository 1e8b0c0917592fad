import { paperMm } from '@melto/core/charts/pageGeometry';
import type { PaperName } from '@melto/core/charts/pageGeometry';
import { EYE_PAGE_COLOURS } from '@melto/core/eye/referenceColours';
import { REACHED } from '@melto/core/proof/placeList';
import type { PageDrawing, PageText } from './chartPage.ts';

const MARGIN_MM = 12;
const TOP_MM = 40;
const FOOT_MM = 14;
const FIELD_MM = 52;
const PER_SIDE = EYE_PAGE_COLOURS / 2;
/** Names are cut where they would run into the other side. */
const MOST_NAME = 26;

/** A colour of the page. */
export interface EyeField {
  readonly name: string;
  /** Device values, 0..1. */
  readonly device: readonly number[];
  /** ΔE00 of what the profile prints for it. */
  readonly beyond: number;
}

/**
 * Pages of an eye's check: colours along both long edges, each as far as the line where the page is cut, so that a field
 * can be laid edge to edge against what it should look like. What cannot be reached has a lozenge and says so.
 */
export function drawEyePages(
  paper: PaperName,
  fields: readonly EyeField[],
  words: { readonly list: string; readonly condition: string; readonly date: string; readonly how: string },
): PageDrawing[] {
  const pages = Math.ceil(fields.length / EYE_PAGE_COLOURS);
  return Array.from({ length: pages }, (_, page) =>
    drawPage(paper, fields, page, {
      ...words,
      list: pages > 1 ? `${words.list}, page ${page + 1} of ${pages}` : words.list,
    }),
  );
}

function drawPage(
  paper: PaperName,
  all: readonly EyeField[],
  page: number,
  words: Parameters<typeof drawEyePages>[2],
): PageDrawing {
  const { width, height } = paperMm(paper);
  const first = page * EYE_PAGE_COLOURS;
  const fields = all.slice(first, first + EYE_PAGE_COLOURS);
  const fieldHeight = (height - TOP_MM - FOOT_MM) / PER_SIDE;
  const text = (words: string, x: number, y: number, sizeMm: number, bold = false): PageText => ({
    ...{ text: words, x, y, sizeMm },
    font: bold ? 'textBold' : 'text',
  });
  const texts = [
    text('Eye’s check', MARGIN_MM, MARGIN_MM + 4, 6, true),
    text(`${words.list} · ${words.condition} · ${words.date}`, MARGIN_MM, MARGIN_MM + 10, 3.4),
    text(words.how, MARGIN_MM, MARGIN_MM + 15, 3.4, true),
    text(
      'Cut along the lines; lay each field edge to edge against what it should look like, in the light that counts.',
      MARGIN_MM,
      MARGIN_MM + 20,
      3.4,
    ),
  ];
  const lozenges: { x: number; y: number; halfMm: number }[] = [];
  const patches = fields.map(({ name, device, beyond }, i) => {
    const right = i >= PER_SIDE;
    const y = TOP_MM + (i % PER_SIDE) * fieldHeight;
    const x = right ? width - MARGIN_MM - FIELD_MM : MARGIN_MM;
    const wordsX = right ? width / 2 + 2 : MARGIN_MM + FIELD_MM + 3;
    texts.push(
      text(`${first + i + 1}`, wordsX, y + 7, 5, true),
      text(name.length > MOST_NAME ? `${name.slice(0, MOST_NAME - 1)}…` : name, wordsX, y + 12.5, 3.2),
    );
    if (beyond > REACHED) {
      lozenges.push({ x: wordsX + 2, y: y + 16, halfMm: 1.7 });
      texts.push(text(`not reached, by ${beyond.toFixed(1)}`, wordsX + 5, y + 17, 3));
    }
    return { rectangle: { x, y, width: FIELD_MM, height: fieldHeight - 2 }, device };
  });
  const cut = (x: number) => ({ from: { x, y: TOP_MM - 4 }, to: { x, y: height - FOOT_MM + 4 } });
  return {
    ...{ width, height, patches, marks: [], texts, lozenges },
    lines: [cut(MARGIN_MM), ...(fields.length > PER_SIDE ? [cut(width - MARGIN_MM)] : [])],
  };
}
