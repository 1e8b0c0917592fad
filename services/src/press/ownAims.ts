import { pressAims } from '@melto/core/press/pressAims';
import type { RunWithPlan } from '@melto/store/pressRuns';
import { loadAims } from '../conformity/aimSets.ts';
import type { Context } from '../kernel/context.ts';

/** Aims of the same set are worked out alike to this, in Lab. */
const ALIKE = 1e-6;

/** Whether a run was locked to an OK sheet: its process colours are no longer those of its aim set. */
export async function isJudgedByOwnSheet(context: Context, run: RunWithPlan): Promise<boolean> {
  const { bar, units, aims } = run.plan;
  if (run.okImpression === null) return false;
  const told = pressAims(bar, units, (await loadAims(context, run.aimSetId)).aims, {});
  return told.lab.some((value, i) => Math.abs(value - aims.lab[i]) > ALIKE);
}
