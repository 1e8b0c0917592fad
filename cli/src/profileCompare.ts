import { profileDifference, profileFigures } from '@melto/core/profile/profileFigures';
import type { ProfileFigures } from '@melto/core/profile/profileFigures';
import { report } from './files.ts';
import { readProfile } from './profileInspect.ts';
import { UsageError } from './usageError.ts';

/** Two output profiles side by side: fit, white and black, neutral axis, separations, and how far they differ. */
export function profileCompare(a: string, b: string, options: { readonly json?: boolean }): void {
  const [first, second] = [a, b].map((path) => {
    const profile = readProfile(path);
    const figures = profileFigures(profile);
    if (figures === undefined)
      throw new UsageError(
        `${path}: found no tables between device values and Lab, expected an output profile`,
      );
    return { profile, figures };
  });
  const difference = profileDifference(first.profile, second.profile);
  const [fa, fb] = [first.figures, second.figures];
  const row = (name: string, value: (figures: ProfileFigures) => string): string =>
    `${name.padEnd(34)} ${value(fa).padStart(22)} ${value(fb).padStart(22)}`;
  const lab = (values: readonly number[]): string => values.map((value) => value.toFixed(2)).join(' ');
  const device = (values: readonly number[]): string =>
    values.map((value) => (100 * value).toFixed(0)).join(' ');
  report(options.json, { a: fa, b: fb, difference: difference ?? null }, [
    `${''.padEnd(34)} ${nameOf(a).padStart(22)} ${nameOf(b).padStart(22)}`,
    row('fit to its own data, ΔE00', ({ fit }) =>
      fit === undefined ? 'carries none' : `${fit.mean.toFixed(2)}, 95 % ${fit.p95.toFixed(2)}`,
    ),
    row('paper, L* a* b*', ({ white }) => lab(white)),
    row('darkest neutral, L* a* b*', ({ black }) => lab(black)),
    row('cast of greys, largest', ({ cast }) => cast.toFixed(2)),
    row('most ink along greys, %', ({ totalInk }) =>
      totalInk === undefined ? '–' : (100 * totalInk).toFixed(1),
    ),
    ...fa.greys.map((grey, i) =>
      row(`device values of L* ${grey.asked.toFixed(0)}, %`, (figures) => device(figures.greys[i].device)),
    ),
    difference === undefined
      ? 'the profiles have different channels'
      : `predictions differ by ΔE00 ${difference.mean.toFixed(2)} on average, 95 % under ${difference.p95.toFixed(2)}, largest ${difference.largest.toFixed(2)}`,
  ]);
}

function nameOf(path: string): string {
  return path.replace(/^.*\//, '').slice(-22);
}
