import { MOST_CHANNELS } from './process.ts';

/** Names of inks as colour engines and other programs show them. */
const INK_NAMES: Readonly<Record<string, string>> = {
  C: 'Cyan',
  M: 'Magenta',
  Y: 'Yellow',
  K: 'Black',
  O: 'Orange',
  R: 'Red',
  G: 'Green',
  B: 'Blue',
  V: 'Violet',
};

/** The name of a channel in full. */
export function inkName(channel: string): string {
  return INK_NAMES[channel] ?? channel;
}

const INK_NAME = /^[A-Za-z][A-Za-z0-9]{0,11}$/;

/** What is wrong with names of inks that a person gave; undefined where nothing is. */
export function inkNamesProblem(names: readonly string[]): string | undefined {
  if (names.length === 0 || names.length > MOST_CHANNELS)
    return `A front end has 1 to ${MOST_CHANNELS} inks; ${names.length} are named.`;
  const odd = names.find((name) => !INK_NAME.test(name));
  if (odd !== undefined)
    return `“${odd}” is no name of an ink: a letter, then up to eleven letters or digits.`;
  const twice = names.find((name, i) => names.indexOf(name) < i);
  return twice === undefined ? undefined : `${twice} is named twice.`;
}
