import { isSpot } from './checkDetail.ts';
import type { CheckDetail, StoredMetric } from './checkDetail.ts';
import { formatAgainstLimit } from '../judgement/metric.ts';
import type { Verdict } from '../judgement/verdict.ts';
import type { Remedy } from './whatDecides.ts';

export const VERDICT_WORDS: Readonly<Record<Verdict, string>> = {
  conforms: 'conforms',
  near: 'conforms, near a limit',
  'does-not-conform': 'does not conform',
  'not-judged': 'not judged',
};

const INKS = ['cyan', 'magenta', 'yellow', 'black'] as const;

/** `greys mean ΔCh`. */
export function metricName({ group, statistic, quantity }: StoredMetric): string {
  return `${group === 'all' ? 'all patches' : group}, ${statistic} ${quantity}`;
}

export function metricValue({ value, limit }: StoredMetric): string {
  return value === null ? '–' : formatAgainstLimit(value, limit);
}

/** The verdict with what it is to: `conforms to ISO 12647-7 proof (substrate-corrected)`. */
export function verdictSentence(detail: CheckDetail): string {
  const { verdict, header, substrateCorrected } = detail;
  const words = [
    ...(header.tolerances.own === true ? ['own tolerances'] : []),
    ...(header.aims.movedFrom === undefined ? [] : [`aims of ${header.aims.movedFrom} on this paper`]),
    ...(substrateCorrected ? ['substrate-corrected'] : []),
  ];
  const how = words.length === 0 ? '' : ` (${words.join(', ')})`;
  return verdict === 'not-judged'
    ? `not judged by ${header.tolerances.name}${how}`
    : `${VERDICT_WORDS[verdict].replace(', near a limit', '')} to ${header.tolerances.name}${how}`;
}

/** Why, in one line. */
export function reasonSentence(detail: CheckDetail): string {
  const { metrics, otherwise, verdict } = detail;
  const failing = metrics.filter((line) => line.verdict === 'does-not-conform');
  if (failing.length > 0) {
    const named = failing
      .slice(0, 3)
      .map((line) => `${metricName(line)} is ${over(line)} over`)
      .join('; ');
    const more = failing.length > 3 ? `, and ${failing.length - 3} more` : '';
    return `${named}${more}`;
  }
  if (otherwise.length > 0) return `${otherwise.join('; ')}: such a reading gets no verdict`;
  const missing = metrics.filter((line) => line.value === null);
  if (verdict === 'not-judged' && missing.length > 0)
    return `no patches for ${missing.map(metricName).slice(0, 3).join(', ')}`;
  const estimated = metrics.filter((line) => line.verdict === 'not-judged');
  if (verdict === 'not-judged' && estimated.length > 0)
    return `${estimated.map(metricName).slice(0, 3).join('; ')}${estimated.length > 3 ? `; and ${estimated.length - 3} more` : ''}: their aims are completed from published solids, such an estimate gives no verdict`;
  const nearest = [...metrics].sort((a, b) => (b.value ?? 0) / b.limit - (a.value ?? 0) / a.limit)[0];
  return nearest === undefined
    ? 'no metric'
    : `the nearest to its limit is ${metricName(nearest)}, ${metricValue(nearest)} of ${nearest.limit.toFixed(1)}`;
}

/** How far a failing value is over, with as many decimals as it takes to be seen. */
function over({ value, limit }: StoredMetric): string {
  const by = (value ?? 0) - limit;
  for (const decimals of [2, 3, 4, 5]) if (Number(by.toFixed(decimals)) > 0) return by.toFixed(decimals);
  return by.toExponential(1);
}

/** What would help, in words. */
export function remedySentence(remedy: Remedy, before: number): string {
  const percent = (share: number): string => `${Math.round(100 * share)} %`;
  const outcome =
    remedy.verdict === 'conforms' || remedy.verdict === 'near'
      ? 'it would conform'
      : `the worst figure would fall from ${percent(before)} to ${percent(remedy.share)} of its limit`;
  const size = Math.abs(100 * remedy.change).toFixed(0);
  const more = remedy.change > 0 ? 'more' : 'less';
  switch (remedy.kind) {
    case 'substrate':
      return `Against aims corrected for this paper ${outcome}.`;
    case 'density':
      return `With ${size} % ${more} density of ${INKS[remedy.ink]} ${outcome}.`;
    case 'gain':
      return `With ${size} % ${more} tone value of ${INKS[remedy.ink]} at the midtone ${outcome}.`;
  }
}

/** A patch by its name, or by its inks where others have the same name. */
function patchName(patches: CheckDetail['patches'], row: number): string {
  const { name, device } = patches[row];
  const alone = patches.every((patch, other) => other === row || patch.name !== name);
  return alone || isSpot({ device }) ? name : `${name} ${device.map((value) => value.toFixed(0)).join(' ')}`;
}

/** All sentences on what decides a check. */
export function decidesSentences({ decides, metrics, patches }: CheckDetail): string[] {
  const out = decides.deciding.map(({ metric, rows }) => {
    const names = rows.slice(0, 4).map((row) => patchName(patches, row));
    const more = rows.length > 4 ? ` and ${rows.length - 4} more` : '';
    return `${rows.length === 1 ? 'One patch decides' : `${rows.length} patches decide`} ${metricName(metrics[metric])}: ${names.join(', ')}${more}.`;
  });
  const deciding = new Set(decides.deciding.flatMap(({ rows }) => rows));
  const beyond = decides.outOfReach.filter((row) => deciding.has(row));
  if (beyond.length > 0)
    out.push(
      `${beyond.length === deciding.size ? (beyond.length === 1 ? 'It lies' : 'All of them lie') : `${beyond.length} of these ${deciding.size} ${beyond.length === 1 ? 'lies' : 'lie'}`} outside what this device reaches on this paper, by its profile: no calibration brings ${beyond.length === 1 ? 'it' : 'them'} there.`,
    );
  out.push(...decides.remedies.map((remedy) => remedySentence(remedy, decides.share)));
  if (decides.drift !== null)
    out.push(
      `With the colours of check ${decides.drift.version} it would conform: the print has moved by ${decides.drift.mean.toFixed(2)} ΔE00 on the mean since.`,
    );
  if (out.length > 0 && beyond.length === 0 && decides.remedies.length === 0 && decides.drift === null)
    out.push('No single change of an ink or of the paper would mend it.');
  return out;
}
