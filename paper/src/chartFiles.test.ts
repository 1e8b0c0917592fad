import { CMYK, RGB } from '@melto/core/device/process';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { inflateSync } from 'node:zlib';
import { BinaryBitmap, DataMatrixReader, HybridBinarizer, RGBLuminanceSource } from '@zxing/library';
import { PDFDocument, PDFName, PDFRawStream } from 'pdf-lib';
import sharp from 'sharp';
import type { Sharp } from 'sharp';
import UTIF from 'utif2';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { patchRectangle, STRIP_READER_NEEDS } from '@melto/core/charts/pageGeometry';
import { makeRampChart } from '@melto/core/charts/rampChart';
import { makeRgbChart } from '@melto/core/charts/rgbChart';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import type { ChartPage } from './chartPage.ts';
import { drawChartPage } from './chartPage.ts';
import { chartPdf } from './chartPdf.ts';
import { chartRaster, RASTER_DPI } from './chartRaster.ts';
import { dataMatrix } from './dataMatrix.ts';

const { device } = makeRgbChart(260, 6);
const layout = layoutChart(RGB, device, 'a4', 6);
const pages: ChartPage[] = layout.pages.map((strips, i) => ({
  paper: 'a4',
  process: RGB,
  strips: strips.map((rows) =>
    Float64Array.from(rows.flatMap((row) => [...device.subarray(3 * row, 3 * row + 3)])),
  ),
  sheetCode: `WRN-10412-${i + 1}`,
  title: 'RGB 260',
  condition: 'Wren / Quay Proof 200 / fine',
  date: '2026-03-14',
  page: i + 1,
  pages: layout.pages.length,
}));
/** All levels of the first page, strip by strip. */
const levels = pages[0].strips.flatMap((strip) => Array.from(strip, (value) => Math.round(value * 255)));

let folder = '';
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'melto-paper-'));
});
afterAll(() => rmSync(folder, { recursive: true }));

/** Decodes the Data Matrix in the top right corner of a page's pixels. */
function decodeCorner(grey: Uint8ClampedArray, width: number, height: number): string {
  const bitmap = new BinaryBitmap(new HybridBinarizer(new RGBLuminanceSource(grey, width, height)));
  return new DataMatrixReader().decode(bitmap).getText();
}

async function corner(image: Sharp, dpi: number, widthMm: number): Promise<string> {
  const perMm = dpi / 25.4;
  const size = 21;
  const left = Math.round((widthMm - STRIP_READER_NEEDS.margin - 18) * perMm);
  const top = Math.round((STRIP_READER_NEEDS.margin - 3) * perMm);
  const side = Math.round(size * perMm);
  const { data, info } = await image
    .extract({ left, top, width: side, height: side })
    .flatten({ background: '#fff' })
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return decodeCorner(
    new Uint8ClampedArray(data.buffer, data.byteOffset, info.width * info.height),
    info.width,
    info.height,
  );
}

describe('chart as PDF', () => {
  let content = '';
  let document: PDFDocument;
  let bytes: Uint8Array;
  beforeAll(async () => {
    bytes = await chartPdf(pages, Date.UTC(2026, 2, 14));
    document = await PDFDocument.load(bytes);
    const stream = document.getPage(0).node.Contents();
    const parts = document.context
      .enumerateIndirectObjects()
      .map(([, object]) => object)
      .filter((object): object is PDFRawStream => object instanceof PDFRawStream)
      .map((object) => {
        try {
          return inflateSync(object.contents).toString('latin1');
        } catch {
          return '';
        }
      });
    content = parts.find((text) => text.includes(' rg')) ?? '';
    expect(stream).toBeDefined();
  });

  it('holds the exact device values in their order', () => {
    const colours = [...content.matchAll(/([\d.]+) ([\d.]+) ([\d.]+) rg/g)].flatMap(([, r, g, b]) =>
      [r, g, b].map(Number),
    );
    expect(colours).toHaveLength(levels.length);
    colours.forEach((value, i) => expect(Math.abs(value * 255 - levels[i])).toBeLessThan(1e-6));
  });

  it('has no profile, no output intent, no transparency, and embeds its fonts', () => {
    const text = Buffer.from(bytes).toString('latin1');
    for (const word of ['ICCBased', 'OutputIntent', '/SMask', 'CalRGB']) expect(text).not.toContain(word);
    // No graphics state is set anywhere, so nothing can be transparent.
    expect(content).not.toMatch(/\bgs\b/);
    expect(document.catalog.get(PDFName.of('OutputIntents'))).toBeUndefined();
    expect(text.match(/FontFile2/g)?.length).toBe(3);
  });

  it('says on the page what it is, and its code decodes to the sheet code', async () => {
    const file = join(folder, 'chart.pdf');
    writeFileSync(file, bytes);
    const words = execFileSync('pdftotext', ['-f', '1', '-l', '1', file, '-'], { encoding: 'utf8' });
    for (const word of [
      'WRN-10412-1',
      'RGB 260',
      'print without colour management',
      'Wren / Quay Proof 200 / fine',
      'page 1 of',
    ])
      expect(words).toContain(word);
    execFileSync('pdftoppm', ['-r', '200', '-png', '-f', '1', '-l', '1', file, join(folder, 'page')]);
    const png = sharp(join(folder, 'page-1.png'));
    expect(await corner(png, 200, 210)).toBe('WRN-10412-1');
  });
});

