import { tickStep, ticks } from 'd3-array';
import { formatFigure } from './format';

/** An axis of values whose ticks are whole steps of 1, 2 or 5, told with as many decimals as the step has. */
export function evenTicks(
  low: number,
  high: number,
  about = 5,
): { readonly ticks: number[]; readonly tickFormatter: (value: number) => string } {
  const digits = Math.max(0, -Math.floor(Math.log10(tickStep(low, high, about)) + 1e-9));
  return { ticks: ticks(low, high, about), tickFormatter: (value) => formatFigure(value, digits) };
}
