import { conditionOf } from '../ledger/conditions.ts';
import type { Services } from '../kernel/context.ts';
import { curvesInForce } from '../ledger/curvesInForce.ts';
import { readingsOf } from '../reading/readings.ts';

/** Complete readings of a condition whose charts ask for CMYK values, newest first, and whether curves are in force. */
export async function judgeableReadings(
  services: Services,
  conditionId: number,
): Promise<{
  readonly readings: readonly {
    readonly id: number;
    readonly code: string;
    readonly title: string;
    readonly finishedMs: number;
  }[];
  readonly hasCurves: boolean;
}> {
  const { space } = await conditionOf(services, conditionId);
  const [readings, curves] = await Promise.all([
    readingsOf(services, conditionId),
    space === 'cmyk' ? curvesInForce(services.database, conditionId) : undefined,
  ]);
  return {
    readings: readings
      .filter(
        ({ finishedMs, withdrawnMs, purpose }) =>
          finishedMs !== null && withdrawnMs === null && (purpose === 'wedge' || space === 'cmyk'),
      )
      .map(({ id, code, title, finishedMs }) => ({ id, code, title, finishedMs: finishedMs ?? 0 })),
    hasCurves: curves !== undefined,
  };
}
