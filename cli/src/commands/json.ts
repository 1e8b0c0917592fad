import type { Command } from 'commander';

/** A command that can print one JSON object instead of words. */
export const json = (command: Command): Command => command.option('--json', 'print one JSON object');
