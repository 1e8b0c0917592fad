import type { WholeResultRow } from '@melto/store/results';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { BALANCE } from '../ledger/kinds/balanceKind.ts';
import { CURVES } from '../ledger/kinds/curvesKind.ts';
import { EVENNESS } from '../ledger/kinds/evennessKind.ts';
import { LIMITS } from '../ledger/kinds/limitsKind.ts';
import { partThatDiffers } from '../ledger/partThatDiffers.ts';
import { storedOf } from '../ledger/resultKind.ts';
import { sourceReading } from '../ledger/sourceReading.ts';
import { workBalance } from './balance.ts';
import { workCurves } from './curves.ts';
import { workEvenness } from './evenness.ts';
import { workLimits } from './limits.ts';

// Each computes a stored result again and says which part differs; undefined where none does.

export async function limitsAgain(context: Context, row: WholeResultRow): Promise<string | undefined> {
  const { summary, detail } = storedOf(LIMITS, row, row.detail);
  const again = await workLimits(context, row.conditionId, detail.readingId);
  // A person's own limits follow from no reading; what was proposed beside them does.
  const proposed = summary.edited ? (['dmax'] as const) : (['limits', 'total', 'dmax'] as const);
  return (
    partThatDiffers(proposed, summary, again.summary) ??
    partThatDiffers(['proposals', 'totalInk', 'colours'], detail, again.detail)
  );
}

export async function curvesAgain(context: Context, row: WholeResultRow): Promise<string | undefined> {
  const { summary, detail } = storedOf(CURVES, row, row.detail);
  if (summary.imported !== null)
    throw new Problem('not-found', `they came from the file ${summary.imported}`, '');
  const readingId = await sourceReading(context, row.id);
  const { measure, tvi, total } = summary;
  const again = await workCurves(
    context,
    row.conditionId,
    { readingId, measure, ...(tvi === null ? {} : { tvi }) },
    { limits: detail.limits, total: total?.device ?? null },
  );
  return (
    partThatDiffers(['round', 'largest', 'mean', 'dmax', 'ramps', 'total'], summary, again.summary) ??
    partThatDiffers(['curves', 'native', 'inks', 'colours', 'presentResultId'], detail, again.detail)
  );
}

export async function balanceAgain(context: Context, row: WholeResultRow): Promise<string | undefined> {
  const { summary, detail } = storedOf(BALANCE, row, row.detail);
  const again = await workBalance(context, row.conditionId, await sourceReading(context, row.id));
  return (
    partThatDiffers(['round', 'figures', 'limits', 'extrapolated'], summary, again.summary) ??
    partThatDiffers(
      ['curves', 'judgement', 'predicted', 'predictedK', 'wrong', 'colours', 'paperLab'],
      detail,
      again.detail,
    )
  );
}

export async function evennessAgain(context: Context, row: WholeResultRow): Promise<string | undefined> {
  const { detail } = storedOf(EVENNESS, row, row.detail);
  const again = await workEvenness(context, row.conditionId, await sourceReading(context, row.id));
  return partThatDiffers(['evenness', 'zones'], detail, again.detail);
}
