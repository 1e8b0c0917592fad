import { paperMm } from '@melto/core/charts/pageGeometry';
import { inkName } from '@melto/core/device/inkNames';
import { blackChannel, channelCount, channelNames, drivenByInks } from '@melto/core/device/process';
import sharp from 'sharp';
import { deviceTiff } from '@melto/core/picture/deviceTiff';
import { drawChartPage } from './chartPage.ts';
import type { ChartPage, PageDrawing } from './chartPage.ts';
import { outlineFont } from './fonts.ts';

export const RASTER_DPI = 200;
const PIXELS_PER_MM = RASTER_DPI / 25.4;

/** A page as 8-bit pixels with exact device values in the patches, as TIFF (LZW) or PNG; without any profile, or with the one that its values are meant by. */
export async function chartRaster(page: ChartPage, format: 'tiff' | 'png'): Promise<Buffer> {
  const inks = drivenByInks(page.process);
  const black = blackChannel(page.process);
  if (inks && format === 'png') throw new RangeError(`png of ${page.process.name} charts`);
  if (inks && black === undefined)
    throw new RangeError(`${format} of ${page.process.name} charts, which have no black for their words`);
  const drawing = drawChartPage(page);
  const width = Math.round(drawing.width * PIXELS_PER_MM);
  const height = Math.round(drawing.height * PIXELS_PER_MM);
  const rgb = await wordsAndMarks(drawing, width, height);
  // Words and marks are black ink alone.
  const channels = channelCount(page.process);
  const pixels = black === undefined ? rgb : blackInk(rgb, channels, black);
  for (const { rectangle, device } of drawing.patches) {
    const x0 = Math.round(rectangle.x * PIXELS_PER_MM);
    const x1 = Math.round((rectangle.x + rectangle.width) * PIXELS_PER_MM);
    const y0 = Math.round(rectangle.y * PIXELS_PER_MM);
    const y1 = Math.round((rectangle.y + rectangle.height) * PIXELS_PER_MM);
    const levels = device.map((value) => Math.round(value * 255));
    for (let y = y0; y < y1; y++)
      for (let x = x0; x < x1; x++) pixels.set(levels, (y * width + x) * channels);
  }
  const { tag } = page;
  if (inks)
    return Buffer.from(
      deviceTiff(
        pixels,
        { width, height, channels, inks: channelNames(page.process).map(inkName) },
        RASTER_DPI,
        typeof tag === 'object' && 'profile' in tag ? tag.profile : undefined,
      ).buffer,
    );
  const plain = sharp(pixels, { raw: { width, height, channels: 3 } }).withDensity(RASTER_DPI);
  const image = tag === 'sRGB' ? plain.withIccProfile('srgb') : plain;
  if (format === 'png') return image.png({ compressionLevel: 9 }).toBuffer();
  const perMm = PIXELS_PER_MM;
  return image.tiff({ compression: 'lzw', xres: perMm, yres: perMm, resolutionUnit: 'inch' }).toBuffer();
}

/** Pixels of a page at its resolution. */
export function rasterPixels({ paper }: Pick<ChartPage, 'paper'>): number {
  const { width, height } = paperMm(paper);
  return Math.round(width * PIXELS_PER_MM) * Math.round(height * PIXELS_PER_MM);
}

function blackInk(rgb: Uint8Array, channels: number, black: number): Buffer {
  const out = Buffer.alloc((rgb.length / 3) * channels);
  for (let i = 0; i * 3 < rgb.length; i++) out[channels * i + black] = 255 - rgb[3 * i];
  return out;
}

/** White paper with black words (as outlines, so that no installed font is needed) and marks. */
async function wordsAndMarks(drawing: PageDrawing, width: number, height: number): Promise<Buffer> {
  const shapes = drawing.marks.map(
    (m) =>
      `<rect x="${m.x}" y="${m.y}" width="${m.width}" height="${m.height}" shape-rendering="crispEdges"/>`,
  );
  for (const text of drawing.texts) {
    const font = outlineFont(text.font);
    const scale = text.sizeMm / font.unitsPerEm;
    let x = text.x;
    const run = font.layout(text.text);
    run.glyphs.forEach((glyph, i) => {
      shapes.push(
        `<path transform="translate(${x} ${text.y}) scale(${scale} ${-scale})" d="${glyph.path.toSVG()}"/>`,
      );
      x += run.positions[i].xAdvance * scale;
    });
  }
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${drawing.width} ${drawing.height}"><rect width="100%" height="100%" fill="#fff"/>${shapes.join('')}</svg>`;
  return sharp(Buffer.from(svg))
    .flatten({ background: '#fff' })
    .toColourspace('srgb')
    .removeAlpha()
    .raw()
    .toBuffer();
}
