import { deskCredentials, listDeskPeople, setDesk, setDeskCode, setTaken } from '@melto/store/desks';
import { countFailure, forgetFailures } from '@melto/store/people';
import { actingAs, unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { named } from '../kernel/named.ts';
import { Problem } from '../kernel/problem.ts';
import { recordAct } from './acts.ts';
import type { ActOrigin } from './acts.ts';
import { hashPassphrase, isPassphrase } from './passphrase.ts';
import { digestOf } from './secret.ts';
import { DESK_MS, LOCKED_MS, MOST_FAILURES } from './signIn.ts';

const DIGITS = /^\d{6}$/;

/** Whoever can take a desk over. */
export interface DeskPerson {
  readonly id: number;
  readonly name: string;
}

/** Makes the session of a browser a desk: it stays signed in, and shows only, until somebody takes it over. */
export async function makeDesk(context: Context, secret: string, name: string): Promise<void> {
  await setDesk(context.database, digestOf(secret), named(name, 'name', 'desk'), context.now() + DESK_MS);
}

/** Keeps one's own code for desks; desks that one works at are left. */
export async function changeDeskCode(context: Context, code: string): Promise<void> {
  if (!DIGITS.test(code) || new Set(code).size < 3 || isRun(code))
    throw new Problem(
      'bad-input',
      'A code has six digits, three different ones at least, and does not count up or down.',
      'It lets you take over a desk of the house, and nothing else.',
      'code',
    );
  const hash = await hashPassphrase(code);
  await unitOfWork(context, ({ database }) => setDeskCode(database, database.person, hash));
}

/** Whether each digit is the one before and one more, or one less. */
function isRun(code: string): boolean {
  const steps = [...code].slice(1).map((digit, i) => Number(digit) - Number(code[i]));
  return steps.every((step) => step === steps[0]) && Math.abs(steps[0]) === 1;
}

export const deskPeople = ({ database }: Context): Promise<readonly DeskPerson[]> => listDeskPeople(database);

/** Takes a desk over by somebody's code: from now on what is done at it is done in their name. */
export async function takeDesk(
  context: Context,
  secret: string,
  { person, code, origin }: { readonly person: number; readonly code: string; readonly origin: ActOrigin },
): Promise<void> {
  const wrong = new Problem(
    'bad-input',
    'The code is not right.',
    `After ${MOST_FAILURES} failures it is locked for ${LOCKED_MS / 60_000} minutes.`,
    'code',
  );
  const { database } = context;
  const found = await deskCredentials(database, person);
  const now = context.now();
  if (found === undefined) throw wrong;
  if (found.lockedMs > now)
    throw new Problem(
      'too-many',
      'This code is locked after too many failures.',
      `Try again in ${Math.ceil((found.lockedMs - now) / 60_000)} min, or set another code where you are signed in.`,
      'code',
    );
  // Counted before it is looked at: a hundred tries at once are a hundred failures, not one.
  await countFailure(database, person, 'code', { most: MOST_FAILURES, nowMs: now, untilMs: now + LOCKED_MS });
  if (!(await isPassphrase(found.code, code))) throw wrong;
  await unitOfWork(context, async (inner) => {
    const again = await deskCredentials(inner.database, person);
    // Others may have locked it meanwhile, or it has become another code.
    if (again?.code !== found.code || (again.lockedMs > now && again.failures > MOST_FAILURES)) throw wrong;
    await forgetFailures(inner.database, person, 'code');
    await setTaken(inner.database, digestOf(secret), { by: person, atMs: now });
    const own = actingAs(inner, { house: inner.database.house, person });
    await recordAct(own, origin, { what: 'Take over a desk', object: '', sent: undefined });
  });
}

/** Leaves a desk: nobody works at it, and nobody has to sign in for it to show what there is. */
export const leaveDesk = ({ database }: Context, secret: string): Promise<void> =>
  setTaken(database, digestOf(secret), undefined);
