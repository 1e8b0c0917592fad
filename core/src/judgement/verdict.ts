/** What a value, a metric or a whole check comes to beside its limits (ISO wording); *near* is within the limit. */
export type Verdict = 'conforms' | 'near' | 'does-not-conform' | 'not-judged';

/** Share of a limit from which a value that is within it is *near*. */
export const NEAR_SHARE = 0.8;

/** The better first; what could not be judged is worse than what is near, and never hides what fails. */
const SEVERITY: readonly Verdict[] = ['conforms', 'near', 'not-judged', 'does-not-conform'];

/** A value against its limit, unrounded: equal to the limit is within it, and equal to the share is not yet near. */
export function verdictOf(value: number, limit: number): Verdict {
  if (!Number.isFinite(value)) return 'not-judged';
  if (value > limit) return 'does-not-conform';
  return value > NEAR_SHARE * limit ? 'near' : 'conforms';
}

export function worstVerdict(verdicts: readonly Verdict[]): Verdict {
  return verdicts.reduce(
    (worst, verdict) => (SEVERITY.indexOf(verdict) > SEVERITY.indexOf(worst) ? verdict : worst),
    'conforms',
  );
}

export function isVerdict(text: unknown): text is Verdict {
  return SEVERITY.some((verdict) => verdict === text);
}