describe('a job’s picture as PDF', () => {
  it('carries the profile of sRGB, its values as they are, and looks like them', async () => {
    const bytes = await chartPdf([{ ...pages[0], tag: 'sRGB' }], Date.UTC(2026, 2, 14));
    const document = await PDFDocument.load(bytes);
    const streams = document.context
      .enumerateIndirectObjects()
      .map(([, object]) => object)
      .filter((object): object is PDFRawStream => object instanceof PDFRawStream);
    const profile = streams.find(({ dict }) => dict.get(PDFName.of('N')) !== undefined);
    const icc = inflateSync(profile?.contents ?? new Uint8Array());
    expect([icc.toString('latin1', 16, 20), icc.toString('latin1', 36, 40)]).toEqual(['RGB ', 'acsp']);
    const content = streams
      .filter((stream) => stream !== profile)
      .flatMap(({ contents }) => {
        try {
          return [inflateSync(contents).toString('latin1')];
        } catch {
          return [];
        }
      })
      .find((text) => text.includes('scn'));
    const values = [...(content ?? '').matchAll(/\/sRGB cs\n([\d.]+) ([\d.]+) ([\d.]+) scn/g)].flatMap(
      ([, r, g, b]) => [r, g, b].map(Number),
    );
    expect(values).toHaveLength(levels.length);
    values.forEach((value, i) => expect(Math.abs(value * 255 - levels[i])).toBeLessThan(1e-6));
    // Nothing on the page is in device colour but its words and marks.
    expect(content).not.toMatch(/ rg\b/);
    const file = join(folder, 'job.pdf');
    writeFileSync(file, bytes);
    execFileSync('pdftoppm', ['-r', '72', '-png', file, join(folder, 'job')]);
    const { data, info } = await sharp(join(folder, 'job-1.png')).raw().toBuffer({ resolveWithObject: true });
    const { x, y, width, height } = patchRectangle(0, 3);
    const [px, py] = [x + width / 2, y + height / 2].map((mm) => Math.round((mm * 72) / 25.4));
    const seen = data.subarray((py * info.width + px) * info.channels).subarray(0, 3);
    seen.forEach((level, i) => expect(Math.abs(level - levels[9 + i])).toBeLessThanOrEqual(3));
  });
});

describe('chart as pixels', () => {
  it.each(['tiff', 'png'] as const)(
    '%s holds the exact device values, untagged, at its resolution',
    async (format) => {
      const file = await chartRaster(pages[0], format);
      const meta = await sharp(file).metadata();
      expect(meta.hasProfile).toBe(false);
      expect(meta.icc).toBeUndefined();
      expect(meta.density).toBe(RASTER_DPI);
      expect(meta.channels).toBe(3);
      if (format === 'png')
        for (const chunk of ['iCCP', 'sRGB', 'gAMA', 'cHRM']) expect(file.includes(chunk)).toBe(false);
      const { data, info } = await sharp(file).raw().toBuffer({ resolveWithObject: true });
      const perMm = RASTER_DPI / 25.4;
      let at = 0;
      pages[0].strips.forEach((strip, s) => {
        for (let place = 0; place < strip.length / 3; place++) {
          const { x, y, width, height } = patchRectangle(s, place);
          for (const share of [0.1, 0.5, 0.9]) {
            const pixel =
              (Math.round((y + height * share) * perMm) * info.width +
                Math.round((x + width * share) * perMm)) *
              3;
            expect([...data.subarray(pixel, pixel + 3)]).toEqual(levels.slice(at, at + 3));
          }
          at += 3;
        }
      });
      expect(await corner(sharp(file), RASTER_DPI, 210)).toBe('WRN-10412-1');
    },
  );

  it('keeps words and marks off the patches and their lead-in', () => {
    const drawing = drawChartPage(pages[0]);
    const first = patchRectangle(0, 0);
    for (const mark of drawing.marks)
      expect(
        mark.y + mark.height < first.y || mark.x + mark.width <= first.x - STRIP_READER_NEEDS.leadIn + 0.01,
      ).toBe(true);
    for (const text of drawing.texts)
      expect(text.y < first.y || text.x < first.x - STRIP_READER_NEEDS.leadIn).toBe(true);
  });

  it('refuses a page that cannot be square or has other channels', async () => {
    expect(dataMatrix('WRN-0001-1').dark).toHaveLength(dataMatrix('WRN-0001-1').size ** 2);
    await expect(chartRaster({ ...pages[0], process: CMYK }, 'png')).rejects.toThrow(RangeError);
  });
});

