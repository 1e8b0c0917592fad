/** The house's time zone; times are the same on server and client. */
export const HOUSE_TIME_ZONE = 'Europe/London';

const clock = new Intl.DateTimeFormat('en-GB', {
  hour: '2-digit',
  minute: '2-digit',
  timeZone: HOUSE_TIME_ZONE,
});
const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', timeZone: HOUSE_TIME_ZONE });
const whole = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  hour: '2-digit',
  minute: '2-digit',
  timeZone: HOUSE_TIME_ZONE,
});

export const formatClock = (ms: number): string => clock.format(ms);
export const formatDay = (ms: number): string => day.format(ms);
export const formatMoment = (ms: number): string => whole.format(ms);

/** Time of day for today, the day otherwise. */
export function formatWhen(ms: number, nowMs: number): string {
  return day.format(ms) === day.format(nowMs) && Math.abs(nowMs - ms) < 86_400_000
    ? clock.format(ms)
    : day.format(ms);
}

/** A span in words, in its largest unit. */
export function formatSpan(ms: number): string {
  const minutes = Math.max(0, Math.round(ms / 60_000));
  if (minutes < 60) return `${minutes} min`;
  const hours = Math.round(minutes / 60);
  if (hours < 48) return `${hours} h`;
  return `${Math.round(hours / 24)} d`;
}

export const formatLab = (lab: readonly number[]): string => lab.map((value) => value.toFixed(2)).join(' ');
export const formatDeltaE = (value: number): string => value.toFixed(2);
