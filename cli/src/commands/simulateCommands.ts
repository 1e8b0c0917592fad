import type { Command } from 'commander';
import { json } from './options.ts';

/** Commands for simulated devices and instruments. */
export function simulateCommands(program: Command): void {
  const simulate = program.command('simulate').description('simulated devices and instruments');
  json(simulate.command('read'))
    .requiredOption('--device <id>', 'wren, heron, osprey, tern, curlew, redshank or open-redshank')
    .requiredOption('--stock <id>')
    .option('--print-mode <name>', 'print mode of the device, its first one where not named')
    .requiredOption('--chart <file>')
    .option('--seed <number>', 'of the print and the reading', '1')
    .option('--mode <m>', 'm0, m1 or m2', 'm1')
    .option('--noise <kind>', 'instrument, or accuracy (0.20 ΔE00 a patch, mean sheet)', 'instrument')
    .option(
      '--fault <name>',
      'colour-management-on[:conversion], curves-on, curves-missing, strips-swapped or strip-backwards',
    )
    .option('--curves <file>', 'CSV curves that the front end applies')
    .option('--zones <file>', 'CSV corrections of the zones that are set')
    .option('--side <side>', 'printing or wrong', 'printing')
    .option('--profile <file>', 'convert Lab aims of the chart through this profile')
    .requiredOption('--out <file>')
    .action(async (options) => (await import('../simulateRead.ts')).simulateRead(options));

  simulate
    .command('press')
    .description('a simulated sensor over a simulated press, which delivers to a feed of a server')
    .option('--server <address>', 'of Melto', 'http://127.0.0.1:3400')
    .option('--key <secret>', 'key for machines of an operator, or MELTO_KEY')
    .requiredOption('--feed <number>', 'the feed that it delivers to; it reads the run that this points at')
    .option('--every <seconds>', 'between two sheets', '1')
    .option('--step <impressions>', 'between two sheets', '60')
    .option('--sheets <number>', 'after which it ends; it goes on without')
    .option('--state <file>', 'remembers how far it came, for when it is started again')
    .action(async (options) => (await import('../simulatePress.ts')).simulatePress(options));
}
