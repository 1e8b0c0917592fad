import { foreignLight, toldConditions } from '@melto/core/measured/conditions';
import type { ListedColour } from '@melto/core/refine/namedColour';
import { failure, success } from '@melto/core/result';
import type { Result } from '@melto/core/result';
import { spectrumLab } from '@melto/core/spectral/spectrumLab';
import { cxfChild, cxfGrid, cxfKeywords, cxfList, cxfWord, readCxfDocument } from './cxfDocument.ts';
import type { CxfDocument, CxfNode } from './cxfDocument.ts';

const LIGHT = 'colours for D50 and the 2° observer, or spectra';

/** Named colours of a CxF3 file (ISO 17972-1): reflectance spectra first, else CIELAB values for D50 and 2°. */
export function readCxfColours(text: string): Result<ListedColour[]> {
  const document = readCxfDocument(text);
  if (!document.ok) return document;
  const { objects, specifications } = document.value;
  const colours: ListedColour[] = [];
  for (const [i, object] of objects.entries()) {
    const name = cxfWord(object['@Name']) || `colour ${i + 1}`;
    const values = cxfChild(object, 'ColorValues');
    const [spectrum] = cxfList(values, 'ReflectanceSpectrum');
    const [given] = cxfList(values, 'ColorCIELab');
    if (spectrum === undefined && given !== undefined) {
      const foreign = foreignLight(toldBy(given, specifications));
      if (foreign !== undefined)
        return failure({ code: 'colours.light', path: name.slice(0, 60), expected: LIGHT, found: foreign });
    }
    const colour =
      spectrum !== undefined
        ? ofSpectrum(spectrum, specifications)
        : given && { lab: ofLab(given), spectrum: undefined };
    if (colour === undefined) continue;
    if (!colour.lab.every(Number.isFinite))
      return failure({
        code: 'cxf.form',
        path: 'CxF',
        expected: `numbers in ${name.slice(0, 60)}`,
        found: 'something else',
      });
    const { lab, spectrum: kept } = colour;
    colours.push(kept === undefined ? { name, lab } : { name, lab, spectrum: kept });
  }
  return success(colours);
}

const toldBy = (node: CxfNode, specifications: CxfDocument['specifications']) =>
  toldConditions(cxfKeywords(specifications.get(cxfWord(node['@ColorSpecification'])), undefined));

function ofSpectrum(
  spectrum: CxfNode,
  specifications: CxfDocument['specifications'],
): Pick<ListedColour, 'lab' | 'spectrum'> {
  const values = cxfWord(spectrum).trim().split(/\s+/).map(Number);
  const found = cxfGrid(spectrum, specifications);
  if (values.length < 10 || values.length > 200 || found === undefined) return { lab: [NaN, NaN, NaN] };
  const grid = { ...found, count: values.length };
  return { lab: spectrumLab(grid, values), spectrum: { grid, values } };
}

function ofLab(given: CxfNode): ListedColour['lab'] {
  return [Number(cxfWord(given['L'])), Number(cxfWord(given['A'])), Number(cxfWord(given['B']))];
}
