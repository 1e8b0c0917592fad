import { ByteWriter } from './byteWriter.ts';
import type { IccClut, IccCurve, IccTag, LutAbTag, LutTag } from './iccTypes.ts';
import { writeDate } from './iccDate.ts';

/** One tag element as bytes, from its type signature on. */
export function writeTag(tag: IccTag): Uint8Array {
  const writer = new ByteWriter();
  const head = (type: string): void => {
    writer.signature(type);
    writer.u32(0);
  };
  switch (tag.type) {
    case 'raw':
      writer.raw(tag.bytes);
      break;
    case 'text':
      head('text');
      writer.ascii(tag.text, tag.text.length + 1);
      break;
    case 'desc':
      head('desc');
      writer.u32(tag.text.length + 1);
      writer.ascii(tag.text, tag.text.length + 1);
      // The same again in Unicode (ICC.1:2001-04, 6.5.17): names are not all Latin.
      writer.u32(0); // language, not told
      writer.u32(tag.text.length + 1);
      writer.utf16(tag.text);
      writer.u16(0);
      writer.u16(0); // script code
      writer.u8(0);
      writer.ascii('', 67);
      break;
    case 'mluc': {
      head('mluc');
      writer.u32(tag.records.length);
      writer.u32(12);
      let offset = 16 + 12 * tag.records.length;
      for (const record of tag.records) {
        writer.ascii(record.language, 2);
        writer.ascii(record.country, 2);
        writer.u32(record.text.length * 2);
        writer.u32(offset);
        offset += record.text.length * 2;
      }
      for (const record of tag.records) writer.utf16(record.text);
      break;
    }
    case 'XYZ':
      head('XYZ ');
      for (const value of tag.values) writeXyz(writer, value);
      break;
    case 'curve':
      writeCurve(writer, tag.curve);
      break;
    case 'sf32':
      head('sf32');
      for (const value of tag.values) writer.s15Fixed16(value);
      break;
    case 'sig':
      head('sig ');
      writer.signature(tag.signature);
      break;
    case 'dtim':
      head('dtim');
      writeDate(writer, tag.date);
      break;
    case 'clrt':
      head('clrt');
      writer.u32(tag.colorants.length);
      for (const colorant of tag.colorants) {
        writer.ascii(colorant.name.slice(0, 31), 32);
        writer.u16Array(colorant.pcs);
      }
      break;
    case 'ncl2':
      head('ncl2');
      writer.u32(0);
      writer.u32(tag.colours.length);
      writer.u32(tag.deviceCount);
      writer.ascii('', 64);
      for (const colour of tag.colours) {
        writer.ascii(colour.name.slice(0, 31), 32);
        writer.u16Array(colour.pcs);
        writer.u16Array(colour.device);
      }
      break;
    case 'meas':
      head('meas');
      writer.u32(tag.observer);
      writeXyz(writer, tag.backing);
      writer.u32(tag.geometry);
      writer.u32(Math.round(tag.flare * 65536));
      writer.u32(tag.illuminant);
      break;
    case 'view':
      head('view');
      writeXyz(writer, tag.illuminant);
      writeXyz(writer, tag.surround);
      writer.u32(tag.illuminantType);
      break;
    case 'lut8':
    case 'lut16':
      head(tag.type === 'lut8' ? 'mft1' : 'mft2');
      writeLut(writer, tag);
      break;
    case 'mAB':
    case 'mBA':
      head(tag.type === 'mAB' ? 'mAB ' : 'mBA ');
      writeLutAb(writer, tag);
      break;
  }
  return writer.toBytes();
}

function writeXyz(writer: ByteWriter, value: readonly [number, number, number]): void {
  for (const component of value) writer.s15Fixed16(component);
}

function writeLut(writer: ByteWriter, tag: LutTag): void {
  const wide = tag.type === 'lut16';
  writer.u8(tag.inputs);
  writer.u8(tag.outputs);
  writer.u8(tag.clut.grid[0]);
  writer.u8(0);
  for (const value of tag.matrix) writer.s15Fixed16(value);
  if (wide) {
    writer.u16(tag.inputTables[0].length);
    writer.u16(tag.outputTables[0].length);
  }
  const table = (values: Uint16Array): void => {
    if (wide) writer.u16Array(values);
    else writer.raw(Uint8Array.from(values, (v) => Math.round(v / 257)));
  };
  tag.inputTables.forEach(table);
  if (tag.clut.values instanceof Uint16Array) writer.u16Array(tag.clut.values);
  else writer.raw(tag.clut.values);
  tag.outputTables.forEach(table);
}

function writeLutAb(writer: ByteWriter, tag: LutAbTag): void {
  writer.u8(tag.inputs);
  writer.u8(tag.outputs);
  writer.u16(0);
  const places = writer.length;
  for (let i = 0; i < 5; i++) writer.u32(0);
  const element = (slot: number, present: boolean, write: () => void): void => {
    if (!present) return;
    writer.align();
    writer.setU32(places + 4 * slot, writer.length);
    write();
  };
  const curves = (list: readonly IccCurve[] | undefined) => (): void =>
    list?.forEach((curve) => {
      writeCurve(writer, curve);
      writer.align();
    });
  element(0, true, curves(tag.bCurves));
  element(1, tag.matrix !== undefined, () => tag.matrix?.forEach((value) => writer.s15Fixed16(value)));
  element(2, tag.mCurves !== undefined, curves(tag.mCurves));
  element(3, tag.clut !== undefined, () => {
    if (tag.clut !== undefined) writeClut(writer, tag.clut);
  });
  element(4, tag.aCurves !== undefined, curves(tag.aCurves));
}

function writeClut(writer: ByteWriter, clut: IccClut): void {
  for (let i = 0; i < 16; i++) writer.u8(clut.grid[i] ?? 0);
  writer.u8(clut.values instanceof Uint16Array ? 2 : 1);
  writer.ascii('', 3);
  if (clut.values instanceof Uint16Array) writer.u16Array(clut.values);
  else writer.raw(clut.values);
}

function writeCurve(writer: ByteWriter, curve: IccCurve): void {
  if (curve.kind === 'parametric') {
    writer.signature('para');
    writer.u32(0);
    writer.u16(curve.functionType);
    writer.u16(0);
    for (const value of curve.parameters) writer.s15Fixed16(value);
    return;
  }
  writer.signature('curv');
  writer.u32(0);
  if (curve.kind === 'identity') writer.u32(0);
  else if (curve.kind === 'gamma') {
    writer.u32(1);
    writer.u16(Math.round(curve.gamma * 256));
  } else {
    writer.u32(curve.values.length);
    writer.u16Array(curve.values);
  }
}
