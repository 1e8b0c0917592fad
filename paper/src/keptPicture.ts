import sharp from 'sharp';
import { failure, success } from '@melto/core/result';
import type { Issue, Result } from '@melto/core/result';

/** A picture as it is kept: drawn anew as PNG, so that nothing else that a file may hold is kept with it. */
export interface KeptPicture {
  readonly png: Uint8Array;
  readonly width: number;
  readonly height: number;
}

const FORMATS: readonly string[] = ['png', 'jpeg', 'webp', 'gif', 'tiff'];
/** Larger pictures are scaled down: words of a dialog can still be read. */
const MOST_SIDE = 1600;
const MOST_PIXELS = 50_000_000;

/** Draws a picture of a person's anew, turned as its camera says, in sRGB and without what it tells of itself. */
export async function keptPicture(file: Uint8Array, mostSide = MOST_SIDE): Promise<Result<KeptPicture>> {
  try {
    const image = sharp(file, { limitInputPixels: MOST_PIXELS, failOn: 'error', pages: 1 });
    const { format } = await image.metadata();
    if (!FORMATS.includes(format)) return failure(noPicture(format));
    const { data, info } = await image
      .rotate()
      .resize({ width: mostSide, height: mostSide, fit: 'inside', withoutEnlargement: true })
      .toColourspace('srgb')
      .png()
      .toBuffer({ resolveWithObject: true });
    return success({ png: data, width: info.width, height: info.height });
  } catch {
    return failure(noPicture('something else, or a damaged one'));
  }
}

function noPicture(found: string): Issue {
  return {
    code: 'picture.format',
    expected: `a PNG, JPEG, WebP, GIF or TIFF of up to ${MOST_PIXELS / 1e6} million pixels`,
    found,
  };
}
