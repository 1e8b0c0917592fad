import fontkit from '@pdf-lib/fontkit';
import {
  cmyk,
  grayscale,
  PDFDict,
  PDFDocument,
  PDFName,
  PDFNumber,
  PDFOperator,
  PDFOperatorNames,
  rgb,
} from 'pdf-lib';
import type { Color, PDFFont, PDFPage, PDFRef } from 'pdf-lib';
import { drawChartPage } from './chartPage.ts';
import type { ChartPage, PageDrawing, PageTag, PointMm } from './chartPage.ts';
import { fontBytes } from './fonts.ts';
import { namedInksSpace, processTag } from './namedInks.ts';
import { srgbProfile } from './srgbProfile.ts';
import type { FontName } from './fonts.ts';

const POINTS_PER_MM = 72 / 25.4;

/**
 * A chart as PDF: vector patches, embedded fonts, no output intent, no transparency. Patches are in device colour, but
 * for a page that is tagged: those carry its profile, to be converted as every job is.
 */
export function chartPdf(pages: readonly ChartPage[], createdMs: number): Promise<Uint8Array> {
  const [{ title, process, tag = processTag(process) }] = pages;
  return drawnPdf(pages.map(drawChartPage), { title, tag }, createdMs);
}

/** Pages that are drawn already, as PDF. */
export async function drawnPdf(
  drawings: readonly PageDrawing[],
  { title, tag }: Pick<ChartPage, 'title' | 'tag'>,
  createdMs: number,
): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  document.registerFontkit(fontkit);
  document.setTitle(title);
  document.setProducer('Melto');
  document.setCreator('Melto');
  document.setCreationDate(new Date(createdMs));
  document.setModificationDate(new Date(createdMs));
  const fonts = new Map<FontName, PDFFont>();
  for (const name of ['text', 'textBold', 'code'] as const)
    fonts.set(name, await document.embedFont(fontBytes(name), { subset: true }));
  const space = tag === undefined ? undefined : await taggedSpace(document, tag);
  for (const drawing of drawings) {
    const height = drawing.height * POINTS_PER_MM;
    const sheet = document.addPage([drawing.width * POINTS_PER_MM, height]);
    const rectangle = (r: { x: number; y: number; width: number; height: number }, color: Color): void =>
      sheet.drawRectangle({
        x: r.x * POINTS_PER_MM,
        y: height - (r.y + r.height) * POINTS_PER_MM,
        width: r.width * POINTS_PER_MM,
        height: r.height * POINTS_PER_MM,
        color,
      });
    if (space !== undefined) {
      colourSpaces(sheet).set(space.name, space.ref);
      for (const { rectangle: r, device } of drawing.patches)
        sheet.pushOperators(
          ...[operator(PDFOperatorNames.NonStrokingColorspace, space.name), numbers('scn', device)],
          numbers('re', [
            r.x * POINTS_PER_MM,
            height - (r.y + r.height) * POINTS_PER_MM,
            r.width * POINTS_PER_MM,
            r.height * POINTS_PER_MM,
          ]),
          operator(PDFOperatorNames.FillNonZero),
        );
    } else for (const patch of drawing.patches) rectangle(patch.rectangle, deviceColour(patch.device));
    for (const mark of drawing.marks) rectangle(mark, grayscale(0));
    drawShapes(sheet, drawing, height);
    for (const text of drawing.texts)
      sheet.drawText(text.text, {
        x: text.x * POINTS_PER_MM,
        y: height - text.y * POINTS_PER_MM,
        size: text.sizeMm * POINTS_PER_MM,
        font: fonts.get(text.font),
        color: grayscale(0),
      });
  }
  return document.save({ useObjectStreams: false });
}

/** Lozenges and lines of a page. @param height of the page in points. */
function drawShapes(sheet: PDFPage, { lozenges = [], lines = [] }: PageDrawing, height: number): void {
  const line = (from: PointMm, to: PointMm, thicknessMm: number): void =>
    sheet.drawLine({
      start: { x: from.x * POINTS_PER_MM, y: height - from.y * POINTS_PER_MM },
      end: { x: to.x * POINTS_PER_MM, y: height - to.y * POINTS_PER_MM },
      thickness: thicknessMm * POINTS_PER_MM,
      color: grayscale(0),
    });
  for (const { x, y, halfMm } of lozenges) {
    const corners: readonly PointMm[] = [
      { x, y: y - halfMm },
      { x: x + halfMm, y },
      { x, y: y + halfMm },
      { x: x - halfMm, y },
    ];
    corners.forEach((corner, i) => line(corner, corners[(i + 1) % corners.length], 0.5));
  }
  for (const { from, to } of lines) line(from, to, 0.15);
}

/** The colour space of a tag by its profile, once in the document. */
async function taggedSpace(
  { context }: PDFDocument,
  tag: PageTag,
): Promise<{ readonly name: PDFName; readonly ref: PDFRef }> {
  if (tag !== 'sRGB' && 'inks' in tag)
    return { name: PDFName.of('Inks'), ref: namedInksSpace(context, tag.inks) };
  const [name, bytes, channels] =
    tag === 'sRGB' ? (['sRGB', await srgbProfile(), 3] as const) : (['Inks', tag.profile, 4] as const);
  const profile = context.register(context.flateStream(bytes, { N: channels }));
  return {
    name: PDFName.of(name),
    ref: context.register(context.obj([PDFName.of('ICCBased'), profile])),
  };
}

/** The colour spaces that a page names. */
function colourSpaces({ node, doc }: PDFPage): PDFDict {
  const { Resources } = node.normalizedEntries();
  const name = PDFName.of('ColorSpace');
  const known = Resources.lookupMaybe(name, PDFDict);
  if (known !== undefined) return known;
  const made = doc.context.obj({});
  Resources.set(name, made);
  return made;
}

function operator(name: PDFOperatorNames, ...args: readonly PDFName[]): PDFOperator {
  return PDFOperator.of(name, [...args]);
}

function numbers(name: 'scn' | 're', values: readonly number[]): PDFOperator {
  const operators = { scn: PDFOperatorNames.NonStrokingColorN, re: PDFOperatorNames.AppendRectangle };
  return PDFOperator.of(
    operators[name],
    values.map((value) => PDFNumber.of(value)),
  );
}

function deviceColour(device: readonly number[]): Color {
  if (device.length === 3) return rgb(device[0], device[1], device[2]);
  if (device.length === 4) return cmyk(device[0], device[1], device[2], device[3]);
  throw new RangeError(`chart pages of ${device.length} channels`);
}
