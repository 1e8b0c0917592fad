import type { Lab } from '../colour/lab.ts';
import { failure, success } from '../result.ts';
import type { Issue, Result } from '../result.ts';

/** A colour as a person typed it or an instrument that acts as a keyboard sent it. */
export interface TypedColour {
  /** What stood before the numbers; empty where nothing did. */
  readonly name: string;
  readonly lab: Lab;
}

const NUMBER = /^[+\-−]?(?:\d+(?:[.,]\d*)?|[.,]\d+)$/;
/** L*, a*, b* in front of their numbers, with or without a sign between. */
const LABEL = /(^|[\s;,\t])(?:CIE\s?)?[Lab]\*?\s*[=:]?\s*(?=[+\-−]?[\d.,])/g;
const MOST_LIGHTNESS = 105;
const MOST_CHROMA = 200;

/**
 * One line with L*, a*, b* at its end, a name before them or none: parted by blanks, tabs, semicolons or commas, decimals
 * with point or comma. Where both readings of commas make sense it is an issue, never a guess.
 */
export function typedColour(line: string): Result<TypedColour> {
  const text = line.replace(LABEL, '$1').replaceAll('−', '-').trim();
  const parted = lastThree(text.split(/[;\t]|\s+/), true);
  const byCommas = lastThree(text.split(','), false);
  const found = parted ?? byCommas;
  if (found === undefined)
    return failure(
      issue('L*, a*, b* at the end of the line', text === '' ? 'nothing' : `"${text.slice(0, 60)}"`),
    );
  // 1,2,3,4,5,6 are three numbers with decimals, or the last three of six.
  if (
    parted === undefined &&
    text.split(',').every((part) => NUMBER.test(part.trim())) &&
    text.split(',').length > 3
  )
    return failure(issue('three numbers; part them by blanks or semicolons', `"${text.slice(0, 60)}"`));
  const [l, a, b] = found.lab;
  if (!(l >= 0 && l <= MOST_LIGHTNESS)) return failure(issue('L* from 0 to 100', `L* ${l}`));
  if (Math.max(Math.abs(a), Math.abs(b)) > MOST_CHROMA)
    return failure(issue(`a* and b* within ${MOST_CHROMA}`, `a* ${a}, b* ${b}`));
  return success(found);
}

/** The colours of several lines; blank ones are left out, each other one is taken or is an issue with its line. */
export function typedColours(text: string): {
  readonly colours: readonly TypedColour[];
  readonly issues: readonly Issue[];
} {
  const colours: TypedColour[] = [];
  const issues: Issue[] = [];
  text.split(/\r?\n/).forEach((line, i) => {
    if (line.trim() === '') return;
    const typed = typedColour(line);
    if (typed.ok) colours.push(typed.value);
    else issues.push(...typed.issues.map((each) => ({ ...each, line: i + 1 })));
  });
  return { colours, issues };
}

function lastThree(parts: readonly string[], decimalComma: boolean): TypedColour | undefined {
  const whole = parts.map((part) => part.trim()).filter((part) => part !== '');
  // "52.1, 33, -12" parted by blanks keeps its commas at the ends.
  const bare = decimalComma ? whole.map((part) => part.replace(/,$/, '')) : whole;
  const numbers = bare.slice(-3);
  const fits = (part: string): boolean => NUMBER.test(part) && (decimalComma || !part.includes(','));
  if (numbers.length < 3 || !numbers.every(fits)) return undefined;
  const [l, a, b] = numbers.map((part) => Number(part.replace(',', '.')));
  return { name: bare.slice(0, -3).join(' '), lab: [l, a, b] };
}

function issue(expected: string, found: string): Issue {
  return { code: 'typed.colour', expected, found };
}
