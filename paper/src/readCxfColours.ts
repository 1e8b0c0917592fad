import { XMLParser } from 'fast-xml-parser';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzToLab } from '@melto/core/colour/xyzToLab';
import type { NamedColour } from '@melto/core/refine/namedColour';
import { failure, success } from '@melto/core/result';
import type { Result } from '@melto/core/result';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { spectraToXyz } from '@melto/core/spectral/spectrumToXyz';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';

const MOST_CHARACTERS = 8_000_000;
const LISTS = new Set(['Object', 'ColorSpecification', 'ReflectanceSpectrum', 'ColorCIELab']);

type Node = Readonly<Record<string, unknown>>;

/** Named colours of a CxF3 file (ISO 17972-1): reflectance spectra first, else CIELAB values. */
export function readCxfColours(text: string): Result<NamedColour[]> {
  const bad = (expected: string, found: string): Result<never> =>
    failure({ code: 'cxf.form', path: 'CxF', expected, found });
  if (text.length > MOST_CHARACTERS) return bad('8 million characters at most', String(text.length));
  if (/<!(DOCTYPE|ENTITY)/i.test(text))
    return bad('no document type and no entities', 'a declaration of them');
  let root: Node;
  try {
    root = new XMLParser({
      ignoreAttributes: false,
      attributeNamePrefix: '@',
      removeNSPrefix: true,
      parseTagValue: false,
      parseAttributeValue: false,
      processEntities: false,
      isArray: (name) => LISTS.has(name),
    }).parse(text, true) as Node;
  } catch (error) {
    return bad('well-formed XML', error instanceof Error ? error.message : 'something else');
  }
  const resources = child(child(root, 'CxF'), 'Resources');
  const objects = list(child(resources, 'ObjectCollection'), 'Object');
  if (objects.length === 0) return bad('objects under CxF/Resources/ObjectCollection', 'none');
  const steps = new Map<string, number>();
  for (const specification of list(child(resources, 'ColorSpecificationCollection'), 'ColorSpecification')) {
    const range = child(child(specification, 'MeasurementSpec'), 'WavelengthRange');
    steps.set(word(specification['@Id']), Number(range?.['@Increment']));
  }
  const colours: NamedColour[] = [];
  for (const [i, object] of objects.entries()) {
    const name = word(object['@Name']) || `colour ${i + 1}`;
    const values = child(object, 'ColorValues');
    const [spectrum] = list(values, 'ReflectanceSpectrum');
    const [given] = list(values, 'ColorCIELab');
    const lab = spectrum !== undefined ? ofSpectrum(spectrum, steps) : given && ofLab(given);
    if (lab === undefined) continue;
    if (!lab.every(Number.isFinite)) return bad(`numbers in ${name.slice(0, 60)}`, 'something else');
    colours.push({ name, lab });
  }
  return success(colours);
}

function ofSpectrum(spectrum: Node, steps: ReadonlyMap<string, number>): NamedColour['lab'] {
  const values = Float64Array.from(word(spectrum['#text']).trim().split(/\s+/), Number);
  const startNm = Number(spectrum['@StartWL'] ?? 380);
  const stepNm = steps.get(word(spectrum['@ColorSpecification'])) || 10;
  if (
    values.length < 10 ||
    values.length > 200 ||
    !(startNm >= 300 && startNm <= 500 && stepNm >= 1 && stepNm <= 20)
  )
    return [NaN, NaN, NaN];
  const xyz = new Float64Array(3);
  const grid = { startNm, stepNm, count: values.length };
  spectraToXyz(createXyzWeights(grid, tableIlluminant('D50'), '2deg'), values, xyz);
  return xyzToLab([xyz[0], xyz[1], xyz[2]], WHITE_D50_MEASURED);
}

function ofLab(given: Node): NamedColour['lab'] {
  return [Number(word(given['L'])), Number(word(given['A'])), Number(word(given['B']))];
}

function child(node: Node | undefined, name: string): Node | undefined {
  const value = node?.[name];
  return typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Node) : undefined;
}

function list(node: Node | undefined, name: string): Node[] {
  const value = node?.[name];
  return Array.isArray(value)
    ? value.filter((entry): entry is Node => typeof entry === 'object' && entry !== null)
    : [];
}

function word(value: unknown): string {
  return typeof value === 'string' ? value : '';
}
