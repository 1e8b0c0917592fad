import { comparePapers } from '@melto/core/stock/alikePapers';
import { listPlainReadings } from '@melto/store/readings';
import { findConditions } from '@melto/store/conditions';
import type { ConditionRow } from '@melto/store/conditions';
import type { Context } from '../kernel/context.ts';
import { loadReading } from '../reading/loadReading.ts';
import type { LoadedReading } from '../reading/loadReading.ts';

/** Two stocks that behave alike in one device, ink set and mode. */
export interface AlikeStocks {
  readonly stocks: readonly [Named, Named];
  readonly device: string;
  readonly mode: string;
  /** ΔE00 of the bare papers, and mean of what both sheets printed. */
  readonly white: number;
  readonly inks: number;
  readonly common: number;
}

interface Named {
  readonly id: number;
  readonly name: string;
}

/** Readings that are looked at, the newest. */
const MOST_READINGS = 24;

/** Pairs of stocks whose newest plain sheets differ no more than two sheets of one paper do. */
export async function alikeStocks(context: Context): Promise<AlikeStocks[]> {
  const { database } = context;
  const readings = await listPlainReadings(database, MOST_READINGS);
  const rows = await findConditions(database, [...new Set(readings.map(({ conditionId }) => conditionId))]);
  const conditions = new Map(rows.map((row) => [row.id, row]));
  const groups = new Map<string, { readonly id: number; readonly condition: ConditionRow }[]>();
  for (const { id, conditionId, mode } of readings) {
    const condition = conditions.get(conditionId);
    if (condition === undefined) continue;
    const key = [condition.deviceId, condition.inkSet, condition.mode, mode].join('\n');
    groups.set(key, [...(groups.get(key) ?? []), { id, condition }]);
  }
  const found = new Map<string, AlikeStocks>();
  for (const group of groups.values()) {
    // With one stock there is nothing to compare, and nothing is loaded.
    if (new Set(group.map(({ condition }) => condition.stockId)).size < 2) continue;
    const loaded = await Promise.all(group.map(({ id }) => loadReading(context, id)));
    for (const [i, a] of loaded.entries())
      for (const b of loaded.slice(0, i)) {
        const pair = alikePair(b, a);
        const key = pair?.stocks.map(({ id }) => id).join();
        if (pair !== undefined && key !== undefined && !found.has(key)) found.set(key, pair);
      }
  }
  return [...found.values()].sort((a, b) => a.white - b.white);
}

function alikePair(a: LoadedReading, b: LoadedReading): AlikeStocks | undefined {
  if (a.condition.stockId === b.condition.stockId) return undefined;
  const compared = comparePapers(a.set, b.set);
  if (compared?.alike !== true) return undefined;
  const [first, second] = [a, b]
    .map(({ condition }) => ({ id: condition.stockId, name: condition.stock }))
    .sort((x, y) => x.id - y.id);
  const { device, mode } = a.condition;
  const { white, inks, common } = compared;
  return { stocks: [first, second], device, mode, white, inks, common };
}
