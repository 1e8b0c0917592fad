import type { WatchCause } from './watchCause.ts';

const INKS = ['cyan', 'magenta', 'yellow', 'black'] as const;
const PLACES = ['left', 'middle', 'right'] as const;

/** What moved and what to look at, in one or two sentences. */
export function causeSentence(cause: WatchCause): string {
  const sentence = first(cause);
  return cause.orElse === null ? sentence : `${sentence} It could also be ${short(cause.orElse)}.`;
}

function first({ kind, ink, place, size }: WatchCause): string {
  const percent = Math.max(1, Math.round(Math.abs(100 * size)));
  const weaker = size < 0 ? 'weaker' : 'stronger';
  const name = INKS[ink] ?? '';
  switch (kind) {
    case 'ink':
      return `${capital(name)} has moved, solid and tints, about ${percent} % ${weaker}: look at its ink and its head or unit.`;
    case 'dot gain':
      return `Tints of ${name} are ${size < 0 ? 'lighter' : 'darker'} while its solid stands: dot gain; linearise again.`;
    case 'zone':
      return `${capital(name)} is about ${percent} % ${weaker} in the ${PLACES[place]} third only: evenness, not the ink.`;
    case 'all inks':
      return `All inks have moved together, about ${percent} % ${weaker}, and the paper has not: temperature, humidity or speed.`;
    case 'stock':
      return 'The paper has moved, most where no ink covers it: a new lot of stock, or another one.';
    case 'instrument':
      return 'Everything has moved with the white: the instrument. Calibrate it on its tile and read again.';
  }
}

function short({ kind, ink, place }: NonNullable<WatchCause['orElse']>): string {
  switch (kind) {
    case 'ink':
      return `the ink ${INKS[ink]}`;
    case 'dot gain':
      return `dot gain of ${INKS[ink]}`;
    case 'zone':
      return `${INKS[ink]} in the ${PLACES[place]} third`;
    case 'all inks':
      return 'all inks together';
    case 'stock':
      return 'the stock';
    case 'instrument':
      return 'the instrument';
  }
}

function capital(word: string): string {
  return `${word[0]?.toUpperCase() ?? ''}${word.slice(1)}`;
}
