import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { labToScreen } from '@melto/core/colour/srgb';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { readIcc } from '@melto/core/icc/readIcc';
import { createRandom } from '@melto/core/numerics/random';
import { unwrap } from '@melto/core/result';
import { P3, spaceToLab } from '@melto/core/chain/sourceSpaces';
import { conversion } from '@melto/core/transform/conversion';
import { transformed } from '@melto/core/transform/transform';
import { bakePoints, bakeProof, drawProof, proofFigures } from '@melto/core/proof/bakedProof';
import { exactPicture } from '@melto/core/proof/exactPicture';
import { predictPrint } from '@melto/core/proof/predictPrint';
import { SAMPLE_PICTURES, samplePicture } from '@melto/core/proof/samplePicture';
import { labToScreenSignal } from '@melto/core/proof/screen';
import { PROOF_COLUMNS, proofRows, softProof } from '@melto/core/proof/softProof';
import type { ProofChoice } from '@melto/core/proof/softProof';
import { fitInkModel } from '@melto/core/characterise/inkModel';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { genericPressLab } from '@melto/core/charts/genericPress';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { labToXyz } from '@melto/core/colour/xyzToLab';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { otherVersion } from '@melto/core/profile/otherVersion';
import { separationOf } from '@melto/core/separate/separation';

import { transicc } from './transicc.ts';

const SRGB = '/usr/share/color/icc/sRGB.icc';
const CHOICE: ProofChoice = { intent: 'relative', blackPoint: true, paperWhite: true, inkBlack: true };
let srgb: IccProfile;
let press: IccProfile;
let folder = '';

beforeAll(() => {
  srgb = unwrap(readIcc(readFileSync(SRGB)));
  const { device } = makeCmykChart(300, 1, 3);
  const xyz = Float64Array.from({ length: (device.length / 4) * 3 });
  for (let i = 0; i < device.length / 4; i++)
    xyz.set(labToXyz(genericPressLab([...device.subarray(4 * i, 4 * i + 4)]), WHITE_D50_MEASURED), 3 * i);
  const paper = labToXyz(genericPressLab([0, 0, 0, 0]), WHITE_D50_MEASURED);
  const { profile } = buildInkProfile(fitInkModel(device, 4, xyz), {
    ...{ version: 4, tableSize: 'small', description: 'press', copyright: '', createdMs: 0, paperXyz: paper },
    separation: separationOf('medium', 3),
  });
  press = unwrap(readIcc(writeIcc(profile)));
  folder = mkdtempSync(join(tmpdir(), 'melto-proof-'));
});
afterAll(() => rmSync(folder, { recursive: true }));

const proofOf = (change: Partial<ProofChoice> = {}, source = srgb) =>
  unwrap(softProof(source, press, { ...CHOICE, ...change }));
const signal = (rows: Float64Array, row: number): number[] =>
  [0, 1, 2].map((c) => Math.round(255 * rows[PROOF_COLUMNS * row + c]));

