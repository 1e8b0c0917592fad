import type { Command } from 'commander';
import { ALL_MEASURED_AS, json } from './options.ts';

/** Commands for lights, brighteners, the eye's check and spot inks. */
export function lightCommands(program: Command): void {
  json(
    program
      .command('light')
      .argument('<lights...>', 'D50, D65, A, F11 … or files of measured lights (CGATS, CSV, CxF)')
      .description('what lights are like: colour temperature, colour rendering, ultraviolet'),
  ).action(async (names, options) => (await import('../light.ts')).describeLights(names, options));

  const eye = program.command('eye').description('a page that an eye compares with its references');
  json(eye.command('page').description('the colours, in values of the device'))
    .requiredOption('--profile <file>', 'of the device and stock')
    .option('--colours <file>', 'colour list; the reference colours where none is given')
    .option('--paper <name>', 'a4, letter or a3', 'a4')
    .requiredOption('--out <file>', 'PDF to write')
    .action(async (options) => (await import('../eye.ts')).eyePage(options));
  json(
    eye
      .command('tell')
      .argument('<notes>', 'a line for each colour: its number or name, a colon, and same, redder, darker …')
      .description('what the notes point to, and what to try next'),
  )
    .requiredOption('--profile <file>', 'that the page was made with')
    .option('--colours <file>', 'colour list of the page; the reference colours where none is given')
    .option('--measured <file>', 'reading of the chart of the profile in M1, with spectra')
    .option('--without-uv <file>', 'the same sheet read without ultraviolet (M2)')
    .option(...ALL_MEASURED_AS)
    .option('--light <name>', 'that it was looked at in: D65, A, F11 … or a file of a measured one', 'D50')
    .option('--observer <degrees>', '2 or 10', '2')
    .action(async (notes, options) => (await import('../eye.ts')).eyeTell(notes, options));

  const study = program
    .command('study')
    .description('how much ultraviolet acts where prints hang, told by eye');
  json(study.command('page').description('the page of greys, in values of the device'))
    .requiredOption('--profile <file>', 'of the device and stock')
    .option('--paper <name>', 'a4, letter or a3', 'a4')
    .requiredOption('--out <file>', 'PDF to write')
    .action(async (options) => (await import('../study.ts')).studyPage(options));
  json(
    study
      .command('tell')
      .argument('<picks>', 'a line for each pick: row, field, and the person where several looked; A,7,1')
      .description('the share that acts, from what eyes picked'),
  )
    .requiredOption('--profile <file>', 'that the page was made with')
    .requiredOption('--measured <file>', 'reading of its chart in M1, with spectra')
    .requiredOption('--without-uv <file>', 'the same sheet read without ultraviolet (M2)')
    .option(...ALL_MEASURED_AS)
    .requiredOption(
      '--light <name>',
      'that the page was looked at in: D65, A, F11 … or a file of a measured one',
    )
    .option('--observer <degrees>', '2 or 10', '2')
    .action(async (picks, options) => (await import('../study.ts')).studyTell(picks, options));

  json(
    program
      .command('spot')
      .description('spot inks')
      .command('over')
      .description('foretell a spot ink over process inks from its tints on white and on black'),
  )
    .requiredOption('--process <file>', 'reading of the process inks, with spectra')
    .requiredOption(
      '--tints <file>',
      'reading of the spot ink on bare stock and on a dark ground, with spectra',
    )
    .requiredOption('--ask <file>', 'CGATS with values of the process inks and the spot ink')
    .option(...ALL_MEASURED_AS)
    .option('--out <file>', 'CGATS with the spectra foretold')
    .action(async (options) => (await import('../spotOver.ts')).spotOverProcess(options));
}
