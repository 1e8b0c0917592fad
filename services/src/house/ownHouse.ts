import type { DensityStatus } from '@melto/core/density/density';
import { issueText } from '@melto/core/result';
import { parseShifts } from '@melto/core/time/shifts';
import type { Units } from '@melto/core/units/units';
import { findHouse, lockHouse, setHouse } from '@melto/store/houses';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { personName } from '../kernel/person.ts';
import { Problem } from '../kernel/problem.ts';
import { named } from '../kernel/named.ts';

/** What a house says of itself: on reports, and in whose zone its times are told. */
export interface OwnHouse {
  readonly name: string;
  /** IANA name of a time zone. */
  readonly timeZone: string;
  /** In which lengths and screens are told. */
  readonly units: Units;
  /** By which filters densities are told. */
  readonly densityStatus: DensityStatus;
  /** When its shifts begin: clock times in the order of the day, with commas. */
  readonly shifts: string;
  /** Whoever works in it. */
  readonly person: string;
}

export async function ownHouse(context: Context): Promise<OwnHouse> {
  const [row, person] = await Promise.all([findHouse(context.database), personName(context)]);
  if (row === undefined) throw new Error(`no house ${context.database.house}`);
  const { name, timeZone, units, densityStatus, shifts } = row;
  return { name, timeZone, units, densityStatus, shifts, person };
}

/** Names the house and its person, and sets its time zone; what was judged before keeps the names it was judged with. */
export async function changeHouse(context: Context, change: OwnHouse): Promise<void> {
  const name = named(change.name, 'name', 'house');
  const person = named(change.person, 'person', 'person');
  const { timeZone, units, densityStatus } = change;
  if (!isTimeZone(timeZone))
    throw new Problem(
      'bad-input',
      `There is no time zone "${timeZone.slice(0, 60)}".`,
      'Choose one of the list, such as Europe/London.',
      'timeZone',
    );
  const starts = parseShifts(change.shifts);
  if (!starts.ok) throw new Problem('bad-input', issueText(starts.issues[0]), 'Put it right.', 'shifts');
  const shifts = starts.value.join(', ');
  await unitOfWork(context, async ({ database }) => {
    await lockHouse(database);
    if (!(await setHouse(database, { name, timeZone, units, densityStatus, shifts, person })))
      throw new Problem(
        'conflict',
        `Somebody is called ${person} already.`,
        'Choose another name.',
        'person',
      );
  });
}

/** A name of a zone: an offset alone knows no summer time. */
function isTimeZone(name: string): boolean {
  return name === 'UTC' || Intl.supportedValuesOf('timeZone').includes(name);
}
