import { outlineFont } from '../fonts.ts';

/** Room for glyphs that the text face takes from another one. */
const SPARE = 1.04;

/**
 * Breaks the text of a table's cell into lines of a width, at spaces where there are any, else inside a word.
 * @param width and size in points.
 */
export function wrapCell(text: string, width: number, size: number): string[] {
  if (textWidth(text, size) <= width) return [text];
  const lines: string[] = [];
  let line = '';
  for (const word of text.split(/(?<= )/)) {
    for (const part of pieces(word, width, size)) {
      if (line !== '' && textWidth((line + part).trimEnd(), size) > width) {
        lines.push(line.trimEnd());
        line = '';
      }
      line += part;
    }
  }
  if (line.trimEnd() !== '') lines.push(line.trimEnd());
  return lines;
}

/** A word in parts that fit by themselves. */
function pieces(word: string, width: number, size: number): string[] {
  if (textWidth(word.trimEnd(), size) <= width) return [word];
  const out: string[] = [];
  let part = '';
  for (const letter of word) {
    if (part !== '' && textWidth(part + letter, size) > width) {
      out.push(part);
      part = '';
    }
    part += letter;
  }
  return [...out, part];
}

function textWidth(text: string, size: number): number {
  const font = outlineFont('text');
  return (SPARE * size * font.layout(text).advanceWidth) / font.unitsPerEm;
}