describe('a soft proof', () => {
  it('goes the way of the print: the same inks, and their colour by the profile', () => {
    const values = Float64Array.from({ length: 3 * 200 }, createRandom(3).uniform);
    const proof = proofOf();
    const inks = new Float64Array(4 * 200);
    unwrap(conversion({ from: srgb, to: press, intent: 'relative', blackPoint: true })).apply(values, inks);
    const printed = new Float64Array(3 * 200);
    unwrap(conversion({ from: press, intent: 'absolute' })).apply(inks, printed);
    const rows = proofRows(proof, values);
    for (let i = 0; i < 200; i++) {
      const { rgb } = labToScreen([printed[3 * i], printed[3 * i + 1], printed[3 * i + 2]]);
      signal(rows, i).forEach((value, c) => expect(Math.abs(value - rgb[c])).toBeLessThanOrEqual(1));
      const sum = inks.subarray(4 * i, 4 * i + 4).reduce((a, b) => a + b, 0);
      expect(rows[PROOF_COLUMNS * i + 4]).toBeCloseTo(sum, 9);
    }
  });

  it('tells how far the print is from what was asked', () => {
    const values = Float64Array.of(0.5, 0.5, 0.5, 0, 1, 0);
    const proof = proofOf();
    const rows = proofRows(proof, values);
    const asked = new Float64Array(6);
    proof.asked.apply(values, asked);
    const inks = new Float64Array(8);
    proof.toDevice.apply(values, inks);
    const printed = new Float64Array(6);
    proof.compared.apply(inks, printed);
    expect([rows[3], rows[8]]).toEqual([...deltaE2000Rows(asked, printed)]);
    expect(rows[3]).toBeLessThan(3);
    expect(rows[8]).toBeGreaterThan(8);
  });

  it('shows the white of the paper, or that of the screen; the black of the inks, or that of the screen', () => {
    const ends = Float64Array.of(1, 1, 1, 0, 0, 0);
    const shown = (change: Partial<ProofChoice>): number[][] => {
      const rows = proofRows(proofOf(change), ends);
      return [signal(rows, 0), signal(rows, 1)];
    };
    const [paper, ink] = shown({});
    expect(Math.max(...paper)).toBeLessThan(250);
    expect(Math.min(...ink)).toBeGreaterThan(15);
    const [white, black] = shown({ paperWhite: false, inkBlack: false });
    expect(Math.min(...white)).toBeGreaterThan(252);
    expect(Math.max(...black)).toBeLessThan(3);
  });

  it('calls no colour lost for a black that is brought to the print’s', () => {
    const darks = Float64Array.from({ length: 3 * 40 }, (_, i) => 0.004 * Math.floor(i / 3));
    const [scaled, plain] = [true, false].map((blackPoint) => proofRows(proofOf({ blackPoint }), darks));
    const largest = (rows: Float64Array): number =>
      Math.max(...Array.from({ length: 40 }, (_, i) => rows[PROOF_COLUMNS * i + 3]));
    expect(largest(scaled)).toBeLessThan(1.5);
    expect(largest(plain)).toBeGreaterThan(3);
    const { mean, lost } = predictPrint(proofOf(), darks);
    // The print is lighter than the picture all the same.
    expect(mean).toBeGreaterThan(2);
    expect(lost.filter(({ deltaE }) => deltaE > 1.5)).toEqual([]);
  });

  it('predicts a print: figures of all colours, and the worst ones, each with its like', () => {
    const values = Float64Array.from(samplePicture('Seed catalogue', 60, 40), (value) => value / 255);
    const proof = proofOf();
    const { mean, p95, largest, over3, ink, lost } = predictPrint(proof, values);
    expect(mean).toBeLessThan(p95);
    expect(p95).toBeLessThanOrEqual(largest);
    expect(over3).toBeGreaterThan(0.3);
    expect(ink).toBeGreaterThan(0.5);
    expect(ink).toBeLessThanOrEqual(3);
    expect(lost.length).toBeGreaterThan(2);
    lost.forEach(({ deltaE, share, asked }, i) => {
      expect(share).toBeGreaterThan(0);
      expect(share).toBeLessThanOrEqual(1);
      if (i > 0) expect(deltaE).toBeLessThanOrEqual(lost[i - 1].deltaE);
      for (const other of lost.slice(0, i))
        expect(deltaE2000Rows([...asked], [...other.asked])[0]).toBeGreaterThanOrEqual(8);
    });
    expect(predictPrint(proof, new Float64Array(0))).toMatchObject({ mean: 0, p95: 0, lost: [] });
  });

  it('is refused where a profile leads one way only', () => {
    const oneWay = { ...press, tags: new Map([...press.tags].filter(([name]) => !name.startsWith('B2A'))) };
    const refused = softProof(srgb, oneWay, CHOICE);
    expect(refused.ok).toBe(false);
  });

  it('seen by another profile of the device goes the same way, and looks as that one says', () => {
    const values = Float64Array.of(0.8, 0.3, 0.2, 0.2, 0.6, 0.4);
    const other = unwrap(readIcc(readFileSync('/usr/share/color/icc/LStar-RGB.icc')));
    const [own, seen] = [undefined, other].map((by) => unwrap(softProof(srgb, srgb, CHOICE, { seenBy: by })));
    const device = transformed(own.toDevice, values);
    expect([...transformed(seen.toDevice, values)]).toEqual([...device]);
    const asOther = transformed(unwrap(conversion({ from: other, intent: 'relative' })), device);
    transformed(seen.compared, device).forEach((value, i) => expect(value).toBeCloseTo(asOther[i], 6));
    const rows = proofRows(seen, values);
    expect(rows[3]).toBeGreaterThan(2);
    expect(proofRows(own, values)[3]).toBeLessThan(0.01);
    expect(softProof(srgb, press, CHOICE, { seenBy: srgb })).toMatchObject({
      ok: false,
      issues: [{ path: 'seen by', found: '3 channels' }],
    });
  });

  it('of a screen of wide gamut keeps what sRGB cuts, and shows greys alike', () => {
    // Full green of P3, and a grey, by the primaries of SMPTE RP 431-2.
    const lab = transformed(spaceToLab(P3), [0, 1, 0, 0.5, 0.5, 0.5, 0.9, 0.2, 0.3]);
    const wide = transformed(labToScreenSignal('display-p3'), lab);
    [0, 1, 0, 0.5, 0.5, 0.5, 0.9, 0.2, 0.3].forEach((value, i) => expect(wide[i]).toBeCloseTo(value, 3));
    const narrow = transformed(labToScreenSignal(), lab);
    expect([...narrow.subarray(0, 3)].some((value) => value === 0)).toBe(true);
    expect(narrow[6] - wide[6]).toBeGreaterThan(0.02);
    for (let c = 3; c < 6; c++) expect(narrow[c]).toBeCloseTo(0.5, 3);
    const proof = unwrap(softProof(srgb, press, { ...CHOICE, screen: 'display-p3' }));
    const red = Float64Array.of(1, 0, 0);
    expect(transformed(proof.before, red)[0]).toBeLessThan(0.95);
    expect(transformed(proofOf().before, red)[0]).toBeCloseTo(1, 3);
  });

  it('by the profile of a screen goes to it as that profile says, and only to a display of red, green and blue', () => {
    const monitor = unwrap(readIcc(readFileSync('/usr/share/color/icc/LStar-RGB.icc')));
    const values = Float64Array.of(0.8, 0.3, 0.2, 0.5, 0.5, 0.5, 1, 0, 0);
    const before = (by?: IccProfile) =>
      transformed(unwrap(softProof(srgb, press, CHOICE, { monitor: by })).before, values);
    // By its own space a picture is seen as it is.
    before(srgb).forEach((value, i) => expect(value).toBeCloseTo(values[i], 3));
    const wanted = transformed(unwrap(conversion({ from: srgb, to: monitor, intent: 'relative' })), values);
    const own = before(monitor);
    expect(Math.abs(own[3] - values[3])).toBeGreaterThan(0.02);
    own.forEach((value, i) => expect(value).toBeCloseTo(wanted[i], 6));
    const refused = softProof(srgb, press, CHOICE, { monitor: press });
    expect(refused).toMatchObject({ ok: false, issues: [{ found: 'class prtr, CMYK' }] });
  });

  it('of the signal is that of sRGB to a hundredth of a level', () => {
    const lab = Float64Array.from({ length: 3 * 300 }, (_, i) => (i % 3 === 0 ? (i / 900) * 100 : 0));
    const out = new Float64Array(lab.length);
    labToScreenSignal().apply(lab, out);
    for (let i = 0; i < 300; i++) expect(Math.abs(255 * out[3 * i] - exact(lab[3 * i]))).toBeLessThan(0.02);
  });
});

