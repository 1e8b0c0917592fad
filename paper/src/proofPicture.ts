import sharp from 'sharp';
import { failure, success } from '@melto/core/result';
import type { Issue, Result } from '@melto/core/result';

/** The values of a picture as they stand in its file, and the profile that they are meant by. */
export interface ProofPicture<V extends Uint8Array | Uint16Array = Uint8Array> {
  readonly width: number;
  readonly height: number;
  /** Grey, RGB or CMYK. */
  readonly channels: 1 | 3 | 4;
  /** Row-major pixel × channels, 8 or 16 bits; inks as they print, the largest value for full. */
  readonly values: V;
  /** Size of the file's picture, and its bits. */
  readonly fullWidth: number;
  readonly fullHeight: number;
  readonly bits: 8 | 16;
  /** Bytes of the profile in the file; undefined where it holds none. */
  readonly icc?: Uint8Array;
  /** What was done to it, in words. */
  readonly notes: readonly string[];
}

const FORMATS: readonly string[] = ['png', 'jpeg', 'tiff'];
const MOST_PIXELS = 120_000_000;

/**
 * Reads a picture without converting its values, no larger than asked: pixels are averaged where it is made smaller.
 * @param mostSide pixels of the longer side; Infinity for all of them.
 * @param deep keeps 16 bits where the file has them.
 */
export function proofPicture(file: Uint8Array, mostSide: number): Promise<Result<ProofPicture>>;
export function proofPicture(
  file: Uint8Array,
  mostSide: number,
  deep: true,
): Promise<Result<ProofPicture<Uint8Array | Uint16Array>>>;
export async function proofPicture(
  file: Uint8Array,
  mostSide: number,
  deep = false,
): Promise<Result<ProofPicture<Uint8Array | Uint16Array>>> {
  try {
    const image = sharp(file, { limitInputPixels: MOST_PIXELS, failOn: 'error', pages: 1, ignoreIcc: true });
    const { format, space, channels, hasAlpha, depth, icc, width, height, orientation } =
      await image.metadata();
    if (!FORMATS.includes(format)) return failure(noPicture(format));
    const notes: string[] = [];
    const own = space === 'cmyk' ? 'cmyk' : channels - (hasAlpha ? 1 : 0) === 1 ? 'b-w' : 'srgb';
    if (own !== 'cmyk' && channels > 4) return failure(noPicture(`a ${format} of ${channels} channels`));
    let turned = image.rotate();
    if (hasAlpha) {
      turned = turned.flatten({ background: '#ffffff' });
      notes.push('What is transparent in it is shown on white.');
    }
    const sixteen = deep && depth === 'ushort';
    const space16 = { cmyk: 'cmyk', 'b-w': 'grey16', srgb: 'rgb16' }[own];
    const sized = Number.isFinite(mostSide)
      ? turned.resize({
          ...{ width: mostSide, height: mostSide, fit: 'inside' },
          ...{ withoutEnlargement: true, kernel: 'cubic' },
        })
      : turned;
    const { data, info } = await sized
      .pipelineColourspace(sixteen ? space16 : own)
      .toColourspace(sixteen ? space16 : own)
      .raw({ depth: sixteen ? 'ushort' : 'uchar' })
      .toBuffer({ resolveWithObject: true });
    const wanted = { cmyk: 4, 'b-w': 1, srgb: 3 }[own];
    if (info.channels !== wanted) return failure(noPicture(`a ${format} of ${info.channels} channels`));
    const sideways = orientation !== undefined && orientation >= 5;
    return success({
      ...{ width: info.width, height: info.height, channels: wanted as 1 | 3 | 4 },
      values: sixteen
        ? new Uint16Array(data.buffer.slice(data.byteOffset, data.byteOffset + data.length))
        : data,
      fullWidth: sideways ? height : width,
      fullHeight: sideways ? width : height,
      bits: depth === 'ushort' ? 16 : 8,
      icc: icc === undefined ? undefined : new Uint8Array(icc),
      notes,
    });
  } catch (error) {
    const words = error instanceof Error ? error.message : '';
    return failure(
      noPicture(/exceeds pixel limit/i.test(words) ? 'a larger one' : 'something else, or a damaged one'),
    );
  }
}

function noPicture(found: string): Issue {
  return {
    code: 'picture.format',
    expected: `a TIFF, PNG or JPEG of grey, RGB or CMYK, of up to ${MOST_PIXELS / 1e6} million pixels`,
    found,
  };
}
