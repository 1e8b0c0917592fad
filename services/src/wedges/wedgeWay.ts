import { WHITE_D50_MEASURED, WHITE_ICC } from '@melto/core/colour/whitePoints';
import { labToXyz, xyzToLab } from '@melto/core/colour/xyzToLab';
import { aimsFor } from '@melto/core/conformity/aims';
import { eightBit } from '@melto/core/charts/namedPatches';
import { channelCount, CMYK, takesCmyk } from '@melto/core/device/process';
import { labToDevice } from '@melto/core/icc/profileTransform';
import { unwrap } from '@melto/core/result';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import type { ConditionRow } from '../ledger/conditions.ts';
import { profileInForce } from '../ledger/inForce.ts';
import { loadAims } from '../conformity/aimSets.ts';
import type { JudgedBy, SpotPatch } from '../conformity/checkChoice.ts';

/** What is sent to the device for CMYK values of the aims; undefined where they are sent as they are. */
export async function valuesThrough(
  context: Context,
  condition: ConditionRow,
  asked: Float64Array,
  judgedBy: Omit<JudgedBy, 'spots' | 'predicted'> | undefined,
  spots: readonly SpotPatch[],
): Promise<{ readonly profileResultId: number | null; readonly values: Float64Array } | undefined> {
  const through = judgedBy?.through ?? (takesCmyk(condition.process) ? 'device values' : 'profile, absolute');
  if (through === 'device values') {
    if (!takesCmyk(condition.process))
      throw new Problem(
        'bad-input',
        `${condition.device} takes ${condition.process.name}; CMYK aims go through its profile.`,
        'Print through the profile.',
        'through',
      );
    return undefined;
  }
  const profile = await profileInForce(context, condition.id);
  if (profile === undefined)
    throw new Problem('conflict', 'There is no profile in force.', 'Build one first.', 'through');
  if (judgedBy === undefined)
    throw new Problem(
      'bad-input',
      `${condition.device} takes ${condition.process.name}: its wedges are converted from aims.`,
      'Choose the aims.',
      'judgedBy',
    );
  const { aims } = await loadAims(context, judgedBy.aimSetId);
  const wanted = aimsFor(aims, asked);
  const missing = wanted.origins.indexOf('none');
  if (missing >= 0)
    throw new Problem(
      'bad-input',
      `The aim set has no aim for ${patchWords(asked, missing)}.`,
      'Choose a full characterisation, or an own wedge of its patches.',
      'aimSetId',
    );
  const relative = through === 'profile, relative';
  const spotXyz = spots.flatMap(({ lab }) => [...labToXyz(lab, WHITE_D50_MEASURED)]);
  const lab = aimLab(Float64Array.from([...wanted.xyz, ...spotXyz]), relative ? wanted.paper : undefined);
  const channels = channelCount(condition.process);
  const device = new Float64Array((lab.length / 3) * channels);
  unwrap(labToDevice(profile.profile, relative ? 'relative' : 'absolute')).apply(lab, device);
  return { profileResultId: profile.resultId, values: device.map(eightBit) };
}

/** Lab for a profile (D50 of the ICC): absolute, or relative to a paper. */
function aimLab(xyz: Float64Array, paper: ArrayLike<number> | undefined): Float64Array {
  const lab = new Float64Array(xyz.length);
  for (let i = 0; i < xyz.length; i += 3) {
    const at = (axis: number): number =>
      (xyz[i + axis] / (paper?.[axis] ?? WHITE_D50_MEASURED[axis])) * WHITE_ICC[axis];
    lab.set(xyzToLab([at(0), at(1), at(2)], WHITE_ICC), i);
  }
  return lab;
}

function patchWords(device: Float64Array, row: number): string {
  const channels = channelCount(CMYK);
  return `C M Y K ${Array.from(device.subarray(channels * row, channels * (row + 1)), (value) => (100 * value).toFixed(0)).join(' ')}`;
}
