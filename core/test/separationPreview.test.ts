import { beforeAll, describe, expect, it } from 'vitest';
import { fitInkModel, inkModelLab } from '@melto/core/characterise/inkModel';
import type { InkModel } from '@melto/core/characterise/inkModel';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import type { ForwardGrid } from '@melto/core/profile/forwardGrid';
import { separationOf } from '@melto/core/separate/separation';
import { LEAF, previewGrid, previewSeparation } from '@melto/core/separate/separationPreview';
import { deviceTruthXyz } from '@melto/simulator/deviceTruth';
import { simulatedDevice } from '@melto/simulator/devices';

let grid: ForwardGrid;
let model: InkModel;
beforeAll(() => {
  const { device } = makeCmykChart(400, 3, 3);
  model = fitInkModel(
    device,
    4,
    deviceTruthXyz(simulatedDevice('heron'), 'lantern-gloss-150', 'standard', device),
  );
  grid = previewGrid(model);
});
const of = (hueDeg: number, picture: readonly number[] = [], shares: readonly number[] = []) =>
  previewSeparation(
    grid,
    separationOf('medium', 3),
    hueDeg,
    Float64Array.from(picture),
    Float64Array.from(shares),
  );

describe('the preview of a separation', () => {
  it('has a leaf of one hue, light above and neutral at the left, each colour as its inks print', () => {
    const { leaf } = of(30);
    expect(leaf.inGamut).toHaveLength(LEAF.lightness * LEAF.chroma);
    const inside = [...leaf.inGamut.keys()].filter((i) => leaf.inGamut[i] === 1);
    expect(inside.length).toBeGreaterThan(leaf.inGamut.length / 6);
    const printed = new Float64Array(leaf.lab.length);
    inkModelLab(model, leaf.inks, printed);
    for (const i of inside) {
      const [row, column] = [Math.floor(i / LEAF.chroma), i % LEAF.chroma];
      const lightness = 100 - (100 * (row + 0.5)) / LEAF.lightness;
      const chroma = (LEAF.most * column) / (LEAF.chroma - 1);
      // What is asked for is printed, as nearly as a coarse table tells.
      expect(Math.abs(leaf.lab[3 * i] - lightness)).toBeLessThan(4);
      expect(Math.hypot(leaf.lab[3 * i + 1], leaf.lab[3 * i + 2])).toBeGreaterThan(chroma - 3);
      expect(Math.abs(printed[3 * i] - leaf.lab[3 * i])).toBeLessThan(5);
      if (chroma > 15)
        expect(
          Math.abs((Math.atan2(leaf.lab[3 * i + 2], leaf.lab[3 * i + 1]) * 180) / Math.PI - 30),
        ).toBeLessThan(12);
      expect(leaf.inks.subarray(4 * i, 4 * i + 4).reduce((sum, ink) => sum + ink, 0)).toBeLessThanOrEqual(
        3.0001,
      );
    }
    // Neutral darks take black, lights none.
    const blackAt = (row: number): number => leaf.inks[4 * row * LEAF.chroma + 3];
    expect(blackAt(1)).toBe(0);
    expect(blackAt(LEAF.lightness - 3)).toBeGreaterThan(0.3);
  });

  it('weighs the ink of a picture by the area of its colours', () => {
    const white = of(0, [100, 0, 0], [1]).picture;
    const dark = of(0, [30, 0, 0], [1]).picture;
    const both = of(0, [100, 0, 0, 30, 0, 0], [0.75, 0.25]).picture;
    white.mean.forEach((ink, c) => expect(both.mean[c]).toBeCloseTo(0.75 * ink + 0.25 * dark.mean[c], 9));
    expect(both.most).toBeCloseTo(Math.max(white.most, dark.most), 9);
    expect(dark.most).toBeCloseTo(
      dark.mean.reduce((sum, ink) => sum + ink, 0),
      9,
    );
    expect(of(0).picture).toMatchObject({ most: 0 });
  });
});
