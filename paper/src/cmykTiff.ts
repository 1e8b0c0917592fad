import UTIF from 'utif2';

/** Where the pixels start: behind the directory, which is far shorter. */
const PIXELS_AT = 1024;

/**
 * An untagged, uncompressed TIFF of separated CMYK, 8 bits a channel (TIFF 6.0, section 16).
 * @param pixels row-major, 4 bytes a pixel, 255 = full ink.
 */
export function cmykTiff(pixels: Uint8Array, width: number, height: number, dpi: number): Buffer {
  if (pixels.length !== width * height * 4)
    throw new RangeError(`${pixels.length} bytes for ${width} × ${height} pixels`);
  const directory = {
    t256: [width],
    t257: [height],
    t258: [8, 8, 8, 8],
    t259: [1], // no compression
    t262: [5], // separated
    t273: [PIXELS_AT],
    t277: [4],
    t278: [height],
    t279: [pixels.length],
    t282: [[dpi, 1]],
    t283: [[dpi, 1]],
    t284: [1],
    t296: [2], // per inch
  };
  const head = new Uint8Array(UTIF.encode([directory as unknown as UTIF.IFD]));
  const out = Buffer.alloc(PIXELS_AT + pixels.length);
  out.set(head);
  out.set(pixels, PIXELS_AT);
  return out;
}
