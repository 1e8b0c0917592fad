import { expose, transfer } from 'comlink';
import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import type { Lab } from '@melto/core/colour/lab';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { labToDevice } from '@melto/core/icc/profileTransform';
import { readIcc } from '@melto/core/icc/readIcc';
import { createRandom } from '@melto/core/numerics/random';
import { bakeProof, drawProof, proofFigures } from '@melto/core/proof/bakedProof';
import type { BakedProof, ProofOverlay } from '@melto/core/proof/bakedProof';
import { exactPicture } from '@melto/core/proof/exactPicture';
import { predictPrint } from '@melto/core/proof/predictPrint';
import type { PredictedPrint } from '@melto/core/proof/predictPrint';
import { samplePicture } from '@melto/core/proof/samplePicture';
import type { SamplePicture } from '@melto/core/proof/samplePicture';
import type { ScreenSpace } from '@melto/core/proof/screen';
import { proofRows, softProof } from '@melto/core/proof/softProof';
import type { ProofChoice, SoftProof } from '@melto/core/proof/softProof';
import { issueText } from '@melto/core/result';
import { deviceTiff } from '@melto/core/picture/deviceTiff';
import { chain, transformed } from '@melto/core/transform/transform';
import type { Transform } from '@melto/core/transform/transform';
import { problemWords } from '@/ui/api';
import { readPicture } from './pictureFile';
import { overlayDraw } from './proofOverlay';
import { WRITTEN_SIDE } from './writtenSide';

/** A picture on the screen, RGBA. */
export interface Drawn {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray<ArrayBuffer>;
  readonly screen: ScreenSpace;
}

export interface DrawnProof extends Drawn {
  readonly figures: ReturnType<typeof proofFigures>;
  /** Channels of the device; three are light, and no ink. */
  readonly inks: number;
  readonly tookMs: number;
}

/** One place of a picture on its way. */
export interface ProofPoint {
  /** Values of the picture and of the device, 0..1. */
  readonly source: readonly number[];
  readonly device: readonly number[];
  /** What is asked, what compares with it, and the print as it is; Lab. */
  readonly asked: Lab;
  readonly compared: Lab;
  readonly printed: Lab;
  readonly deltaE: number;
}

export interface RankedProof extends Drawn {
  readonly key: string;
  readonly predicted: PredictedPrint;
}

export interface ProofedPicture {
  readonly width: number;
  readonly height: number;
  readonly channels: number;
  readonly values: Uint8Array;
}

/** What can be written of a proof: the print for a screen, the values for the device, the copy in the picture's own space. */
export type ProofFile = 'print' | 'device' | 'copy';

/** What is written is of: the file at its size, or one of Melto's own drawn anew. */
export type WrittenPicture = File | SamplePicture;

const SAMPLE_SIDE = 2000;
const DPI = 300;

/** Colours that a prediction looks at. */
const SAMPLES = 3000;
const THUMB = 190;

const profiles = new Map<string, IccProfile>();
const bakes = new Map<string, BakedProof>();
const MOST_BAKES = 8;
let picture: ProofedPicture | undefined;
let source: { readonly key: string; readonly profile: IccProfile; readonly bytes: Uint8Array } | undefined;
let current: SoftProof | undefined;

function known(key: string, name: string, bytes: Uint8Array): IccProfile | string {
  const before = profiles.get(key);
  if (before !== undefined) return before;
  const read = readIcc(bytes);
  if (!read.ok) return `${name}: ${read.issues.map(issueText).join('; ')}`;
  profiles.set(key, read.value);
  return read.value;
}

