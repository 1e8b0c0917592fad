import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { EYE_OPPOSITES, EYE_WORDS } from './eyeWords.ts';
import type { EyeNote, EyeWord } from './eyeWords.ts';

/**
 * Reads what an eye said of each colour of a page: a line for each, its number or its name, then its words, or *same*;
 * `3: redder stronger`. A colour without a line was not looked at. Empty lines and those after # are left out.
 */
export function readNotes(text: string, names: readonly string[]): Result<EyeNote[]> {
  const notes: EyeNote[] = [];
  for (const [index, line] of text.split(/\r?\n/).entries()) {
    if (/^\s*(#|$)/.test(line)) continue;
    const refuse = (expected: string, found: string): Result<EyeNote[]> =>
      failure({ code: 'eye.note', path: `line ${index + 1}`, expected, found });
    const at = line.indexOf(':');
    if (at < 0) return refuse('a number or a name, a colon, and words', JSON.stringify(line.slice(0, 40)));
    const colour = colourOf(line.slice(0, at).trim(), names);
    if (colour === undefined)
      return refuse(`1 to ${names.length}, or a name of the page`, JSON.stringify(line.slice(0, at)));
    if (notes.some((note) => note.colour === colour)) return refuse('each colour once', names[colour]);
    const words = line
      .slice(at + 1)
      .split(/[\s,;]+/)
      .filter((word) => word !== '' && word !== 'same');
    const wrong = words.find((word) => !isWord(word));
    if (wrong !== undefined)
      return refuse(`same, or ${EYE_WORDS.join(', ')}`, JSON.stringify(wrong.slice(0, 40)));
    const said = words.filter(isWord);
    const both = said.find((word) => said.includes(EYE_OPPOSITES[word]));
    if (both !== undefined) return refuse('one of two opposites', `${both} and ${EYE_OPPOSITES[both]}`);
    notes.push({ colour, words: said });
  }
  return notes.length > 0
    ? success(notes)
    : failure({ code: 'eye.notes', expected: 'a line for each colour, as 3: redder', found: 'none' });
}

const isWord = (word: string): word is EyeWord => EYE_WORDS.some((own) => own === word);

/** A name before a number: a colour may be called by a number. */
function colourOf(told: string, names: readonly string[]): number | undefined {
  const named = names.findIndex((name) => name.trim().toLowerCase() === told.toLowerCase());
  if (named >= 0) return named;
  const place = /^\d{1,4}$/.test(told) ? Number(told) - 1 : -1;
  return place >= 0 && place < names.length ? place : undefined;
}
