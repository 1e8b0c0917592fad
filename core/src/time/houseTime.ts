import dayjs from 'dayjs';
import timezone from 'dayjs/plugin/timezone.js';
import utc from 'dayjs/plugin/utc.js';

dayjs.extend(utc);
dayjs.extend(timezone);

/** How times are told: all in the house's own zone, on screens, reports, charts and in names alike. */
const FORMS = {
  day: 'YYYY-MM-DD',
  moment: 'YYYY-MM-DD HH:mm',
  clock: 'HH:mm',
  shortDay: 'D MMM',
  longMoment: 'D MMM YYYY, HH:mm',
} as const;

function told(ms: number, zone: string, form: keyof typeof FORMS): string {
  return dayjs.utc(ms).tz(zone).format(FORMS[form]);
}

/** `2026-03-14`. @param zone IANA name of a time zone. @throws RangeError where there is none of that name. */
export const houseDay = (ms: number, zone: string): string => told(ms, zone, 'day');
/** `2026-03-14 09:05 (Europe/London)`: a moment on paper, where nobody can ask which zone. */
export const houseMoment = (ms: number, zone: string): string => `${told(ms, zone, 'moment')} (${zone})`;
/** `09:05` */
export const houseClock = (ms: number, zone: string): string => told(ms, zone, 'clock');
/** `14 Mar` */
export const houseShortDay = (ms: number, zone: string): string => told(ms, zone, 'shortDay');
/** `14 Mar 2026, 09:05` */
export const houseLongMoment = (ms: number, zone: string): string => told(ms, zone, 'longMoment');
