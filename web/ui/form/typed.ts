import { numberOf } from '@/ui/numberOf';

/** A list as people type it, parted by commas. */
export function listOf(text: string): string[] {
  return text
    .split(',')
    .map((one) => one.trim())
    .filter((one) => one !== '');
}

/** A list that was told, under its name; nothing for an empty one. */
export function toldList<K extends string, T>(name: K, list: readonly T[]): Partial<Record<K, readonly T[]>> {
  return (list.length === 0 ? {} : { [name]: list }) as Partial<Record<K, readonly T[]>>;
}

/** A number that was told, under its name; nothing for an empty text. */
export function toldNumber<K extends string>(
  name: K,
  text: string,
  typed: (text: string) => number = numberOf,
): Partial<Record<K, number>> {
  return (text.trim() === '' ? {} : { [name]: typed(text) }) as Partial<Record<K, number>>;
}
