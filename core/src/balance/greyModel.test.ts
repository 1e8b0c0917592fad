import { describe, expect, it } from 'vitest';
import type { Lab } from '../colour/lab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import { fitGreyModel } from './greyModel.ts';
import { greyCyan, greyMagentaYellow } from './greyTriplet.ts';
import type { NeutralReading } from './neutralScales.ts';

/** A press whose greys are a little red and blue; magenta pulls to a*, yellow to b*. */
function press([c, m, y]: readonly [number, number, number]): [number, number, number] {
  const grey = greyMagentaYellow(c);
  return [
    95 - 72 * c - 20 * (m - grey) - 4 * (y - grey),
    1.5 * c + 38 * (m - grey) - 4 * (y - grey),
    -3 * c - 6 * (m - grey) + 45 * (y - grey),
  ];
}

const TONES = [0, 0.05, 0.1, 0.2, 0.25, 0.3, 0.4, 0.5, 0.6, 0.7, 0.75, 0.8, 0.9, 1];

function reading(): NeutralReading {
  const step = (tone: number, lab: [number, number, number]) => ({
    tone,
    lab,
    xyz: [...labToXyz(lab as Lab, WHITE_D50_MEASURED)],
    rows: [0, 1],
  });
  const variations = [0.25, 0.5, 0.75].flatMap((tone) =>
    [
      [0.03, 0],
      [-0.03, 0],
      [0, 0.03],
      [0, -0.03],
      [0.03, 0.03],
    ].map(([dm, dy]) => {
      const grey = greyMagentaYellow(tone);
      const cmy: [number, number, number] = [tone, grey + dm, grey + dy];
      return { cmy, lab: press(cmy), row: 0 };
    }),
  );
  const paperLab = press([0, 0, 0]);
  return {
    paperXyz: labToXyz(paperLab as Lab, WHITE_D50_MEASURED),
    paperLab,
    cmy: TONES.map((tone) => {
      const grey = greyMagentaYellow(tone);
      return step(tone, press([tone, grey, grey]));
    }),
    k: TONES.map((tone) => step(tone, [95 - 78 * tone, 0, 0])),
    variations,
    wrong: [],
  };
}

describe('the triplet of a grey', () => {
  it.each([
    [0.25, 0.189],
    [0.5, 0.4],
    [0.75, 0.661],
    [1, 1],
    [0, 0],
  ])('of cyan %d is %d', (cyan, other) => expect(greyMagentaYellow(cyan)).toBeCloseTo(other, 3));

  it('grows with cyan, and its inverse gives the cyan back', () => {
    for (let cyan = 0.01; cyan < 1; cyan += 0.01) {
      expect(greyMagentaYellow(cyan)).toBeGreaterThan(greyMagentaYellow(cyan - 0.01));
      expect(greyCyan(greyMagentaYellow(cyan))).toBeCloseTo(cyan, 9);
    }
  });
});

describe('a model of the greys', () => {
  const model = fitGreyModel(reading());

  it('gives the scale and its variations back', () => {
    expect(model.residual).toBeLessThan(0.05);
    for (const tone of [0.1, 0.33, 0.5, 0.66, 0.9]) {
      const grey = greyMagentaYellow(tone);
      model.lab([tone, grey, grey]).forEach((value, axis) => {
        expect(value).toBeCloseTo(press([tone, grey, grey])[axis], 1);
      });
    }
  });

  it('knows what a change of magenta and yellow does between the tones that were varied', () => {
    for (const tone of [0.35, 0.6]) {
      const grey = greyMagentaYellow(tone);
      const moved: [number, number, number] = [tone, grey + 0.02, grey - 0.02];
      model
        .lab(moved)
        .forEach((value, axis) => expect(Math.abs(value - press(moved)[axis])).toBeLessThan(0.15));
    }
  });

  it('finds the inks of a neutral grey, and the press then prints it', () => {
    for (const tone of [0.2, 0.4, 0.6, 0.8]) {
      const wanted: [number, number, number] = [95 - 72 * tone, 0, 0];
      const inks = model.inks(wanted, tone);
      press(inks).forEach((value, axis) => expect(Math.abs(value - wanted[axis])).toBeLessThan(0.25));
      // Redder greys than wanted need less magenta.
      expect(inks[1]).toBeLessThan(greyMagentaYellow(inks[0]));
    }
  });

  it('stays within the inks that there are', () => {
    for (const wanted of [
      [120, 0, 0],
      [-20, 0, 0],
      [50, 90, 90],
    ] as const)
      for (const ink of model.inks(wanted, 0.5)) {
        expect(ink).toBeGreaterThanOrEqual(0);
        expect(ink).toBeLessThanOrEqual(1);
      }
  });

  it('is not made of too few variations', () => {
    const few = { ...reading(), variations: reading().variations.slice(0, 5) };
    expect(() => fitGreyModel(few)).toThrow(/5 greys with small changes, expected at least 6/);
  });
});
