import * as calibration from './calibration';
import * as charts from './charts';
import * as conditions from './conditions';
import * as conformity from './conformity';
import type { Endpoint } from './endpoint';
import * as eye from './eye';
import * as house from './house';
import * as instruments from './instruments';
import * as light from './light';
import * as lists from './lists';
import * as people from './people';
import * as profile from './profile';
import * as proof from './proof';
import * as reading from './reading';
import * as runs from './runs';
import * as trials from './trials';
import * as watch from './watch';

function isEndpoint(value: unknown): value is Endpoint {
  return typeof value === 'object' && value !== null && 'method' in value && 'path' in value;
}

/** Every route of the API, as it is published. */
export const ENDPOINTS: readonly Endpoint[] = [
  house,
  people,
  conditions,
  charts,
  reading,
  light,
  lists,
  eye,
  instruments,
  calibration,
  profile,
  proof,
  conformity,
  runs,
  trials,
  watch,
].flatMap((area) => (Object.values(area) as readonly unknown[]).filter(isEndpoint));
