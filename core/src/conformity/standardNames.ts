import { PUBLISHED_CONDITIONS } from './data/publishedConditions.ts';
import { TOLERANCE_SETS } from './data/toleranceSets.ts';

const plain = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');

/** Standards by their names, beside what comes with Melto. */
const STANDARDS = /\b(iso(\s*\/\s*(ts|dis|pas))?[\s-]*\d{4,5}|g7|fogra\s*\d+|tr\s*0\d\d)/iu;

/**
 * The standard that a name of one's own could be mistaken for; none where it begins with *House*, which says whose it
 * is.
 */
export function namesStandard(name: string): string | undefined {
  if (/^house\b/iu.test(name.trim())) return undefined;
  const own = plain(name);
  const shipped = [...PUBLISHED_CONDITIONS, ...TOLERANCE_SETS].find((each) => own.includes(plain(each.name)));
  return shipped?.name ?? STANDARDS.exec(name)?.[0];
}
