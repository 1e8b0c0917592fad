import fontkit from '@pdf-lib/fontkit';
import { cmyk, grayscale, PDFDocument, rgb } from 'pdf-lib';
import type { Color, PDFFont } from 'pdf-lib';
import { drawChartPage } from './chartPage.ts';
import type { ChartPage } from './chartPage.ts';
import { fontBytes } from './fonts.ts';
import type { FontName } from './fonts.ts';

const POINTS_PER_MM = 72 / 25.4;

/** A chart as PDF: vector patches in device colour, embedded fonts, no profile, no output intent, no transparency. */
export async function chartPdf(pages: readonly ChartPage[], createdMs: number): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  document.registerFontkit(fontkit);
  document.setTitle(pages[0].title);
  document.setProducer('Melto');
  document.setCreator('Melto');
  document.setCreationDate(new Date(createdMs));
  document.setModificationDate(new Date(createdMs));
  const fonts = new Map<FontName, PDFFont>();
  for (const name of ['text', 'textBold', 'code'] as const)
    fonts.set(name, await document.embedFont(fontBytes(name), { subset: true }));
  for (const page of pages) {
    const drawing = drawChartPage(page);
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
    for (const patch of drawing.patches) rectangle(patch.rectangle, deviceColour(patch.device));
    for (const mark of drawing.marks) rectangle(mark, grayscale(0));
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

function deviceColour(device: readonly number[]): Color {
  if (device.length === 3) return rgb(device[0], device[1], device[2]);
  if (device.length === 4) return cmyk(device[0], device[1], device[2], device[3]);
  throw new RangeError(`chart pages of ${device.length} channels`);
}
