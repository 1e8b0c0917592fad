import { deltaE2000 } from '../colour/deltaE2000.ts';
import type { Lab } from '../colour/lab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { xyzRowsToLab } from '../colour/xyzToLab.ts';
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
  const lab = labRows(xyz);
  return PRIMARY_NAMES.flatMap((name, row) =>
    origins[row] === 'none'
      ? []
      : [{ name, lab: [lab[3 * row], lab[3 * row + 1], lab[3 * row + 2]], origin: origins[row] }],
  );
}

export interface AimsApart {
  /** Device values that both give. */
  readonly common: number;
  /** ΔE00 over these; 0 where there is none. */
  readonly mean: number;
  readonly largest: number;
}

/** How far two aim sets are apart where both give a colour for the same device values. */
export function aimsApart(one: Aims, other: Aims): AimsApart {
  const [a, b] = [labRows(one.xyz), labRows(other.xyz)];
  const rows = new Map(Array.from({ length: b.length / 3 }, (_, row) => [deviceKey(other.device, row), row]));
  const differences: number[] = [];
  for (let row = 0; row < a.length / 3; row++) {
    const at = rows.get(deviceKey(one.device, row));
    if (at !== undefined)
      differences.push(
        deltaE2000([a[3 * row], a[3 * row + 1], a[3 * row + 2]], [b[3 * at], b[3 * at + 1], b[3 * at + 2]]),
      );
  }
  return differences.length === 0
    ? { common: 0, mean: 0, largest: 0 }
    : { common: differences.length, mean: mean(differences), largest: largest(differences) };
}

function labRows(xyz: Float64Array): Float64Array {
  const lab = new Float64Array(xyz.length);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
  return lab;
}
