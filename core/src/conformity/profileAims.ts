import { controlWedge, WEDGE_KINDS } from '../charts/controlWedge.ts';
import { WHITE_D50_MEASURED, WHITE_ICC } from '../colour/whitePoints.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { deviceToLab } from '../icc/profileTransform.ts';
import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { transformed } from '../transform/transform.ts';
import { deviceKey } from './aims.ts';

/** Steps of the grid that a profile is sampled on beside the wedges' own patches. */
const GRID = [0, 0.2, 0.4, 0.6, 0.8, 1] as const;

/**
 * XYZ (Y = 100, measured white) that a CMYK output profile predicts, absolute colorimetric.
 * @param device row-major × 4, 0..1. @returns row-major × 3.
 */
export function profileXyz(profile: IccProfile, device: Float64Array): Result<Float64Array> {
  const toLab = deviceToLab(profile, 'absolute');
  if (!toLab.ok) return toLab;
  if (toLab.value.inputs !== 4)
    return failure({
      code: 'aims.profile',
      path: 'profile',
      expected: 'a CMYK output profile',
      found: `${toLab.value.inputs} channels`,
    });
  return success(measuredXyz(transformed(toLab.value, device)));
}

/** XYZ (Y = 100) as instruments count it, of Lab rows of the ICC white. */
export function measuredXyz(lab: ArrayLike<number>): Float64Array {
  const xyz = new Float64Array(lab.length);
  for (let i = 0; i < lab.length; i += 3)
    labToXyz([lab[i], lab[i + 1], lab[i + 2]], WHITE_ICC).forEach(
      (value, axis) => (xyz[i + axis] = (value / WHITE_ICC[axis]) * WHITE_D50_MEASURED[axis]),
    );
  return xyz;
}

/** What a CMYK output profile predicts for the patches of all control wedges and a grid of six steps an ink. */
export function profileAims(
  profile: IccProfile,
): Result<{ readonly device: Float64Array; readonly xyz: Float64Array }> {
  const rows: number[][] = [];
  const seen = new Set<string>();
  const add = (row: number[]): void => {
    const key = deviceKey(row, 0);
    if (seen.has(key)) return;
    seen.add(key);
    rows.push(row);
  };
  for (const kind of WEDGE_KINDS) {
    const { device } = controlWedge(kind);
    for (let i = 0; i < device.length; i += 4) add([...device.subarray(i, i + 4)]);
  }
  for (const c of GRID) for (const m of GRID) for (const y of GRID) for (const k of GRID) add([c, m, y, k]);
  const device = Float64Array.from(rows.flat());
  const xyz = profileXyz(profile, device);
  return xyz.ok ? success({ device, xyz: xyz.value }) : xyz;
}