/** A profile as it comes to the worker. */
export interface GivenProfile {
  readonly key: string;
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** What a picture is proofed by. */
export interface AskedProof extends GivenProfile {
  readonly choice: ProofChoice;
  /** Of the same device, for the light that its print is seen in, where that is another. */
  readonly seenBy?: GivenProfile;
}

/** The proof of the picture on a device, and where it comes from: a sentence where there is none. */
function proofOf({ key, name, bytes, choice, seenBy }: AskedProof): SoftProof | string {
  if (source === undefined || picture === undefined) return 'No picture is open.';
  const device = known(key, name, bytes);
  if (typeof device === 'string') return device;
  const seen = seenBy === undefined ? undefined : known(seenBy.key, seenBy.name, seenBy.bytes);
  if (typeof seen === 'string') return seen;
  const proof = softProof(source.profile, device, choice, seen);
  if (!proof.ok) return `${name}: ${proof.issues.map(issueText).join('; ')}`;
  return proof.value;
}

function baked({ key, choice, seenBy }: AskedProof, proof: SoftProof): BakedProof {
  const name = JSON.stringify([source?.key, key, choice, seenBy?.key]);
  const before = bakes.get(name);
  if (before !== undefined) return before;
  const made = bakeProof(proof.channels, (values) => proofRows(proof, values));
  if (bakes.size >= MOST_BAKES) bakes.delete(bakes.keys().next().value ?? '');
  bakes.set(name, made);
  return made;
}

const screenOf = ({ screen = 'srgb' }: ProofChoice): ScreenSpace => screen;

/** A picture at the size it is written with. */
async function wholePicture(of: WrittenPicture, { width, height }: ProofedPicture): Promise<ProofedPicture> {
  if (of instanceof File) return readPicture(of, WRITTEN_SIDE);
  const large = { width: SAMPLE_SIDE, height: Math.round((SAMPLE_SIDE * height) / width) };
  return { ...large, channels: 3, values: samplePicture(of, large.width, large.height) };
}

/** From the picture's values to those of the file. */
function wayOf(file: ProofFile, proof: SoftProof, own: IccProfile): Transform | string {
  if (file === 'device') return proof.toDevice;
  if (file === 'print') return chain(proof.toDevice, proof.shown);
  const back = labToDevice(own, 'relative');
  return back.ok
    ? chain(proof.original, back.value)
    : `The copy cannot be written in the picture's own space: ${back.issues.map(issueText).join('; ')}.`;
}

const api = {
  openSample(name: SamplePicture, width: number, height: number): void {
    picture = { width, height, channels: 3, values: samplePicture(name, width, height) };
  },
  openPicture(opened: ProofedPicture): void {
    picture = opened;
  },
  /** Takes the profile that the picture's values are meant by, and draws it as it is meant; a sentence where it cannot. */
  before(key: string, name: string, bytes: Uint8Array, screen: ScreenSpace): Drawn | string {
    if (picture === undefined) return 'No picture is open.';
    const profile = known(key, name, bytes);
    if (typeof profile === 'string') return profile;
    // The picture itself takes any device: it is only looked at.
    const alone = softProof(profile, profile, {
      intent: 'relative',
      ...{ blackPoint: false, paperWhite: false, inkBlack: true, screen },
    });
    if (!alone.ok) return `${name}: ${alone.issues.map(issueText).join('; ')}`;
    const { channels, width, height } = picture;
    if (alone.value.channels !== channels)
      return `${name} is for ${alone.value.channels} channels, the picture has ${channels}.`;
    source = { key, profile, bytes };
    current = undefined;
    const signal = exactPicture(picture.values, channels, 3, (values) =>
      transformed(alone.value.before, values),
    );
    const rgba = new Uint8ClampedArray(4 * width * height);
    for (let pixel = 0; pixel < width * height; pixel++) {
      for (let c = 0; c < 3; c++) rgba[4 * pixel + c] = 255 * signal[3 * pixel + c];
      rgba[4 * pixel + 3] = 255;
    }
    return transfer({ width, height, rgba, screen }, [rgba.buffer]);
  },
  proof(asked: AskedProof, overlay: ProofOverlay): DrawnProof | string {
    const started = performance.now();
    const proof = proofOf(asked);
    if (typeof proof === 'string') return proof;
    if (picture === undefined) return 'No picture is open.';
    current = proof;
    const { width, height, values } = picture;
    const rgba = new Uint8ClampedArray(4 * width * height);
    const sums = drawProof(baked(asked, proof), values, rgba, overlayDraw(overlay, proof.inks));
    return transfer(
      {
        width,
        height,
        rgba,
        screen: screenOf(asked.choice),
        figures: proofFigures(sums),
        inks: proof.inks,
        tookMs: performance.now() - started,
      },
      [rgba.buffer],
    );
  },
  /** The exact way of one pixel. */
  at(x: number, y: number): ProofPoint | undefined {
    if (picture === undefined || current === undefined) return undefined;
    const { width, height, channels, values } = picture;
    if (!(x >= 0 && y >= 0 && x < width && y < height)) return undefined;
    const from = (Math.floor(y) * width + Math.floor(x)) * channels;
    const own = Float64Array.from(values.subarray(from, from + channels), (value) => value / 255);
    const device = transformed(current.toDevice, own);
    const lab = (of: SoftProof['asked'], rows: Float64Array): Lab => {
      const [l, a, b] = transformed(of, rows);
      return [l, a, b];
    };
    const [asked, compared] = [lab(current.asked, own), lab(current.compared, device)];
    return {
      ...{ source: [...own], device: [...device], asked, compared },
      printed: lab(current.printed, device),
      deltaE: deltaE2000(asked, compared),
    };
  },
  /**
   * Each pixel by the exact way as a TIFF that carries the profile its values are meant by; a sentence where it cannot be.
   * @param screen bytes of the profile of sRGB.
   */
  async write(
    asked: AskedProof,
    of: WrittenPicture,
    file: ProofFile,
    screen: Uint8Array,
  ): Promise<Uint8Array<ArrayBuffer> | string> {
    // A file of the print carries sRGB, whatever it is looked at on.
    const { name, bytes, choice } = asked;
    const proof = proofOf({ ...asked, choice: { ...choice, screen: 'srgb' } });
    if (typeof proof === 'string') return proof;
    if (source === undefined || picture === undefined) return 'No picture is open.';
    const own = source;
    const way = wayOf(file, proof, own.profile);
    if (typeof way === 'string') return way;
    const { outputs } = way;
    if (outputs !== 1 && outputs !== 3 && outputs !== 4)
      return `${name} has ${outputs} channels: a TIFF is written of 1, 3 or 4.`;
    let whole: ProofedPicture;
    try {
      whole = await wholePicture(of, picture);
    } catch (error) {
      return problemWords(error);
    }
    const rows = exactPicture(whole.values, whole.channels, outputs, (values) => transformed(way, values));
    const pixels = Uint8Array.from(rows, (value) => Math.round(255 * value));
    const profile = { print: screen, device: bytes, copy: own.bytes }[file];
    const tiff = deviceTiff(
      pixels,
      { width: whole.width, height: whole.height, channels: outputs },
      DPI,
      profile,
    );
    return transfer(tiff, [tiff.buffer]);
  },
  /** What the picture comes to on a device, with a small proof of it. */
  rank(asked: AskedProof): RankedProof | string {
    const { key, choice } = asked;
    const proof = proofOf(asked);
    if (typeof proof === 'string') return proof;
    if (picture === undefined) return 'No picture is open.';
    const { width, height, channels, values } = picture;
    const random = createRandom(1);
    const count = Math.min(SAMPLES, width * height);
    const sample = new Float64Array(count * channels);
    for (let i = 0; i < count; i++) {
      const pixel = Math.floor(random.uniform() * width * height);
      for (let c = 0; c < channels; c++) sample[i * channels + c] = values[pixel * channels + c] / 255;
    }
    const step = Math.max(1, width / THUMB);
    const [w, h] = [Math.floor(width / step), Math.floor(height / step)];
    const small = new Uint8Array(w * h * channels);
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++)
        for (let c = 0; c < channels; c++)
          small[(y * w + x) * channels + c] =
            values[(Math.floor(y * step) * width + Math.floor(x * step)) * channels + c];
    const rgba = new Uint8ClampedArray(4 * w * h);
    drawProof(baked(asked, proof), small, rgba);
    return transfer(
      { key, width: w, height: h, rgba, screen: screenOf(choice), predicted: predictPrint(proof, sample) },
      [rgba.buffer],
    );
  },
};

export type ProofWorker = typeof api;

expose(api);
