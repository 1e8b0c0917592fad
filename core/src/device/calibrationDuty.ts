/** What a device needs from time to time by itself, such as a calibration in its front end. */
export interface CalibrationDuty {
  /** What is done, as the house calls it. */
  readonly words: string;
  /** It is due again so many days after it was done. */
  readonly days: number;
  /** When it was done last, in milliseconds; null where it never was. */
  readonly doneMs: number | null;
}

export const MOST_DUTY_DAYS = 400;
const DAY_MS = 86_400_000;

/** When a duty is due; null where it was never done, which is due at once. */
export function dutyDueMs({ days, doneMs }: CalibrationDuty): number | null {
  return doneMs === null ? null : doneMs + days * DAY_MS;
}

export function isDutyDue(duty: CalibrationDuty, nowMs: number): boolean {
  const dueMs = dutyDueMs(duty);
  return dueMs === null || nowMs >= dueMs;
}
