import { SaidError } from '@/ui/api';
import { readPicture } from '@/workers/pictureFile';

/** A picture that is to be proofed: drawn by Melto, or a file's values. */
export interface OpenedPicture {
  readonly name: string;
  readonly width: number;
  readonly height: number;
  /** Undefined where Melto draws it itself. */
  readonly file?: {
    /** Where it can be read again, at another size. */
    readonly from: File;
    readonly channels: number;
    readonly values: Uint8Array;
    /** Tells its profile from that of any other picture, also of one of the same name. */
    readonly iccKey: string;
    readonly icc?: Uint8Array;
    readonly full: string;
    readonly notes: readonly string[];
  };
}

/** A picture that tells its profile. */
export interface ToldPicture {
  readonly name: string;
  readonly values: Uint8Array;
  readonly channels: number;
  /** Of the profile that its values are meant by. */
  readonly icc: Uint8Array;
}

/** The key of the profile that a picture holds itself. */
export const EMBEDDED = 'embedded';

/** Pixels of the longer side on the screen. */
export const PREVIEW_SIDE = 1200;
const MOST_BYTES = 200_000_000;
let opened = 0;

/** Whether a file is a picture, by its name. */
export const isPicture = ({ name }: Pick<File, 'name'>): boolean => /\.(tiff?|png|jpe?g)$/i.test(name);

/** The values of a picture whose own profile tells what they are meant by; an error says which tells none. */
export async function openToldPicture(file: File): Promise<ToldPicture> {
  const { file: opened } = await openPicture(file);
  if (opened?.icc === undefined)
    throw new SaidError(
      `${file.name} tells no profile, so its colours are not known. Open it in the soft proof, and say what its values are meant by.`,
    );
  return { name: file.name, values: opened.values, channels: opened.channels, icc: opened.icc };
}

/** Has a file's values read; an error says in words what is wrong with it. */
export async function openPicture(file: File): Promise<OpenedPicture> {
  if (file.size > MOST_BYTES)
    throw new SaidError(`${file.name} is larger than 200 MB. Give a smaller picture.`);
  const { width, height, channels, values, icc, fullWidth, fullHeight, bits, notes } = await readPicture(
    file,
    PREVIEW_SIDE,
  );
  return {
    ...{ name: file.name, width, height },
    file: {
      from: file,
      ...{ channels, values, notes, icc, iccKey: `${EMBEDDED} ${++opened}` },
      full: `${fullWidth.toLocaleString('en-GB')} × ${fullHeight.toLocaleString('en-GB')} pixels, ${bits} bits`,
    },
  };
}
