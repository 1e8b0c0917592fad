import type { PatchSet } from '@melto/core/cgats/patchSet';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { makeRampChart } from '@melto/core/charts/rampChart';
import { makeRgbChart } from '@melto/core/charts/rgbChart';
import { CMYK, RGB } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import { createRandom } from '@melto/core/numerics/random';
import type { Random } from '@melto/core/numerics/random';
import { comparePapers } from '@melto/core/stock/alikePapers';
import { CATALOGUE } from '@melto/simulator/catalogue';
import { SIMULATED_STOCKS } from '@melto/simulator/data/stocks';
import type { SimulatedStock } from '@melto/simulator/data/stocks';
import { simulateSheets } from '@melto/simulator/simulateSheets';
import { printTable } from './table.ts';

const PAIRS = 100;
const DEVICES = [
  { device: 'wren', printMode: 'fine', process: RGB },
  { device: 'heron', printMode: 'standard', process: CMYK },
] as const;

/** A paper like the catalogue's, of a white, brightener, gain and depth of its own. */
function drawStock(random: Random, id: string): SimulatedStock {
  const stocks = Object.values(SIMULATED_STOCKS) as SimulatedStock[];
  const like = stocks[random.below(5)];
  return { ...moved(like, random, 0.015), id };
}

function moved(stock: SimulatedStock, random: Random, size: number): SimulatedStock {
  const by = (): number => size * random.normal();
  return {
    ...stock,
    base: stock.base.map((value) => value + by()) as unknown as SimulatedStock['base'],
    brightener: Math.max(0, stock.brightener + by()),
    dmax: stock.dmax * (1 + 4 * by()),
    gain: stock.gain.map((value) => Math.max(0.02, value + by())) as unknown as SimulatedStock['gain'],
  };
}

/** A sheet of another chart, print and reading each time, as a house would have them. */
function sheet(
  { device, printMode, process }: { device: string; printMode: string; process: Process },
  stock: string,
  seed: number,
): PatchSet {
  const chart =
    process === RGB ? makeRgbChart(200, seed) : makeRampChart(CMYK, { steps: 11, totalInk: false });
  const layout = layoutChart(process, chart.device, 'a4', seed);
  const { grid, spectra } = simulateSheets({
    ...{ device, stock, printMode, side: 'printing', seed, mode: 'M1', noise: 'instrument' },
    ...{ values: chart.device, layout },
  });
  return {
    ids: Array.from({ length: chart.device.length / process.channels.length }, (_, i) => String(i)),
    ...{ process, device: chart.device, spectra: { grid, values: spectra }, conditions: {}, notes: [] },
  };
}

/** Papers that are one under two names, near ones, and the catalogue's: how often each is called alike. */
export function alike(): void {
  const stocks = SIMULATED_STOCKS as unknown as Record<string, SimulatedStock>;
  const rows: string[][] = [];
  for (const of of DEVICES) {
    const own = CATALOGUE.find(({ id }) => id === of.device)?.stocks.map(({ id }) => id) ?? [];
    const [one, other] = own;
    const kept = { [one]: stocks[one], [other]: stocks[other] };
    const said = { same: 0, near: 0, catalogue: 0 };
    const figures: Record<keyof typeof said, number[][]> = { same: [], near: [], catalogue: [] };
    for (let seed = 1; seed <= PAIRS; seed++) {
      const random = createRandom(9000 + seed);
      const a = own[seed % own.length];
      const b = own[(seed + 1 + (seed % (own.length - 1))) % own.length];
      const apart = comparePapers(sheet(of, a, 2 * seed), sheet(of, b, 2 * seed + 1));
      // Drawn papers stand in for two of the catalogue's while they are printed.
      stocks[one] = drawStock(random, one);
      stocks[other] = { ...moved(stocks[one], random, 0.012), id: other };
      const first = sheet(of, one, 2 * seed);
      const compared = {
        same: comparePapers(first, sheet(of, one, 2 * seed + 1)),
        near: comparePapers(first, sheet(of, other, 2 * seed + 1)),
        catalogue: apart,
      };
      Object.assign(stocks, kept);
      for (const kind of ['same', 'near', 'catalogue'] as const) {
        const found = compared[kind];
        if (found?.alike === true) said[kind]++;
        if (found !== undefined)
          figures[kind].push([
            found.white / found.whiteLimit,
            found.inks / found.inksLimit,
            Math.abs(found.darkest),
          ]);
      }
    }
    for (const kind of ['same', 'near', 'catalogue'] as const) {
      const at = (axis: number, share: number): string => {
        const sorted = figures[kind].map((row) => row[axis]).sort((x, y) => x - y);
        return (sorted[Math.floor(share * (sorted.length - 1))] ?? NaN).toFixed(2);
      };
      rows.push([
        ...[of.device, kind, `${said[kind]} of ${figures[kind].length}`],
        ...[0, 1, 2].map((axis) => `${at(axis, 0.05)} ${at(axis, 0.5)} ${at(axis, 0.95)}`),
      ]);
    }
  }
  printTable(
    'Papers alike, seeded',
    ['device', 'papers', 'called alike', 'white / limit', 'inks / limit', 'darkest ΔL*'],
    rows,
  );
}
