import type { ColourBar } from '@melto/core/press/colourBar';
import { findFeed } from '@melto/store/feeds';
import { countSheets, listMoves } from '@melto/store/pressRuns';
import type { MoveRow } from '@melto/store/pressRuns';
import type { Context } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';
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

/** What a simulated sensor needs to know of the press that it stands over. */
export interface UnderSensor {
  readonly runId: number;
  readonly simulated: string;
  readonly bar: ColourBar;
  readonly mode: 'M0' | 'M1' | 'M2' | 'M3';
  readonly moves: readonly Pick<MoveRow, 'unit' | 'impression' | 'changes'>[];
  readonly lastImpression: number | null;
}

/** The simulated press that a feed reads. */
export async function underSensor(context: Context, feedId: number): Promise<UnderSensor> {
  const feed = await findFeed(context.database, feedId);
  if (feed === undefined) throw notFound(`feed ${feedId}`);
  const run = feed.runId === null ? undefined : await runOf(context, feed.runId);
  if (run === undefined || run.simulated === null || context.press === undefined)
    throw new Problem('not-ready', 'This feed reads no simulated press.', 'Point it at a run on one.');
  const { id: runId, simulated, plan, settings } = run;
  const { lastImpression } = await countSheets(context.database, runId);
  const moves = await listMoves(context.database, runId);
  return { runId, simulated, bar: plan.bar, mode: settings.mode, moves, lastImpression };
}
