import { labToDevice } from '../icc/profileTransform.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { eightBit } from '../charts/namedPatches.ts';
import { success } from '../result.ts';
import type { Result } from '../result.ts';
import { transformed } from '../transform/transform.ts';
import { studyFields } from './brightenerStudy.ts';

/** Device values of a study's fields by a profile, as files and drivers take them: 8 bits, row-major × channel. */
export function studyValues(profile: IccProfile): Result<Float64Array> {
  const toDevice = labToDevice(profile, 'absolute');
  if (!toDevice.ok) return toDevice;
  const asked = Float64Array.from(studyFields().flatMap(({ lab }) => [...lab]));
  return success(transformed(toDevice.value, asked).map(eightBit));
}
