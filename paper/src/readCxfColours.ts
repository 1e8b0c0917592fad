import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzToLab } from '@melto/core/colour/xyzToLab';
import type { NamedColour } from '@melto/core/refine/namedColour';
import { failure, success } from '@melto/core/result';
import type { Result } from '@melto/core/result';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { spectraToXyz } from '@melto/core/spectral/spectrumToXyz';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';
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
  const xyz = new Float64Array(3);
  const grid = { ...found, count: values.length };
  spectraToXyz(createXyzWeights(grid, tableIlluminant('D50'), '2deg'), values, xyz);
  return xyzToLab([xyz[0], xyz[1], xyz[2]], WHITE_D50_MEASURED);
}

function ofLab(given: CxfNode): NamedColour['lab'] {
  return [Number(cxfWord(given['L'])), Number(cxfWord(given['A'])), Number(cxfWord(given['B']))];
}
