import UTIF from 'utif2';

/** Where the pixels start: behind the directory, which is far shorter. */
const PIXELS_AT = 1024;

/** How TIFF calls what the channels are: grey from black, RGB, separated. */
const MEANING: Readonly<Record<1 | 3 | 4, number>> = { 1: 1, 3: 2, 4: 5 };

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
  }: { readonly width: number; readonly height: number; readonly channels: 1 | 3 | 4 },
  dpi: number,
  profile?: Uint8Array,
): Buffer {
  if (pixels.length !== width * height * channels)
    throw new RangeError(`${pixels.length} bytes for ${width} × ${height} pixels`);
  const directory = {
    t256: [width],
    t257: [height],
    t258: new Array<number>(channels).fill(8),
    t259: [1], // no compression
    t262: [MEANING[channels]],
    t273: [PIXELS_AT],
    t277: [channels],
    t278: [height],
    t279: [pixels.length],
    t282: [[dpi, 1]],
    t283: [[dpi, 1]],
    t284: [1],
    t296: [2], // per inch
    // The encoder knows no profiles: the entry is made of one that it knows, and is the last as well.
    ...(profile === undefined ? {} : { [`t${KNOWN_TAG}`]: ['profile'] }),
  };
  const head = new Uint8Array(UTIF.encode([directory as unknown as UTIF.IFD]));
  const out = Buffer.alloc(PIXELS_AT + pixels.length + (profile?.length ?? 0));
  out.set(head);
  out.set(pixels, PIXELS_AT);
  if (profile !== undefined) {
    const at = PIXELS_AT + pixels.length;
    out.set(profile, at);
    const entry = entryAt(out, KNOWN_TAG);
    out.writeUInt16BE(PROFILE_TAG, entry);
    out.writeUInt16BE(UNDEFINED_TYPE, entry + 2);
    out.writeUInt32BE(profile.length, entry + 4);
    out.writeUInt32BE(at, entry + 8);
  }
  return out;
}

/** Copyright, a text. */
const KNOWN_TAG = 33432;
const PROFILE_TAG = 34675;
const UNDEFINED_TYPE = 7;
const ENTRY_BYTES = 12;

/** Where the entry of a tag stands in the first directory of a big-endian file. */
function entryAt(file: Buffer, tag: number): number {
  const start = file.readUInt32BE(4);
  for (let i = 0; i < file.readUInt16BE(start); i++) {
    const entry = start + 2 + ENTRY_BYTES * i;
    if (file.readUInt16BE(entry) === tag) return entry;
  }
  throw new RangeError(`no tag ${tag} in the directory`);
}
