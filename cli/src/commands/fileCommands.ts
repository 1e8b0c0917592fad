import type { Command } from 'commander';
import { json } from './options.ts';

/** Commands for files and colours on their way. */
export function fileCommands(program: Command): void {
  json(
    program
      .command('convert')
      .argument('<in>')
      .argument('<out>')
      .description('read any CGATS file, write a clean one'),
  ).action(async (input, output, options) => (await import('../convert.ts')).convert(input, output, options));
  json(
    program
      .command('transform')
      .argument('<in>', 'CGATS file of device values, or of Lab where nothing is named to come from')
      .description('convert colours from one profile to another, or between a profile and Lab')
      .option('--from <file>', 'ICC profile of the values')
      .option('--to <file>', 'ICC profile of the device that they are for; Lab without it')
      .option('--intent <name>', 'perceptual, relative, saturation or absolute', 'relative')
      .option('--black-point', 'bring black to black (ISO 18619)')
      .option('--curves <file>', 'CSV of curves that the front end applies after the profile')
      .requiredOption('--out <file>', 'CGATS file to write'),
  ).action(async (file, options) => (await import('../transform.ts')).transform(file, options));
}