/** Signal of a grey by IEC 61966-2-1. */
function exact(l: number): number {
  const y = l > 8 ? ((l + 16) / 116) ** 3 : l / 903.2963;
  return 255 * (y <= 0.0031308 ? 12.92 * y : 1.055 * y ** (1 / 2.4) - 0.055);
}

describe('black point compensation', () => {
  // Of version 2 the corner of the perceptual tables is looked for, of version 4 it is agreed.
  it.each([2, 4] as const)('agrees with LittleCMS to and from inks, version %i', (version) => {
    const other = version === 4 ? press : unwrap(readIcc(writeIcc(unwrap(otherVersion(press, version)))));
    const path = join(folder, `v${version}.icc`);
    writeFileSync(path, writeIcc(other));
    const uniform = createRandom(5).uniform;
    // Half of them dark, where black matters.
    const rows = (channels: number): Float64Array =>
      Float64Array.from({ length: 400 * channels }, (_, i) =>
        channels === 3 ? uniform() * (i < 600 ? 0.25 : 1) : i < 800 ? 1 - 0.3 * uniform() : uniform(),
      );
    for (const intent of ['perceptual', 'relative', 'saturation'] as const)
      for (const [from, to, inputs, outputs] of [
        [srgb, other, 3, 4],
        [other, srgb, 4, 3],
      ] as const) {
        const values = rows(inputs);
        const [input, output] = inputs === 3 ? [SRGB, path] : [path, SRGB];
        for (const blackPoint of [true, false]) {
          const own = transformed(unwrap(conversion({ from, to, intent, blackPoint })), values);
          const told = transicc(
            values.map((value) => value * (inputs === 3 ? 255 : 100)),
            inputs,
            [
              ...[
                `-t${['perceptual', 'relative', 'saturation'].indexOf(intent)}`,
                ...(blackPoint ? ['-b'] : []),
              ],
              ...[`-i${input}`, `-o${output}`],
            ],
          );
          const off = own.map((value, i) =>
            Math.abs(255 * value - (told[i] * 255) / (outputs === 3 ? 255 : 100)),
          );
          expect(Math.max(...off), `${intent}, ${inputs} to ${outputs}, ${blackPoint}`).toBeLessThan(0.5);
        }
      }
  });
});

