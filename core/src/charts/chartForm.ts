import { READER_NEEDS, SHORT_CHECK_NEEDS } from './pageGeometry.ts';
import type { InstrumentNeeds, PaperName, ReaderKind } from './pageGeometry.ts';

/** Sides of patches by the usual ones of their reader: coarse screens want larger apertures on larger patches. */
export const PATCH_SIZES = { usual: 1, large: 1.5, largest: 2 } as const;
export type PatchSize = keyof typeof PATCH_SIZES;

/** How a chart stands on paper: its pages, the kind of reader they are for, the size of their patches. */
export interface ChartForm {
  readonly paper: PaperName;
  /** Strip readers where it is not said. */
  readonly reader?: ReaderKind;
  /** The usual size where it is not said. */
  readonly patchSize?: PatchSize;
}

/** What the reader of a form needs of its pages, in mm. */
export function needsOf({
  reader = 'strip',
  patchSize = 'usual',
}: Omit<ChartForm, 'paper'>): InstrumentNeeds {
  const needs = READER_NEEDS[reader];
  const times = PATCH_SIZES[patchSize];
  return {
    ...needs,
    patchLength: needs.patchLength * times,
    stripHeight: needs.stripHeight * times,
  };
}

/** Patch that stays free beside an aperture on either side, for a hand and for its scatter, in mm. */
const FREE_MM = 1.5;
/** An aperture spans so many lines of a screen, for its mean to stand for the tint (ISO 13655: 15 are wanted). */
export const LINES_IN_APERTURE = 15;

/** The largest aperture that patches have room for, mm across. */
export function roomForAperture({ patchLength, stripHeight }: InstrumentNeeds): number {
  return Math.min(patchLength, stripHeight) - 2 * FREE_MM;
}

/** The coarsest screen, in lines/cm, of which an aperture of these patches spans enough lines. */
export function coarsestScreen(needs: InstrumentNeeds): number {
  return (10 * LINES_IN_APERTURE) / roomForAperture(needs);
}

/** What a short check needs: it stands in one strip where a strip reader allows it. */
export function needsOfShortCheck(form: Omit<ChartForm, 'paper'>): InstrumentNeeds {
  return (form.reader ?? 'strip') === 'strip' && (form.patchSize ?? 'usual') === 'usual'
    ? SHORT_CHECK_NEEDS
    : needsOf(form);
}

/** The smallest patches of a reader that a screen of so many lines/cm can be measured on; undefined where none is. */
export function patchesForScreen(reader: ReaderKind, linesPerCm: number): PatchSize | undefined {
  return (Object.keys(PATCH_SIZES) as PatchSize[]).find(
    (patchSize) => coarsestScreen(needsOf({ reader, patchSize })) <= linesPerCm,
  );
}
