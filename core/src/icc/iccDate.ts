import type { ByteReader } from './byteReader.ts';
import type { ByteWriter } from './byteWriter.ts';
import type { IccDate } from './iccTypes.ts';

/** dateTimeNumber (ICC.1:2022, 4.2). */
export function readDate(reader: ByteReader): IccDate {
  const [year, month, day, hour, minute, second] = reader.u16Array(6, 'date');
  return { year, month, day, hour, minute, second };
}

export function writeDate(writer: ByteWriter, date: IccDate): void {
  writer.u16Array([date.year, date.month, date.day, date.hour, date.minute, date.second]);
}

/** UTC date of milliseconds since 1970. */
export function iccDateOf(timeMs: number): IccDate {
  const date = new Date(timeMs);
  return {
    year: date.getUTCFullYear(),
    month: date.getUTCMonth() + 1,
    day: date.getUTCDate(),
    hour: date.getUTCHours(),
    minute: date.getUTCMinutes(),
    second: date.getUTCSeconds(),
  };
}
