import type { Xyz } from '../colour/xyz.ts';
import { compileCurve } from '../icc/evaluateCurve.ts';
import type { CurveFunction } from '../icc/evaluateCurve.ts';
import type { IccCurve, IccProfile, IccTag, LutAbTag, LutTag } from '../icc/iccTypes.ts';
import { blackOf, REFERENCE_MEDIUM_BLACK } from '../icc/profileBlack.ts';
import { failure, success } from '../result.ts';
import type { Issue, Result } from '../result.ts';
import type { IccVersion } from './profileTables.ts';
import { shiftForwardBlack, shiftInverseBlack } from './shiftTableBlack.ts';

/** Most entries of the curves of `lut16` (ICC.1:2022, 10.10). */
const ENTRIES = 4096;
const WHOLE = 65535;
/** Codes of `lut16` for those of version 4: L* = 100 is FF00h, one of a* or b* is 256 (ICC.1:2022, tables 12 and 42). */
const LEGACY_L = 65280 / WHOLE;
const LEGACY_AB = 256 / 257;
const UNIT = [1, 0, 0, 0, 1, 0, 0, 0, 1] as const;
const VERSIONS = { 2: { major: 2, minor: 4 }, 4: { major: 4, minor: 4 } } as const;
/** Tags that only one of the versions has (ICC.1:2001-04 and ICC.1:2022, 9.2). */
const ONLY_IN: Readonly<Record<IccVersion, readonly string[]>> = {
  2: ['bkpt', 'crdi', 'ps2s', 'psd0', 'psd1', 'psd2', 'psd3', 'scrd', 'scrn', 'bfd '],
  4: ['chad', 'clot', 'clrt', 'rig0', 'rig2', 'D2B0', 'D2B1', 'D2B2', 'D2B3', 'B2D0', 'B2D1', 'B2D2', 'B2D3'],
};

/** Tables whose black is that of a reference medium in version 4, and the device's own before (ICC.1:2022, 6.3.3). */
const MAPPED: Readonly<Record<string, 'perceptual' | 'saturation'>> = {
  ...{ A2B0: 'perceptual', B2A0: 'perceptual', A2B2: 'saturation', B2A2: 'saturation' },
};
const VERSION_2_BLACK: Xyz = [0, 0, 0];

/**
 * The same output profile as the other version of the specification writes it. Nothing is fitted or mapped anew: the
 * colorimetric tables keep their nodes, to the bit towards version 4, which reads `lut16` as well; towards version 2
 * `mAB` and `mBA` become `lut16`, with Lab rounded anew by up to half a code. The perceptual and saturation tables are
 * moved to the black that engines take for granted in the other version, or every dark tone would shift.
 * @returns the issues where it is no output profile of Lab, or has elements that the other version cannot hold.
 */
export function otherVersion(profile: IccProfile, version: IccVersion): Result<IccProfile> {
  const { header, tags } = profile;
  const refused = (path: string, expected: string, found: string) =>
    failure<IccProfile>({ code: 'profile.version', path, expected, found });
  if (header.version.major === version) return refused('version', 'another version', `version ${version}`);
  if (header.version.major !== 2 && header.version.major !== 4)
    return refused('version', '2 or 4', `${header.version.major}`);
  if (header.deviceClass !== 'prtr' || header.pcs !== 'Lab ')
    return refused(
      'device class',
      'an output profile of Lab',
      `${header.deviceClass} of ${header.pcs.trim()}`,
    );
  if (!tags.has('wtpt')) return refused('wtpt', 'the white of the paper', 'none');
  const written = new Map<string, IccTag>();
  // What tags share in the one, they share in the other, so long as they are made alike.
  const known = new Map<IccTag, Map<string, IccTag>>();
  const issues: Issue[] = [];
  for (const [signature, tag] of tags) {
    if (ONLY_IN[version === 2 ? 4 : 2].includes(signature)) continue;
    const own = known.get(tag) ?? new Map<string, IccTag>();
    known.set(tag, own);
    const way = MAPPED[signature] ?? '';
    const before = own.get(way);
    const made = before === undefined ? writtenTag(profile, version, signature, tag) : success(before);
    if (!made.ok) issues.push(...made.issues);
    else {
      own.set(way, made.value);
      written.set(signature, made.value);
    }
  }
  if (issues.length > 0) return failure(...issues);
  // Version 4 asks every profile how its white was adapted; what is measured by D50 was not.
  if (version === 4) written.set('chad', { type: 'sf32', values: UNIT });
  return success({ header: { ...header, version: VERSIONS[version] }, tags: written });
}

function writtenTag(
  profile: IccProfile,
  version: IccVersion,
  signature: string,
  tag: IccTag,
): Result<IccTag> {
  const made = version === 4 ? success(laterTag(signature, tag)) : earlierTag(signature, tag);
  const intent = MAPPED[signature];
  if (!made.ok || intent === undefined) return made;
  if (made.value.type !== 'lut8' && made.value.type !== 'lut16')
    return failure({ code: 'profile.version', path: signature, expected: 'a table', found: made.value.type });
  let [from, to]: readonly Xyz[] = [REFERENCE_MEDIUM_BLACK, VERSION_2_BLACK];
  if (version === 4) {
    // Version 2 does not say which black its mapped tables have: it is what engines find, too.
    const own = blackOf(profile, intent, intent);
    if (!own.ok) return own;
    [from, to] = [own.value, REFERENCE_MEDIUM_BLACK];
  }
  return signature.startsWith('A')
    ? success(shiftForwardBlack(made.value, from, to))
    : shiftInverseBlack(made.value, from, to);
}

