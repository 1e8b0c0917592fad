import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import { mean } from '@melto/core/numerics/statistics';
import { BASELINE_CHECKS } from '@melto/core/watch/controlChart';
import { meanFigures, WATCH_PATCHES, watchLab } from '@melto/core/watch/watchFigures';
import { listHeads } from '@melto/store/results';
import { listWatchChecks } from '@melto/store/watches';
import type { Services } from './context.ts';
import { zeroOf } from './watchZero.ts';

/** Latest checks that the drift is taken from. */
const RECENT = 3;
const MOST_CHECKS = 200;

/** What the watch of a condition says of its drift and of its sheets, up to a time; undefined without a watch. */
export async function driftSinceZero(
  services: Services,
  condition: number,
  untilMs: number,
): Promise<{ readonly size: number; readonly sheet: number | undefined } | undefined> {
  const head = (await listHeads(services.database, condition)).find(({ link }) => link === 'watch');
  if (head === undefined) return undefined;
  const zero = await zeroOf(services, head.id);
  const checks = (await listWatchChecks(services.database, head.id, MOST_CHECKS)).filter(
    ({ madeMs }) => madeMs <= untilMs,
  );
  if (checks.length === 0) return undefined;
  const recent = meanFigures(checks.slice(-RECENT).map(({ figures }) => figures));
  const baseline = checks.slice(0, BASELINE_CHECKS).map(({ figures }) => figures);
  const steps = baseline.slice(1).map((figures, i) => difference(baseline[i], figures));
  return {
    size: difference(zero, recent),
    // The difference of two sheets holds the scatter of both.
    sheet: steps.length < 2 ? undefined : mean(steps) / Math.SQRT2,
  };
}

function difference(a: Float64Array, b: Float64Array): number {
  return mean(WATCH_PATCHES.map((_, patch) => deltaE2000(watchLab(a, patch), watchLab(b, patch))));
}
