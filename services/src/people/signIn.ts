import { lesserRole, roleOf } from '@melto/core/people/role';
import type { Role } from '@melto/core/people/role';
import { findHouse, lockHouse } from '@melto/store/houses';
import {
  anyKeeper,
  countFailure,
  credentialsByName,
  credentialsOf,
  forgetFailures,
  setPassphrase,
  updatePerson,
} from '@melto/store/people';
import {
  endSession,
  endSessionsOf,
  findSession,
  forgetEndedSessions,
  insertSession,
  touchSession,
} from '@melto/store/sessions';
import { actingAs, unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { named } from '../kernel/named.ts';
import { Problem } from '../kernel/problem.ts';
import { digestOf, newSecret, NOTED_EVERY_MS } from './secret.ts';
import { recordAct } from './acts.ts';
import type { ActOrigin } from './acts.ts';
import { checkPassphrase, hashPassphrase, isPassphrase } from './passphrase.ts';

/** Failures in a row after which a name is locked, and for how long. */
export const MOST_FAILURES = 5;
export const LOCKED_MS = 5 * 60_000;
/** How long one stays signed in without coming by. */
export const SESSION_MS = 30 * 86_400_000;
/** How long a desk stays a desk without being used, and how long it is somebody's: a shift. */
export const DESK_MS = 365 * 86_400_000;
export const TAKEN_MS = 8 * 3_600_000;
const MOST_AGENT = 160;

/** Somebody who is signed in. */
export interface SignedIn {
  readonly house: number;
  readonly person: number;
  readonly name: string;
  readonly role: Role;
  /** The desk that is signed in, and whether somebody works at it; undefined for a person's own session. */
  readonly desk?: { readonly name: string; readonly taken: boolean };
}

/** A session: what the browser keeps, and until when. */
export interface NewSession {
  readonly secret: string;
  readonly endsMs: number;
}

/** What somebody comes in by. */
export interface Coming {
  readonly name: string;
  readonly passphrase: string;
  /** What the browser calls itself, so that a session can be told from others. */
  readonly agent: string;
  readonly origin: ActOrigin;
}

/** Whether nobody keeps the house yet: its first person is to be made. */
export async function isUnclaimed({ database }: Context): Promise<boolean> {
  return !(await anyKeeper(database));
}

/** Whether it is the sample house, which whoever sits at its machine may look round in. */
export async function isSampleHouse({ database }: Context): Promise<boolean> {
  return (await findHouse(database))?.sample === true;
}

/** Makes the house's own first person, who keeps it; refused once there is a keeper. */
export async function claimHouse(context: Context, given: Coming): Promise<NewSession> {
  const name = named(given.name, 'name', 'person');
  checkPassphrase(given.passphrase);
  const hash = await hashPassphrase(given.passphrase);
  return unitOfWork(context, async (inner) => {
    const { database } = inner;
    await lockHouse(database);
    if (await anyKeeper(database))
      throw new Problem(
        'conflict',
        'The house has its first person.',
        'Sign in, or ask its keeper for a passphrase.',
      );
    // What was made before anybody signed in was made by the house's one person: it stays theirs.
    if (!(await updatePerson(database, database.person, { name, role: 'keeper' })))
      throw new Problem('conflict', `Somebody is called ${name} already.`, 'Choose another name.', 'name');
    await setPassphrase(database, database.person, hash);
    return startSession(inner, database.person, given);
  });
}

/** Signs somebody in by name and passphrase; says the same of a wrong name as of a wrong passphrase. */
export async function signIn(context: Context, given: Coming): Promise<NewSession> {
  const wrong = new Problem(
    'unauthenticated',
    'Name or passphrase is not right.',
    `After ${MOST_FAILURES} failures a name is locked for ${LOCKED_MS / 60_000} minutes.`,
    'passphrase',
  );
  const { database } = context;
  const found = await credentialsByName(database, given.name.trim());
  const now = context.now();
  if (found !== undefined && found.lockedMs > now)
    throw new Problem(
      'too-many',
      'This name is locked after too many failures.',
      `Try again in ${Math.ceil((found.lockedMs - now) / 60_000)} min, or ask the keeper for a new passphrase.`,
      'passphrase',
    );
  // Counted before it is looked at: a hundred tries at once are a hundred failures, not one.
  if (found !== undefined)
    await countFailure(database, found.id, 'passphrase', {
      most: MOST_FAILURES,
      nowMs: now,
      untilMs: now + LOCKED_MS,
    });
  const right = await isPassphrase(found?.awayMs === null ? found.passphrase : null, given.passphrase);
  if (!right || found === undefined) {
    if (found !== undefined) await noted(context, found.id, given, 'Sign-in refused');
    throw wrong;
  }
  return unitOfWork(context, async (inner) => {
    const again = await credentialsOf(inner.database, found.id);
    // Others may have locked it meanwhile, or given it another passphrase.
    if (again?.passphrase !== found.passphrase || (again.lockedMs > now && again.failures > MOST_FAILURES))
      throw wrong;
    await forgetFailures(inner.database, found.id, 'passphrase');
    await forgetEndedSessions(inner.database, now);
    return startSession(inner, found.id, given);
  });
}

/** Notes in somebody's name what was done at the door. */
function noted(
  context: Context,
  person: number,
  { origin, agent }: Pick<Coming, 'agent' | 'origin'>,
  what: string,
): Promise<void> {
  const own = actingAs(context, { house: context.database.house, person });
  return recordAct(own, origin, { what, object: '', sent: { agent: agent.slice(0, MOST_AGENT) } });
}

/** Begins a session of somebody who has proved who they are. */
export async function startSession(
  context: Context,
  person: number,
  coming: Pick<Coming, 'agent' | 'origin'>,
): Promise<NewSession> {
  const secret = newSecret();
  const nowMs = context.now();
  const endsMs = nowMs + SESSION_MS;
  await insertSession(context.database, {
    ...{ digest: digestOf(secret), person, agent: coming.agent.slice(0, MOST_AGENT), nowMs, endsMs },
  });
  await noted(context, person, coming, 'Sign in');
  return { secret, endsMs };
}

/** Who is signed in by a secret. Whoever comes by stays signed in for as long again. */
export async function sessionOf(context: Context, secret: string): Promise<SignedIn | undefined> {
  const digest = digestOf(secret);
  const now = context.now();
  const row = await findSession(context.database, digest, now);
  if (row === undefined) return undefined;
  const { house, person, name, role, desk } = row;
  if (now - row.seenMs > NOTED_EVERY_MS)
    await touchSession(context.database, digest, now, now + (desk === null ? SESSION_MS : DESK_MS));
  if (desk === null) return { house, person, name, role: roleOf(role) };
  const { takenBy, takenName, takenRole, takenMs } = row;
  // Nobody at the desk: it shows what there is, and changes nothing.
  if (takenBy === null || takenMs === null || now - takenMs >= TAKEN_MS)
    return { house, person, name, role: 'viewer', desk: { name: desk, taken: false } };
  return {
    ...{ house, person: takenBy, name: takenName ?? '', desk: { name: desk, taken: true } },
    role: lesserRole(roleOf(takenRole ?? ''), 'operator'),
  };
}

/** Signs out here, or everywhere. */
export async function signOut(context: Context, secret: string, everywhere: boolean): Promise<void> {
  if (everywhere) await endSessionsOf(context.database, context.database.person);
  await endSession(context.database, digestOf(secret));
}

/** Changes one's own passphrase, and signs out everywhere else. */
export async function changePassphrase(
  context: Context,
  {
    before,
    passphrase,
    secret,
  }: { readonly before: string; readonly passphrase: string; readonly secret: string },
): Promise<void> {
  checkPassphrase(passphrase);
  const own = await credentialsOf(context.database, context.database.person);
  if (own === undefined || !(await isPassphrase(own.passphrase, before)))
    throw new Problem(
      'bad-input',
      'The passphrase until now is not right.',
      'Nothing was changed.',
      'before',
    );
  const hash = await hashPassphrase(passphrase);
  await unitOfWork(context, async ({ database }) => {
    await setPassphrase(database, database.person, hash);
    await endSessionsOf(database, database.person, digestOf(secret));
  });
}
