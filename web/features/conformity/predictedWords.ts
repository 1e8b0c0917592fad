import type { PredictedCheck } from '@melto/core/conformity/predictConformity';

const VERDICTS: Readonly<Record<PredictedCheck['verdict'], string>> = {
  conforms: 'conforms',
  near: 'conforms, near its limits',
  'does-not-conform': 'does not conform',
  'not-judged': 'cannot be judged',
};

/** What a check is expected to say before anything is printed. */
export function predictedWords({ verdict, chance, meanBetween, closest }: PredictedCheck): string {
  const between = meanBetween.map((value) => value.toFixed(1)).join(' to ');
  const near =
    closest === null
      ? ''
      : `; nearest its limit: ${closest.words} ${closest.value.toFixed(1)} of ${closest.limit}`;
  return `before printing: ${VERDICTS[verdict]}, ${Math.round(100 * chance)} of 100 such prints would; mean ΔE00 ${between}${near}`;
}
