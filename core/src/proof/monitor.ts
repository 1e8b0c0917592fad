import type { IccProfile } from '../icc/iccTypes.ts';
import { labToDevice } from '../icc/profileTransform.ts';
import { failure } from '../result.ts';
import type { Result } from '../result.ts';
import type { Transform } from '../transform/transform.ts';

/** Lab (D50) to the signal of a screen by its own profile, 0..1; what it cannot show is clipped. */
export function monitorSignal(monitor: IccProfile): Result<Transform> {
  const { deviceClass, colourSpace } = monitor.header;
  if (deviceClass !== 'mntr' || colourSpace.trim() !== 'RGB')
    return failure({
      code: 'proof.monitor',
      path: 'profile of the screen',
      expected: 'the profile of a display (class mntr) of red, green and blue',
      found: `class ${deviceClass.trim()}, ${colourSpace.trim()}`,
    });
  return labToDevice(monitor, 'relative');
}
