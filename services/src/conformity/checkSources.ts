import { listResultsOfShape } from '@melto/store/results';
import { profileOfResult } from '../ledger/inForce.ts';
import { AIM_CHECK } from '../ledger/kinds/aimCheckKind.ts';
import { storedOf } from '../ledger/resultKind.ts';
import { profileSummary } from '../ledger/resultKinds.ts';
import { resultRow } from '../ledger/storedResult.ts';
import { channelCount } from '@melto/core/device/process';
import { repeatability } from '@melto/core/characterise/repeatability';
import type { AimCheck } from '@melto/core/conformity/checkAgainstAims';
import { isSpot } from '@melto/core/conformity/checkDetail';
import type { CheckDetail } from '@melto/core/conformity/checkDetail';
import { pairKey } from '@melto/core/conformity/aims';
import { errorBudget } from '@melto/core/conformity/errorBudget';
import type { ErrorBudget } from '@melto/core/conformity/errorBudget';
import { judgeColours } from '@melto/core/conformity/judgeColours';
import type { ToleranceSet } from '@melto/core/conformity/toleranceSet';
import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import { mean } from '@melto/core/numerics/statistics';
import { deviceToLab } from '@melto/core/icc/profileTransform';
import type { Context } from '../kernel/context.ts';
import type { LoadedReading } from '../reading/loadReading.ts';
import { driftSinceZero } from '../watch/watchDrift.ts';
import type { JudgedBy } from './checkChoice.ts';

/** An aim counts as out of reach where the profile's own prediction is farther from it, ΔE00. */
export const OUT_OF_REACH = 1;

/** ΔE00 between each aim and what the profile predicts for the values that were sent; for absolute prints only. */
export async function reachOf(
  context: Context,
  { print, set }: LoadedReading,
  pairOfRow: readonly number[],
  check: AimCheck,
  before: JudgedBy | undefined,
): Promise<readonly number[] | undefined> {
  if (print.profileResultId === null || before?.through !== 'profile, absolute' || set.device === undefined)
    return undefined;
  const toLab = deviceToLab(await profileOfResult(context, print.profileResultId), 'absolute');
  if (!toLab.ok) return undefined;
  const predicted = new Float64Array(pairOfRow.length * 3);
  toLab.value.apply(set.device, predicted);
  return check.pairs.map((pair, index) => {
    const row = pairOfRow.indexOf(index);
    return deltaE2000(pair.aim, [predicted[3 * row], predicted[3 * row + 1], predicted[3 * row + 2]]);
  });
}

/** Earlier checks that are looked at for colours that would pass. */
const EARLIER = 5;

/** An earlier check of this condition against aims whose colours would pass the tolerances of now. */
export async function driftOf(
  context: Context,
  { print }: LoadedReading,
  check: AimCheck,
  tolerances: ToleranceSet,
): Promise<CheckDetail['decides']['drift']> {
  const earlier = await listResultsOfShape(context.database, print.conditionId, AIM_CHECK.shape, EARLIER);
  for (const row of earlier) {
    const { detail } = storedOf(AIM_CHECK, row, row.detail);
    const measured = new Map(
      detail.patches.map((patch) => [
        pairKey({
          device: patch.device.map((value) => value / 100),
          spot: isSpot(patch) ? patch.name : undefined,
        }),
        patch.measured,
      ]),
    );
    const pairs = check.pairs.map((pair) => ({ ...pair, measured: measured.get(pairKey(pair)) }));
    const complete = pairs.flatMap((pair) =>
      pair.measured === undefined ? [] : [{ ...pair, measured: pair.measured }],
    );
    if (
      complete.length < check.pairs.length ||
      judgeColours(complete, tolerances).verdict === 'does-not-conform'
    )
      continue;
    return {
      version: row.version,
      madeMs: row.madeMs,
      mean: mean(complete.map(({ measured: then }, i) => deltaE2000(then, check.pairs[i].measured))),
    };
  }
  return null;
}

/** How much of the mean difference comes from instrument, sheet, drift and model, as far as it is known. */
export async function budgetOf(
  context: Context,
  { set, xyz, print, condition }: LoadedReading,
  total: number,
  reach: readonly number[] | undefined,
): Promise<ErrorBudget | undefined> {
  const device = set.device;
  const repeats =
    device === undefined ? undefined : repeatability(device, channelCount(condition.process), xyz);
  const drift = await driftSinceZero(context, print.conditionId, print.printedMs);
  const profile =
    print.profileResultId === null ? undefined : await resultRow(context, print.profileResultId);
  const fit = profile === undefined ? null : profileSummary(profile).fit;
  return errorBudget(total, {
    instrument:
      repeats === undefined ? undefined : { size: repeats.mean, from: 'repeated patches of this sheet' },
    sheet:
      drift?.sheet === undefined
        ? undefined
        : { size: drift.sheet, from: 'scatter of the watch from sheet to sheet' },
    drift: drift === undefined ? undefined : { size: drift.size, from: 'the watch since its zero reading' },
    gamut:
      reach === undefined ? undefined : { size: mean(reach), from: 'aims beyond what the profile reaches' },
    model:
      profile === undefined || fit === null
        ? undefined
        : { size: fit, from: `fit of profile v${profile.version}` },
  });
}
