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
  const [wren] = CATALOGUE;
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
      const layout = layoutChart('rgb', device, 'a4', seed);
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
      const lab = patchXyz({
        ids: new Array<string>(device.length / 3).fill(''),
        spectra: { grid, values: spectra },
        conditions: {},
        notes: [],
      });
      if (lab === undefined) throw new Error('no colours');
      const density = Float64Array.from({ length: lab.length / 3 }, (_, i) => neutralDensity(lab[3 * i + 1]));
      xyzRowsToLab(lab, WHITE_D50_MEASURED, lab);
      const kinds = detectFaults({
        device,
        lab,
        density,
        strips: layout.pages.flat(),
        finish: stock.finish,
      }).map(({ kind }) => kind);
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
