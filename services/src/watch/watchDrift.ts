import { mean } from '@melto/core/numerics/statistics';
import { BASELINE_CHECKS } from '@melto/core/series/controlChart';
import { watchDifferences } from '@melto/core/watch/watchDifferences';
import { figuresOfKept, meanFigures } from '@melto/core/watch/watchFigures';
import { listFirstWatchChecks, listWatchChecksBefore } from '@melto/store/watches';
import type { Context } from '../kernel/context.ts';
import { WATCH } from '../ledger/kinds/watchKind.ts';
import { storedHead } from '../ledger/storedResult.ts';

/** Latest checks that the drift is taken from. */
const RECENT = 3;

/** What the watch of a condition says of its drift and of its sheets, up to a time; undefined without a watch. */
export async function driftSinceZero(
  context: Context,
  condition: number,
  untilMs: number,
): Promise<{ readonly size: number; readonly sheet: number | undefined } | undefined> {
  const watch = await storedHead(context, condition, WATCH);
  if (watch === undefined) return undefined;
  const zero = figuresOfKept(watch.detail.zero);
  const { database } = context;
  const { id } = watch.row;
  const checks = await listWatchChecksBefore(database, id, untilMs + 1, RECENT);
  if (checks.length === 0) return undefined;
  const recent = meanFigures(checks.map(({ figures }) => figures));
  const baseline = (await listFirstWatchChecks(database, id, BASELINE_CHECKS))
    .filter(({ madeMs }) => madeMs <= untilMs)
    .map(({ figures }) => figures);
  const steps = baseline.slice(1).map((figures, i) => watchDifferences(figures, baseline[i]).mean);
  return {
    size: watchDifferences(recent, zero).mean,
    // The difference of two sheets holds the scatter of both.
    sheet: steps.length < 2 ? undefined : mean(steps) / Math.SQRT2,
  };
}
