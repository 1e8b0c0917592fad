import type { Command } from 'commander';

/** A command that can print one JSON object instead of words. */
export const json = (command: Command): Command => command.option('--json', 'print one JSON object');

const MODES_AND_SCALES = 'M0 to M3, 1, 100, 255, 65535, bandpass, table 1 …';

/** An option for what a file of measurements leaves open, and for several of them. */
export const MEASURED_AS = [
  '--measured-as <words>',
  `what the file does not tell: ${MODES_AND_SCALES}`,
] as const;
export const ALL_MEASURED_AS = [
  '--measured-as <words>',
  `what the files do not tell: ${MODES_AND_SCALES}`,
] as const;
