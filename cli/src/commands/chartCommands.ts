import type { Command } from 'commander';
import { json, MEASURED_AS } from './options.ts';

/** Commands for charts and their pages. */
export function chartCommands(program: Command): void {
  const chart = program.command('chart').description('make charts and their pages');
  json(chart.command('make'))
    .requiredOption(
      '--process <name>',
      'channels of the device: rgb, cmyk, or letters of five to eight inks, as cmykog',
    )
    .option('--patches <number>', 'rgb: 100 to 3,000; cmyk profile: 200 to 3,000')
    .option('--tac <per cent>', 'cmyk profile: total ink', '300')
    .option(
      '--kind <name>',
      'profile, or job (a picture that tells how jobs are converted); cmyk also ramps (with total ink), near-neutral or evenness',
    )
    .option('--steps <number>', 'ramps: 5 to 64 from paper to solid', '21')
    .option('--copies <number>', '1 to 8, laid out against unevenness')
    .option('--order <name>', 'scrambled or in-order', 'scrambled')
    .option('--instrument <kind>', 'strip, spot or sheet', 'strip')
    .option('--seed <number>', 'of the order and the interior', '1')
    .option('--paper <name>', 'a4, letter or a3', 'a4')
    .requiredOption('--out <file>', 'CGATS file to write')
    .action(async (options) => (await import('../chartMake.ts')).chartMake(options));
  json(chart.command('refine'))
    .requiredOption('--measured <file>', 'reading that is to be added to')
    .option('--unsure <number>', 'patches where the model is least sure', '60')
    .option(...MEASURED_AS)
    .option('--colours <file>', 'colour list (CxF, CGATS, CSV) that matters')
    .option('--profile <file>', 'profile that prints the colours')
    .option('--readings <number>', 'of each colour, 1 to 6', '4')
    .option('--tac <per cent>', 'total ink', '300')
    .option('--instrument <kind>', 'strip, spot or sheet', 'strip')
    .option('--seed <number>', 'of the order and the choice', '1')
    .option('--paper <name>', 'a4, letter or a3', 'a4')
    .requiredOption('--out <file>', 'CGATS file to write')
    .action(async (options) => (await import('../chartRefine.ts')).chartRefine(options));
  json(chart.command('pages').argument('<chart>', 'CGATS file with device values'))
    .option('--instrument <kind>', 'strip, spot or sheet', 'strip')
    .option('--paper <name>', 'a4, letter or a3', 'a4')
    .option('--code <text>', 'sheet code without its page', 'MLT-0001')
    .option('--seed <number>', 'of the order, where the file has no layout', '1')
    .option('--pdf <file>')
    .option('--tiff <file>', 'more pages get -2, -3 … before the ending')
    .option('--png <file>')
    .option('--srgb', 'RGB values are sRGB, and the files say so')
    .option('--source <file>', 'ICC profile that CMYK values are meant by, and the files carry')
    .option('--out <file>', 'CGATS file with the layout')
    .action(async (file, options) => (await import('../chartPages.ts')).chartPages(file, options));

  json(chart.command('light').description('make the chart by which light inks are joined to their full ones'))
    .requiredOption('--inks <names>', 'of the device in its own order, as C,M,Y,K,LC,LM')
    .requiredOption('--pairs <inks...>', 'a light ink and its full one each, as LC,C LM,M')
    .option('--seed <number>', 'of the order', '1')
    .option('--paper <name>', 'a4, letter or a3', 'a4')
    .requiredOption('--out <file>', 'CGATS file to write')
    .action(async (options) => (await import('../chartLight.ts')).chartLight(options));
  json(chart.command('split').argument('<chart>', 'CGATS file in which light and full inks are one channel'))
    .requiredOption('--inks <names>', 'of the device in its own order, as C,M,Y,K,LC,LM')
    .requiredOption('--join <files...>', 'CSV of melto curves join, one for each light ink')
    .requiredOption('--out <file>', 'CGATS file with values of the inks')
    .action(async (file, options) => (await import('../chartLight.ts')).chartSplit(file, options));
  json(chart.command('values').argument('<chart>', 'CGATS file whose device values are taken'))
    .requiredOption('--measured <file>', 'what was measured of it, by the same ids')
    .option(...MEASURED_AS)
    .requiredOption('--out <file>', 'CGATS file with both')
    .action(async (file, options) => (await import('../chartLight.ts')).chartValues(file, options));
}
