import { inputTotalOf } from '@melto/core/limits/totalInk';
import { listHeads } from '@melto/store/results';
import type { Context } from '../kernel/context.ts';
import { conditionOf } from '../ledger/conditions.ts';
import { curvesAmong, curvesOfResult } from '../ledger/inForce.ts';
import { LIMITS } from '../ledger/kinds/limitsKind.ts';
import { summaryOf } from '../ledger/resultKind.ts';

/** Where nothing was measured: what sheet-fed presses take. */
const DEFAULT_TOTAL_INK = 3;

/** Total ink that documents may ask for: at the input of the curves in force, where a limit is set. */
export async function totalInkAtInput(context: Context, conditionId: number): Promise<number> {
  const heads = await listHeads(context.database, conditionId);
  const limits = heads.find(({ link }) => link === 'limits');
  const curves = curvesAmong(heads);
  if (limits === undefined) return DEFAULT_TOTAL_INK;
  const { total } = summaryOf(LIMITS, limits);
  if (curves === undefined) return total;
  const { process } = await conditionOf(context, conditionId);
  return inputTotalOf(total, await curvesOfResult(context, curves.id), process);
}
