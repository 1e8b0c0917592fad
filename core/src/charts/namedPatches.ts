/** Patches with the names that stand in their reference file. */
export interface NamedPatches {
  /** Row-major patch × channel, 0..1. */
  readonly device: Float64Array;
  readonly names: readonly string[];
}

/** The nearest whole level of 8 bits, so that pixels and vectors carry the same value. */
export function eightBit(value: number): number {
  return Math.round(Math.min(1, Math.max(0, value)) * 255) / 255;
}

export function pushPatch(device: number[], names: string[], values: readonly number[], name: string): void {
  device.push(...values);
  names.push(name);
}

/** The same patches `copies` times, copy after copy. */
export function repeatPatches({ device, names }: NamedPatches, copies: number): NamedPatches {
  const out = new Float64Array(device.length * copies);
  for (let copy = 0; copy < copies; copy++) out.set(device, copy * device.length);
  return { device: out, names: Array.from({ length: copies }, () => names).flat() };
}
