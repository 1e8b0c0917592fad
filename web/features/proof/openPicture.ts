import { PICTURE_VALUES } from '@/endpoints/proof';
import { SaidError, send } from '@/ui/api';

/** A picture that is to be proofed: drawn by Melto, or a file's values. */
export interface OpenedPicture {
  readonly name: string;
  readonly width: number;
  readonly height: number;
  /** Undefined where Melto draws it itself. */
  readonly file?: {
    readonly channels: number;
    readonly values: Uint8Array;
    /** Tells its profile from that of any other picture, also of one of the same name. */
    readonly iccKey: string;
    readonly icc?: Uint8Array;
    readonly full: string;
    readonly notes: readonly string[];
  };
}

/** The key of the profile that a picture holds itself. */
export const EMBEDDED = 'embedded';

/** Pixels of the longer side on the screen. */
export const PREVIEW_SIDE = 1200;
const MOST_BYTES = 200_000_000;
let opened = 0;

/** Has a file's values read; an error says in words what is wrong with it. */
export async function openPicture(file: File): Promise<OpenedPicture> {
  if (file.size > MOST_BYTES)
    throw new SaidError(`${file.name} is larger than 200 MB. Give a smaller picture.`);
  const read = await send(PICTURE_VALUES, { query: { side: PREVIEW_SIDE }, body: file });
  const { width, height, channels, fullWidth, fullHeight, bits, notes } = read;
  return {
    ...{ name: file.name, width, height },
    file: {
      ...{ channels, values: bytesOf(read.values), notes, iccKey: `${EMBEDDED} ${++opened}` },
      icc: read.icc === null ? undefined : bytesOf(read.icc),
      full: `${fullWidth.toLocaleString('en-GB')} × ${fullHeight.toLocaleString('en-GB')} pixels, ${bits} bits`,
    },
  };
}

function bytesOf(base64: string): Uint8Array {
  const text = atob(base64);
  const out = new Uint8Array(text.length);
  for (let i = 0; i < text.length; i++) out[i] = text.charCodeAt(i);
  return out;
}
