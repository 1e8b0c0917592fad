import { XMLParser } from 'fast-xml-parser';
import type { MeasuredKeyword } from '@melto/core/measured/measuredTable';
import { failure, success } from '@melto/core/result';
import type { Result } from '@melto/core/result';

const MOST_CHARACTERS = 24_000_000;
const LISTS = new Set([
  'Object',
  'ColorSpecification',
  'ReflectanceSpectrum',
  'EmissiveSpectrum',
  'ColorCIELab',
  'ColorCIELCh',
  'ColorCIEXYZ',
  'Tag',
]);

/** An element of a CxF file: attributes begin with `@`, text is `#text`. */
export type CxfNode = Readonly<Record<string, unknown>>;

/** What a CxF3 file (ISO 17972-1) holds, below `Resources`. */
export interface CxfDocument {
  readonly objects: readonly CxfNode[];
  readonly specifications: ReadonlyMap<string, CxfNode>;
  /** What the file says of itself: creator, date, description. */
  readonly information: CxfNode | undefined;
}

/** Reads the XML of a CxF3 file. Document types and entities are refused. */
export function readCxfDocument(text: string): Result<CxfDocument> {
  const bad = (expected: string, found: string): Result<never> =>
    failure({ code: 'cxf.form', path: 'CxF', expected, found });
  if (text.length > MOST_CHARACTERS) return bad(`${MOST_CHARACTERS} characters at most`, String(text.length));
  if (/<!(DOCTYPE|ENTITY)/i.test(text))
    return bad('no document type and no entities', 'a declaration of them');
  let root: CxfNode;
  try {
    root = new XMLParser({
      ignoreAttributes: false,
      attributeNamePrefix: '@',
      removeNSPrefix: true,
      parseTagValue: false,
      parseAttributeValue: false,
      processEntities: false,
      isArray: (name) => LISTS.has(name),
    }).parse(text, true) as CxfNode;
  } catch (error) {
    return bad('well-formed XML', error instanceof Error ? error.message : 'something else');
  }
  const file = cxfChild(root, 'CxF');
  const resources = cxfChild(file, 'Resources');
  const objects = cxfList(cxfChild(resources, 'ObjectCollection'), 'Object');
  if (objects.length === 0) return bad('objects under CxF/Resources/ObjectCollection', 'none');
  const specifications = cxfList(cxfChild(resources, 'ColorSpecificationCollection'), 'ColorSpecification');
  return success({
    objects,
    specifications: new Map(specifications.map((node) => [cxfWord(node['@Id']), node])),
    information: cxfChild(file, 'FileInformation'),
  });
}

export function cxfChild(node: CxfNode | undefined, name: string): CxfNode | undefined {
  const value = node?.[name];
  return typeof value === 'object' && value !== null && !Array.isArray(value)
    ? (value as CxfNode)
    : undefined;
}

export function cxfList(node: CxfNode | undefined, name: string): CxfNode[] {
  const value = node?.[name];
  return Array.isArray(value)
    ? value.filter((entry): entry is CxfNode => typeof entry === 'object' && entry !== null)
    : [];
}

/** The text of an attribute or an element without children. */
export function cxfWord(value: unknown): string {
  if (typeof value === 'string') return value;
  return typeof value === 'object' && value !== null && '#text' in value ? cxfWord(value['#text']) : '';
}

/** Wavelengths of a spectrum: where it begins, and the step its specification tells. */
export function cxfGrid(
  spectrum: CxfNode,
  specifications: CxfDocument['specifications'],
): { readonly startNm: number; readonly stepNm: number } | undefined {
  const specification = specifications.get(cxfWord(spectrum['@ColorSpecification']));
  const range = cxfChild(cxfChild(specification, 'MeasurementSpec'), 'WavelengthRange');
  const startNm = Number(spectrum['@StartWL'] ?? range?.['@StartWL']);
  const stepNm = Number(range?.['@Increment']);
  return startNm >= 300 && startNm <= 500 && stepNm >= 1 && stepNm <= 20 ? { startNm, stepNm } : undefined;
}

/** What the specification tells, in the words that CGATS has for it. */
export function cxfKeywords(
  specification: CxfNode | undefined,
  information: CxfNode | undefined,
): MeasuredKeyword[] {
  const measuring = cxfChild(specification, 'MeasurementSpec');
  const tristimulus = cxfChild(specification, 'TristimulusSpec');
  const device = cxfChild(measuring, 'Device');
  const told: readonly (readonly [string, unknown])[] = [
    ['ORIGINATOR', information?.['Creator']],
    ['CREATED', information?.['CreationDate']],
    ['DESCRIPTOR', information?.['Description']],
    ['ILLUMINATION_NAME', tristimulus?.['Illuminant']],
    ['OBSERVER', cxfWord(tristimulus?.['Observer']).replace(/_?Degree/i, '')],
    ['MEASUREMENT_CONDITION', measuring?.['MeasurementCondition'] ?? device?.['DeviceIllumination']],
    ['FILTER', cxfWord(device?.['DeviceFilter']).replace(/^Filter_?UVExcluded$/i, 'UVcut')],
    ['FILTER', /^true$/i.test(cxfWord(device?.['DevicePolarization'])) ? 'polarised' : ''],
    ['SAMPLE_BACKING', measuring?.['Backing']],
    ['MEASUREMENT_GEOMETRY', Object.keys(cxfChild(measuring, 'GeometryChoice') ?? {}).join(' ')],
    [
      'INSTRUMENTATION',
      [device?.['Manufacturer'], device?.['Model'], device?.['SerialNumber']]
        .map(cxfWord)
        .filter(Boolean)
        .join(' '),
    ],
  ];
  return told.flatMap(([name, value]) => {
    const text = cxfWord(value);
    return text === '' ? [] : [{ name, value: text }];
  });
}
