import { ByteWriter } from './byteWriter.ts';
import { writeDate } from './iccDate.ts';
import type { IccHeader, IccProfile, IccTag } from './iccTypes.ts';
import { md5 } from './md5.ts';
import { writeTag } from './writeTag.ts';

/** Writes a profile; equal tag elements are stored once, version 4 gets its profile id (MD5, ICC.1:2022, 7.2.18). */
export function writeIcc(profile: IccProfile): Uint8Array {
  const entries = [...profile.tags].map(([signature, tag]) => ({ signature, tag }));
  const writer = new ByteWriter();
  writeHeader(writer, profile.header);
  writer.u32(entries.length);
  const places = entries.map(({ signature }) => {
    writer.signature(signature);
    const at = writer.length;
    writer.u32(0);
    writer.u32(0);
    return at;
  });
  const written = new Map<IccTag, { offset: number; size: number }>();
  const byText = new Map<string, { offset: number; size: number }>();
  entries.forEach(({ tag }, i) => {
    let place = written.get(tag);
    if (place === undefined) {
      const bytes = writeTag(tag);
      const key = bytes.length < 4096 ? bytes.join(',') : undefined;
      place = key === undefined ? undefined : byText.get(key);
      if (place === undefined) {
        writer.align();
        place = { offset: writer.length, size: bytes.length };
        writer.raw(bytes);
        if (key !== undefined) byText.set(key, place);
      }
      written.set(tag, place);
    }
    writer.setU32(places[i], place.offset);
    writer.setU32(places[i] + 4, place.size);
  });
  writer.align();
  writer.setU32(0, writer.length);
  const bytes = writer.toBytes();
  if (profile.header.version.major >= 4) bytes.set(profileId(bytes), 84);
  return bytes;
}

/** MD5 over the profile with flags, intent and id set to zero. */
function profileId(bytes: Uint8Array): Uint8Array {
  const copy = bytes.slice();
  copy.fill(0, 44, 48);
  copy.fill(0, 64, 68);
  copy.fill(0, 84, 100);
  return md5(copy);
}

function writeHeader(writer: ByteWriter, header: IccHeader): void {
  writer.u32(0); // size, set at the end
  writer.u32(0); // preferred CMM
  writer.u8(header.version.major);
  writer.u8(header.version.minor << 4);
  writer.u16(0);
  writer.signature(header.deviceClass);
  writer.signature(header.colourSpace);
  writer.signature(header.pcs);
  writeDate(writer, header.created);
  writer.signature('acsp');
  writer.u32(0); // platform
  writer.u32(header.flags);
  nullableSignature(writer, header.manufacturer);
  nullableSignature(writer, header.model);
  writer.u32(0);
  writer.u32(0); // attributes: reflective, glossy, positive, colour
  writer.u32(header.intent);
  writer.u32(0xf6d6); // D50: 0.9642, 1, 0.8249
  writer.u32(0x10000);
  writer.u32(0xd32d);
  nullableSignature(writer, header.creator);
  for (let i = 0; i < 11; i++) writer.u32(0); // profile id and reserved
}

function nullableSignature(writer: ByteWriter, text: string): void {
  writer.ascii(text, 4);
}
