import { median } from '../numerics/statistics.ts';

/** A patch whose colour does not go with those of patches with like device values. */
export interface DoubtfulPatch {
  readonly patch: number;
  /** ΔE*ab from what its neighbours say. */
  readonly off: number;
}

const NEIGHBOURS = 6;
/** Far from what the neighbours say, and far beyond what is usual on this sheet. */
const LEAST_OFF = 12;
const TIMES_USUAL = 8;
const OFF_PER_REACH = 60;
/** Fewer patches tell nothing of each other. */
const LEAST_PATCHES = 24;
const MOST_TOLD = 24;

/**
 * Patches that their neighbours in device values contradict: read at a wrong place, smeared, or mistyped. Expected is
 * the mean of the neighbours' colours, weighed by nearness.
 * @param device row-major patch × channel, 0..1; @param lab row-major × 3; NaN where a patch is missing.
 */
export function doubtfulPatches(device: Float64Array, channels: number, lab: Float64Array): DoubtfulPatch[] {
  const rows = Array.from({ length: lab.length / 3 }, (_, i) => i).filter((i) => Number.isFinite(lab[3 * i]));
  if (rows.length < LEAST_PATCHES) return [];
  const first = contradicted(device, channels, lab, rows, new Set());
  // A wrong patch spoils what its neighbours are measured by: those are looked at again without it.
  const suspects = new Set(first.map(({ patch }) => patch));
  return first.length === 0 ? [] : contradicted(device, channels, lab, rows, suspects).slice(0, MOST_TOLD);
}

/** Patches that the others contradict, the worst first; `left` are asked for no opinion. */
function contradicted(
  device: Float64Array,
  channels: number,
  lab: Float64Array,
  rows: readonly number[],
  left: ReadonlySet<number>,
): DoubtfulPatch[] {
  const witnesses = rows.filter((row) => !left.has(row));
  if (witnesses.length < LEAST_PATCHES) return [];
  const off = rows.map((row) => {
    const near: { distance: number; other: number }[] = [];
    for (const other of witnesses) {
      if (other === row) continue;
      let distance = 0;
      for (let c = 0; c < channels; c++)
        distance += (device[channels * row + c] - device[channels * other + c]) ** 2;
      if (near.length < NEIGHBOURS || distance < near[NEIGHBOURS - 1].distance) {
        near.push({ distance, other });
        near.sort((a, b) => a.distance - b.distance);
        near.length = Math.min(near.length, NEIGHBOURS);
      }
    }
    const weights = near.map(({ distance }) => 1 / (distance + 1e-3));
    const sum = weights.reduce((a, b) => a + b, 0);
    let squares = 0;
    for (let axis = 0; axis < 3; axis++) {
      const expected = near.reduce(
        (total, { other }, i) => total + (weights[i] / sum) * lab[3 * other + axis],
        0,
      );
      squares += (lab[3 * row + axis] - expected) ** 2;
    }
    return { patch: row, off: Math.sqrt(squares), reach: Math.sqrt(near[0].distance) };
  });
  const usual = median(off.map((own) => own.off));
  // The further the neighbours, the more they may differ.
  return off
    .filter((own) => own.off > LEAST_OFF + OFF_PER_REACH * own.reach && own.off > TIMES_USUAL * usual)
    .map(({ patch, off: own }) => ({ patch, off: own }))
    .sort((a, b) => b.off - a.off);
}
