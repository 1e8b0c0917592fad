import { isDutyDue } from '@melto/core/device/calibrationDuty';
import type { CalibrationDuty } from '@melto/core/device/calibrationDuty';
import { stockFactWords } from '@melto/core/stock/stockFacts';
import { setDutyDone } from '@melto/store/devices';
import { domainNow } from '../kernel/clock.ts';
import type { Context } from '../kernel/context.ts';
import { settingsRecord } from './conditions.ts';
import type { ConditionRow, SettingsPoint } from './conditions.ts';

/** The calibration of a condition's device by itself; undefined where it has none. */
export function dutyOf({
  dutyWords,
  dutyDays,
  dutyDoneMs,
}: Pick<ConditionRow, 'dutyWords' | 'dutyDays' | 'dutyDoneMs'>): CalibrationDuty | undefined {
  return dutyDays === null ? undefined : { words: dutyWords, days: dutyDays, doneMs: dutyDoneMs };
}

/** The calibration of a device by itself where it is due. */
export function dueDuty(device: Parameters<typeof dutyOf>[0], nowMs: number): CalibrationDuty | undefined {
  const duty = dutyOf(device);
  return duty !== undefined && isDutyDue(duty, nowMs) ? duty : undefined;
}

/** What is ticked at a print where the device's own calibration is due; it cannot be a point of a record. */
const dutyLabel = ({ words }: CalibrationDuty): string => `Done today: ${words}`;

/** What is shown and ticked at a print: the settings record, the stock's side, the device's own calibration where due. */
export async function printPoints(context: Context, condition: ConditionRow): Promise<SettingsPoint[]> {
  const { weightGsm, side } = condition.stockFacts;
  // Which side is printed is no setting of a driver, and as easily missed.
  const stock = stockFactWords({ weightGsm, side }).join(', ');
  const points = [
    ...(await settingsRecord(context, condition.id)),
    ...(side === undefined ? [] : [{ label: condition.stock, value: stock, tickAtPrint: false }]),
  ];
  return [...(await duePoints(context, condition)), ...points];
}

/** What is ticked at any print of a device whose own calibration is due. */
export async function duePoints(
  context: Context,
  device: Parameters<typeof dutyOf>[0],
): Promise<SettingsPoint[]> {
  const duty = dueDuty(device, await domainNow(context));
  if (duty === undefined) return [];
  const value = `due every ${duty.days === 1 ? 'day' : `${duty.days} days`}; do it before anything is printed`;
  return [{ label: dutyLabel(duty), value, tickAtPrint: true }];
}

/** Keeps the device's own calibration as done where it was ticked. */
export async function keepDuty(
  { database }: Context,
  condition: ConditionRow,
  ticks: readonly string[],
  nowMs: number,
): Promise<void> {
  const duty = dutyOf(condition);
  if (duty !== undefined && ticks.includes(dutyLabel(duty)))
    await setDutyDone(database, condition.deviceId, nowMs);
}
