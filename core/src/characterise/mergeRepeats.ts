/** Distinct device values with the mean XYZ of their readings. */
export interface MergedPatches {
  readonly channels: number;
  /** Row-major patch × channel. */
  readonly device: Float64Array;
  /** Row-major patch × 3. */
  readonly xyz: Float64Array;
  readonly counts: Float64Array;
  /** For each merged patch the rows it came from. */
  readonly sources: readonly (readonly number[])[];
}

/** Merges rows whose device values agree to 1e-6; XYZ (linear in reflectance) is averaged. */
export function mergeRepeats(device: Float64Array, channels: number, xyz: Float64Array): MergedPatches {
  const rows = device.length / channels;
  if (xyz.length !== rows * 3) throw new RangeError(`${rows} device rows with ${xyz.length} XYZ values`);
  const groups = new Map<string, number[]>();
  for (let row = 0; row < rows; row++) {
    const values = device.subarray(row * channels, (row + 1) * channels);
    const key = Array.from(values, (value) => Math.round(value * 1e6)).join(',');
    const group = groups.get(key);
    if (group === undefined) groups.set(key, [row]);
    else group.push(row);
  }
  const sources = [...groups.values()];
  const out = {
    channels,
    device: new Float64Array(sources.length * channels),
    xyz: new Float64Array(sources.length * 3),
    counts: Float64Array.from(sources, (group) => group.length),
    sources,
  };
  sources.forEach((group, i) => {
    out.device.set(device.subarray(group[0] * channels, (group[0] + 1) * channels), i * channels);
    for (const row of group)
      for (let axis = 0; axis < 3; axis++) out.xyz[i * 3 + axis] += xyz[row * 3 + axis] / group.length;
  });
  return out;
}
