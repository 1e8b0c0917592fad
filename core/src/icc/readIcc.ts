import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { ByteReader, IccDamage } from './byteReader.ts';
import { readDate } from './iccDate.ts';
import { ICC_LIMITS } from './iccLimits.ts';
import type { IccHeader, IccProfile, IccTag } from './iccTypes.ts';
import { readTag } from './readTag.ts';

const CLASSES = ['scnr', 'mntr', 'prtr', 'link', 'spac', 'abst', 'nmcl'];

/** Whether bytes are meant as an ICC profile, by its signature; what they hold is not looked at. */
export function isIcc(bytes: Uint8Array): boolean {
  return bytes.length >= 128 && String.fromCharCode(...bytes.subarray(36, 40)) === 'acsp';
}

/** Reads an ICC profile of version 2 or 4; each length and offset is checked before use. */
export function readIcc(bytes: Uint8Array): Result<IccProfile> {
  try {
    return success(parse(bytes));
  } catch (error) {
    if (error instanceof IccDamage) return failure(error.issue);
    throw error;
  }
}

function parse(bytes: Uint8Array): IccProfile {
  const reader = new ByteReader(bytes, 'header');
  if (bytes.length > ICC_LIMITS.bytes)
    reader.fail('icc.too-large', 'size', `at most ${ICC_LIMITS.bytes} bytes`, `${bytes.length}`);
  const size = reader.u32('size');
  if (size > bytes.length) reader.fail('icc.truncated', 'size', `${size} bytes`, `${bytes.length}`);
  const header = readHeader(reader);
  const tagReader = new ByteReader(bytes, 'tag table');
  tagReader.seek(128, 'start');
  const count = tagReader.u32('tag count');
  if (count > ICC_LIMITS.tags)
    tagReader.fail('icc.too-many-tags', 'tag count', `at most ${ICC_LIMITS.tags}`, `${count}`);
  const tags = new Map<string, IccTag>();
  const seen = new Map<string, IccTag>();
  let total = 0;
  for (let i = 0; i < count; i++) {
    const signature = tagReader.signature('signature');
    const offset = tagReader.u32('offset');
    const length = tagReader.u32('size');
    if (offset < 128 || offset + length > bytes.length || length < 8)
      tagReader.fail(
        'icc.bad-tag-range',
        signature,
        `8 bytes or more within ${bytes.length}`,
        `${length} at ${offset}`,
      );
    if (tags.has(signature)) tagReader.fail('icc.duplicate-tag', signature, 'each tag once', 'it twice');
    const key = `${offset}:${length}`;
    let tag = seen.get(key);
    if (tag === undefined) {
      total += length;
      if (total > ICC_LIMITS.bytes)
        tagReader.fail('icc.too-large', signature, `at most ${ICC_LIMITS.bytes} bytes of tags`, 'more');
      tag = readTag(bytes.subarray(offset, offset + length), signature, offset);
      seen.set(key, tag);
    }
    tags.set(signature, tag);
  }
  return { header, tags };
}

function readHeader(reader: ByteReader): IccHeader {
  reader.seek(8, 'version');
  const major = reader.u8('version');
  const minor = reader.u8('version') >> 4;
  if (major !== 2 && major !== 4) reader.fail('icc.unknown-version', 'version', '2 or 4', `${major}`);
  reader.skip(2, 'version');
  const deviceClass = reader.signature('class');
  if (!CLASSES.includes(deviceClass))
    reader.fail('icc.unknown-class', 'class', CLASSES.join(', '), printable(deviceClass));
  const colourSpace = reader.signature('colour space');
  const pcs = reader.signature('connection space');
  if (deviceClass !== 'link' && pcs !== 'Lab ' && pcs !== 'XYZ ')
    reader.fail('icc.unknown-pcs', 'connection space', 'Lab or XYZ', printable(pcs));
  const created = readDate(reader);
  const magic = reader.signature('file signature');
  if (magic !== 'acsp') reader.fail('icc.not-a-profile', 'file signature', 'acsp', printable(magic));
  reader.skip(4, 'platform');
  const flags = reader.u32('flags');
  const manufacturer = reader.signature('manufacturer');
  const model = reader.signature('model');
  reader.skip(8, 'attributes');
  const intent = reader.u32('intent');
  reader.skip(12, 'illuminant');
  const creator = reader.signature('creator');
  reader.seek(128, 'end');
  return {
    version: { major, minor },
    deviceClass,
    colourSpace,
    pcs,
    created,
    intent,
    flags,
    creator,
    manufacturer,
    model,
  };
}

function printable(text: string): string {
  return JSON.stringify(text);
}
