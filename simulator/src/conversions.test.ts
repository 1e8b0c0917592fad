import { RGB } from '@melto/core/device/process';
import { describe, expect, it } from 'vitest';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { makeRgbChart } from '@melto/core/charts/rgbChart';
import { patchXyz } from '@melto/core/cgats/patchColours';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { mean } from '@melto/core/numerics/statistics';
import { SIMULATED_STOCKS } from './data/stocks.ts';
import { WREN_PRINTER } from './inkPrinter.ts';
import { decodePrintState } from './printState.ts';
import { simulatedPrintPath } from './simulatedPrintPath.ts';
import { simulateSheets } from './simulateSheets.ts';
import type { SheetsToSimulate } from './simulateSheets.ts';
import { inkStateOf } from './variation.ts';
import { convertForWren, WREN_CONVERSIONS } from './wrenConversions.ts';
import { wrenTruthXyz } from './wrenTruth.ts';

const { device } = makeRgbChart(100, 2);
const layout = layoutChart(RGB, device, 'a4', 2);
const base: SheetsToSimulate = {
  device: 'wren',
  stock: 'quay-proof-200',
  printMode: 'fine',
  side: 'printing',
  seed: 3,
  mode: 'M1',
  noise: 'instrument',
  values: device,
  layout,
};

function lab(changes: Partial<SheetsToSimulate>): Float64Array {
  const { grid, spectra } = simulateSheets({ ...base, ...changes });
  const xyz = patchXyz({
    ids: new Array<string>(100).fill(''),
    spectra: { grid, values: spectra },
    conditions: {},
    notes: [],
  });
  if (xyz === undefined) throw new Error('no colours');
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, xyz);
  return xyz;
}

describe('conversions left on', () => {
  it.each(Object.keys(WREN_CONVERSIONS))(
    '%s makes greys neutral relative to the paper, white stays white',
    (name) => {
      const greys = Float64Array.of(1, 1, 1, 0.7, 0.7, 0.7, 0.5, 0.5, 0.5);
      const printed = wrenTruthXyz(
        'quay-proof-200',
        'fine',
        convertForWren(name, 'quay-proof-200', 'fine', greys),
      );
      const paper = wrenTruthXyz('quay-proof-200', 'fine', [1, 1, 1]);
      for (let i = 0; i < 9; i++) printed[i] = (printed[i] / paper[i % 3]) * WHITE_D50_MEASURED[i % 3];
      xyzRowsToLab(printed, WHITE_D50_MEASURED, printed);
      expect(printed[0]).toBeGreaterThan(99);
      for (const i of [1, 2]) expect(Math.hypot(printed[3 * i + 1], printed[3 * i + 2])).toBeLessThan(1);
      expect(printed[3]).toBeGreaterThan(printed[6]);
    },
  );

  it('differ from each other and from raw values by far more than noise', () => {
    const raw = lab({});
    const sheets = Object.keys(WREN_CONVERSIONS).map((conversion) =>
      lab({ fault: { kind: 'colour-management-on', conversion } }),
    );
    for (const [i, sheet] of sheets.entries()) {
      expect(mean(deltaE2000Rows(raw, sheet))).toBeGreaterThan(4);
      for (const other of sheets.slice(i + 1)) expect(mean(deltaE2000Rows(other, sheet))).toBeGreaterThan(1);
    }
    expect(() => convertForWren('unknown', 'quay-proof-200', 'fine', device)).toThrow(
      'expected one of office relative',
    );
  });
});

describe('sheets', () => {
  it('are the same for the same seed and vary a little with another', () => {
    expect(lab({})).toEqual(lab({}));
    const difference = mean(deltaE2000Rows(lab({}), lab({ seed: 4 })));
    expect(difference).toBeGreaterThan(0.1);
    expect(difference).toBeLessThan(1);
  });

  it('stand around the truth: the mean of many is nearer than each', () => {
    const truth = wrenTruthXyz('quay-proof-200', 'fine', device);
    xyzRowsToLab(truth, WHITE_D50_MEASURED, truth);
    const sheets = Array.from({ length: 12 }, (_, i) => lab({ seed: 20 + 31 * i }));
    const middle = truth.map((_, i) => mean(sheets.map((sheet) => sheet[i])));
    const each = mean(sheets.map((sheet) => mean(deltaE2000Rows(truth, sheet))));
    expect(mean(deltaE2000Rows(truth, middle))).toBeLessThan(each * 0.75);
    expect(each).toBeLessThan(0.8);
  });

  it('with swapped or reversed strips hold the same colours in other places', () => {
    const sorted = (values: Float64Array): string[] =>
      Array.from({ length: 100 }, (_, i) => values[3 * i].toFixed(0)).sort();
    const swapped = lab({ fault: { kind: 'strips-swapped' } });
    const moved = Array.from({ length: 100 }, (_, i) => i).filter(
      (i) => Math.abs(swapped[3 * i] - lab({})[3 * i]) > 3,
    ).length;
    expect(moved).toBeGreaterThan(15);
    expect(moved).toBeLessThanOrEqual(2 * layout.pages[0][0].length);
    const agree = sorted(swapped).filter(
      (value, i) => Math.abs(Number(value) - Number(sorted(lab({}))[i])) <= 2,
    ).length;
    expect(agree).toBeGreaterThan(95);
  });
});

describe('print path', () => {
  const request = {
    device: 'wren',
    stock: 'quay-proof-200',
    mode: 'fine',
    process: RGB,
    timeMs: 5,
    sheetIndex: 1,
    seed: 9,
  } as const;

  it('remembers what matters and refuses what the device cannot do', () => {
    expect(decodePrintState(simulatedPrintPath.print({ ...request, side: 'wrong' }))).toMatchObject({
      side: 'wrong',
      printedMs: 5,
      seed: 9,
    });
    expect(() => simulatedPrintPath.print({ ...request, device: 'plover' })).toThrow('no simulated device');
    expect(() => simulatedPrintPath.print({ ...request, stock: 'felt' })).toThrow('no simulated stock');
    expect(() => simulatedPrintPath.print({ ...request, mode: 'slow' })).toThrow('no mode "slow" on Wren');
    expect(() => decodePrintState('{"version":2}')).toThrow('version 2');
  });

  it('prints wetter than it dries and smoothly across the sheet', () => {
    const stock = SIMULATED_STOCKS['quay-proof-200'];
    const at = (readMs: number, across: number) =>
      inkStateOf(WREN_PRINTER, stock, {
        device: 'wren',
        seed: 1,
        sheetIndex: 1,
        printedMs: 0,
        readMs,
        across,
        along: 0.5,
      });
    expect(at(0, 0.5).density[0]).toBeGreaterThan(at(1e8, 0.5).density[0] + 0.03);
    for (let x = 0; x < 1; x += 0.05)
      expect(Math.abs(at(1e8, x + 0.05).density[1] - at(1e8, x).density[1])).toBeLessThan(0.006);
  });
});
