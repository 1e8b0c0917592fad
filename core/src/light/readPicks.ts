import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { MOST_EYES, rowLetter, STUDY_FIELDS, STUDY_LIGHTNESSES } from './brightenerStudy.ts';
import type { StudyPick } from './brightenerStudy.ts';

const ROWS = STUDY_LIGHTNESSES.map((_, row) => rowLetter(row));
/** More picks than any eye makes. */
const MOST_PICKS = 500;

/**
 * Reads what eyes picked: a line for each pick, the letter of its row and the number of its field as the page has them, and
 * the number of the person where several looked; `A,7` or `A;7;2`. Empty lines and those after # are left out.
 */
export function readPicks(text: string): Result<StudyPick[]> {
  const picks: StudyPick[] = [];
  for (const [index, line] of text.split(/\r?\n/).entries()) {
    if (/^\s*(#|$)/.test(line)) continue;
    const found = /^\s*([A-Za-z])\s*[,;\s]\s*(\d{1,3})(?:\s*[,;\s]\s*(\d))?\s*$/.exec(line);
    const row = found === null ? -1 : ROWS.indexOf(found[1].toUpperCase());
    const field = Number(found?.[2] ?? 0) - 1;
    const eye = Number(found?.[3] ?? 1) - 1;
    if (row < 0 || field < 0 || field >= STUDY_FIELDS || eye < 0 || eye >= MOST_EYES)
      return failure({
        code: 'study.pick',
        path: `line ${index + 1}`,
        expected: `a row ${ROWS.join(', ')}, a field 1 to ${STUDY_FIELDS}, and a person 1 to ${MOST_EYES} where several looked`,
        found: JSON.stringify(line.slice(0, 40)),
      });
    picks.push({ row, field, eye });
    if (picks.length > MOST_PICKS)
      return failure({ code: 'study.picks', expected: `up to ${MOST_PICKS} picks`, found: 'more' });
  }
  return picks.length > 0
    ? success(picks)
    : failure({ code: 'study.picks', expected: 'a line for each pick, as A,7', found: 'none' });
}
