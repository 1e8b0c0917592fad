import { expose, transfer } from 'comlink';
import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import type { Lab } from '@melto/core/colour/lab';
import { colorantNames } from '@melto/core/icc/colorantNames';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { labToDevice } from '@melto/core/icc/profileTransform';
import { readIcc } from '@melto/core/icc/readIcc';
import { createRandom } from '@melto/core/numerics/random';
import {
  bakePoints,
  bakeProof,
  bakeSteps,
  drawProof,
  proofFigures,
  sumProof,
} from '@melto/core/proof/bakedProof';
import type { BakedProof, Fineness, ProofOverlay } from '@melto/core/proof/bakedProof';
import { exactPicture } from '@melto/core/proof/exactPicture';
import { monitorSignal } from '@melto/core/proof/monitor';
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

export type ProofFigures = ReturnType<typeof proofFigures>;

export interface DrawnProof extends Drawn {
  readonly figures: ProofFigures;
  /** Channels of the device; three are light, and no ink. */
  readonly inks: number;
}

/** A proof that is yet to be drawn. */
export interface BakedPrint {
  readonly baked: BakedProof;
  readonly fineness: Fineness;
  readonly screen: ScreenSpace;
  readonly inks: number;
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

/** What has come, by key; a sentence where it is no profile. */
const profiles = new Map<string, ReadProfile | string>();
const bakes = new Map<string, BakedProof>();
const MOST_BAKES = 8;
let picture: ProofedPicture | undefined;
let source: (ReadProfile & { readonly key: string }) | undefined;
let current: SoftProof | undefined;

interface ReadProfile {
  readonly profile: IccProfile;
  readonly bytes: Uint8Array;
}

const known = ({ key, name }: GivenProfile): ReadProfile | string =>
  profiles.get(key) ?? `${name} has not come. Choose it again.`;

const knownIf = (given: GivenProfile | undefined): ReadProfile | string | undefined =>
  given === undefined ? undefined : known(given);

/** A profile that the worker has taken. */
export interface GivenProfile {
  readonly key: string;
  readonly name: string;
}

/** What a picture is proofed by. */
export interface AskedProof extends GivenProfile {
  readonly choice: ProofChoice;
  /** Of the same device, for the light that its print is seen in, where that is another. */
  readonly seenBy?: GivenProfile;
  /** Of the screen, where values go to it as they are. */
  readonly monitor?: GivenProfile;
}

/** The proof of the picture on a device, and where it comes from: a sentence where there is none. */
function proofOf({ choice, seenBy, monitor, ...printedBy }: AskedProof): SoftProof | string {
  if (source === undefined || picture === undefined) return 'No picture is open.';
  const [device, seen, screen] = [known(printedBy), knownIf(seenBy), knownIf(monitor)];
  if (typeof device === 'string') return device;
  if (typeof seen === 'string') return seen;
  if (typeof screen === 'string') return screen;
  const proof = softProof(source.profile, device.profile, choice, {
    seenBy: seen?.profile,
    monitor: screen?.profile,
  });
  if (!proof.ok) return `${printedBy.name}: ${proof.issues.map(issueText).join('; ')}`;
  return proof.value;
}

const bakeKey = ({ key, choice, seenBy, monitor }: AskedProof, points: number): string =>
  JSON.stringify([source?.key, key, choice, seenBy?.key, monitor?.key, points]);

function keepBake(name: string, made: BakedProof): BakedProof {
  if (bakes.size >= MOST_BAKES) bakes.delete(bakes.keys().next().value ?? '');
  bakes.set(name, made);
  return made;
}

function baked(asked: AskedProof, proof: SoftProof): BakedProof {
  const name = bakeKey(asked, bakePoints(proof.channels, 'fine'));
  return (
    bakes.get(name) ??
    keepBake(
      name,
      bakeProof(proof.channels, (values) => proofRows(proof, values)),
    )
  );
}

/** Counts what was asked to be baked: an older wish is left where a newer one comes. */
let wish = 0;

/** The same a slice at a time; undefined where something newer was wished meanwhile. */
async function bakedMeanwhile(
  asked: AskedProof,
  proof: SoftProof,
  fineness: Fineness,
): Promise<BakedProof | undefined> {
  const own = ++wish;
  const name = bakeKey(asked, bakePoints(proof.channels, fineness));
  const before = bakes.get(name);
  if (before !== undefined) return before;
  const steps = bakeSteps(proof.channels, (values) => proofRows(proof, values), fineness);
  for (;;) {
    const step = steps.next();
    if (step.done === true) return keepBake(name, step.value);
    // What was sent meanwhile is taken now.
    await new Promise((resolve) => setTimeout(resolve));
    if (own !== wish) return undefined;
  }
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
  /** Takes a profile, once for its key; whoever asks by it is told what is wrong with it. */
  take({ key, name }: GivenProfile, bytes: Uint8Array): void {
    const read = readIcc(bytes);
    profiles.set(
      key,
      read.ok ? { profile: read.value, bytes } : `${name}: ${read.issues.map(issueText).join('; ')}`,
    );
  },
  /** Why a profile is none that a screen is drawn by; undefined where it is one. */
  screenProblem(given: GivenProfile): string | undefined {
    const own = known(given);
    if (typeof own === 'string') return own;
    const made = monitorSignal(own.profile);
    return made.ok ? undefined : `${given.name}: ${made.issues.map(issueText).join('; ')}`;
  },
  /** @returns its values, as they are drawn. */
  openSample(name: SamplePicture, width: number, height: number): ProofedPicture {
    picture = { width, height, channels: 3, values: samplePicture(name, width, height) };
    return picture;
  },
  openPicture(opened: ProofedPicture): void {
    picture = opened;
  },
  /** Takes the profile that the picture's values are meant by, and draws it as it is meant; a sentence where it cannot. */
  before(meantBy: GivenProfile, screen: ScreenSpace, monitor?: GivenProfile): Drawn | string {
    if (picture === undefined) return 'No picture is open.';
    const { key, name } = meantBy;
    const [own, shownBy] = [known(meantBy), knownIf(monitor)];
    if (typeof own === 'string') return own;
    const { profile } = own;
    if (typeof shownBy === 'string') return shownBy;
    // The picture itself takes any device: it is only looked at.
    const alone = softProof(
      profile,
      profile,
      { intent: 'relative', ...{ blackPoint: false, paperWhite: false, inkBlack: true, screen } },
      { monitor: shownBy?.profile },
    );
    if (!alone.ok) return `${name}: ${alone.issues.map(issueText).join('; ')}`;
    const { channels, width, height } = picture;
    if (alone.value.channels !== channels)
      return `${name} is for ${alone.value.channels} channels, the picture has ${channels}.`;
    source = { ...own, key };
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
  /** What the picture's colours come to, for a GPU that draws it; undefined where a newer wish has come. */
  async bake(asked: AskedProof, fineness: Fineness): Promise<BakedPrint | string | undefined> {
    const proof = proofOf(asked);
    if (typeof proof === 'string') return proof;
    current = proof;
    const made = await bakedMeanwhile(asked, proof, fineness);
    return made && { baked: made, fineness, screen: screenOf(asked.choice), inks: proof.inks };
  },
  /** Figures of the print over all pixels of the picture. */
  figures(asked: AskedProof): ProofFigures | string {
    const proof = proofOf(asked);
    if (typeof proof === 'string') return proof;
    if (picture === undefined) return 'No picture is open.';
    return proofFigures(sumProof(baked(asked, proof), picture.values));
  },
  proof(asked: AskedProof, overlay: ProofOverlay): DrawnProof | string {
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
    const { choice } = asked;
    const proof = proofOf({ ...asked, choice: { ...choice, screen: 'srgb' }, monitor: undefined });
    if (typeof proof === 'string') return proof;
    if (source === undefined || picture === undefined) return 'No picture is open.';
    const device = known(asked);
    if (typeof device === 'string') return device;
    const own = source;
    const way = wayOf(file, proof, own.profile);
    if (typeof way === 'string') return way;
    const { outputs } = way;
    let whole: ProofedPicture;
    try {
      whole = await wholePicture(of, picture);
    } catch (error) {
      return problemWords(error);
    }
    const rows = exactPicture(whole.values, whole.channels, outputs, (values) => transformed(way, values));
    const pixels = Uint8Array.from(rows, (value) => Math.round(255 * value));
    const profile = { print: screen, device: device.bytes, copy: own.bytes }[file];
    const tiff = deviceTiff(
      pixels,
      {
        ...{ width: whole.width, height: whole.height, channels: outputs },
        inks: colorantNames(device.profile, outputs),
      },
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
