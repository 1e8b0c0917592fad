import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { labToIpt } from '@melto/core/colour/ipt';
import type { Lab } from '@melto/core/colour/lab';
import { WHITE_ICC } from '@melto/core/colour/whitePoints';
import { labToXyz } from '@melto/core/colour/xyzToLab';
import { readIcc } from '@melto/core/icc/readIcc';
import { createRandom } from '@melto/core/numerics/random';
import { changesPicture, editLink, NO_EDIT } from '@melto/core/proof/pictureEdit';
import type { PictureEdit } from '@melto/core/proof/pictureEdit';
import { softProof } from '@melto/core/proof/softProof';
import type { ProofChoice } from '@melto/core/proof/softProof';
import { unwrap } from '@melto/core/result';
import { transformed } from '@melto/core/transform/transform';
import { wrenModel, wrenProfileBytes } from './wrenProfile.ts';

const through = (edit: Partial<PictureEdit>, lab: Lab): Lab => {
  const [l, a, b] = transformed(editLink({ ...NO_EDIT, ...edit }), lab);
  return [l, a, b];
};

describe('a copy of a picture', () => {
  it('is the picture where nothing is changed', () => {
    expect(changesPicture(NO_EDIT)).toBe(false);
    expect(changesPicture({ ...NO_EDIT, lights: -1 })).toBe(true);
    const random = createRandom(5);
    for (let i = 0; i < 50; i++) {
      const lab: Lab = [100 * random.uniform(), 80 * (random.uniform() - 0.5), 80 * (random.uniform() - 0.5)];
      through({}, lab).forEach((value, axis) => expect(value).toBeCloseTo(lab[axis], 9));
    }
  });

  it('exposed by a step has twice the light in all of XYZ', () => {
    const lab: Lab = [40, 30, -20];
    const [own, more] = [labToXyz(lab, WHITE_ICC), labToXyz(through({ exposure: 1 }, lab), WHITE_ICC)];
    own.forEach((value, axis) => expect(more[axis] / value).toBeCloseTo(2, 9));
    const back = through({ exposure: -1 }, through({ exposure: 1 }, lab));
    back.forEach((value, axis) => expect(value).toBeCloseTo(lab[axis], 9));
  });

  it('keeps black, middle and white under contrast, and never turns lightness back', () => {
    for (const edit of [
      { contrast: 1, shadows: -15, lights: 15 },
      { contrast: -1, shadows: 15, lights: -15 },
      { contrast: 1, shadows: 15, lights: -15 },
    ]) {
      let before = -1;
      for (let l = 0; l <= 100; l += 0.5) {
        const [own] = through(edit, [l, 0, 0]);
        expect(own).toBeGreaterThanOrEqual(before);
        before = own;
      }
      expect(through(edit, [0, 0, 0])[0]).toBeCloseTo(0, 6);
      expect(through(edit, [50, 0, 0])[0]).toBeCloseTo(50, 6);
      expect(through(edit, [100, 0, 0])[0]).toBeCloseTo(100, 6);
    }
    expect(through({ contrast: 1 }, [25, 0, 0])[0]).toBeCloseTo(17, 6);
    expect(through({ contrast: 1 }, [75, 0, 0])[0]).toBeCloseTo(83, 6);
    expect(through({ shadows: 10 }, [25, 0, 0])[0]).toBeCloseTo(35, 6);
    expect(through({ lights: -10 }, [75, 0, 0])[0]).toBeCloseTo(65, 6);
  });

  it('without saturation is grey, and with more of it keeps the hue that the eye sees', () => {
    const grey = through({ saturation: -1 }, [50, 40, -60]);
    expect(Math.hypot(grey[1], grey[2])).toBeLessThan(0.01);
    const blue: Lab = [35, 30, -60];
    const [own, more] = [labToIpt(blue), labToIpt(through({ saturation: 0.4 }, blue))];
    expect(Math.atan2(more[2], more[1])).toBeCloseTo(Math.atan2(own[2], own[1]), 9);
    expect(Math.hypot(more[1], more[2]) / Math.hypot(own[1], own[2])).toBeCloseTo(1.4, 9);
  });
});

describe('a picture that is brought into gamut', () => {
  const choice: ProofChoice = { intent: 'relative', blackPoint: true, paperWhite: true, inkBlack: true };
  const srgb = unwrap(readIcc(readFileSync('/usr/share/color/icc/sRGB.icc')));
  const wren = unwrap(readIcc(wrenProfileBytes(2, wrenModel())));
  const printed = (own: ProofChoice, values: Float64Array): Float64Array => {
    const proof = unwrap(softProof(srgb, wren, own));
    return transformed(proof.compared, transformed(proof.toDevice, values));
  };
  /** Pairs of vivid colours and what is a little less vivid. */
  const pairs = (() => {
    const random = createRandom(8);
    const out: number[] = [];
    for (let i = 0; i < 400; i++) {
      const rgb = [random.uniform(), random.uniform(), random.uniform()];
      const [low, high] = [Math.min(...rgb), Math.max(...rgb)];
      const vivid = rgb.map((value) => (0.25 + 0.7 * random.uniform()) * ((value - low) / (high - low)));
      const grey = (vivid[0] + vivid[1] + vivid[2]) / 3;
      out.push(...vivid, ...vivid.map((value) => value + 0.12 * (grey - value)));
    }
    return Float64Array.from(out);
  })();
  const apart = (lab: Float64Array): number[] =>
    Array.from({ length: lab.length / 6 }, (_, i) =>
      Math.hypot(...[0, 1, 2].map((axis) => lab[6 * i + axis] - lab[6 * i + 3 + axis])),
    );

  it('keeps apart what lies upon each other otherwise, and leaves what prints as it is', () => {
    const asked = apart(transformed(unwrap(softProof(srgb, wren, choice)).original, pairs));
    const collapsed = (own: ProofChoice): number =>
      apart(printed(own, pairs)).filter((distance, i) => distance < 0.1 * asked[i]).length;
    const [clipped, drawn] = [collapsed(choice), collapsed({ ...choice, intoGamut: true })];
    expect(clipped).toBeGreaterThan(5);
    expect(drawn).toBe(0);
    const quiet = Float64Array.from([0.5, 0.5, 0.5, 0.6, 0.5, 0.45, 0.4, 0.45, 0.5]);
    const [as, in_] = [printed(choice, quiet), printed({ ...choice, intoGamut: true }, quiet)];
    as.forEach((value, at) => expect(Math.abs(value - in_[at])).toBeLessThan(0.6));
  });

  it('is so for the relative colorimetric intent only', () => {
    for (const intent of ['perceptual', 'saturation', 'absolute'] as const)
      expect(printed({ ...choice, intent, intoGamut: true }, pairs)).toEqual(
        printed({ ...choice, intent }, pairs),
      );
  });

  it('is compared with the copy, and the picture before stays the original', () => {
    const edited = unwrap(softProof(srgb, wren, { ...choice, edit: { ...NO_EDIT, exposure: -0.5 } }));
    const plain = unwrap(softProof(srgb, wren, choice));
    const grey = [0.5, 0.5, 0.5];
    expect(transformed(edited.before, grey)).toEqual(transformed(plain.before, grey));
    const [asked] = transformed(edited.original, grey);
    expect(asked).toBeLessThan(transformed(plain.original, grey)[0] - 5);
    expect(transformed(edited.asked, grey)[0]).toBeCloseTo(
      transformed(edited.compared, transformed(edited.toDevice, grey))[0],
      0,
    );
  });
});
