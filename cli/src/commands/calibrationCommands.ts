import type { Command } from 'commander';
import { json, MEASURED_AS } from './options.ts';

/** Commands for curves and evenness. */
export function calibrationCommands(program: Command, setStatus: (status: number) => void): void {
  const curves = program.command('curves').description('tone curves of ink devices');
  const curvesCommand = (name: string): Command =>
    json(curves.command(name))
      .requiredOption(
        '--measured <file>',
        'CGATS, CxF3 or CSV with values of inks as sent, and spectra, XYZ or Lab',
      )
      .option('--curves <file>', 'CSV curves that the sheet was printed through')
      .option(...MEASURED_AS)
      .option('--out <file>', 'CSV curves for the next round')
      .option('--link <file>', 'the same as an ICC device link');
  curvesCommand('linearise')
    .option('--measure <name>', 'sctv, density, delta-e or tvi', 'sctv')
    .option('--aim <letter>', 'A to E, with --measure tvi')
    .option('--limits <list>', 'ink limits at the device in the order of its inks, per cent')
    .option('--within <per cent>', 'exit code 1 where a step departs by more')
    .action(async (options) => {
      setStatus((await import('../curves.ts')).curvesLinearise(options));
    });
  json(curves.command('join').description('join a light ink and its full ink as one'))
    .requiredOption('--measured <file>', 'CGATS, CxF3 or CSV: ramps of both inks, and overprints of the two')
    .requiredOption('--light <ink>')
    .requiredOption('--full <ink>')
    .option('--inks <names>', 'of a file that counts its inks: C,M,Y,K,LC,LM in their order')
    .option('--most <per cent>', 'most of the light ink', '100')
    .option(...MEASURED_AS)
    .option('--out <file>', 'CSV: what each of the two prints for a tone of both')
    .action(async (options) => (await import('../curvesJoin.ts')).curvesJoin(options));
  curvesCommand('balance').action(async (options) => {
    setStatus((await import('../curves.ts')).curvesBalance(options));
  });

  json(
    program
      .command('evenness')
      .description('evenness across the width')
      .command('correct')
      .requiredOption('--measured <file>', 'reading of an evenness chart, with its layout')
      .option('--zones <file>', 'CSV corrections that were in force')
      .option(...MEASURED_AS)
      .option('--out <file>', 'CSV corrections of each zone and ink'),
  ).action(async (options) => (await import('../evenness.ts')).evennessCorrect(options));
}
