import { CHANGES } from './data/changes.ts';
import type { SimulatedStock } from './data/stocks.ts';
import type { PrintState } from './printState.ts';
import type { InkState } from './spectralPrinter.ts';

const WEEK_MS = 7 * 86_400_000;

type Changed = Pick<PrintState, 'changes' | 'printedMs'>;

/** Changes that had happened when a sheet was printed. */
function happened({ changes, printedMs }: Changed): NonNullable<PrintState['changes']> {
  return (changes ?? []).filter(({ fromMs }) => printedMs >= fromMs);
}

/** Whether the inks change across the width because of something that happened. */
export function isUneven(state: Changed): boolean {
  return happened(state).some(({ kind }) => kind === 'zone');
}

/** The inks at a place across the width, 0..1, with all that had happened when the sheet was printed. */
export function changedInks(steady: InkState, state: Changed, across: number): InkState {
  const density = [...steady.density];
  const area = [...steady.area];
  for (const { kind, ink, fromMs } of happened(state)) {
    if (kind === 'ink-lot') {
      density[ink] += CHANGES.inkLot.density;
      area[ink] += CHANGES.inkLot.area;
    }
    if (kind === 'ageing-head') {
      const weeks = (state.printedMs - fromMs) / WEEK_MS;
      density[ink] += weeks * CHANGES.ageingHead.densityPerWeek;
      area[ink] += weeks * CHANGES.ageingHead.areaPerWeek;
    }
    if (kind === 'zone' && across >= CHANGES.zone.from && across < CHANGES.zone.to) {
      density[ink] += CHANGES.zone.density;
      area[ink] += CHANGES.zone.area;
    }
  }
  return { density: density.map((value) => Math.max(0.1, value)), area };
}

/** The stock as its present lot is. */
export function changedStock(stock: SimulatedStock, state: Changed): SimulatedStock {
  if (!happened(state).some(({ kind }) => kind === 'stock-lot')) return stock;
  const [uv, blue, green, red] = stock.base;
  const { stockLot } = CHANGES;
  return {
    ...stock,
    brightener: stock.brightener * stockLot.brightener,
    base: [uv * stockLot.blue, blue * stockLot.blue, green * stockLot.green, red],
  };
}
