import { genericLabRows } from '@melto/core/charts/expectedColours';
import { channelCount } from '@melto/core/device/deviceSpace';
import type { DeviceSpace } from '@melto/core/device/deviceSpace';
import { deviceToLab } from '@melto/core/icc/profileTransform';
import { readIcc } from '@melto/core/icc/readIcc';
import { findResultFile, listHeads } from '@melto/store/results';
import type { Services } from '../kernel/context.ts';

/** What device values should give on a condition: by its profile where it has one, else by a generic device. */
export async function expectedLab(
  services: Services,
  condition: number,
  space: DeviceSpace,
  device: Float64Array,
): Promise<Float64Array> {
  if (space !== 'rgb') return genericLabRows(space, device, channelCount(space));
  const head = (await listHeads(services.database, condition)).find(({ link }) => link === 'profile');
  const file = head === undefined ? undefined : await findResultFile(services.database, head.id, 'profile');
  if (file !== undefined) {
    const profile = readIcc(file.content);
    const transform = profile.ok ? deviceToLab(profile.value, 'absolute') : undefined;
    if (transform?.ok === true) {
      const out = new Float64Array(device.length);
      transform.value.apply(device, out);
      return out;
    }
  }
  return genericLabRows('rgb', device, 3);
}
