import { Command, CommanderError } from 'commander';
import { UsageError } from './usageError.ts';

/** `melto`: core, paper and simulator without a browser or database. Exit 0 done, 1 does not conform, 2 wrong use. */
export async function melto(argv: readonly string[]): Promise<number> {
  const program = new Command('melto')
    .description('Charts, readings and profiles of printers')
    .exitOverride();
  program.configureOutput({ writeErr: (text) => process.stderr.write(text) });
  let status = 0;
  const json = (command: Command): Command => command.option('--json', 'print one JSON object');

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
    .action(async (options) => (await import('./chartMake.ts')).chartMake(options));
  json(chart.command('refine'))
    .requiredOption('--measured <file>', 'reading that is to be added to')
    .option('--unsure <number>', 'patches where the model is least sure', '60')
    .option(
      '--measured-as <words>',
      'what the file does not tell: M0 to M3, 1, 100, 255, 65535, bandpass, table 1 …',
    )
    .option('--colours <file>', 'colour list (CxF, CGATS, CSV) that matters')
    .option('--profile <file>', 'profile that prints the colours')
    .option('--readings <number>', 'of each colour, 1 to 6', '4')
    .option('--tac <per cent>', 'total ink', '300')
    .option('--instrument <kind>', 'strip, spot or sheet', 'strip')
    .option('--seed <number>', 'of the order and the choice', '1')
    .option('--paper <name>', 'a4, letter or a3', 'a4')
    .requiredOption('--out <file>', 'CGATS file to write')
    .action(async (options) => (await import('./chartRefine.ts')).chartRefine(options));
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
    .action(async (file, options) => (await import('./chartPages.ts')).chartPages(file, options));

  json(chart.command('light').description('make the chart by which light inks are joined to their full ones'))
    .requiredOption('--inks <names>', 'of the device in its own order, as C,M,Y,K,LC,LM')
    .requiredOption('--pairs <inks...>', 'a light ink and its full one each, as LC,C LM,M')
    .option('--seed <number>', 'of the order', '1')
    .option('--paper <name>', 'a4, letter or a3', 'a4')
    .requiredOption('--out <file>', 'CGATS file to write')
    .action(async (options) => (await import('./chartLight.ts')).chartLight(options));
  json(chart.command('split').argument('<chart>', 'CGATS file in which light and full inks are one channel'))
    .requiredOption('--inks <names>', 'of the device in its own order, as C,M,Y,K,LC,LM')
    .requiredOption('--join <files...>', 'CSV of melto curves join, one for each light ink')
    .requiredOption('--out <file>', 'CGATS file with values of the inks')
    .action(async (file, options) => (await import('./chartLight.ts')).chartSplit(file, options));
  json(chart.command('values').argument('<chart>', 'CGATS file whose device values are taken'))
    .requiredOption('--measured <file>', 'what was measured of it, by the same ids')
    .option(
      '--measured-as <words>',
      'what the file does not tell: M0 to M3, 1, 100, 255, 65535, bandpass, table 1 …',
    )
    .requiredOption('--out <file>', 'CGATS file with both')
    .action(async (file, options) => (await import('./chartLight.ts')).chartValues(file, options));

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
    .action(async (options) => (await import('./simulateRead.ts')).simulateRead(options));

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
    .action(async (options) => (await import('./simulatePress.ts')).simulatePress(options));

  const curves = program.command('curves').description('tone curves of ink devices');
  const curvesCommand = (name: string): Command =>
    json(curves.command(name))
      .requiredOption(
        '--measured <file>',
        'CGATS, CxF3 or CSV with values of inks as sent, and spectra, XYZ or Lab',
      )
      .option('--curves <file>', 'CSV curves that the sheet was printed through')
      .option(
        '--measured-as <words>',
        'what the file does not tell: M0 to M3, 1, 100, 255, 65535, bandpass, table 1 …',
      )
      .option('--out <file>', 'CSV curves for the next round')
      .option('--link <file>', 'the same as an ICC device link');
  curvesCommand('linearise')
    .option('--measure <name>', 'sctv, density, delta-e or tvi', 'sctv')
    .option('--aim <letter>', 'A to E, with --measure tvi')
    .option('--limits <list>', 'ink limits at the device in the order of its inks, per cent')
    .option('--within <per cent>', 'exit code 1 where a step departs by more')
    .action(async (options) => {
      status = (await import('./curves.ts')).curvesLinearise(options);
    });
  json(curves.command('join').description('join a light ink and its full ink as one'))
    .requiredOption('--measured <file>', 'CGATS, CxF3 or CSV: ramps of both inks, and overprints of the two')
    .requiredOption('--light <ink>')
    .requiredOption('--full <ink>')
    .option('--inks <names>', 'of a file that counts its inks: C,M,Y,K,LC,LM in their order')
    .option('--most <per cent>', 'most of the light ink', '100')
    .option(
      '--measured-as <words>',
      'what the file does not tell: M0 to M3, 1, 100, 255, 65535, bandpass, table 1 …',
    )
    .option('--out <file>', 'CSV: what each of the two prints for a tone of both')
    .action(async (options) => (await import('./curvesJoin.ts')).curvesJoin(options));
  curvesCommand('balance').action(async (options) => {
    status = (await import('./curves.ts')).curvesBalance(options);
  });

  json(
    program
      .command('evenness')
      .description('evenness across the width')
      .command('correct')
      .requiredOption('--measured <file>', 'reading of an evenness chart, with its layout')
      .option('--zones <file>', 'CSV corrections that were in force')
      .option(
        '--measured-as <words>',
        'what the file does not tell: M0 to M3, 1, 100, 255, 65535, bandpass, table 1 …',
      )
      .option('--out <file>', 'CSV corrections of each zone and ink'),
  ).action(async (options) => (await import('./evenness.ts')).evennessCorrect(options));

  json(
    program
      .command('light')
      .argument('<lights...>', 'D50, D65, A, F11 … or files of measured lights (CGATS, CSV, CxF)')
      .description('what lights are like: colour temperature, colour rendering, ultraviolet'),
  ).action(async (names, options) => (await import('./light.ts')).describeLights(names, options));

  const eye = program.command('eye').description('a page that an eye compares with its references');
  json(eye.command('page').description('the colours, in values of the device'))
    .requiredOption('--profile <file>', 'of the device and stock')
    .option('--colours <file>', 'colour list; the reference colours where none is given')
    .option('--paper <name>', 'a4, letter or a3', 'a4')
    .requiredOption('--out <file>', 'PDF to write')
    .action(async (options) => (await import('./eye.ts')).eyePage(options));
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
    .option(
      '--measured-as <words>',
      'what the files do not tell: M0 to M3, 1, 100, 255, 65535, bandpass, table 1 …',
    )
    .option('--light <name>', 'that it was looked at in: D65, A, F11 … or a file of a measured one', 'D50')
    .option('--observer <degrees>', '2 or 10', '2')
    .action(async (notes, options) => (await import('./eye.ts')).eyeTell(notes, options));

  const study = program
    .command('study')
    .description('how much ultraviolet acts where prints hang, told by eye');
  json(study.command('page').description('the page of greys, in values of the device'))
    .requiredOption('--profile <file>', 'of the device and stock')
    .option('--paper <name>', 'a4, letter or a3', 'a4')
    .requiredOption('--out <file>', 'PDF to write')
    .action(async (options) => (await import('./study.ts')).studyPage(options));
  json(
    study
      .command('tell')
      .argument('<picks>', 'a line for each pick: row, field, and the person where several looked; A,7,1')
      .description('the share that acts, from what eyes picked'),
  )
    .requiredOption('--profile <file>', 'that the page was made with')
    .requiredOption('--measured <file>', 'reading of its chart in M1, with spectra')
    .requiredOption('--without-uv <file>', 'the same sheet read without ultraviolet (M2)')
    .option(
      '--measured-as <words>',
      'what the files do not tell: M0 to M3, 1, 100, 255, 65535, bandpass, table 1 …',
    )
    .requiredOption(
      '--light <name>',
      'that the page was looked at in: D65, A, F11 … or a file of a measured one',
    )
    .option('--observer <degrees>', '2 or 10', '2')
    .action(async (picks, options) => (await import('./study.ts')).studyTell(picks, options));

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
    .option(
      '--measured-as <words>',
      'what the files do not tell: M0 to M3, 1, 100, 255, 65535, bandpass, table 1 …',
    )
    .option('--out <file>', 'CGATS with the spectra foretold')
    .action(async (options) => (await import('./spotOver.ts')).spotOverProcess(options));

  const profile = program.command('profile').description('build and look at profiles');
  json(profile.command('build'))
    .requiredOption(
      '--measured <file>',
      'CGATS, CxF3 or CSV with RGB, CMYK or five to eight inks and spectra, XYZ or Lab',
    )
    .requiredOption('--out <file>')
    .option('--inks <names>', 'of a file that counts its inks: C,M,Y,K,O,G in their order')
    .option(
      '--measured-as <words>',
      'what the file does not tell: M0 to M3, 1, 100, 255, 65535, bandpass, table 1 …',
    )
    .option('--icc <version>', '2 or 4', '4')
    .option('--tables <size>', 'small, normal or large', 'normal')
    .option(
      '--black <amount>',
      'cmyk: light (smoothest lights), medium (all-round), heavy (steady greys) or max (least ink)',
      'medium',
    )
    .option('--black-start <L*>', 'cmyk: lightness from which black begins')
    .option('--black-most <per cent>', 'cmyk: most black')
    .option('--black-shape <number>', 'cmyk: how black rises, 0.3 to 5, 1 evenly')
    .option('--black-chroma <C*>', 'cmyk: chroma that black reaches to')
    .option('--ink-limits <list>', 'cmyk: most C,M,Y,K, per cent (default: full, or where an ink turns back)')
    .option('--pair-limits <list>', 'most of two inks together, per cent: C+M=180,O+Y=160')
    .option('--replace <per cent>', 'how far inks beside C, M, Y, K take the place of overprints, 70')
    .option('--pure-black', 'cmyk: greys of the saturation intent in black alone')
    .option('--tac <per cent>', 'cmyk: total ink', '300')
    .option('--added <files...>', 'inks: further readings through the same curves')
    .option('--colours <file>', 'cmyk: colour list that is to come out exactly')
    .option('--light <name>', 'the light that it is for: D65, A, F11 … or a file of a measured one', 'D50')
    .option('--observer <degrees>', '2 or 10', '2')
    .option('--without-uv <file>', 'the same sheet read without ultraviolet (M2)')
    .option('--uv <share>', 'share of the ultraviolet of M1 that acts in the light, 0 to 1.2')
    .option('--name <text>', 'description in the profile')
    .option('--report <file>', 'fit report as JSON')
    .action(async (options) => (await import('./profileBuild.ts')).profileBuild(options));
  json(profile.command('compare').argument('<a>').argument('<b>')).action(async (a, b, options) =>
    (await import('./profileCompare.ts')).profileCompare(a, b, options),
  );
  json(
    profile
      .command('inspect')
      .argument('<profile>')
      .description('what a profile is and does, and what is wrong with it in plain words')
      .option('--data <file>', 'take out the characterisation data that it carries'),
  ).action(async (file, options) => (await import('./profileInspect.ts')).profileInspect(file, options));

  json(
    profile
      .command('version')
      .argument('<profile>')
      .description('write an output profile as the other version of the ICC specification has it, 2 or 4')
      .requiredOption('--out <file>'),
  ).action(async (file, options) => (await import('./profileVersion.ts')).profileVersion(file, options));

  json(
    program
      .command('gamut')
      .argument('<a>')
      .argument('<b>')
      .description('what each of two profiles prints that the other does not, and by hue'),
  ).action(async (a, b, options) => (await import('./gamut.ts')).gamut(a, b, options));

  json(
    program
      .command('proof')
      .argument('<picture>', 'TIFF, PNG or JPEG')
      .description('write a picture as a device prints it, or its values for the device')
      .requiredOption('--profile <file>', 'ICC profile of the device')
      .option('--source <file>', 'ICC profile that the values are meant by, where the picture tells none')
      .option('--intent <name>', 'perceptual, relative, saturation or absolute', 'relative')
      .option('--black-point', 'bring black to black (ISO 18619)')
      .option('--no-paper-white', 'as white as the screen in place of the paper')
      .option('--no-ink-black', 'as black as the screen in place of the inks')
      .option('--out <file>', 'TIFF of the proof, in sRGB')
      .option('--values <file>', 'TIFF of the device values, with the profile in it'),
  ).action(async (picture, options) => (await import('./proof.ts')).proof(picture, options));

  json(
    program
      .command('rank')
      .description('on which of some devices the colours of a list come out nearest')
      .requiredOption('--colours <file>', 'colour list: CxF, CGATS or CSV')
      .requiredOption('--profiles <files...>', 'ICC profiles of the devices'),
  ).action(async (options) => (await import('./rank.ts')).rank(options));

  json(
    program
      .command('colours')
      .argument('<list>', 'colour list: CxF, CGATS or CSV')
      .description('which colours of a list a device reaches, with which values, their tints')
      .requiredOption('--profile <file>', 'ICC profile of the device')
      .option('--recipes', 'other amounts of black that come as near')
      .option('--report <file>', 'report to write: .pdf or .html'),
  ).action(async (list, options) => (await import('./colours.ts')).colours(list, options));

  json(
    program
      .command('papers')
      .argument('<files...>', 'one chart measured on each paper: CGATS, CxF3 or CSV with device values')
      .description('compare papers: white, Dmax, gamut, greys, noise, what pictures lose')
      .option(
        '--measured-as <words>',
        'what the files do not tell: M0 to M3, 1, 100, 255, 65535, bandpass, table 1 …',
      ),
  ).action(async (files, options) => (await import('./papers.ts')).papers(files, options));

  json(
    program
      .command('link')
      .description('make a device link from one profile of inks (CMYK, or up to eight) to another')
      .requiredOption('--from <file>', 'ICC profile that the values are meant by')
      .requiredOption('--to <file>', 'ICC profile of the device')
      .option('--intent <name>', 'perceptual, relative, saturation or absolute', 'relative')
      .option('--black-point', 'bring black to black (ISO 18619)')
      .option('--keep <words>', 'what stays alone: black, inks, or both parted by a comma')
      .option('--total-ink <percent>', 'limit of the sum, instead of the profile’s own')
      .requiredOption('--out <file>', 'ICC device link to write'),
  ).action(async (options) => (await import('./link.ts')).link(options));

  json(
    program
      .command('job')
      .description(
        'say from a measured picture how jobs are converted; the exit code is 0 where as they should',
      )
      .requiredOption('--measured <file>', 'CGATS, CxF3 or CSV with the values of the picture')
      .option('--source <file>', 'ICC profile that CMYK values are meant by; without it they are sRGB')
      .option(
        '--measured-as <words>',
        'what the file does not tell: M0 to M3, 1, 100, 255, 65535, bandpass, table 1 …',
      )
      .requiredOption('--profile <file>', 'ICC profile that jobs should go through')
      .requiredOption(
        '--intent <name>',
        'of the jobs: relative-black, relative, perceptual, saturation, absolute',
      )
      .option('--papers <files...>', 'profiles of other papers of the device'),
  ).action(async (options) => {
    status = (await import('./job.ts')).job(options);
  });
  json(
    program
      .command('check')
      .description('judge a CMYK reading by aims and tolerances; the exit code is the verdict')
      .requiredOption('--measured <file>', 'CGATS, CxF3 or CSV with a reading')
      .option(
        '--measured-as <words>',
        'what the file does not tell: M0 to M3, 1, 100, 255, 65535, bandpass, table 1 …',
      )
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
    status = (await import('./check.ts')).check(options);
  });

  json(
    program
      .command('convert')
      .argument('<in>')
      .argument('<out>')
      .description('read any CGATS file, write a clean one'),
  ).action(async (input, output, options) => (await import('./convert.ts')).convert(input, output, options));
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
  ).action(async (file, options) => (await import('./transform.ts')).transform(file, options));

  try {
    await program.parseAsync(argv, { from: 'user' });
    return status;
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
    if (error instanceof UsageError) {
      process.stderr.write(`${error.message}\n`);
      return 2;
    }
    throw error;
  }
}
