import { deltaE2000Of } from '../colour/deltaE2000.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { deviceToLab, mediaWhite } from '../icc/profileTransform.ts';
import type { RenderingIntent } from '../icc/profileTransform.ts';
import { WHITE_ICC } from '../colour/whitePoints.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { blackScaling, conversion } from '../transform/conversion.ts';
import { blackPoint } from '../transform/links.ts';
import { sourceBlack } from '../transform/profileBlacks.ts';
import { chain, transformed } from '../transform/transform.ts';
import type { Transform } from '../transform/transform.ts';
import { changesPicture, editLink, intoGamut, NO_EDIT } from './pictureEdit.ts';
import type { PictureEdit } from './pictureEdit.ts';
import { monitorSignal } from './monitor.ts';
import { labToScreenSignal } from './screen.ts';
import type { ScreenSpace } from './screen.ts';

/** How a picture goes to a device, and how its print is shown. */
export interface ProofChoice {
  readonly intent: RenderingIntent;
  /** Black of the picture is brought to that of the print on the way (ISO 18619). */
  readonly blackPoint: boolean;
  /** What the print is seen beside: a light of its own, or the white of the screen. */
  readonly paperWhite: boolean;
  /** The print's black as light as it is; else it is shown as black as the screen's. */
  readonly inkBlack: boolean;
  /** What it is drawn for; sRGB where nothing is said. */
  readonly screen?: ScreenSpace;
  /** What a copy of the picture is changed by before it is printed; the original where nothing is. */
  readonly edit?: PictureEdit;
  /**
   * Colours that do not print are drawn in on the way, with the black, so that none are laid upon each other. For the
   * relative colorimetric intent: the others draw them in by themselves, or are not to.
   */
  readonly intoGamut?: boolean;
}

/** What becomes of a picture's values on a device, by the exact way of each. */
export interface SoftProof {
  readonly channels: number;
  /** Channels of the device. */
  readonly inks: number;
  /** Values of the picture to those of the device, 0..1. */
  readonly toDevice: Transform;
  /** Values of the device to Lab: of the print, absolute, and as it compares with the picture. */
  readonly printed: Transform;
  readonly compared: Transform;
  /** Values of the picture to the Lab that is asked for, of the same kind as `compared`. */
  readonly asked: Transform;
  /** The same without what the way does to its black: the copy, where the picture is changed. */
  readonly original: Transform;
  /** Values of the device to the screen's signal. */
  readonly shown: Transform;
  /** Values of the picture to the screen's signal, as if it were not printed. */
  readonly before: Transform;
}

/** Columns of what a proof gives of a colour: signal of the screen, ΔE00 of print to picture, sum of the device values. */
export const PROOF_COLUMNS = 5;

/** What a proof is looked at by, where that is not as usual. */
export interface ProofView {
  /** Profile of the same device for the light that its print is seen in; that which it is printed by where none is given. */
  readonly seenBy?: IccProfile;
  /** Profile of the screen, to which values go as they are; the screen is the space of the choice where none is given. */
  readonly monitor?: IccProfile;
}

/** The links of a soft proof; a failure says which cannot be made. */
export function softProof(
  source: IccProfile,
  device: IccProfile,
  {
    intent,
    blackPoint: compensated,
    paperWhite,
    inkBlack,
    screen,
    edit = NO_EDIT,
    intoGamut: drawn,
  }: ProofChoice,
  { seenBy = device, monitor }: ProofView = {},
): Result<SoftProof> {
  const drawsIn = drawn === true && intent === 'relative';
  const scaled = intent !== 'absolute' && (compensated || drawsIn);
  const inserted: Transform[] = changesPicture(edit) ? [editLink(edit)] : [];
  const end: Transform[] = [];
  if (drawsIn) {
    const into = intoGamut(device);
    if (!into.ok) return into;
    end.push(into.value);
  }
  const toDevice = conversion({
    ...{ from: source, to: device, intent, blackPoint: scaled },
    ...{ edits: inserted, mapped: end },
  });
  if (!toDevice.ok) return toDevice;
  // Colours are compared relative to their whites, unless the picture's white is asked for as it is.
  const seen = intent === 'absolute' ? 'absolute' : 'relative';
  const own = deviceToLab(source, seen);
  if (!own.ok) return own;
  const original = chain(own.value, ...inserted);
  // Where black is brought to the print's, no colour is lost by that alone.
  let asked: Transform = original;
  if (seen === 'relative' && (scaled || intent !== 'relative')) {
    const scaling = blackScaling(source, seenBy, 'relative');
    if (!scaling.ok) return scaling;
    asked = chain(original, scaling.value);
  }
  const compared = deviceToLab(seenBy, seen);
  if (!compared.ok) return compared;
  if (compared.value.inputs !== toDevice.value.outputs)
    return failure({
      code: 'proof.channels',
      path: 'seen by',
      expected: `a profile of ${toDevice.value.outputs} channels, as the one that it is printed by`,
      found: `${compared.value.inputs} channels`,
    });
  const printed = deviceToLab(seenBy, 'absolute');
  if (!printed.ok) return printed;
  const relative = deviceToLab(seenBy, 'relative');
  if (!relative.ok) return relative;
  const links = [paperWhite ? printed.value : relative.value];
  if (!inkBlack) {
    // To which black is brought: what a colour that is asked darker reaches beyond it is black as well.
    const black = sourceBlack(seenBy, 'relative');
    if (!black.ok) return black;
    const white = paperWhite ? mediaWhite(seenBy) : WHITE_ICC;
    const [x, y, z] = black.value.map((value, i) => (value * white[i]) / WHITE_ICC[i]);
    links.push(blackPoint([x, y, z], [0, 0, 0]));
  }
  const signal = monitor === undefined ? success(labToScreenSignal(screen)) : monitorSignal(monitor);
  if (!signal.ok) return signal;
  return success({
    channels: toDevice.value.inputs,
    inks: toDevice.value.outputs,
    toDevice: toDevice.value,
    printed: printed.value,
    compared: compared.value,
    asked,
    original,
    shown: chain(links[0], ...links.slice(1), signal.value),
    before: chain(own.value, signal.value),
  });
}

/** Exact proof of rows of a picture's values: five columns a row. */
export function proofRows(proof: SoftProof, values: ArrayLike<number>): Float64Array {
  const rows = values.length / proof.channels;
  const device = transformed(proof.toDevice, values);
  const shown = transformed(proof.shown, device);
  const asked = transformed(proof.asked, values);
  const printed = transformed(proof.compared, device);
  const out = new Float64Array(PROOF_COLUMNS * rows);
  for (let row = 0; row < rows; row++) {
    const at = 3 * row;
    let sum = 0;
    for (let ink = 0; ink < proof.inks; ink++) sum += device[row * proof.inks + ink];
    out.set(
      [
        ...[shown[at], shown[at + 1], shown[at + 2]],
        deltaE2000Of(asked[at], asked[at + 1], asked[at + 2], printed[at], printed[at + 1], printed[at + 2]),
        sum,
      ],
      PROOF_COLUMNS * row,
    );
  }
  return out;
}
