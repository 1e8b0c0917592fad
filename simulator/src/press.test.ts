import { CMYK } from '@melto/core/device/process';
import { describe, expect, it } from 'vitest';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { mean } from '@melto/core/numerics/statistics';
import { isToneCurve, straightCurve } from '@melto/core/tone/toneCurve';
import { deviceTruthXyz } from './deviceTruth.ts';
import { DIRECT_PRESSES, simulatedDevice } from './devices.ts';
import { evennessAt } from './inkPrinter.ts';
import { createStripReader } from './instruments/stripReader.ts';
import { simulatedPrintPath } from './simulatedPrintPath.ts';
import { spectrumOf } from './testing/spectrumOf.ts';

describe.each(DIRECT_PRESSES.map((press) => [press.name, press] as const))('%s', (_, press) => {
  const [mode] = press.modes;
  const lab = (stock: (typeof press.stocks)[number], values: number[]): Float64Array => {
    const out = deviceTruthXyz(press, stock, mode, values);
    xyzRowsToLab(out, WHITE_D50_MEASURED, out);
    return out;
  };

  it('prints inks of the hues people expect, darker on gloss than on uncoated stock', () => {
    const solids = lab('lantern-gloss-150', [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1]);
    const hue = (i: number): number =>
      ((Math.atan2(solids[3 * i + 2], solids[3 * i + 1]) * 180) / Math.PI + 360) % 360;
    expect(hue(0)).toBeGreaterThan(220);
    expect(hue(0)).toBeLessThan(250);
    expect(hue(1)).toBeGreaterThan(330);
    expect(hue(2)).toBeGreaterThan(85);
    expect(hue(2)).toBeLessThan(100);
    expect(lab('fenland-smooth-120', [0, 0, 0, 1])[0]).toBeGreaterThan(solids[9] + 5);
  });

  it('gains tone, and its own curves take that back', () => {
    const curves = press.factoryCurves?.('lantern-gloss-150', mode) ?? [];
    expect(curves).toHaveLength(4);
    for (const curve of curves) {
      expect(isToneCurve(curve)).toBe(true);
      expect(curve[128]).toBeLessThan(0.48);
    }
  });

  it.each(press.conversions)('%s puts other inks into black alone and leaves paper bare', (name) => {
    const converted = press.convert(
      name,
      'lantern-gloss-150',
      mode,
      Float64Array.of(0, 0, 0, 0, 0, 0, 0, 0.5),
    );
    expect(Math.max(...converted.subarray(0, 4))).toBeLessThan(0.02);
    expect(converted[4] + converted[5] + converted[6]).toBeGreaterThan(0.2);
    expect(() => press.convert('unknown', 'lantern-gloss-150', mode, new Float64Array(4))).toThrow(
      'expected one of',
    );
  });

  it('is uneven across its width with a mean of nought, and answers to corrections', () => {
    for (const ink of press.printer.evenness) {
      const places = Array.from({ length: 400 }, (_, i) => evennessAt(ink, (i + 0.5) / 400));
      expect(Math.abs(mean(places))).toBeLessThan(0.006);
      expect(Math.max(...places) - Math.min(...places)).toBeGreaterThan(0.03);
    }
  });
});

describe('front end', () => {
  const print = (changes: object): string =>
    simulatedPrintPath.print({
      device: 'heron',
      stock: 'lantern-gloss-150',
      mode: 'standard',
      process: CMYK,
      timeMs: 0,
      sheetIndex: 1,
      seed: 5,
      ...changes,
    });
  const solid = Float64Array.of(0, 0.6, 0, 0);
  const lightness = (printState: string): number =>
    spectrumOf(createStripReader('r', 'R'), printState, solid);

  it('applies what is loaded, does nothing when linear, and what it likes when told to fail', () => {
    const linear = lightness(print({}));
    expect(lightness(print({ curves: [0, 1, 2, 3].map(() => straightCurve()) }))).toBeCloseTo(linear, 2);
    expect(lightness(print({ curves: [0, 1, 2, 3].map(() => straightCurve(0.5)) }))).toBeGreaterThan(
      linear + 0.05,
    );
    expect(lightness(print({ frontEnd: 'factory curves' }))).toBeGreaterThan(linear + 0.01);
    const missing = print({ curves: [0, 1, 2, 3].map(() => straightCurve(0.5)), frontEnd: 'no curves' });
    expect(lightness(missing)).toBeCloseTo(linear, 2);
  });

  it('moves the density of a zone when told to', () => {
    const zones = [0, 1, 2, 3].map(() => new Array<number>(12).fill(0).map((_, i) => (i < 6 ? 0.1 : -0.1)));
    const strip = Float64Array.from({ length: 12 * 4 }, (_, i) => (i % 4 === 3 ? 1 : 0));
    const ends = (printState: string): number[] => {
      const reader = createStripReader('r', 'R');
      return [0, 11].map((place) => spectrumOf(reader, printState, strip, place));
    };
    const [left, right] = ends(print({}));
    const [moreInk, lessInk] = ends(print({ zones }));
    expect(moreInk).toBeLessThan(left);
    expect(lessInk).toBeGreaterThan(right);
  });

  it('is unknown for devices that do not exist', () =>
    expect(() => simulatedDevice('plover')).toThrow('no simulated device "plover"'));
});
