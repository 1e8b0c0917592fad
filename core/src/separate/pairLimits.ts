import type { PairLimit } from './separation.ts';

/** Least and most that two inks may be held to together, per cent. */
export const PAIR_PERCENT = { least: 50, most: 200 } as const;

/**
 * Limits of pairs as a person writes them: `C+M=180, O+Y=160`, in per cent.
 * @param names of the inks by channel.
 * @returns undefined where a part is none; an empty list for an empty text.
 */
export function pairLimitsFrom(text: string, names: readonly string[]): PairLimit[] | undefined {
  const parts = text.split(',').filter((part) => part.trim() !== '');
  const out: PairLimit[] = [];
  for (const part of parts) {
    const [, one = '', other = '', most = ''] = /^\s*(\w+)\s*\+\s*(\w+)\s*=\s*(\d+)\s*$/.exec(part) ?? [];
    const inks = [names.indexOf(one), names.indexOf(other)];
    const percent = Number(most);
    if (inks.some((ink) => ink < 0) || one === other) return undefined;
    if (!(percent >= PAIR_PERCENT.least && percent <= PAIR_PERCENT.most)) return undefined;
    out.push({ inks, most: percent / 100 });
  }
  return out;
}

/** The same in words again: `C+M=180, O+Y=160`. */
export function pairLimitsText(limits: readonly PairLimit[], names: readonly string[]): string {
  return limits
    .map(({ inks: [one, other], most }) => `${names[one]}+${names[other]}=${Math.round(100 * most)}`)
    .join(', ');
}
