import { mayDo, roleOf } from '@melto/core/people/role';
import type { Role } from '@melto/core/people/role';
import { lockHouse } from '@melto/store/houses';
import { insertPerson, listPeople, setPassphrase, setPersonAway, updatePerson } from '@melto/store/people';
import type { PersonRow } from '@melto/store/people';
import { endSessionsOf } from '@melto/store/sessions';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { named } from '../kernel/named.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { givenPassphrase, hashPassphrase } from './passphrase.ts';

export interface Person extends Omit<PersonRow, 'role' | 'awayMs'> {
  readonly role: Role;
  readonly away: boolean;
}

export interface PersonChange {
  readonly name: string;
  readonly role: Role;
}

export async function people({ database }: Context): Promise<Person[]> {
  return (await listPeople(database)).map(({ role, awayMs, ...row }) => ({
    ...row,
    role: roleOf(role),
    away: awayMs !== null,
  }));
}

const nameTaken = (name: string): Problem =>
  new Problem('conflict', `Somebody is called ${name} already.`, 'Choose another name.', 'name');

/** Makes a person, with a passphrase that is told this once. */
export async function makePerson(
  context: Context,
  change: PersonChange,
): Promise<{ readonly id: number; readonly passphrase: string }> {
  const name = named(change.name, 'name', 'person');
  const passphrase = givenPassphrase();
  const hash = await hashPassphrase(passphrase);
  return unitOfWork(context, async ({ database }) => {
    const id = await insertPerson(database, { name, role: change.role }, context.now());
    if (id === undefined) throw nameTaken(name);
    await setPassphrase(database, id, hash);
    return { id, passphrase };
  });
}

/** Names a person and says what they may do. */
export async function changePerson(context: Context, id: number, change: PersonChange): Promise<void> {
  const name = named(change.name, 'name', 'person');
  await unitOfWork(context, async ({ database }) => {
    await lockHouse(database);
    await keeperStays(database, id, mayDo(change.role, 'keeper'));
    if (!(await updatePerson(database, id, { name, role: change.role }))) throw nameTaken(name);
  });
}

/** Says that somebody has left, who is signed out at once, or that they are back. What they made keeps their name. */
export async function setLeft(context: Context, id: number, left: boolean): Promise<void> {
  await unitOfWork(context, async ({ database }) => {
    await lockHouse(database);
    await keeperStays(database, id, !left);
    await setPersonAway(database, id, left ? context.now() : null);
    if (left) await endSessionsOf(database, id);
  });
}

/** Gives somebody a new passphrase, told this once, and signs them out everywhere. */
export async function givePassphrase(context: Context, id: number): Promise<{ readonly passphrase: string }> {
  const passphrase = givenPassphrase();
  const hash = await hashPassphrase(passphrase);
  return unitOfWork(context, async ({ database }) => {
    if (!(await listPeople(database)).some((row) => row.id === id)) throw notFound(`person ${id}`);
    await setPassphrase(database, id, hash);
    await endSessionsOf(database, id);
    return { passphrase };
  });
}

/** A house is never left without somebody who keeps it and can come in. */
async function keeperStays(database: Context['database'], id: number, keeps: boolean): Promise<void> {
  const rows = await listPeople(database);
  if (!rows.some((row) => row.id === id)) throw notFound(`person ${id}`);
  const others = rows.filter(
    (row) => row.id !== id && row.awayMs === null && row.comesIn && roleOf(row.role) === 'keeper',
  );
  const own = rows.some((row) => row.id === id && roleOf(row.role) === 'keeper' && row.awayMs === null);
  if (own && !keeps && others.length === 0)
    throw new Problem(
      'conflict',
      'The house would have no keeper.',
      'Make somebody else its keeper before.',
      'role',
    );
}
