import type { Command } from 'commander';
import { ALL_MEASURED_AS, json, MEASURED_AS } from './options.ts';

/** Commands for profiles: built, looked at, compared, and what they print. */
export function profileCommands(program: Command): void {
  const profile = program.command('profile').description('build and look at profiles');
  json(profile.command('build'))
    .requiredOption(
      '--measured <file>',
      'CGATS, CxF3 or CSV with RGB, CMYK or five to eight inks and spectra, XYZ or Lab',
    )
    .requiredOption('--out <file>')
    .option('--inks <names>', 'of a file that counts its inks: C,M,Y,K,O,G in their order')
    .option(...MEASURED_AS)
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
    .action(async (options) => (await import('../profileBuild.ts')).profileBuild(options));
  json(profile.command('compare').argument('<a>').argument('<b>')).action(async (a, b, options) =>
    (await import('../profileCompare.ts')).profileCompare(a, b, options),
  );
  json(
    profile
      .command('inspect')
      .argument('<profile>')
      .description('what a profile is and does, and what is wrong with it in plain words')
      .option('--data <file>', 'take out the characterisation data that it carries'),
  ).action(async (file, options) => (await import('../profileInspect.ts')).profileInspect(file, options));

  json(
    profile
      .command('version')
      .argument('<profile>')
      .description('write an output profile as the other version of the ICC specification has it, 2 or 4')
      .requiredOption('--out <file>'),
  ).action(async (file, options) => (await import('../profileVersion.ts')).profileVersion(file, options));

  json(
    program
      .command('gamut')
      .argument('<a>')
      .argument('<b>')
      .description('what each of two profiles or measured charts prints that the other does not, and by hue'),
  ).action(async (a, b, options) => (await import('../gamut.ts')).gamut(a, b, options));

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
  ).action(async (picture, options) => (await import('../proof.ts')).proof(picture, options));

  json(
    program
      .command('rank')
      .description('on which of some devices the colours of a list come out nearest')
      .requiredOption('--colours <file>', 'colour list: CxF, CGATS or CSV')
      .requiredOption('--profiles <files...>', 'ICC profiles of the devices'),
  ).action(async (options) => (await import('../rank.ts')).rank(options));

  json(
    program
      .command('colours')
      .argument('<list>', 'colour list: CxF, CGATS or CSV')
      .description('which colours of a list a device reaches, with which values, their tints')
      .requiredOption('--profile <file>', 'ICC profile of the device')
      .option('--recipes', 'other amounts of black that come as near')
      .option('--report <file>', 'report to write: .pdf or .html'),
  ).action(async (list, options) => (await import('../colours.ts')).colours(list, options));

  json(
    program
      .command('papers')
      .argument('<files...>', 'one chart measured on each paper: CGATS, CxF3 or CSV with device values')
      .description('compare papers: white, Dmax, gamut, greys, noise, what pictures lose')
      .option(...ALL_MEASURED_AS),
  ).action(async (files, options) => (await import('../papers.ts')).papers(files, options));

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
  ).action(async (options) => (await import('../link.ts')).link(options));
}
