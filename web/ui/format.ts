import { houseClock, houseLongMoment, houseShortDay } from '@melto/core/time/houseTime';

/** The house's time zone, as the page was told it; times are the same on server and client. */
let zone = 'UTC';

/** Told once by the frame of all pages, before anything of them is drawn. */
export function tellHouseZone(name: string): void {
  zone = name;
}

export const formatClock = (ms: number): string => houseClock(ms, zone);
export const formatDay = (ms: number): string => houseShortDay(ms, zone);
export const formatMoment = (ms: number): string => houseLongMoment(ms, zone);

/** Time of day for today, the day otherwise. */
export function formatWhen(ms: number, nowMs: number): string {
  return formatDay(ms) === formatDay(nowMs) && Math.abs(nowMs - ms) < 86_400_000
    ? formatClock(ms)
    : formatDay(ms);
}

/** A span in words, in its largest unit. */
export function formatSpan(ms: number): string {
  const minutes = Math.max(0, Math.round(ms / 60_000));
  if (minutes < 60) return `${minutes} min`;
  const hours = Math.round(minutes / 60);
  if (hours < 48) return `${hours} h`;
  return `${Math.round(hours / 24)} d`;
}

/** Of so many decimals; what rounds to nought has no sign. */
const fixed = (value: number, digits: number): string => value.toFixed(digits).replace(/^-(0(\.0+)?)$/, '$1');

/** Three figures as they are copied into other programs: a hyphen for minus. */
export const formatLab = (lab: readonly number[], digits = 2): string =>
  lab.map((value) => fixed(value, digits)).join(' ');
/** A figure of so many decimals, with a minus sign where it is below zero. */
export const formatFigure = (value: number, digits: number): string => fixed(value, digits).replace('-', '−');
/** A figure of so many decimals with its sign, plus or minus. */
export const formatSigned = (value: number, digits: number): string =>
  `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(digits)}`;
export const formatDeltaE = (value: number): string => value.toFixed(2);
