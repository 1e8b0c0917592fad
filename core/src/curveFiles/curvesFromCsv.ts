import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { sampleToneCurve } from '../tone/toneCurve.ts';
import type { ToneCurve } from '../tone/toneCurve.ts';

export interface ImportedCurves {
  /** By channel name as in the file's head, upper case. */
  readonly curves: ReadonlyMap<string, ToneCurve>;
  readonly points: number;
}

const MOST_ROWS = 4096;
const MOST_COLUMNS = 16;
const MOST_CHARACTERS = 1_000_000;

/**
 * Reads curves from CSV: a head line that names the input and the channels, then rows of per cent; comma, semicolon or
 * tab, decimal comma where the columns are parted otherwise. Inputs rise from 0 to 100, outputs never fall, but those of a
 * light ink, which leaves again where the full one carries the tone.
 */
export function curvesFromCsv(text: string, mayFall = false): Result<ImportedCurves> {
  if (text.length > MOST_CHARACTERS)
    return issue('csv.size', 1, `at most ${MOST_CHARACTERS} characters`, `${text.length}`);
  const lines = text
    .replace(/^\uFEFF/, '')
    .split(/\r\n|\n|\r/)
    .map((line, i) => ({ line: line.trim(), number: i + 1 }))
    .filter(({ line }) => line !== '');
  const head = lines[0];
  if (head === undefined) return issue('csv.empty', 1, 'a head line and rows', 'nothing');
  const separator = ['\t', ';', ','].find((mark) => head.line.includes(mark)) ?? ',';
  const names = head.line.split(separator).map((name) => unquote(name).toUpperCase());
  if (
    names.length < 2 ||
    names.length > MOST_COLUMNS ||
    names.some((name) => name === '' || Number.isFinite(Number(name)))
  )
    return issue(
      'csv.head',
      head.number,
      'names of the input and the channels, as input,C,M,Y,K',
      `"${head.line.slice(0, 60)}"`,
    );
  if (new Set(names).size !== names.length)
    return issue('csv.head', head.number, 'different names', `"${head.line.slice(0, 60)}"`);
  if (lines.length - 1 > MOST_ROWS)
    return issue('csv.rows', head.number, `at most ${MOST_ROWS} rows`, `${lines.length - 1}`);
  if (lines.length < 3) return issue('csv.rows', head.number, 'at least two rows', `${lines.length - 1}`);
  const columns = names.map((): number[] => []);
  for (const { line, number } of lines.slice(1)) {
    const cells = line.split(separator).map(unquote);
    if (cells.length !== names.length)
      return issue('csv.columns', number, `${names.length} values`, `${cells.length}`);
    for (const [i, cell] of cells.entries()) {
      const value = cell === '' ? NaN : Number(separator === ',' ? cell : cell.replace(',', '.'));
      if (!Number.isFinite(value) || value < 0 || value > 100)
        return issue('csv.value', number, 'per cent, 0 to 100', `"${cell.slice(0, 30)}"`, names[i]);
      const last = columns[i][columns[i].length - 1];
      const before = last === undefined ? undefined : Math.round(last * 1e10) / 1e8;
      if (before !== undefined && (i === 0 ? value <= before : !mayFall && value < before - 1e-9))
        return issue(
          i === 0 ? 'csv.input' : 'csv.falls',
          number,
          i === 0 ? 'rising inputs' : 'a curve that never falls',
          `${value} after ${before}`,
          names[i],
        );
      columns[i].push(value / 100);
    }
  }
  const [inputs, ...outputs] = columns;
  const last = lines[lines.length - 1].number;
  if (inputs[0] !== 0)
    return issue('csv.input', lines[1].number, 'the first input to be 0', `${inputs[0] * 100}`);
  if (Math.abs(inputs[inputs.length - 1] - 1) > 1e-9)
    return issue('csv.input', last, 'the last input to be 100', `${inputs[inputs.length - 1] * 100}`);
  return success({
    points: inputs.length,
    curves: new Map(outputs.map((values, i) => [names[i + 1], curveThrough(inputs, values)])),
  });
}

/** The curve whose lines join the points. */
function curveThrough(inputs: readonly number[], outputs: readonly number[]): ToneCurve {
  let at = 0;
  return sampleToneCurve((t) => {
    while (at < inputs.length - 2 && inputs[at + 1] < t) at++;
    const share = (t - inputs[at]) / (inputs[at + 1] - inputs[at]);
    return outputs[at] + Math.min(1, Math.max(0, share)) * (outputs[at + 1] - outputs[at]);
  });
}

function unquote(cell: string): string {
  return cell
    .trim()
    .replace(/^"(.*)"$/, '$1')
    .trim();
}

function issue<T>(code: string, line: number, expected: string, found: string, path?: string): Result<T> {
  return failure({ code, line, expected, found, path });
}
