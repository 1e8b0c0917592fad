import type { FloorOrder } from '@melto/core/judgement/floorFilter';
import type { ConditionName } from '@melto/store/conditions';
import type { Move } from './nextMove.ts';

/** Much quicker than each comparison by itself. */
const { compare: compareNames } = new Intl.Collator('en');

/** A condition, and how much it presses. */
export type Weighed = Pick<Move, 'attention'> & { readonly name: ConditionName };

/**
 * How conditions are put in order: names by their place among all names, since of ten thousand conditions most are of few
 * devices and stocks, and to compare two names takes a hundred times as long as two numbers.
 */
export function floorOrders(
  names: readonly ConditionName[],
): Readonly<Record<FloorOrder, (a: Weighed, b: Weighed) => number>> {
  const devices = ranks(names.map(({ device }) => device));
  const stocks = ranks(names.map(({ stock }) => stock));
  const rank = (of: ReadonlyMap<string, number>, name: string): number => of.get(name) ?? 0;
  const byDevice = (a: Weighed, b: Weighed): number =>
    rank(devices, a.name.device) - rank(devices, b.name.device);
  const byStock = (a: Weighed, b: Weighed): number => rank(stocks, a.name.stock) - rank(stocks, b.name.stock);
  const byName = (a: Weighed, b: Weighed): number => byDevice(a, b) || byStock(a, b) || a.name.id - b.name.id;
  const byAttention = (a: Weighed, b: Weighed): number => b.attention - a.attention;
  return {
    attention: (a, b) => byAttention(a, b) || byName(a, b),
    device: (a, b) => byDevice(a, b) || byAttention(a, b) || byName(a, b),
    stock: (a, b) => byStock(a, b) || byName(a, b),
  };
}

/** The place of each name among all of them; names that are told apart by nothing that is compared share one. */
function ranks(names: readonly string[]): ReadonlyMap<string, number> {
  const sorted = [...new Set(names)].sort(compareNames);
  const out = new Map<string, number>();
  let place = 0;
  sorted.forEach((name, i) => {
    if (i > 0 && compareNames(sorted[i - 1], name) !== 0) place++;
    out.set(name, place);
  });
  return out;
}