describe('a baked proof', () => {
  it('is told by its points, which are as many for grey and inks however fine it is to be', () => {
    expect((['coarse', 'fine', 'finest'] as const).map((own) => bakePoints(3, own))).toEqual([13, 33, 65]);
    expect([bakePoints(1, 'coarse'), bakePoints(4, 'fine')]).toEqual([
      ...[bakePoints(1, 'finest'), bakePoints(4, 'finest')],
    ]);
    expect(() => bakePoints(2, 'fine')).toThrow('2 channels');
  });

  it('is coarse while something is moved: near, but not as near', () => {
    const proof = proofOf();
    const pixels = samplePicture('Seed catalogue', 120, 80);
    const rows = exactPicture(pixels, 3, PROOF_COLUMNS, (values) => proofRows(proof, values));
    const off = (['coarse', 'fine', 'finest'] as const).map((fineness) => {
      const out = new Uint8ClampedArray(4 * 120 * 80);
      drawProof(
        bakeProof(3, (values) => proofRows(proof, values), fineness),
        pixels,
        out,
      );
      let sum = 0;
      for (let i = 0; i < 120 * 80; i++)
        for (let c = 0; c < 3; c++) sum += Math.abs(out[4 * i + c] - 255 * rows[PROOF_COLUMNS * i + c]);
      return sum / (3 * 120 * 80);
    });
    expect(off[0]).toBeLessThan(3);
    expect(off[0]).toBeGreaterThan(off[1]);
    expect(off[1]).toBeGreaterThan(off[2]);
  });

  it.each(['relative', 'perceptual', 'absolute'] as const)('agrees with the exact one, %s', (intent) => {
    const proof = proofOf({ intent });
    const baked = bakeProof(3, (values) => proofRows(proof, values));
    for (const name of SAMPLE_PICTURES) {
      const pixels = samplePicture(name, 120, 80);
      const out = new Uint8ClampedArray(4 * 120 * 80);
      const sums = drawProof(baked, pixels, out);
      const rows = exactPicture(pixels, 3, PROOF_COLUMNS, (values) => proofRows(proof, values));
      let total = 0;
      let deltaE = 0;
      for (let i = 0; i < 120 * 80; i++) {
        for (let c = 0; c < 3; c++) total += Math.abs(out[4 * i + c] - 255 * rows[PROOF_COLUMNS * i + c]);
        deltaE += rows[PROOF_COLUMNS * i + 3];
      }
      expect(total / (3 * 120 * 80)).toBeLessThan(1);
      expect(Math.abs(proofFigures(sums).mean - deltaE / (120 * 80))).toBeLessThan(0.3);
    }
  });

  it('is straight between its points, whatever the order of the channels', () => {
    const plane = (values: Float64Array, channels: number): Float64Array => {
      const rows = values.length / channels;
      const out = new Float64Array(PROOF_COLUMNS * rows);
      for (let row = 0; row < rows; row++) {
        let sum = 0.1;
        for (let c = 0; c < channels; c++) sum += (0.05 + 0.04 * c) * values[row * channels + c];
        out.set([sum, 1 - sum, sum / 2, 4 * sum, sum], PROOF_COLUMNS * row);
      }
      return out;
    };
    const random = createRandom(5);
    for (const channels of [1, 3, 4]) {
      const baked = bakeProof(channels, (values) => plane(values, channels));
      const pixels = Uint8Array.from({ length: channels * 500 }, () => Math.floor(256 * random.uniform()));
      const out = new Uint8ClampedArray(2000);
      drawProof(baked, pixels, out);
      const wanted = plane(
        Float64Array.from(pixels, (value) => value / 255),
        channels,
      );
      for (let i = 0; i < 500; i++)
        for (let c = 0; c < 3; c++)
          expect(Math.abs(out[4 * i + c] - 255 * wanted[PROOF_COLUMNS * i + c])).toBeLessThan(0.51);
    }
    expect(() => bakeProof(2, (values) => values)).toThrow(/2 channels/);
  });

  it('counts ΔE00 and ink over the pixels', () => {
    const rows = (values: Float64Array) =>
      Float64Array.from(
        { length: PROOF_COLUMNS * values.length },
        (_, i) => [0, 0, 0, 4, 2][i % PROOF_COLUMNS] * values[Math.floor(i / PROOF_COLUMNS)],
      );
    const baked = bakeProof(1, rows);
    const figures = proofFigures(drawProof(baked, Uint8Array.of(0, 0, 0, 255), new Uint8ClampedArray(16)));
    expect(figures.beyond).toEqual([0.25, 0.25, 0]);
    expect(figures.p95).toBeCloseTo(4, 0);
    expect(figures.meanInk).toBeCloseTo(0.5, 6);
    expect(figures.mostInk).toBeCloseTo(2, 6);
    expect(proofFigures(drawProof(baked, new Uint8Array(0), new Uint8ClampedArray(0))).mean).toBe(0);
  });
});

