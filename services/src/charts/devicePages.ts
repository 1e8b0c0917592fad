import type { PaperName } from '@melto/core/charts/pageGeometry';
import type { Context } from '../kernel/context.ts';
import { conditionOf } from '../ledger/conditions.ts';

/** What the device of a condition prints on: pages of its own, and its screen in lines/cm where it has one. */
export async function pagesOf(
  context: Context,
  conditionId: number,
): Promise<{ readonly pages: readonly PaperName[]; readonly screenPerCm: number | null }> {
  const { pages = [], screenPerCm } = (await conditionOf(context, conditionId)).deviceFacts;
  return { pages, screenPerCm: screenPerCm ?? null };
}
