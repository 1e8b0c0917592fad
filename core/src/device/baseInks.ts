import { blackChannel } from './process.ts';
import type { Process } from './process.ts';

/** Channels of cyan, magenta, yellow and black of a process; undefined where one is missing. */
export function baseInks(
  process: Process,
): { readonly base: readonly [number, number, number]; readonly black: number } | undefined {
  const places = ['C', 'M', 'Y'].map((name) =>
    process.channels.findIndex((channel) => channel.name === name),
  );
  const black = blackChannel(process);
  if (black === undefined || places.some((place) => place < 0)) return undefined;
  return { base: [places[0], places[1], places[2]], black };
}
