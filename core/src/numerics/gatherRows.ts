/** Copies rows of a row-major array in the order given. */
export function gatherRows(values: Float64Array, rows: readonly number[], width: number): Float64Array {
  const out = new Float64Array(rows.length * width);
  for (let i = 0; i < rows.length; i++) {
    const from = rows[i] * width;
    if (from < 0 || from + width > values.length)
      throw new RangeError(`row ${rows[i]} of ${values.length / width}`);
    out.set(values.subarray(from, from + width), i * width);
  }
  return out;
}
