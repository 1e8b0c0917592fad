/** Numbers as a block of float32, little-endian: spectra and device values of many patches in one column. */
export function encodeValues(values: Float64Array): Buffer {
  const buffer = Buffer.alloc(values.length * 4);
  values.forEach((value, i) => buffer.writeFloatLE(value, i * 4));
  return buffer;
}

export function decodeValues(block: Buffer): Float64Array {
  return Float64Array.from({ length: block.length >> 2 }, (_, i) => block.readFloatLE(i * 4));
}
