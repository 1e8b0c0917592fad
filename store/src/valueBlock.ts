/** Numbers as a block of float32, little-endian: spectra and device values of many patches in one column. */
export function encodeValues(values: Float64Array): Buffer {
  const buffer = Buffer.alloc(values.length * 4);
  values.forEach((value, i) => buffer.writeFloatLE(value, i * 4));
  return buffer;
}

export function decodeValues(block: Buffer): Float64Array {
  return Float64Array.from(floatsOf(block));
}

/** The block as it lies in memory, copied where it does not begin on a border of four bytes. */
export function floatsOf(block: Buffer): Float32Array {
  const { buffer, byteOffset, byteLength } = block;
  return byteOffset % 4 === 0
    ? new Float32Array(buffer, byteOffset, byteLength >> 2)
    : new Float32Array(buffer.slice(byteOffset, byteOffset + (byteLength & ~3)));
}

/** Numbers as they are, float64, little-endian: what is gone on from must not lose a bit. */
export function encodeExact(values: Float64Array): Buffer {
  const buffer = Buffer.alloc(values.length * 8);
  values.forEach((value, i) => buffer.writeDoubleLE(value, i * 8));
  return buffer;
}

export function decodeExact(block: Buffer): Float64Array {
  return Float64Array.from({ length: block.length >> 3 }, (_, i) => block.readDoubleLE(i * 8));
}
