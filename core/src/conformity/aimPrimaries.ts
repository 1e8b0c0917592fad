import { labAt } from '../colour/labAt.ts';
import { mergeRepeats } from '../characterise/mergeRepeats.ts';
import { deltaE2000 } from '../colour/deltaE2000.ts';
import type { Lab } from '../colour/lab.ts';
import { measuredLabRows } from '../colour/measuredLabRows.ts';
import { largest, mean } from '../numerics/statistics.ts';
import { aimsFor, deviceKey } from './aims.ts';
import type { AimOrigin, Aims } from './aims.ts';
import { PRIMARY_NAMES, PRIMARY_VALUES } from './primaryValues.ts';

export interface AimPrimary {
  readonly name: string;
  readonly lab: Lab;
  readonly origin: AimOrigin;
}

/** Paper, solids and overprints of an aim set, as far as it has them. */
export function aimPrimaries(aims: Aims): AimPrimary[] {
  const { xyz, origins } = aimsFor(aims, PRIMARY_VALUES);
  const lab = measuredLabRows(xyz);
  return PRIMARY_NAMES.flatMap((name, row) =>
    origins[row] === 'none' ? [] : [{ name, lab: labAt(lab, row), origin: origins[row] }],
  );
}

export interface AimsApart {
  /** Device values that both give. */
  readonly common: number;
  /** ΔE00 over these; 0 where there is none. */
  readonly mean: number;
  readonly largest: number;
}

/** How far two aim sets are apart where both give a colour for the same device values; repeats count once, averaged. */
export function aimsApart(one: Aims, other: Aims): AimsApart {
  const [a, b] = [one, other].map(({ device, xyz }) => {
    const merged = mergeRepeats(device, 4, xyz);
    return { device: merged.device, lab: measuredLabRows(merged.xyz), count: merged.counts.length };
  });
  const rows = new Map(Array.from({ length: b.count }, (_, row) => [deviceKey(b.device, row), row]));
  const differences: number[] = [];
  for (let row = 0; row < a.count; row++) {
    const at = rows.get(deviceKey(a.device, row));
    if (at !== undefined) differences.push(deltaE2000(labAt(a.lab, row), labAt(b.lab, at)));
  }
  return differences.length === 0
    ? { common: 0, mean: 0, largest: 0 }
    : { common: differences.length, mean: mean(differences), largest: largest(differences) };
}
