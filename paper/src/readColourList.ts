import Papa from 'papaparse';
import { patchXyz } from '@melto/core/cgats/patchColours';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzToLab } from '@melto/core/colour/xyzToLab';
import type { ListedColour } from '@melto/core/refine/namedColour';
import { foreignLight, toldConditions } from '@melto/core/measured/conditions';
import type { MeasuredKeyword } from '@melto/core/measured/measuredTable';
import { failure, success } from '@melto/core/result';
import type { Result } from '@melto/core/result';
import { readCxfColours } from './readCxfColours.ts';

/** Colours that one list may hold. */
export const COLOUR_LIST_MOST = 2000;

/** A colour list from CxF3 (spectra or Lab), CGATS (spectra, XYZ or Lab) or CSV with the columns name, L, a, b. */
export function readColourList(text: string): Result<ListedColour[]> {
  const start = text.replace(/^\uFEFF/, '').trimStart();
  const found = start.startsWith('<')
    ? readCxfColours(start)
    : /BEGIN_DATA_FORMAT/i.test(start)
      ? fromCgats(text)
      : fromCsv(start);
  if (!found.ok) return found;
  if (found.value.length === 0)
    return failure({ code: 'colours.none', path: 'list', expected: 'at least one colour', found: 'none' });
  if (found.value.length > COLOUR_LIST_MOST)
    return failure({
      code: 'colours.many',
      path: 'list',
      expected: `${COLOUR_LIST_MOST} colours at most`,
      found: String(found.value.length),
    });
  const wrong = found.value.find(({ lab }) => !isColour(lab));
  if (wrong !== undefined)
    return failure({
      code: 'colours.value',
      path: wrong.name.slice(0, 60),
      expected: 'L 0 to 110 and a, b as numbers',
      found: wrong.lab.map((value) => String(Number(value.toPrecision(4)))).join(', '),
    });
  return found;
}

/** Whether a surface can have it. */
const isColour = ([l, a, b]: ListedColour['lab']): boolean =>
  [l, a, b].every(Number.isFinite) && l >= 0 && l <= 110 && Math.hypot(a, b) <= 250;

function fromCgats(text: string): Result<ListedColour[]> {
  const set = readPatchSet(text);
  if (!set.ok) return set;
  const xyz = patchXyz(set.value);
  if (xyz === undefined)
    return failure({ code: 'colours.none', path: 'list', expected: 'spectra, XYZ or Lab', found: 'none' });
  const { spectra, conditions } = set.value;
  const { illuminant, observer } = conditions;
  const told: readonly MeasuredKeyword[] = [
    { name: 'ILLUMINATION_NAME', value: illuminant ?? '' },
    { name: 'OBSERVER', value: observer ?? '' },
  ];
  const foreign = spectra === undefined ? foreignLight(toldConditions(told)) : undefined;
  if (foreign !== undefined)
    return failure({
      code: 'colours.light',
      path: 'list',
      expected: 'colours for D50 and the 2° observer, or spectra',
      found: foreign,
    });
  return success(
    set.value.ids.map((id, i): ListedColour => {
      const named = {
        name: set.value.names?.[i] || id,
        lab: xyzToLab([xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2]], WHITE_D50_MEASURED),
      };
      if (spectra === undefined) return named;
      const { grid, values } = spectra;
      const own = Array.from(values.subarray(i * grid.count, (i + 1) * grid.count));
      return { ...named, spectrum: { grid, values: own } };
    }),
  );
}

const COLUMNS = {
  name: /^(name|colour|color)$/i,
  l: /^(lab_)?l\*?$/i,
  a: /^(lab_)?a\*?$/i,
  b: /^(lab_)?b\*?$/i,
};

function fromCsv(text: string): Result<ListedColour[]> {
  const { data } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' });
  const head = (data[0] ?? []).map((word) => word.trim());
  const column = (pattern: RegExp): number => head.findIndex((word) => pattern.test(word));
  const at = [COLUMNS.l, COLUMNS.a, COLUMNS.b].map(column);
  const name = column(COLUMNS.name);
  if (name < 0 || at.some((index) => index < 0))
    return failure({
      code: 'colours.head',
      path: 'first line',
      line: 1,
      expected: 'the columns name, L, a, b',
      found: head.join(', ').slice(0, 80) || 'nothing',
    });
  const colours: ListedColour[] = [];
  for (const [i, row] of data.slice(1).entries()) {
    const [l, a, b] = at.map((index) => Number((row[index] ?? '').trim().replace(',', '.') || NaN));
    if (!isColour([l, a, b]))
      return failure({
        code: 'colours.value',
        path: `line ${i + 2}`,
        line: i + 2,
        expected: 'L 0 to 110 and a, b as numbers',
        found: row.join(', ').slice(0, 80),
      });
    colours.push({ name: row[name]?.trim() || `colour ${i + 1}`, lab: [l, a, b] });
  }
  return success(colours);
}
