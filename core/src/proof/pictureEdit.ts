import { iptToLab, labToIpt, withinCones } from '../colour/ipt.ts';
import type { Lab } from '../colour/lab.ts';
import { WHITE_ICC } from '../colour/whitePoints.ts';
import { labFunctionInverse, labToXyz, xyzToLab } from '../colour/xyzToLab.ts';
import { createGamutMap, gamutBoundary } from '../gamut/gamutMap.ts';
import { deviceSurface } from '../gamut/deviceSurface.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { mostInk } from '../icc/mostInk.ts';
import { deviceToLab, labToDevice } from '../icc/profileTransform.ts';
import { success } from '../result.ts';
import type { Result } from '../result.ts';
import { ofStages } from '../transform/transform.ts';
import type { Transform } from '../transform/transform.ts';

/** How a copy of a picture differs from the original. */
export interface PictureEdit {
  /** Steps of twice the light, −2 to 2. */
  readonly exposure: number;
  /** −1 to 1: how much darker the quarter of the lightness gets, and lighter the three-quarter. */
  readonly contrast: number;
  /** L* that is added at 25 and at 75, −15 to 15. */
  readonly shadows: number;
  readonly lights: number;
  /** −1 (greys) to 1 (twice the chroma), at the hue that the eye sees. */
  readonly saturation: number;
}

export const NO_EDIT: PictureEdit = { exposure: 0, contrast: 0, shadows: 0, lights: 0, saturation: 0 };

/** Least and most of each part of an edit, and its steps. */
export const EDIT_RANGES: Readonly<
  Record<keyof PictureEdit, readonly [least: number, most: number, step: number]>
> = {
  exposure: [-2, 2, 0.1],
  contrast: [-1, 1, 0.05],
  shadows: [-15, 15, 1],
  lights: [-15, 15, 1],
  saturation: [-1, 1, 0.05],
};

/** L* that full contrast takes from the quarter and gives to the three-quarter. */
const CONTRAST = 8;
/** L* below which tone is a share of lightness. */
const DARK = 0.01;
/** Where the device's boundary begins to draw colours in: the rest stays. */
const INTO_GAMUT = { knee: 0.75, stretch: 0, over: 0 } as const;

export const changesPicture = (edit: PictureEdit): boolean =>
  Object.values(edit).some((value) => value !== 0);

/** Lab to the Lab of the copy, both relative to white. Light is scaled as a whole, so that colours stay what they are. */
export function editLink(edit: PictureEdit): Transform {
  const tone = toneOf(edit);
  const light = 2 ** edit.exposure;
  const chroma = 1 + edit.saturation;
  return mapped((lab) => {
    const [l, a, b] = scaledLight(lab, light);
    const at = Math.max(DARK, l);
    const toned = scaledLight([l, a, b], lightOf(tone(at)) / lightOf(at));
    if (chroma === 1) return toned;
    const [i, p, t] = labToIpt(withinCones(toned));
    return iptToLab([i, chroma * p, chroma * t]);
  });
}

const lightOf = (lightness: number): number => labFunctionInverse((lightness + 16) / 116);

function scaledLight(lab: Lab, by: number): Lab {
  if (by === 1) return lab;
  const [x, y, z] = labToXyz(lab, WHITE_ICC);
  return xyzToLab([by * x, by * y, by * z], WHITE_ICC);
}

/** L* through five points that never fall: black and white keep their places (Fritsch and Carlson 1980). */
function toneOf({ contrast, shadows, lights }: PictureEdit): (lightness: number) => number {
  const values = [0, 25 - CONTRAST * contrast + shadows, 50, 75 + CONTRAST * contrast + lights, 100];
  const step = 100 / (values.length - 1);
  const rises = values.slice(1).map((value, i) => (value - values[i]) / step);
  const slopes = values.map((_, i) => {
    const [before, after] = [rises[i - 1] ?? rises[i], rises[i] ?? rises[i - 1]];
    return before * after <= 0 ? 0 : (2 * before * after) / (before + after);
  });
  return (lightness) => {
    if (lightness >= 100) return lightness;
    const i = Math.min(values.length - 2, Math.max(0, Math.floor(lightness / step)));
    const t = lightness / step - i;
    const [u, v] = [1 - t, t * t];
    return (
      (1 + 2 * t) * u * u * values[i] +
      t * u * u * step * slopes[i] +
      v * (3 - 2 * t) * values[i + 1] -
      v * u * step * slopes[i + 1]
    );
  };
}

/**
 * Lab to Lab: colours beyond what a device prints are drawn in to its boundary along rays from a mid grey, those well
 * inside stay as they are, and none are laid upon each other. Relative to the paper, with the black already scaled.
 */
export function intoGamut(device: IccProfile): Result<Transform> {
  const known = drawnInto.get(device) ?? newIntoGamut(device);
  drawnInto.set(device, known);
  return known;
}

/** Of devices that were asked for: finding a boundary takes a fifth of a second, and sliders ask again and again. */
const drawnInto = new WeakMap<IccProfile, Result<Transform>>();

function newIntoGamut(device: IccProfile): Result<Transform> {
  const toLab = deviceToLab(device, 'relative');
  if (!toLab.ok) return toLab;
  const toInks = toLab.value.inputs === 3 ? undefined : labToDevice(device, 'relative');
  const totalInk = toInks?.ok === true ? mostInk(toInks.value) : undefined;
  const map = createGamutMap(gamutBoundary(deviceSurface(toLab.value, totalInk)), {
    ...{ sourceBlack: [0, 0, 0], deviceBlack: [0, 0, 0], strength: INTO_GAMUT },
  });
  return success(mapped((lab) => map.toDevice(lab)));
}

function mapped(of: (lab: Lab) => Lab): Transform {
  return ofStages({
    ...{ inputs: 3, outputs: 3, stride: 3 },
    stages: [
      (rows, count) => {
        for (let at = 0; at < 3 * count; at += 3) rows.set(of([rows[at], rows[at + 1], rows[at + 2]]), at);
      },
    ],
  });
}
