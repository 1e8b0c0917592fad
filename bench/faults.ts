import { CMYK, RGB, channelCount } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import type { PatchSpectra } from '@melto/core/cgats/patchSet';
import { layoutCopies } from '@melto/core/charts/layoutCopies';
import type { ChartLayout } from '@melto/core/charts/layoutChart';
import { repeatPatches } from '@melto/core/charts/namedPatches';
import { makeRampChart } from '@melto/core/charts/rampChart';
import type { StockFinish } from '@melto/core/faults/detectFaults';
import type { ExpectedRamps } from '@melto/core/faults/rampResponse';
import { nativeResponse } from '@melto/core/tone/nativeResponse';
import type { ToneCurves } from '@melto/core/tone/toneCurve';
import { SIMULATED_STOCKS } from '@melto/simulator/data/stocks';
import type { SimulatedStockId } from '@melto/simulator/data/stocks';
import { DIRECT_PRESSES } from '@melto/simulator/devices';
import type { SimulatedDevice } from '@melto/simulator/simulatedDevice';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { makeRgbChart } from '@melto/core/charts/rgbChart';
import { patchXyz } from '@melto/core/cgats/patchColours';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { neutralDensity } from '@melto/core/density/density';
import { detectFaults } from '@melto/core/faults/detectFaults';
import type { FaultKind } from '@melto/core/faults/fault';
import { CATALOGUE } from '@melto/simulator/catalogue';
import { simulateSheets } from '@melto/simulator/simulateSheets';
import type { SimulatedFault } from '@melto/simulator/simulateSheets';
import { printTable } from './table.ts';

const SHEETS = 100;
const SIZES = [100, 240, 900];

/** Faults on a condition's first reading: 100 seeded sheets each over three stocks and both print modes. */
export function faults(): void {
  const wren = CATALOGUE.find(({ id }) => id === 'wren');
  if (wren === undefined) throw new Error('no Wren');
  const cases: { name: string; expected: FaultKind | undefined; fault?: SimulatedFault; side?: 'wrong' }[] = [
    { name: 'no fault', expected: undefined },
    ...wren.conversions.map((conversion) => ({
      name: `colour management on: ${conversion}`,
      expected: 'colour-management-on' as const,
      fault: { kind: 'colour-management-on' as const, conversion },
    })),
    { name: 'wrong side', expected: 'wrong-side', side: 'wrong' },
    { name: 'strips swapped', expected: 'strips-swapped', fault: { kind: 'strips-swapped' } },
    { name: 'strip backwards', expected: 'strip-backwards', fault: { kind: 'strip-backwards' } },
  ];
  const rows = cases.map(({ name, expected, fault, side }) => {
    let right = 0;
    let others = 0;
    for (let seed = 1; seed <= SHEETS; seed++) {
      const stock = wren.stocks[seed % wren.stocks.length];
      const { device } = makeRgbChart(SIZES[seed % SIZES.length], seed);
      const layout = layoutChart(RGB, device, 'a4', seed);
      const { grid, spectra } = simulateSheets({
        device: 'wren',
        stock: stock.id,
        printMode: wren.modes[seed % wren.modes.length],
        side: side ?? 'printing',
        seed,
        mode: 'M1',
        noise: 'instrument',
        fault,
        values: device,
        layout,
      });
      const kinds = kindsOf(RGB, device, { grid, values: spectra }, layout, stock.finish);
      if (expected === undefined ? kinds.length === 0 : kinds.includes(expected)) right++;
      if (kinds.some((kind) => kind !== expected)) others++;
    }
    return [name, `${right}`, `${others}`];
  });
  printTable(
    `Faults named rightly, of ${SHEETS} sheets each`,
    ['fault', 'named rightly', 'with another one'],
    rows,
  );
}

function kindsOf(
  process: Process,
  device: Float64Array,
  spectra: PatchSpectra,
  layout: ChartLayout,
  finish: StockFinish,
  ramps?: ExpectedRamps,
): FaultKind[] {
  const count = device.length / channelCount(process);
  const xyz = patchXyz({ ids: new Array<string>(count).fill(''), spectra, conditions: {}, notes: [] });
  if (xyz === undefined) throw new Error('no colours');
  const lab = new Float64Array(xyz.length);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
  return detectFaults({
    process,
    device,
    xyz,
    spectra,
    lab,
    density: Float64Array.from({ length: count }, (_, i) => neutralDensity(xyz[3 * i + 1])),
    strips: layout.pages.flat(),
    finish,
    ramps,
  }).map(({ kind }) => kind);
}

