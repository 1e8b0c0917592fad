import type { IccProfile } from '../icc/iccTypes.ts';
import { summariseErrors } from '../numerics/statistics.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import type { PlacedJob } from './placedJob.ts';
import { NEARLY } from './placeList.ts';
import { printColours, summarisePrint } from './predictPrint.ts';
import type { PredictedPrint, PrintedColours } from './predictPrint.ts';
import { softProof } from './softProof.ts';

/** Some pixels of a picture, with the profile that its values are meant by. */
export interface SampledPicture {
  readonly name: string;
  readonly profile: IccProfile;
  /** Row-major × channels of its profile, 0..1; each stands for as much of its area. */
  readonly values: Float64Array;
}

/** A page of pictures on one device. */
export interface PlacedPictures extends PlacedJob {
  /** In the order of the page. */
  readonly pictures: readonly (PredictedPrint & { readonly name: string })[];
  /** Share of the pixels that are over 3 ΔE00. */
  readonly over3: number;
}

/** Relative colorimetric with the black brought to the print's, as pictures are proofed first. */
const CHOICE = { intent: 'relative', blackPoint: true, paperWhite: false, inkBlack: true } as const;

/** What the pictures of a page come to on a device by its profile; a failure names the picture that cannot be printed. */
export function placePictures(
  device: IccProfile,
  pictures: readonly SampledPicture[],
): Result<PlacedPictures> {
  const printed: PrintedColours[] = [];
  let inks = 0;
  for (const { name, profile, values } of pictures) {
    const proof = softProof(profile, device, CHOICE);
    if (!proof.ok) return proof;
    if (values.length === 0 || values.length % proof.value.channels !== 0)
      return failure({
        code: 'pictures.channels',
        path: name,
        expected: `pixels of ${proof.value.channels} channels, as its profile has`,
        found: `${values.length} values`,
      });
    inks = proof.value.inks;
    printed.push(printColours(proof.value, values));
  }
  const errors = joined(printed.map((own) => own.errors));
  const all = joined(printed.map((own) => own.device));
  const amounts = new Array<number>(inks).fill(0);
  for (let i = 0; i < all.length; i++) amounts[i % inks] += all[i] / errors.length;
  return success({
    pictures: printed.map((own, i) => ({ name: pictures[i].name, ...summarisePrint(own) })),
    ...summariseErrors(errors),
    over3: errors.filter((error) => error > NEARLY).length / errors.length,
    ink: amounts.reduce((a, b) => a + b, 0),
    amounts,
  });
}

function joined(parts: readonly Float64Array[]): Float64Array {
  const out = new Float64Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}
