import { lesserRole, mayDo, roleOf } from '@melto/core/people/role';
import type { Role } from '@melto/core/people/role';
import {
  endMachineKey,
  findMachineKey,
  insertMachineKey,
  listMachineKeys,
  noteKeyUse,
} from '@melto/store/machineKeys';
import type { MachineKeyRow } from '@melto/store/machineKeys';
import type { Context } from '../kernel/context.ts';
import { named } from '../kernel/named.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { digestOf, newSecret, NOTED_EVERY_MS } from './secret.ts';
import type { SignedIn } from './signIn.ts';

export interface MachineKey extends Omit<MachineKeyRow, 'role' | 'endedMs'> {
  readonly role: Role;
  /** Whether it was ended, or its time is over. */
  readonly over: boolean;
}

/** Where a program's key begins: found by whoever looks for secrets where none should be. */
const BEGINS = 'melto_';
const DAY_MS = 86_400_000;

export async function machineKeys(context: Context): Promise<MachineKey[]> {
  const now = context.now();
  return (await listMachineKeys(context.database)).map(({ role, endedMs, ...row }) => ({
    ...row,
    role: roleOf(role),
    over: endedMs !== null || row.endsMs <= now,
  }));
}

/** Makes a key for a program, which is told this once. It may do no more than whoever makes it. */
export async function makeMachineKey(
  context: Context,
  own: Role,
  { name, role, days }: { readonly name: string; readonly role: Role; readonly days: number },
): Promise<{ readonly id: number; readonly key: string }> {
  const said = named(name, 'name', 'key');
  // Whoever has the key has its house: people are kept by people.
  if (role === 'keeper' || !mayDo(own, role))
    throw new Problem(
      'bad-input',
      'A key cannot do that much.',
      'Choose specialist, operator or viewer.',
      'role',
    );
  const key = `${BEGINS}${newSecret()}`;
  const now = context.now();
  const id = await insertMachineKey(
    context.database,
    { name: said, role, digest: digestOf(key), endsMs: now + days * DAY_MS },
    now,
  );
  return { id, key };
}

export async function endKey(context: Context, id: number): Promise<void> {
  if (!(await endMachineKey(context.database, id, context.now()))) throw notFound(`key ${id}`);
}

/** In whose name a key acts, and what it may do: never more than they themselves today. */
export async function keyOwner(
  context: Context,
  key: string,
): Promise<(SignedIn & { readonly keyId: number }) | undefined> {
  if (!key.startsWith(BEGINS)) return undefined;
  const now = context.now();
  const row = await findMachineKey(context.database, digestOf(key), now);
  if (row === undefined) return undefined;
  if (row.usedMs === null || now - row.usedMs > NOTED_EVERY_MS)
    await noteKeyUse(context.database, row.id, now);
  const { id, house, person, author, role, authorRole } = row;
  return { house, person, name: author, role: lesserRole(roleOf(role), roleOf(authorRole)), keyId: id };
}
