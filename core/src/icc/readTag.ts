import { ByteReader } from './byteReader.ts';
import type { IccCurve, IccTag, NamedColour } from './iccTypes.ts';
import { readDate } from './iccDate.ts';
import { readCurve, readLut, readLutAb } from './readLut.ts';

const MLUC_BYTES = 1_000_000;

/** Reads one tag element; types that Melto has no use for are kept as raw bytes. */
export function readTag(bytes: Uint8Array, signature: string, offset: number): IccTag {
  const reader = new ByteReader(bytes, signature, offset);
  const type = reader.signature('type');
  reader.skip(4, 'reserved');
  switch (type) {
    case 'mft1':
    case 'mft2':
      return readLut(reader, type === 'mft1' ? 'lut8' : 'lut16');
    case 'mAB ':
    case 'mBA ':
      return readLutAb(reader, type === 'mAB ' ? 'mAB' : 'mBA');
    case 'curv':
    case 'para': {
      reader.seek(0, 'start');
      const curve: IccCurve = readCurve(reader);
      return { type: 'curve', curve };
    }
    case 'text':
      return { type: 'text', text: reader.ascii(reader.remaining, 'text') };
    case 'desc':
      return readDesc(reader);
    case 'mluc':
      return readMluc(reader);
    case 'XYZ ': {
      if (reader.remaining < 12) reader.fail('icc.truncated', 'XYZ', '12 bytes', `${reader.remaining}`);
      return {
        type: 'XYZ',
        values: Array.from({ length: Math.min(256, Math.floor(reader.remaining / 12)) }, () =>
          readXyz(reader),
        ),
      };
    }
    case 'sf32':
      return {
        type: 'sf32',
        values: Array.from({ length: Math.min(1024, reader.remaining >> 2) }, () =>
          reader.s15Fixed16('value'),
        ),
      };
    case 'sig ':
      return { type: 'sig', signature: reader.signature('signature') };
    case 'dtim':
      return { type: 'dtim', date: readDate(reader) };
    case 'clrt': {
      const count = reader.u32('count');
      if (count * 38 > reader.remaining)
        reader.fail('icc.bad-count', 'count', `at most ${Math.floor(reader.remaining / 38)}`, `${count}`);
      return {
        type: 'clrt',
        colorants: Array.from({ length: count }, () => {
          const name = reader.ascii(32, 'name');
          const [x, y, z] = reader.u16Array(3, 'value');
          return { name, pcs: [x, y, z] as const };
        }),
      };
    }
    case 'ncl2':
      return readNamedColours(reader);
    case 'meas':
      return {
        type: 'meas',
        observer: reader.u32('observer'),
        backing: readXyz(reader),
        geometry: reader.u32('geometry'),
        flare: reader.u16Fixed16('flare'),
        illuminant: reader.u32('illuminant'),
      };
    case 'view':
      return {
        type: 'view',
        illuminant: readXyz(reader),
        surround: readXyz(reader),
        illuminantType: reader.u32('type'),
      };
    default:
      return { type: 'raw', bytes: bytes.slice() };
  }
}

function readXyz(reader: ByteReader): readonly [number, number, number] {
  return [reader.s15Fixed16('X'), reader.s15Fixed16('Y'), reader.s15Fixed16('Z')];
}

function readDesc(reader: ByteReader): IccTag {
  const count = reader.u32('length');
  if (count > reader.remaining)
    reader.fail('icc.bad-count', 'length', `at most ${reader.remaining}`, `${count}`);
  const latin = reader.ascii(count, 'text');
  return { type: 'desc', text: unicodeOf(reader) || latin };
}

/** The Unicode part of a description, empty where there is none or it does not hold what it counts. */
function unicodeOf(reader: ByteReader): string {
  if (reader.remaining < 8) return '';
  reader.skip(4, 'Unicode language');
  const units = reader.u32('Unicode count');
  if (2 * units > reader.remaining) return '';
  return reader.utf16(2 * units, 'Unicode text').replace(/\0.*$/s, '');
}

function readMluc(reader: ByteReader): IccTag {
  const count = reader.u32('record count');
  const size = reader.u32('record size');
  if (size !== 12) reader.fail('icc.bad-record-size', 'record size', '12', `${size}`);
  if (count > 100 || count * 12 > reader.remaining)
    reader.fail(
      'icc.bad-count',
      'record count',
      `at most ${Math.min(100, Math.floor(reader.remaining / 12))}`,
      `${count}`,
    );
  const heads = Array.from({ length: count }, () => {
    const code = reader.signature('language');
    return {
      language: code.slice(0, 2),
      country: code.slice(2),
      length: reader.u32('length'),
      offset: reader.u32('offset'),
    };
  });
  // Records may share their text, so their lengths are capped together.
  if (heads.reduce((sum, { length }) => sum + length, 0) > MLUC_BYTES)
    reader.fail('icc.bad-count', 'record lengths', `at most ${MLUC_BYTES} bytes together`, 'more');
  return {
    type: 'mluc',
    records: heads.map(({ language, country, length, offset }) => {
      reader.seek(offset, 'record offset');
      return { language, country, text: reader.utf16(length, 'record text') };
    }),
  };
}

function readNamedColours(reader: ByteReader): IccTag {
  reader.skip(4, 'vendor');
  const count = reader.u32('count');
  const deviceCount = reader.u32('device count');
  if (deviceCount > 15) reader.fail('icc.bad-count', 'device count', 'at most 15', `${deviceCount}`);
  const prefix = reader.ascii(32, 'prefix');
  const suffix = reader.ascii(32, 'suffix');
  const size = 32 + 6 + 2 * deviceCount;
  if (count * size > reader.remaining)
    reader.fail('icc.bad-count', 'count', `at most ${Math.floor(reader.remaining / size)}`, `${count}`);
  const colours: NamedColour[] = [];
  for (let i = 0; i < count; i++) {
    const root = reader.ascii(32, 'name');
    colours.push({
      name: prefix + root + suffix,
      pcs: Array.from(reader.u16Array(3, 'PCS value')),
      device: Array.from(reader.u16Array(deviceCount, 'device value')),
    });
  }
  return { type: 'ncl2', deviceCount, colours };
}
