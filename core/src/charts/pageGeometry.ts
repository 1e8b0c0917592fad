/** Width and height of a page in mm. */
export interface PageMm {
  readonly width: number;
  readonly height: number;
}

export type NamedPaper = 'a4' | 'letter' | 'a3';
/** A page by its name, or of one's own: width and height in whole mm, as `610x914`. */
export type PaperName = NamedPaper | `${number}x${number}`;

/** Paper sizes in mm, portrait (ISO 216, ANSI/ASME Y14.1). */
export const PAPER_MM: Readonly<Record<NamedPaper, PageMm>> = {
  a4: { width: 210, height: 297 },
  letter: { width: 215.9, height: 279.4 },
  a3: { width: 297, height: 420 },
};

/** Sides of a page of one's own, in mm: room for a strip, and no wider than printers are. */
export const OWN_PAGE_MM = { least: 90, most: 1620 } as const;

/** A page by its name; undefined where it is neither a known one nor two whole sides within `OWN_PAGE_MM`. */
export function paperNamed(name: string): PaperName | undefined {
  if (Object.hasOwn(PAPER_MM, name)) return name as NamedPaper;
  const sides = /^(\d{2,4})x(\d{2,4})$/.exec(name)?.slice(1).map(Number);
  const fits = sides?.every((side) => side >= OWN_PAGE_MM.least && side <= OWN_PAGE_MM.most);
  return fits === true ? (name as PaperName) : undefined;
}

/** Width and height of a page; throws where it is none. */
export function paperMm(paper: PaperName): PageMm {
  if (Object.hasOwn(PAPER_MM, paper)) return PAPER_MM[paper as NamedPaper];
  const [width, height] = paper.split('x').map(Number);
  if (paperNamed(paper) === undefined) throw new RangeError(`no page of ${paper}`);
  return { width, height };
}

/** What a kind of instrument needs of a page, in mm. */
export interface InstrumentNeeds {
  readonly patchLength: number;
  readonly stripHeight: number;
  /** White paper between strips. */
  readonly stripGap: number;
  /** White before the first and after the last patch of a strip. */
  readonly leadIn: number;
  readonly margin: number;
  /** Room for the words and the code at the top, and for the words at the bottom. */
  readonly head: number;
  readonly foot: number;
  /** Column at the left for strip numbers and the arrow. */
  readonly numberColumn: number;
}

export const STRIP_READER_NEEDS: InstrumentNeeds = {
  patchLength: 7.5,
  stripHeight: 8.5,
  stripGap: 1.5,
  leadIn: 9,
  margin: 10,
  head: 26,
  foot: 8,
  numberColumn: 10,
};

/** A short check stands in one strip: its patches are as short as a careful hand can read. */
export const SHORT_CHECK_NEEDS: InstrumentNeeds = { ...STRIP_READER_NEEDS, patchLength: 5.25 };

export interface PageCapacity {
  readonly patchesPerStrip: number;
  readonly stripsPerPage: number;
}

/** As far as a hand draws an instrument in one pass, along a ruler. */
export const LONGEST_PASS_MM = 320;

/** Strips with white between them are drawn along by hand. */
function isReadByHand({ stripGap }: InstrumentNeeds): boolean {
  return stripGap > 0;
}

/** Whether strips reach from side to side of a page, or end where a hand does. */
export function spansPage(paper: PaperName, needs: InstrumentNeeds): boolean {
  const room = paperMm(paper).width - 2 * needs.margin - needs.numberColumn - 2 * needs.leadIn;
  return !isReadByHand(needs) || room <= LONGEST_PASS_MM;
}

export function pageCapacity(paper: PaperName, needs: InstrumentNeeds = STRIP_READER_NEEDS): PageCapacity {
  const { width, height } = paperMm(paper);
  const room = width - 2 * needs.margin - needs.numberColumn - 2 * needs.leadIn;
  return {
    patchesPerStrip: Math.floor(
      (isReadByHand(needs) ? Math.min(room, LONGEST_PASS_MM) : room) / needs.patchLength,
    ),
    stripsPerPage: Math.floor(
      (height - 2 * needs.margin - needs.head - needs.foot) / (needs.stripHeight + needs.stripGap),
    ),
  };
}

export interface RectangleMm {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Where a patch lies on its page, mm from the top left corner; strip and place count from 0. */
export function patchRectangle(
  strip: number,
  place: number,
  needs: InstrumentNeeds = STRIP_READER_NEEDS,
): RectangleMm {
  return {
    x: needs.margin + needs.numberColumn + needs.leadIn + place * needs.patchLength,
    y: needs.margin + needs.head + strip * (needs.stripHeight + needs.stripGap),
    width: needs.patchLength,
    height: needs.stripHeight,
  };
}

/** Single patches, placed by hand: large, no lead-in. */
export const SPOT_READER_NEEDS: InstrumentNeeds = {
  ...STRIP_READER_NEEDS,
  patchLength: 10,
  stripHeight: 10,
  stripGap: 0,
  leadIn: 2,
};
/** A page that is moved under the instrument by itself: small patches without gaps. */
export const SHEET_READER_NEEDS: InstrumentNeeds = {
  ...STRIP_READER_NEEDS,
  patchLength: 6.5,
  stripHeight: 6.5,
  stripGap: 0,
  leadIn: 4,
};

/** The kinds of readers a chart may be laid out for. */
export type ReaderKind = 'strip' | 'spot' | 'sheet';

export const READER_NEEDS: Readonly<Record<ReaderKind, InstrumentNeeds>> = {
  strip: STRIP_READER_NEEDS,
  spot: SPOT_READER_NEEDS,
  sheet: SHEET_READER_NEEDS,
};
