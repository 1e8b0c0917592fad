import { baseInks } from './baseInks.ts';
import { CMYK, channelCount, sameProcess } from './process.ts';
import type { Process } from './process.ts';

/** Channels of C, M, Y and K of a process; a RangeError where it has not all of them. */
export function cmykPlaces(process: Process): readonly [number, number, number, number] {
  const roles = baseInks(process);
  if (roles === undefined) throw new RangeError(`${process.name} has not all of C, M, Y and K`);
  return [...roles.base, roles.black];
}

/** Rows of C, M, Y, K as rows of a process that has them among its inks; the others print nothing. */
export function withinProcess(process: Process, rows: Float64Array): Float64Array {
  if (sameProcess(process, CMYK)) return rows;
  const [places, channels] = [cmykPlaces(process), channelCount(process)];
  const out = new Float64Array((rows.length / 4) * channels);
  rows.forEach((value, at) => (out[Math.floor(at / 4) * channels + places[at % 4]] = value));
  return out;
}

/** C, M, Y, K of rows of such a process; NaN in rows where another ink prints as well. */
export function cmykWithin(process: Process, rows: Float64Array): Float64Array {
  if (sameProcess(process, CMYK)) return rows;
  const [places, channels] = [cmykPlaces(process), channelCount(process)];
  const out = new Float64Array((rows.length / channels) * 4).fill(NaN);
  for (let row = 0; row * channels < rows.length; row++) {
    const values = rows.subarray(row * channels, (row + 1) * channels);
    const alone = values.every((value, channel) => value < 1e-6 || places.includes(channel));
    if (alone) places.forEach((place, i) => (out[4 * row + i] = values[place]));
  }
  return out;
}
