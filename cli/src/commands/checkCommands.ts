import type { Command } from 'commander';
import { json, MEASURED_AS } from './options.ts';

/** Commands for checks of jobs and sheets. */
export function checkCommands(program: Command, setStatus: (status: number) => void): void {
  json(
    program
      .command('job')
      .description(
        'say from a measured picture how jobs are converted; the exit code is 0 where as they should',
      )
      .requiredOption('--measured <file>', 'CGATS, CxF3 or CSV with the values of the picture')
      .option('--source <file>', 'ICC profile that CMYK values are meant by; without it they are sRGB')
      .option(...MEASURED_AS)
      .requiredOption('--profile <file>', 'ICC profile that jobs should go through')
      .requiredOption(
        '--intent <name>',
        'of the jobs: relative-black, relative, perceptual, saturation, absolute',
      )
      .option('--papers <files...>', 'profiles of other papers of the device'),
  ).action(async (options) => {
    setStatus((await import('../job.ts')).job(options));
  });
  json(
    program
      .command('check')
      .description('judge a CMYK reading by aims and tolerances; the exit code is the verdict')
      .requiredOption('--measured <file>', 'CGATS, CxF3 or CSV with a reading')
      .option(...MEASURED_AS)
      .requiredOption(
        '--aims <file>',
        'CGATS characterisation, ICC profile, or a published condition such as fogra39l',
      )
      .option('--aims-mode <mode>', 'M0 to M3, where the aims do not tell it')
      .requiredOption(
        '--tolerances <name>',
        'iso12647-7-proof, iso12647-8-validation, iso12647-2-production, iso12647-2-production-00, g7-greyscale, g7-targeted, g7-colour-space or house-photo',
      )
      .option('--substrate-corrected', 'move the aims to the paper that was read'),
  ).action(async (options) => {
    setStatus((await import('../check.ts')).check(options));
  });
}
