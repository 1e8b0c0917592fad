import { mkdir, readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { saveHouse } from './houseFile.ts';

const DAY_MS = 86_400_000;
const NAME = /^house-(\d{4}-\d{2}-\d{2}T\d{2}-\d{2}-\d{2}Z)\.melto$/;
/** A copy that somebody began and never ended. */
const ABANDONED_MS = 12 * 3_600_000;
/** Of the last days each copy, then the newest of each week, then of each month. */
const KEPT = { days: 7, weeks: 5, months: 12 } as const;

export const copyName = (atMs: number): string =>
  `house-${new Date(atMs).toISOString().slice(0, 19).replaceAll(':', '-')}Z.melto`;

/** When a copy was made, by its name; undefined for files that are none. */
export function copyTime(name: string): number | undefined {
  const told = NAME.exec(name)?.[1];
  if (told === undefined) return undefined;
  const [day, time] = told.split('T');
  return Date.parse(`${day}T${time.replaceAll('-', ':')}`);
}

/** Copies that need not be kept: beyond a week the newest of each week is enough, beyond five that of each month. */
export function copiesToForget(times: readonly number[], nowMs: number): number[] {
  const newestFirst = [...times].sort((a, b) => b - a);
  const seen = new Set<string>();
  return newestFirst.filter((time, i) => {
    const days = Math.floor((nowMs - time) / DAY_MS);
    // The newest one stays however old it is.
    if (i === 0 || days < KEPT.days) return false;
    const month = new Date(time).toISOString().slice(0, 7);
    const span =
      days < 7 * KEPT.weeks
        ? `week ${Math.floor(time / (7 * DAY_MS))}`
        : days < 31 * KEPT.months
          ? `month ${month}`
          : undefined;
    if (span === undefined || seen.has(span)) return true;
    seen.add(span);
    return false;
  });
}

/** Makes a copy where the newest is a day old, and forgets what need not be kept. @returns the file that was made. */
export async function keepCopies(url: string, folder: string, nowMs: number): Promise<string | undefined> {
  await mkdir(folder, { recursive: true, mode: 0o700 });
  const names = await readdir(folder);
  for (const name of names.filter((file) => file.endsWith('.part'))) {
    const { mtimeMs } = await stat(join(folder, name));
    if (nowMs - mtimeMs > ABANDONED_MS) await rm(join(folder, name), { force: true });
  }
  const times = names.flatMap((name) => copyTime(name) ?? []);
  if (times.some((time) => nowMs - time < DAY_MS)) return undefined;
  const file = join(folder, copyName(nowMs));
  await saveHouse(url, file, nowMs);
  for (const time of copiesToForget([...times, nowMs], nowMs))
    await rm(join(folder, copyName(time)), { force: true });
  return file;
}