describe('an exact picture', () => {
  it('has each different colour worked out once, in 8 and 16 bits', () => {
    for (const pixels of [
      Uint8Array.of(1, 2, 3, 9, 9, 9, 1, 2, 3, 3, 2, 1),
      Uint16Array.of(1, 2, 3, 900, 9, 9, 1, 2, 3, 3, 2, 1),
    ]) {
      let seen = 0;
      const out = exactPicture(pixels, 3, 1, (values) => {
        seen += values.length / 3;
        return Float64Array.from({ length: values.length / 3 }, (_, i) => values[3 * i]);
      });
      expect(seen).toBe(3);
      const whole = pixels instanceof Uint16Array ? 65535 : 255;
      [0, 1, 2, 3].forEach((pixel) => expect(out[pixel]).toBeCloseTo(pixels[3 * pixel] / whole, 6));
    }
  });

  it('keeps its order through many colours', () => {
    const count = 60_000;
    const pixels = Uint8Array.from(
      { length: 4 * count },
      (_, i) => (Math.floor(i / 4) >> (8 * (i % 3))) & 255,
    );
    const out = exactPicture(pixels, 4, 1, (values) =>
      Float64Array.from(
        { length: values.length / 4 },
        (_, i) => 255 * (values[4 * i] + 256 * values[4 * i + 1]),
      ),
    );
    for (let pixel = 0; pixel < count; pixel += 97)
      expect(Math.round(out[pixel])).toBe(pixels[4 * pixel] + 256 * pixels[4 * pixel + 1]);
  });
});
