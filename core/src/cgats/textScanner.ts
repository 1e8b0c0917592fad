export interface TextLine {
  /** 1-based. */
  readonly number: number;
  /** Without comment, never blank. */
  readonly text: string;
  /** The same with the blanks and tabs at its ends: an empty first or last cell. */
  readonly raw: string;
}

/** The lines of a text that hold something: LF, CRLF or CR, no byte-order mark, comments from `#` cut off. */
export function* textLines(text: string): Generator<TextLine> {
  let start = text.charCodeAt(0) === 0xfeff ? 1 : 0;
  let number = 0;
  while (start < text.length) {
    let end = start;
    while (end < text.length && text.charCodeAt(end) !== 10 && text.charCodeAt(end) !== 13) end++;
    number++;
    const raw = withoutComment(text.slice(start, end));
    const line = raw.trim();
    if (line !== '') yield { number, text: line, raw };
    start = end + (text.charCodeAt(end) === 13 && text.charCodeAt(end + 1) === 10 ? 2 : 1);
  }
}

function withoutComment(line: string): string {
  if (!line.includes('#')) return line;
  let quoted = false;
  for (let i = 0; i < line.length; i++) {
    if (line[i] === '"') quoted = !quoted;
    else if (line[i] === '#' && !quoted) return line.slice(0, i);
  }
  return line;
}

/** Words of a line that is not blank, separated by tabs or spaces; "quoted words" keep their spaces. */
export function splitFields(line: string): string[] {
  if (!line.includes('"')) return line.split(/\s+/);
  const words: string[] = [];
  const pattern = /"((?:[^"]|"")*)"?|[^\s"]+/g;
  for (let match = pattern.exec(line); match !== null; match = pattern.exec(line))
    words.push(match[1] !== undefined ? match[1].replaceAll('""', '"') : match[0]);
  return words.length > 0 ? words : [''];
}

const NUMBER = /^[-+]?(?:\d+[.,]?\d*|[.,]\d+)(?:[eE][-+]?\d+)?$/;

/** A finite number with a decimal point or comma, or undefined. */
export function parseNumber(word: string): number | undefined {
  if (word.length > 40 || !NUMBER.test(word)) return undefined;
  const value = Number(word.includes(',') ? word.replace(',', '.') : word);
  return Number.isFinite(value) ? value : undefined;
}
