import type { EyeCause, PointedCause } from './pointOut.ts';

/** Share of what speaks for it, from which on a cause is named alone, and up to which it is not named at all. */
export const CLEAR = 0.75;
export const WORTH = 0.15;

/** What a cause is called, and what to try next. */
export const EYE_CAUSE_WORDS: Readonly<Record<EyeCause, { readonly name: string; readonly next: string }>> = {
  profile: {
    name: 'The profile was not applied as it should be',
    next: 'Print the page again with colour management off in program and driver: the profile is in its values already. A job check tells how jobs are converted.',
  },
  brightener: {
    name: 'The paper’s brightener',
    next: 'Less ultraviolet acts in this light than M1 measured with. Make a brightener study in it, and build a profile for the light.',
  },
  light: {
    name: 'The light',
    next: 'Print and reference agree in D50 and part here. Look at both in the booth; for this light, build a profile for it, or take the recipe that holds best.',
  },
  ink: {
    name: 'Ink limits or speed',
    next: 'Other amounts of ink reach the paper than when the profile was made: look at the mode, the speed, limits and curves of the device, and read a short check.',
  },
  reach: {
    name: 'Ink and paper',
    next: 'It is printed as the profile means it. Colours that are marked cannot be reached here: another paper or other inks may reach them.',
  },
};

/** What notes point to, in words; the first says how sure that is. */
export function pointedSentences(points: readonly PointedCause[], allSame: boolean): string[] {
  const [first, second] = points;
  if (first === undefined) return ['Nothing was noted yet.'];
  if (allSame && first.cause === 'reach')
    return ['All colours look the same as their references: it is printed as it should be.'];
  const { name, next } = EYE_CAUSE_WORDS[first.cause];
  if (first.share >= CLEAR) return [`${name}: ${first.words}.`, next];
  const others = points
    .slice(1)
    .filter(({ share }) => share >= WORTH)
    .map(({ cause }) => lower(EYE_CAUSE_WORDS[cause].name));
  return [
    `No single cause stands out. Most speaks for this: ${lower(name)} (${first.words})${others.length > 0 ? `; it may also be ${others.join(', or ')}` : ''}.`,
    next,
    ...(second === undefined
      ? []
      : ['More colours tell more: note those that are left, or look at them again.']),
  ];
}

const lower = (words: string): string => words[0].toLowerCase() + words.slice(1);
