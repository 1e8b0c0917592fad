import type { Static } from '@sinclair/typebox';
import { DEVICE_SCALES } from '@melto/core/device/deviceScale';
import type { Answers } from '@melto/core/measured/measurement';
import type { IMPORT_READING } from '@/endpoints/reading';

/** What was said to the questions of a file, out of an address. */
export function answersOf({
  mode,
  scale,
  light,
  table,
  bandpass,
}: Static<typeof IMPORT_READING.query>): Answers {
  return { mode, light, table, bandpass, scale: DEVICE_SCALES.find((known) => String(known) === scale) };
}
