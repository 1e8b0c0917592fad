import dayjs from 'dayjs';
import timezone from 'dayjs/plugin/timezone.js';
import utc from 'dayjs/plugin/utc.js';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { houseClock, houseDay } from './houseTime.ts';

dayjs.extend(utc);
dayjs.extend(timezone);

/** When shifts begin where a house has told nothing else. */
export const USUAL_SHIFTS = '06:00, 14:00, 22:00';
const MOST_SHIFTS = 6;

/** A stretch of time, its end left out. */
export interface Shift {
  readonly fromMs: number;
  readonly toMs: number;
}

/** Reads when shifts begin, as “06:00, 14:00, 22:00”: clock times in the order of the day. */
export function parseShifts(text: string): Result<readonly string[]> {
  const starts = text
    .split(/[,;\s]+/)
    .filter((part) => part !== '')
    .map((part) => part.padStart(5, '0'));
  const clock = /^([01]\d|2[0-3]):[0-5]\d$/;
  const sorted = starts.every((start, i) => i === 0 || start > starts[i - 1]);
  if (
    starts.length > 0 &&
    starts.length <= MOST_SHIFTS &&
    sorted &&
    starts.every((start) => clock.test(start))
  )
    return success(starts);
  return failure({
    code: 'shifts',
    path: 'shifts',
    expected: `1 to ${MOST_SHIFTS} clock times in the order of the day, as ${USUAL_SHIFTS}`,
    found: `“${text.slice(0, 60)}”`,
  });
}

/** The shift that a moment lies in. @param starts clock times, as `parseShifts` gives them; `zone` IANA name of a time zone. */
export function shiftAt(ms: number, zone: string, starts: readonly string[]): Shift {
  const day = dayjs.utc(ms).tz(zone).startOf('day');
  const moments = [-1, 0, 1]
    .flatMap((add) => {
      const date = day.add(add, 'day').format('YYYY-MM-DD');
      return starts.map((start) => dayjs.tz(`${date} ${start}`, zone).valueOf());
    })
    .sort((a, b) => a - b);
  const next = moments.findIndex((moment) => moment > ms);
  return { fromMs: moments[next - 1], toMs: moments[next] };
}

/** `2026-03-14, 06:00 to 14:00` */
export const shiftWords = ({ fromMs, toMs }: Shift, zone: string): string =>
  `${houseDay(fromMs, zone)}, ${houseClock(fromMs, zone)} to ${houseClock(toMs, zone)}`;
