import { listMoves } from '@melto/store/pressRuns';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { runOf } from '../press/runs.ts';
import { takeSheet } from '../press/sheets.ts';
import type { SheetTaken } from '../press/sheets.ts';

/** Takes a sheet from a simulated press at a stand of its counter and reads its bar. */
export async function pullSheet(context: Context, runId: number, impression: number): Promise<SheetTaken> {
  const { simulated, plan, settings } = await runOf(context, runId);
  if (simulated === null || context.press === undefined)
    throw new Problem(
      'not-ready',
      'This press is not simulated.',
      'Read the sheet at the press, or let a feed deliver it.',
    );
  const moves = await listMoves(context.database, runId);
  const { bar } = plan;
  return takeSheet(
    context,
    runId,
    context.press.read({ simulated, bar, moves, impression, mode: settings.mode }),
  );
}
