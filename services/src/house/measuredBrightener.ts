import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzToLab } from '@melto/core/colour/xyzToLab';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { findConditions } from '@melto/store/conditions';
import { listPlainReadings } from '@melto/store/readings';
import type { Context } from '../kernel/context.ts';
import { loadReading } from '../reading/loadReading.ts';

/** What ultraviolet light does to a stock's bare paper. */
export interface MeasuredBrightener {
  readonly stockId: number;
  /** b* with ultraviolet light less b* without: the more below zero, the more brightener. */
  readonly by: number;
  /** The modes that it was measured in. */
  readonly modes: 'M1, M2' | 'M0, M2';
}

/** Readings that are looked at, the newest. */
const MOST_READINGS = 24;

/** Brightener of each stock that was read with and without ultraviolet light in one condition, the newest of each. */
export async function measuredBrighteners(context: Context): Promise<MeasuredBrightener[]> {
  const readings = await listPlainReadings(context.database, MOST_READINGS);
  const byCondition = new Map<number, Map<string, number>>();
  for (const { id, conditionId, mode } of readings)
    byCondition.set(conditionId, (byCondition.get(conditionId) ?? new Map<string, number>()).set(mode, id));
  const pairs = [...byCondition].flatMap(([conditionId, ids]) => {
    const without = ids.get('M2');
    const daylight = ids.get('M1');
    const lamp = daylight ?? ids.get('M0');
    if (without === undefined || lamp === undefined) return [];
    return [{ conditionId, without, lamp, modes: daylight === undefined ? 'M0, M2' : 'M1, M2' } as const];
  });
  const conditions = await findConditions(
    context.database,
    pairs.map(({ conditionId }) => conditionId),
  );
  const found = new Map<number, MeasuredBrightener>();
  for (const { conditionId, without, lamp, modes } of pairs) {
    const stockId = conditions.find(({ id }) => id === conditionId)?.stockId;
    if (stockId === undefined || found.has(stockId)) continue;
    const [dark, lit] = await Promise.all([paperB(context, without), paperB(context, lamp)]);
    if (dark !== undefined && lit !== undefined) found.set(stockId, { stockId, by: lit - dark, modes });
  }
  return [...found.values()];
}

/** b* of the bare paper of a reading; undefined where its chart has none. */
async function paperB(context: Context, readingId: number): Promise<number | undefined> {
  const { condition, set, xyz } = await loadReading(context, readingId);
  const paper = set.device === undefined ? undefined : meanPaperXyz(condition.process, set.device, xyz);
  return paper === undefined ? undefined : xyzToLab(paper, WHITE_D50_MEASURED)[2];
}