/** Ramps of the CMYK devices: curves that nobody asked for or that are missing, colour management left on. */
export function rampFaults(): void {
  const presses = DIRECT_PRESSES;
  const conversions = presses[0].conversions;
  type Case = {
    readonly name: string;
    readonly expected: FaultKind | undefined;
    readonly fault?: SimulatedFault;
    /** Earlier readings told the device's own response. */
    readonly known?: boolean;
    /** Curves that were asked for. */
    readonly curves?: boolean;
    readonly side?: 'wrong';
  };
  const cases: Case[] = [
    { name: 'no fault, first reading', expected: undefined },
    { name: 'no fault, response known', expected: undefined, known: true },
    { name: 'no fault, through its curves', expected: undefined, known: true, curves: true },
    ...conversions.map((conversion): Case => ({
      name: `colour management on: ${conversion}`,
      expected: 'colour-management-on',
      fault: { kind: 'colour-management-on', conversion },
    })),
    {
      name: 'curves on, first reading',
      expected: 'curves-on',
      fault: { kind: 'front-end', does: 'factory curves' },
    },
    {
      name: 'curves on, response known',
      expected: 'curves-on',
      fault: { kind: 'front-end', does: 'factory curves' },
      known: true,
    },
    {
      name: 'curves missing',
      expected: 'curves-missing',
      fault: { kind: 'front-end', does: 'no curves' },
      known: true,
      curves: true,
    },
    { name: 'wrong side', expected: 'wrong-side', side: 'wrong' },
    { name: 'strips swapped', expected: 'strips-swapped', fault: { kind: 'strips-swapped' } },
    { name: 'strip backwards', expected: 'strip-backwards', fault: { kind: 'strip-backwards' } },
  ];
  const steps = [11, 16, 21, 33];
  const rows = cases.map(({ name, expected, fault, known, curves, side }) => {
    let right = 0;
    let others = 0;
    for (let seed = 1; seed <= SHEETS; seed++) {
      const press = presses[seed % presses.length];
      const stock = press.stocks[seed % press.stocks.length];
      const mode = press.modes[seed % press.modes.length];
      const copies = 1 + (seed % 3);
      const chart = makeRampChart(CMYK, { steps: steps[seed % steps.length], totalInk: seed % 2 === 0 });
      const { device } = repeatPatches(chart, copies);
      const layout = layoutCopies(CMYK, chart.device, copies, 'a4', seed);
      const asked = curves === true ? press.factoryCurves?.(stock, mode) : undefined;
      const { grid, spectra } = simulateSheets({
        device: press.id,
        stock,
        printMode: mode,
        side: side ?? 'printing',
        seed: seed + 1000,
        mode: 'M1',
        noise: 'instrument',
        fault,
        curves: asked,
        values: device,
        layout,
      });
      const { finish } = SIMULATED_STOCKS[stock];
      const ramps =
        known === true ? { native: nativeOf(press, stock, mode, seed), curves: asked } : undefined;
      const kinds = kindsOf(CMYK, device, { grid, values: spectra }, layout, finish, ramps);
      if (expected === undefined ? kinds.length === 0 : kinds.includes(expected)) right++;
      if (kinds.some((kind) => kind !== expected)) others++;
    }
    return [name, `${right}`, `${others}`];
  });
  printTable(
    `Faults of ramps, CMYK devices, of ${SHEETS} sheets each`,
    ['fault', 'named rightly', 'with another one'],
    rows,
  );
}

/** Response as an earlier, sound reading of the condition told it. */
function nativeOf(press: SimulatedDevice, stock: SimulatedStockId, mode: string, seed: number): ToneCurves {
  const chart = makeRampChart(CMYK, { steps: 21, totalInk: false });
  const layout = layoutCopies(CMYK, chart.device, 1, 'a4', seed);
  const { grid, spectra } = simulateSheets({
    device: press.id,
    stock,
    printMode: mode,
    side: 'printing',
    seed: seed + 5000,
    mode: 'M1',
    noise: 'instrument',
    values: chart.device,
    layout,
  });
  const xyz = patchXyz({
    ids: chart.names,
    spectra: { grid, values: spectra },
    conditions: {},
    notes: [],
  });
  if (xyz === undefined) throw new Error('no colours');
  return nativeResponse(CMYK, chart.device, xyz);
}