/** Texts that people read have a language in version 4; data for programs stay plain. */
function laterTag(signature: string, tag: IccTag): IccTag {
  const forPeople = tag.type === 'desc' || (tag.type === 'text' && signature === 'cprt');
  return forPeople ? { type: 'mluc', records: [{ language: 'en', country: 'GB', text: tag.text }] } : tag;
}

function earlierTag(signature: string, tag: IccTag): Result<IccTag> {
  if (tag.type === 'mAB' || tag.type === 'mBA') return legacyTable(signature, tag);
  if (tag.type !== 'mluc') return success(tag);
  const text = (tag.records.find(({ language }) => language === 'en') ?? tag.records[0])?.text ?? '';
  return success(signature === 'cprt' ? { type: 'text', text } : { type: 'desc', text });
}

/** `mAB` or `mBA` of Lab as `lut16`. */
function legacyTable(signature: string, tag: LutAbTag): Result<LutTag> {
  const refused = (expected: string, found: string) =>
    failure<LutTag>({ code: 'profile.version', path: signature, expected, found });
  const { clut, inputs, outputs, aCurves = [], mCurves = [], bCurves } = tag;
  if (clut === undefined) return refused('a table', 'none');
  if (clut.grid.some((points) => points !== clut.grid[0]))
    return refused('as many points in each direction', clut.grid.join('×'));
  const straight = (tag.matrix ?? [...UNIT, 0, 0, 0]).every(
    (value, i) => value === ([...UNIT, 0, 0, 0][i] ?? 0),
  );
  if (!straight || mCurves.some((curve) => !changesNothing(curve)))
    return refused('no matrix between its curves', 'a matrix');
  const device = aCurves.map((curve) => sampled(curve, 1, 1));
  const fromLab = tag.type === 'mBA';
  if (fromLab)
    return success({
      ...{ type: 'lut16', inputs, outputs, matrix: UNIT },
      // The curves are asked by the older codes, and answer a place on the table's axes.
      inputTables: bCurves.map((curve, i) => sampled(curve, i === 0 ? LEGACY_L : LEGACY_AB, 1, ENTRIES)),
      clut: { ...clut, values: wide(clut.values) },
      outputTables: evenLengths(device, outputs),
    });
  const nodes = wide(clut.values);
  // Where the last curves do nothing, the nodes themselves take the older codes: no rounding but that of the nodes.
  const plain = bCurves.every(changesNothing);
  const scaled = plain
    ? nodes.map((code, i) => Math.round(code * (i % 3 === 0 ? LEGACY_L : LEGACY_AB)))
    : nodes;
  const lab = bCurves.map((curve, i) =>
    plain ? STRAIGHT : sampled(curve, 1, i === 0 ? LEGACY_L : LEGACY_AB, ENTRIES),
  );
  return success({
    ...{ type: 'lut16', inputs, outputs, matrix: UNIT },
    inputTables: evenLengths(device, inputs),
    clut: { ...clut, values: scaled },
    outputTables: lab,
  });
}

const STRAIGHT = Uint16Array.of(0, WHOLE);

const changesNothing = (curve: IccCurve): boolean =>
  curve.kind === 'identity' ||
  (curve.kind === 'gamma' && curve.gamma === 1) ||
  (curve.kind === 'table' && curve.values.length === 2 && curve.values[0] === 0 && curve.values[1] === WHOLE);

const wide = (values: Uint8Array | Uint16Array): Uint16Array =>
  values instanceof Uint16Array ? values : Uint16Array.from(values, (value) => 257 * value);

/** A curve at even steps of its argument over `from` (1 = all of it), its values times `to`. */
function sampled(curve: IccCurve, from: number, to: number, entries?: number): Uint16Array {
  if (entries === undefined && changesNothing(curve)) return STRAIGHT;
  const count = entries ?? ENTRIES;
  const value: CurveFunction = compileCurve(curve);
  return Uint16Array.from({ length: count }, (_, i) => {
    const at = Math.min(1, i / (count - 1) / from);
    return Math.round(WHOLE * to * Math.min(1, Math.max(0, value(at))));
  });
}

/** `lut16` has one length for all curves of a side. */
function evenLengths(tables: readonly Uint16Array[], channels: number): Uint16Array[] {
  if (tables.length === 0 || tables.every((table) => table === STRAIGHT))
    return new Array<Uint16Array>(channels).fill(STRAIGHT);
  return tables.map((table) =>
    table === STRAIGHT
      ? Uint16Array.from({ length: ENTRIES }, (_, i) => Math.round((WHOLE * i) / (ENTRIES - 1)))
      : table,
  );
}
