import { CMYK, drivenByInks } from '@melto/core/device/process';
import { listCompleteReadings } from '@melto/store/readings';
import type { Context } from '../kernel/context.ts';
import { conditionOf } from '../ledger/conditions.ts';
import { judgedByOf } from './checkChoice.ts';
import { curvesInForce, curvesTold } from '../ledger/inForce.ts';
import type { CurvesTold } from '../ledger/inForce.ts';

const MOST = 60;

/** Complete readings of a condition whose charts ask for CMYK values, newest first, and the curves in force. */
export async function judgeableReadings(
  context: Context,
  conditionId: number,
): Promise<{
  readonly readings: readonly {
    readonly id: number;
    readonly code: string;
    readonly title: string;
    readonly finishedMs: number;
    readonly hasSpots: boolean;
  }[];
  /** Curves that a wedge is printed through. */
  readonly curves: CurvesTold | null;
}> {
  const { process } = await conditionOf(context, conditionId);
  const [readings, curves] = await Promise.all([
    listCompleteReadings(context.database, conditionId, { processName: CMYK.name, limit: MOST }),
    drivenByInks(process) ? curvesInForce(context, conditionId) : undefined,
  ]);
  return {
    // What a profile or a job made of colours is no CMYK that aims could ask for.
    readings: readings
      .filter(({ purpose }) => purpose !== 'short-check' && purpose !== 'job')
      .map(({ id, code, title, finishedMs, judgedBy }) => ({
        id,
        code,
        title,
        finishedMs: finishedMs ?? 0,
        hasSpots: (judgedByOf({ print: { judgedBy } })?.spots?.length ?? 0) > 0,
      })),
    curves: curves === undefined ? null : curvesTold(curves, conditionId),
  };
}
