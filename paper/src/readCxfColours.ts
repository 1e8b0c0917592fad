import type { NamedColour } from '@melto/core/refine/namedColour';
import { failure, success } from '@melto/core/result';
import type { Result } from '@melto/core/result';
import { spectrumLab } from '@melto/core/spectral/spectrumLab';
import { cxfChild, cxfGrid, cxfList, cxfWord, readCxfDocument } from './cxfDocument.ts';
import type { CxfDocument, CxfNode } from './cxfDocument.ts';

/** Named colours of a CxF3 file (ISO 17972-1): reflectance spectra first, else CIELAB values. */
export function readCxfColours(text: string): Result<NamedColour[]> {
  const document = readCxfDocument(text);
  if (!document.ok) return document;
  const { objects, specifications } = document.value;
  const colours: NamedColour[] = [];
  for (const [i, object] of objects.entries()) {
    const name = cxfWord(object['@Name']) || `colour ${i + 1}`;
    const values = cxfChild(object, 'ColorValues');
    const [spectrum] = cxfList(values, 'ReflectanceSpectrum');
    const [given] = cxfList(values, 'ColorCIELab');
    const lab = spectrum !== undefined ? ofSpectrum(spectrum, specifications) : given && ofLab(given);
    if (lab === undefined) continue;
    if (!lab.every(Number.isFinite))
      return failure({
        code: 'cxf.form',
        path: 'CxF',
        expected: `numbers in ${name.slice(0, 60)}`,
        found: 'something else',
      });
    colours.push({ name, lab });
  }
  return success(colours);
}

function ofSpectrum(spectrum: CxfNode, specifications: CxfDocument['specifications']): NamedColour['lab'] {
  const values = Float64Array.from(cxfWord(spectrum).trim().split(/\s+/), Number);
  const found = cxfGrid(spectrum, specifications);
  if (values.length < 10 || values.length > 200 || found === undefined) return [NaN, NaN, NaN];
  return spectrumLab({ ...found, count: values.length }, values);
}

function ofLab(given: CxfNode): NamedColour['lab'] {
  return [Number(cxfWord(given['L'])), Number(cxfWord(given['A'])), Number(cxfWord(given['B']))];
}
