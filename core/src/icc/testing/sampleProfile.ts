import { deviceToLab } from '../profileTransform.ts';
import type { IccProfile, IccTag } from '../iccTypes.ts';
import { MAPPED_AXES } from '../../profile/labAxis.ts';
import { forwardTag, inverseTag } from '../../profile/profileTables.ts';

/** A small profile with a tag of every kind that is written, for tests of the reader. */
export function sampleProfile(version: 2 | 4): IccProfile {
  const lab = new Float64Array(27 * 3);
  for (let i = 0; i < 27; i++)
    lab.set([((i % 3) + (Math.floor(i / 3) % 3) + Math.floor(i / 9)) * (100 / 6), i - 13, 13 - i], i * 3);
  lab.set([100, 0, 0], 26 * 3);
  const a2b = forwardTag({ channels: 3, points: 3, lab }, version);
  const b2a = inverseTag(3, 3, new Float64Array(81).fill(0.25), version, MAPPED_AXES);
  const tags = new Map<string, IccTag>([
    [
      'desc',
      version === 4
        ? { type: 'mluc', records: [{ language: 'en', country: 'GB', text: 'Größe' }] }
        : { type: 'desc', text: 'sample' },
    ],
    ['cprt', { type: 'text', text: 'none' }],
    ['wtpt', { type: 'XYZ', values: [[0.9, 0.93, 0.75]] }],
    ['chad', { type: 'sf32', values: [1, 0, 0, 0, 1, 0, 0, 0, 1] }],
    ['tech', { type: 'sig', signature: 'ijet' }],
    ['calt', { type: 'dtim', date: { year: 2026, month: 3, day: 14, hour: 12, minute: 0, second: 5 } }],
    ['clrt', { type: 'clrt', colorants: [{ name: 'Cyan', pcs: [1, 2, 3] }] }],
    [
      'ncl2',
      { type: 'ncl2', deviceCount: 3, colours: [{ name: 'Tide', pcs: [4, 5, 6], device: [7, 8, 9] }] },
    ],
    ['meas', { type: 'meas', observer: 1, backing: [0, 0, 0], geometry: 1, flare: 0, illuminant: 1 }],
    ['view', { type: 'view', illuminant: [1, 1, 1], surround: [0.2, 0.2, 0.2], illuminantType: 1 }],
    ['kTRC', { type: 'curve', curve: { kind: 'gamma', gamma: 1.5 } }],
    ['rTRC', { type: 'curve', curve: { kind: 'parametric', functionType: 0, parameters: [2] } }],
    ['A2B0', a2b],
    ['A2B1', a2b],
    ['B2A0', b2a],
    ['own ', { type: 'raw', bytes: Uint8Array.from('abcd0000 raw', (c) => c.charCodeAt(0)) }],
  ]);
  return {
    header: {
      version: { major: version, minor: version === 4 ? 4 : 2 },
      deviceClass: 'prtr',
      colourSpace: 'RGB ',
      pcs: 'Lab ',
      created: { year: 2026, month: 3, day: 14, hour: 9, minute: 30, second: 0 },
      intent: 0,
      flags: 0,
      creator: '',
      manufacturer: '',
      model: '',
    },
    tags,
  };
}

/** Lab of device white by the sample's table. */
export function evaluateSampleProfile(profile: IccProfile): Float64Array {
  const out = new Float64Array(3);
  const transform = deviceToLab(profile, 'relative');
  if (transform.ok) transform.value.apply([1, 1, 1], out);
  return out;
}
