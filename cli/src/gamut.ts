import { compareBodies } from '@melto/core/gamut/compareBodies';
import { SHARE_BANDS, SHARE_SECTORS } from '@melto/core/gamut/gamutBody';
import { comparisonSentences, hueName } from '@melto/core/gamut/gamutWords';
import { madeWords } from '@melto/core/gamut/madeBody';
import type { MadeBody } from '@melto/core/gamut/madeBody';
import { measuredBody } from '@melto/core/gamut/measuredBody';
import { profileBody } from '@melto/core/gamut/profileBody';
import { isIcc } from '@melto/core/icc/readIcc';
import { issueText } from '@melto/core/result';
import { readBytes, readMeasuredFile, report } from './files.ts';
import { readProfile } from './profileInspect.ts';
import { UsageError } from './usageError.ts';

/** Volumes of the gamuts of two profiles or measured charts, what each prints that the other does not, and by hue. */
export function gamut(a: string, b: string, options: { readonly json?: boolean }): void {
  const [first, second] = [bodyOf(a), bodyOf(b)];
  const compared = compareBodies(first.body, second.body);
  if (!compared.ok) throw new UsageError(compared.issues.map(issueText).join('; '));
  const { value } = compared;
  const sectors = SHARE_SECTORS.map((hue, sector) => {
    const own = value.shares.slice(sector * SHARE_BANDS.length, (sector + 1) * SHARE_BANDS.length);
    const sum = (of: 'a' | 'b' | 'both'): number => own.reduce((total, share) => total + share[of], 0);
    return { hue, a: sum('a'), b: sum('b'), both: sum('both') };
  });
  const facts = ({ name, volume, farthest }: typeof value.a, { body: _, ...made }: MadeBody) => ({
    ...{ name, volume, farthest },
    ...made,
  });
  report(
    options.json,
    { a: facts(value.a, first), b: facts(value.b, second), shared: value.shared, sectors },
    [
      ...[
        { ...value.a, made: first },
        { ...value.b, made: second },
      ].map(
        ({ name, volume, made }) =>
          `${name} (${madeWords(made)}): ${Math.round(volume / 1000)} thousand cubic ΔE*ab, ${((100 * value.shared) / volume).toFixed(1)} % shared`,
      ),
      ...comparisonSentences(value),
      ...sectors.map(
        ({ hue, a: own, b: other }) =>
          `${hueName(Math.cos((hue * Math.PI) / 180), Math.sin((hue * Math.PI) / 180)).padEnd(10)} ${(own / 1000).toFixed(1).padStart(7)} ${(other / 1000).toFixed(1).padStart(7)}`,
      ),
    ],
  );
}

function bodyOf(path: string): MadeBody {
  const bytes = readBytes(path);
  const body = isIcc(bytes)
    ? profileBody(readProfile(path, bytes), path)
    : measuredBody(readMeasuredFile(path), path);
  if (!body.ok) throw new UsageError(`${path}: ${body.issues.map(issueText).join('; ')}`);
  return body.value;
}
