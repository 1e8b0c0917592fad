import { createRandom, seedFrom } from '@melto/core/numerics/random';
import type { SimulatedStock } from './data/stocks.ts';
import { evennessAt, inkShapes } from './inkPrinter.ts';
import type { InkPrinterData } from './inkPrinter.ts';
import type { InkState } from './spectralPrinter.ts';

const DAY_MS = 86_400_000;

/** What moves a print away from the mean sheet. */
export interface VariationInput {
  readonly device: string;
  readonly seed: number;
  readonly sheetIndex: number;
  readonly printedMs: number;
  readonly readMs: number;
  /** Position on the page, both 0..1. */
  readonly across: number;
  readonly along: number;
  /** Corrections of the zones across the width by ink, shares of density. */
  readonly zones?: readonly (readonly number[])[];
}

/** A zone key, or a correction of exposure, moves the density by this share of what it is told to. */
const ZONE_RESPONSE = 0.9;

/** State of the inks at one place of a sheet: drift with days, sheet to sheet (AR(1)), a smooth field, unevenness, dry-back. */
export function inkStateOf(printer: InkPrinterData, stock: SimulatedStock, input: VariationInput): InkState {
  const { variation } = printer;
  const density: number[] = [];
  const area: number[] = [];
  const minutes = Math.max(0, input.readMs - input.printedMs) / 60_000;
  const wet = printer.dryBack * stock.dryBack * Math.exp(-minutes / stock.dryMinutes);
  for (const ink of inkShapes(printer).keys()) {
    const days = input.printedMs / DAY_MS;
    const random = createRandom(seedFrom(input.device, 'drift', ink));
    let drift = 0;
    for (const period of [9, 31, 83])
      drift += Math.sin((2 * Math.PI * days) / period + 2 * Math.PI * random.uniform());
    const sheet = autoregressive(input, ink, variation.autocorrelation);
    const field = fieldAt(input, ink);
    const size = variation.drift * 0.4 * drift + variation.sheet * sheet + variation.field * field;
    const told = { tilt: 0, bow: 0, zones: input.zones?.[ink] ?? [] };
    const uneven =
      evennessAt(printer.evenness[ink], input.across) + ZONE_RESPONSE * evennessAt(told, input.across);
    density.push(1 + size + uneven + wet * (ink < 3 ? 1 - 0.15 * ink : 0.7));
    area.push(0.5 * size + 0.25 * uneven + wet * 0.12);
  }
  return { density, area };
}

/** Stationary AR(1) over the sheets of a device, unit variance, by its truncated sum. */
function autoregressive(input: VariationInput, ink: number, rho: number): number {
  let value = 0;
  for (let back = 0, weight = Math.sqrt(1 - rho * rho); back < 10; back++, weight *= rho)
    value +=
      weight *
      createRandom(seedFrom(input.device, input.seed, 'sheet', input.sheetIndex - back, ink)).normal();
  return value;
}

/** A smooth field over the page, about unit variance. */
function fieldAt(input: VariationInput, ink: number): number {
  const random = createRandom(seedFrom(input.device, input.seed, 'field', input.sheetIndex, ink));
  let value = 0;
  for (let wave = 0; wave < 3; wave++) {
    const fx = 0.4 + 1.3 * random.uniform();
    const fy = 0.3 + 0.9 * random.uniform();
    value += Math.cos(2 * Math.PI * (fx * input.across + fy * input.along + random.uniform()));
  }
  return value * Math.sqrt(2 / 3);
}
