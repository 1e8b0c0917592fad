import { controlWedge } from '@melto/core/charts/controlWedge';
import type { WedgeKind } from '@melto/core/charts/controlWedge';
import { layBesideAims } from '@melto/core/conformity/checkAgainstAims';
import { measuredXyz } from '@melto/core/conformity/profileAims';
import { predictConformity } from '@melto/core/conformity/predictConformity';
import type { PredictedCheck } from '@melto/core/conformity/predictConformity';
import { CMYK, sameProcess } from '@melto/core/device/process';
import { deviceToLab } from '@melto/core/icc/profileTransform';
import { transformed } from '@melto/core/transform/transform';
import { findResult } from '@melto/store/results';
import type { WholeResultRow } from '@melto/store/results';
import type { Context } from '../kernel/context.ts';
import { conditionOf } from '../ledger/conditions.ts';
import type { ConditionRow } from '../ledger/conditions.ts';
import { profileInForce } from '../ledger/inForce.ts';
import { PROFILE } from '../ledger/kinds/profileKind.ts';
import { storedOf } from '../ledger/resultKind.ts';
import { driftSinceZero } from '../watch/watchDrift.ts';
import { loadAims } from '../conformity/aimSets.ts';
import type { JudgedBy } from '../conformity/checkChoice.ts';
import { loadToleranceSet } from '../conformity/toleranceSets.ts';
import { valuesThrough } from './wedgeWay.ts';

/** What is taken for the error of a model where a profile does not tell its own, mean ΔE00. */
const UNTOLD_ERROR = 1;

type Choice = Omit<JudgedBy, 'spots' | 'predicted'>;

/** What a control wedge would be judged as, were it printed now. */
export async function predictedConformity(
  context: Context,
  conditionId: number,
  kind: Exclude<WedgeKind, 'watch'>,
  choice: Choice,
): Promise<PredictedCheck | null> {
  const condition = await conditionOf(context, conditionId);
  const { device } = controlWedge(kind);
  const through = await valuesThrough(context, condition, device, choice, []);
  return (await predictedWedge(context, condition, device, choice, through)) ?? null;
}

/**
 * The check that the profile in force predicts, with what is not known of it: how far the profile is from the device,
 * and what the watch says of drift and of sheets. Undefined where no profile tells what would print.
 * @param asked CMYK values that the aims are for, row-major × 4.
 * @param through what goes to the device for them; they themselves where it is undefined.
 */
export async function predictedWedge(
  context: Context,
  condition: ConditionRow,
  asked: Float64Array,
  choice: Choice,
  through: { readonly values: Float64Array } | undefined,
): Promise<PredictedCheck | undefined> {
  const inForce = await profileInForce(context, condition.id);
  if (inForce === undefined) return undefined;
  const toLab = deviceToLab(inForce.profile, 'absolute');
  const sent = through?.values ?? asked;
  if (!toLab.ok || (through === undefined && !sameProcess(condition.process, CMYK))) return undefined;
  const rows = asked.length / 4;
  const lab = transformed(toLab.value, sent.subarray(0, rows * toLab.value.inputs));
  const [{ aims }, { set: tolerances }, row, drift] = await Promise.all([
    loadAims(context, choice.aimSetId),
    loadToleranceSet(context, choice.toleranceSetId),
    findResult(context.database, inForce.resultId),
    driftSinceZero(context, condition.id, context.now()),
  ]);
  const sheet = layBesideAims(
    {
      ids: Array.from({ length: rows }, (_, i) => String(i + 1)),
      ...{ process: CMYK, device: asked, xyz: measuredXyz(lab), notes: [] },
      // It will be read as its aims ask.
      conditions: aims.conditions,
    },
    aims,
  );
  if (!sheet.ok) return undefined;
  const predicted = predictConformity(sheet.value, tolerances, choice.substrateCorrected, {
    ...errorOf(row),
    sheet: Math.hypot(drift?.size ?? 0, drift?.sheet ?? 0),
  });
  if (!predicted.ok) return undefined;
  const { check, chance, meanBetween } = predicted.value;
  const [deciding] = check.metrics
    .filter(({ value }) => Number.isFinite(value))
    .sort((one, other) => other.value / other.limit - one.value / one.limit);
  return {
    verdict: check.verdict,
    chance,
    meanBetween,
    closest:
      deciding === undefined
        ? null
        : {
            words: `${deciding.group === 'all' ? 'all patches' : deciding.group}, ${deciding.statistic} ${deciding.quantity}`,
            value: deciding.value,
            limit: deciding.limit,
          },
  };
}

/** Error of the model without the noise of its readings, and that noise: a print is read as the chart was. */
function errorOf(row: WholeResultRow | undefined): { model: number; reading: number } {
  if (row === undefined || row.shape !== PROFILE.shape) return { model: UNTOLD_ERROR, reading: 0 };
  const { summary, detail } = storedOf(PROFILE, row, row.detail);
  return detail.uncertainty === undefined || summary.repeatability === null
    ? { model: summary.mean, reading: 0 }
    : { model: detail.uncertainty.mean, reading: summary.repeatability };
}
