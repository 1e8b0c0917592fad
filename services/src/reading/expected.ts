import { genericLabRows } from '@melto/core/charts/expectedColours';
import { channelCount, drivenByInks } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import { deviceToLab } from '@melto/core/icc/profileTransform';
import type { Context } from '../kernel/context.ts';
import { profileInForce } from '../ledger/inForce.ts';

/**
 * What device values should give on a condition: by its profile where its driver takes light values and it has one,
 * else by a generic device. A profile of inks tells what comes out through its curves, which a sheet need not have.
 */
export async function expectedLab(
  context: Context,
  condition: number,
  process: Process,
  device: Float64Array,
): Promise<Float64Array> {
  const known = drivenByInks(process) ? undefined : await profileInForce(context, condition);
  const transform = known === undefined ? undefined : deviceToLab(known.profile, 'absolute');
  if (transform?.ok !== true) return genericLabRows(process, device, channelCount(process));
  const out = new Float64Array((device.length / channelCount(process)) * 3);
  transform.value.apply(device, out);
  return out;
}