describe('CMYK pages', () => {
  const chart = makeRampChart(CMYK, { steps: 16, totalInk: true });
  const layout = layoutChart(CMYK, chart.device, 'a4', 2);
  const page: ChartPage = {
    ...pages[0],
    process: CMYK,
    strips: layout.pages[0].map((rows) => gatherRows(chart.device, rows, 4)),
  };

  it('TIFF holds the exact ink levels, separated, untagged, at its resolution', async () => {
    const bytes = await chartRaster(page, 'tiff');
    const [ifd] = UTIF.decode(bytes);
    expect([ifd.t262, ifd.t258, ifd.t277]).toEqual([[5], [8, 8, 8, 8], [4]]);
    expect(Object.keys(ifd)).not.toContain('t34675');
    expect(ifd.t282).toEqual([[RASTER_DPI, 1]]);
    UTIF.decodeImage(bytes, ifd);
    const perMm = RASTER_DPI / 25.4;
    page.strips.forEach((strip, s) => {
      for (let place = 0; place < strip.length / 4; place++) {
        const box = patchRectangle(s, place);
        const x = Math.round((box.x + box.width / 2) * perMm);
        const y = Math.round((box.y + box.height / 2) * perMm);
        const at = (y * ifd.width + x) * 4;
        expect([...ifd.data.subarray(at, at + 4)]).toEqual(
          Array.from(strip.subarray(4 * place, 4 * place + 4), (value) => Math.round(255 * value)),
        );
      }
    });
  });

  it('TIFF and PDF of a job of inks carry the profile that they are meant by, and the same inks', async () => {
    const profile = Uint8Array.from({ length: 5000 }, (_, i) => i % 251);
    const [plain, tagged] = await Promise.all([
      chartRaster(page, 'tiff'),
      chartRaster({ ...page, tag: { profile } }, 'tiff'),
    ]);
    const [ifd] = UTIF.decode(tagged);
    expect([...(ifd['t34675'] as unknown as Uint8Array)]).toEqual([...profile]);
    UTIF.decodeImage(tagged, ifd);
    const [bare] = UTIF.decode(plain);
    UTIF.decodeImage(plain, bare);
    expect(Buffer.compare(Buffer.from(ifd.data), Buffer.from(bare.data))).toBe(0);
    // Another reader finds the same profile.
    const { icc, space } = await sharp(tagged).metadata();
    expect([space, Buffer.compare(icc ?? Buffer.alloc(0), Buffer.from(profile))]).toEqual(['cmyk', 0]);
    const pdf = await PDFDocument.load(await chartPdf([{ ...page, tag: { profile } }], 0));
    const streams = [...pdf.context.enumerateIndirectObjects()].flatMap(([, object]) =>
      object instanceof PDFRawStream ? [object] : [],
    );
    const kept = streams.find(({ dict }) => String(dict.get(PDFName.of('N'))) === '4');
    expect([...inflateSync(kept?.contents ?? new Uint8Array())]).toEqual([...profile]);
    const content = streams
      .filter((stream) => stream !== kept)
      .map(({ contents }) => {
        try {
          return inflateSync(contents).toString('latin1');
        } catch {
          return '';
        }
      })
      .find((text) => text.includes('/Inks cs'));
    expect(content).toMatch(/\/Inks cs\n[\d.]+ [\d.]+ [\d.]+ [\d.]+ scn/);
    expect(content).not.toMatch(/ k\b/);
  });

  it('PDF draws DeviceCMYK and nothing else', async () => {
    const pdf = await PDFDocument.load(await chartPdf([page], 0));
    const content = [...pdf.context.enumerateIndirectObjects()]
      .flatMap(([, object]) => (object instanceof PDFRawStream ? [object] : []))
      .map((stream) => {
        try {
          return inflateSync(stream.contents).toString('latin1');
        } catch {
          return '';
        }
      })
      .join('\n');
    const inks = [...content.matchAll(/([\d.]+) ([\d.]+) ([\d.]+) ([\d.]+) k\n/g)].map((m) =>
      m.slice(1, 5).map((value) => Math.round(255 * Number(value))),
    );
    const wanted = page.strips.flatMap((strip) =>
      Array.from({ length: strip.length / 4 }, (_, i) =>
        Array.from(strip.subarray(4 * i, 4 * i + 4), (value) => Math.round(255 * value)),
      ),
    );
    expect(inks).toEqual(expect.arrayContaining(wanted));
    expect(content).not.toMatch(/ rg\n/);
  });

  it('are not offered as PNG', async () =>
    await expect(chartRaster(page, 'png')).rejects.toThrow('png of CMYK charts'));
});
