import { CMYK } from '@melto/core/device/process';
import { balanceNeutrals } from '@melto/core/balance/balanceNeutrals';
import { judgeNeutrals } from '@melto/core/balance/judgeNeutrals';
import { neutralReading } from '@melto/core/balance/neutralScales';
import type { NeutralReading } from '@melto/core/balance/neutralScales';
import { makeEvennessChart } from '@melto/core/charts/evennessChart';
import type { ChartLayout } from '@melto/core/charts/layoutChart';
import { layoutColumns } from '@melto/core/charts/layoutColumns';
import { layoutCopies } from '@melto/core/charts/layoutCopies';
import { repeatPatches } from '@melto/core/charts/namedPatches';
import type { NamedPatches } from '@melto/core/charts/namedPatches';
import { makeNearNeutralChart } from '@melto/core/charts/nearNeutralChart';
import { makeRampChart } from '@melto/core/charts/rampChart';
import { patchXyz } from '@melto/core/cgats/patchColours';
import { patchInkDensities } from '@melto/core/cgats/patchInkDensities';
import { evennessOf } from '@melto/core/evenness/evenness';
import type { Evenness } from '@melto/core/evenness/evenness';
import { largest, mean } from '@melto/core/numerics/statistics';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { inkRamps } from '@melto/core/tone/inkRamps';
import { linearise } from '@melto/core/tone/linearise';
import { largestBend, straightCurve } from '@melto/core/tone/toneCurve';
import type { ToneCurves } from '@melto/core/tone/toneCurve';
import { DIRECT_PRESSES } from '@melto/simulator/devices';
import { simulateSheets } from '@melto/simulator/simulateSheets';
import { printTable } from './table.ts';

const SEEDS = Number(process.env.SEEDS ?? 10);
const IDENTITY: ToneCurves = [0, 1, 2, 3].map(() => straightCurve());

interface Read {
  readonly xyz: Float64Array;
  readonly densities: Float64Array;
}

interface Sheet {
  readonly device: Float64Array;
  readonly layout: ChartLayout;
}

function copies(patches: NamedPatches, count: number, seed: number): Sheet {
  const { device } = repeatPatches(patches, count);
  return { device, layout: layoutCopies(CMYK, patches.device, count, 'a4', seed) };
}

/** Curves and balance of the CMYK devices, each figure from a fresh sheet that no curve was made of. */
export function calibrate(): void {
  const rows: string[][] = [];
  for (const device of DIRECT_PRESSES)
    for (const stock of device.stocks) {
      const figures: number[][] = [];
      for (let seed = 1; seed <= SEEDS; seed++) {
        let printed = seed * 100;
        const read = (
          sheet: Sheet,
          curves: ToneCurves | undefined,
          zones?: readonly (readonly number[])[],
        ): Read => {
          const { grid, spectra } = simulateSheets({
            device: device.id,
            stock,
            printMode: device.modes[0],
            side: 'printing',
            seed: printed++,
            mode: 'M1',
            noise: 'instrument',
            curves,
            zones,
            values: sheet.device,
            layout: sheet.layout,
          });
          const set = {
            ids: new Array<string>(sheet.device.length / 4).fill(''),
            spectra: { grid, values: spectra },
            conditions: {},
            notes: [],
          };
          const xyz = patchXyz(set);
          const densities = patchInkDensities(set);
          if (xyz === undefined || densities === undefined) throw new Error('no colours');
          return { xyz, densities };
        };
        // Evenness first.
        const even = makeEvennessChart('a4');
        const columns = layoutColumns(even.layout);
        const longest = Math.max(...columns.place);
        const across = Float64Array.from(columns.place, (place) => (place - 0.5) / longest);
        const evenness = (use?: readonly (readonly number[])[]): Evenness => {
          const { xyz, densities } = read(even, undefined, use);
          return evennessOf(even.device, xyz, densities, across, use);
        };
        const before = evenness();
        let zones = before.inks.map(({ correction }) => correction);
        const after = evenness(zones);
        zones = after.inks.map(({ correction }) => correction);
        // Curves: two rounds, then a fresh sheet in another order.
        const chart = makeRampChart(CMYK, { steps: 21, totalInk: true });
        let curves: ToneCurves = IDENTITY;
        const round = (order: number): ReturnType<typeof linearise> => {
          const sheet = copies(chart, 6, order);
          const { xyz, densities } = read(sheet, curves, zones);
          const paper = meanPaperXyz(CMYK, sheet.device, xyz);
          if (paper === undefined) throw new Error('no paper');
          return linearise({
            ramps: inkRamps(CMYK, sheet.device, xyz, densities),
            paper,
            present: curves,
            limits: [1, 1, 1, 1],
            measure: 'sctv',
          });
        };
        for (let i = 0; i < 2; i++) curves = round(seed + i).map(({ next }) => next);
        const reached = round(seed + 50);
        // Balance: up to three rounds.
        const grey = makeNearNeutralChart();
        const readGreys = (order: number): NeutralReading => {
          const sheet = copies(grey, 2, order);
          const found = neutralReading(sheet.device, read(sheet, curves, zones).xyz);
          if (found === undefined) throw new Error('no scales');
          return found;
        };
        const rounds: number[] = [];
        let last = judgeNeutrals(readGreys(seed + 7));
        for (let i = 0; i < 3; i++) {
          curves = balanceNeutrals(readGreys(seed + 10 + i), curves).next;
          last = judgeNeutrals(readGreys(seed + 60 + i));
          rounds.push(Math.max(last.figures.cmyL.mean, last.figures.cmyCh.mean, last.figures.kL.mean));
        }
        const f = last.figures;
        figures.push([
          before.mean,
          after.mean,
          100 * largest(reached.map((ink) => ink.largest)),
          100 * mean(reached.map((ink) => ink.mean)),
          ...rounds,
          f.cmyL.mean,
          f.cmyL.largest,
          f.cmyCh.mean,
          f.cmyCh.largest,
          f.kL.mean,
          f.kL.largest,
          largest(curves.map(largestBend)),
        ]);
      }
      const worst = (i: number): string => largest(figures.map((row) => row[i])).toFixed(2);
      const middle = (i: number): string => mean(figures.map((row) => row[i])).toFixed(2);
      rows.push([
        `${device.id} ${stock}`,
        `${middle(0)} → ${middle(1)}`,
        `${worst(2)} (mean ${middle(3)})`,
        [4, 5, 6].map(middle).join(' '),
        `${worst(7)} / ${worst(8)}`,
        `${worst(9)} / ${worst(10)}`,
        `${worst(11)} / ${worst(12)}`,
        worst(13),
      ]);
    }
  printTable(
    `Curves and balance, ${SEEDS} seeds, worst of the seeds, fresh sheets`,
    [
      'device, stock',
      'width ΔE00',
      'SCTV off %',
      'largest mean by round',
      'wΔL* CMY mean / largest',
      'wΔCh',
      'wΔL* K',
      'bend',
    ],
    rows,
  );
}
