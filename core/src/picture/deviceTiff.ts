import UTIF from 'utif2';

/** Where the pixels start: behind the directory, which is far shorter. */
const PIXELS_AT = 1024;

/** How TIFF calls what the channels are: grey from black, RGB, separated. */
const SEPARATED = 5;
const MEANING: Readonly<Record<number, number>> = { 1: 1, 3: 2 };
/** Inks that are not cyan, magenta, yellow and black alone. */
const OTHER_INKS = 2;

/**
 * An uncompressed TIFF of device values, 8 bits a channel (TIFF 6.0; separated ones by its section 16), untagged or with
 * an ICC profile (ICC.1:2022, B.4).
 * @param pixels row-major, a byte a channel, 255 = full ink or light.
 */
export function deviceTiff(
  pixels: Uint8Array,
  {
    width,
    height,
    channels,
    inks,
  }: {
    readonly width: number;
    readonly height: number;
    readonly channels: number;
    /** Names of the inks, told where there are more than four; by their number where none are given. */
    readonly inks?: readonly string[];
  },
  dpi: number,
  profile?: Uint8Array,
): Uint8Array<ArrayBuffer> {
  if (pixels.length !== width * height * channels)
    throw new RangeError(`${pixels.length} bytes for ${width} × ${height} pixels`);
  const directory = {
    t256: [width],
    t257: [height],
    t258: new Array<number>(channels).fill(8),
    t259: [1], // no compression
    t262: [MEANING[channels] ?? SEPARATED],
    t273: [PIXELS_AT],
    t277: [channels],
    t278: [height],
    t279: [pixels.length],
    t282: [[dpi, 1]],
    t283: [[dpi, 1]],
    t284: [1],
    t296: [2], // per inch
    ...(channels > 4
      ? {
          [`t${LIKE.inkSet}`]: [OTHER_INKS],
          [`t${LIKE.names}`]: [(inks ?? numbered(channels)).join('\0')],
          [`t${LIKE.count}`]: [channels],
        }
      : {}),
    // The encoder knows no profiles: the entry is made of one that it knows, and is the last as well.
    ...(profile === undefined ? {} : { [`t${KNOWN_TAG}`]: ['profile'] }),
  };
  const head = new Uint8Array(UTIF.encode([directory as unknown as UTIF.IFD]));
  const out = new Uint8Array(PIXELS_AT + pixels.length + (profile?.length ?? 0));
  out.set(head);
  out.set(pixels, PIXELS_AT);
  if (channels > 4) {
    const view = new DataView(out.buffer);
    view.setUint16(entryAt(view, LIKE.inkSet), INK_SET_TAG);
    view.setUint16(entryAt(view, LIKE.names), INK_NAMES_TAG);
    view.setUint16(entryAt(view, LIKE.count), INK_COUNT_TAG);
  }
  if (profile !== undefined) {
    const at = PIXELS_AT + pixels.length;
    out.set(profile, at);
    const view = new DataView(out.buffer);
    const entry = entryAt(view, KNOWN_TAG);
    view.setUint16(entry, PROFILE_TAG);
    view.setUint16(entry + 2, UNDEFINED_TYPE);
    view.setUint32(entry + 4, profile.length);
    view.setUint32(entry + 8, at);
  }
  return out;
}

const numbered = (channels: number): string[] => Array.from({ length: channels }, (_, i) => `Ink ${i + 1}`);

/** What is told of inks by name (TIFF 6.0, section 16), and entries of the same type that the encoder knows. */
const INK_SET_TAG = 332;
const INK_NAMES_TAG = 333;
const INK_COUNT_TAG = 334;
const LIKE = { inkSet: 297, names: 305, count: 320 } as const;
/** Copyright, a text. */
const KNOWN_TAG = 33432;
const PROFILE_TAG = 34675;
const UNDEFINED_TYPE = 7;
const ENTRY_BYTES = 12;

/** Where the entry of a tag stands in the first directory of a big-endian file. */
function entryAt(file: DataView, tag: number): number {
  const start = file.getUint32(4);
  for (let i = 0; i < file.getUint16(start); i++) {
    const entry = start + 2 + ENTRY_BYTES * i;
    if (file.getUint16(entry) === tag) return entry;
  }
  throw new RangeError(`no tag ${tag} in the directory`);
}
