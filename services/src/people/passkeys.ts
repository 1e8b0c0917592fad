import {
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
} from '@simplewebauthn/server';
import type {
  AuthenticationResponseJSON,
  AuthenticatorTransport,
  PublicKeyCredentialCreationOptionsJSON,
  PublicKeyCredentialRequestOptionsJSON,
  RegistrationResponseJSON,
} from '@simplewebauthn/server';
import {
  deletePasskey,
  findPasskey,
  insertChallenge,
  insertPasskey,
  listCredentials,
  listPasskeys,
  notePasskeyUse,
  takeChallenge,
} from '@melto/store/passkeys';
import type { PasskeyRow } from '@melto/store/passkeys';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { named } from '../kernel/named.ts';
import { personName } from '../kernel/person.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { digestOf } from './secret.ts';
import { startSession } from './signIn.ts';
import type { Coming, NewSession } from './signIn.ts';

export type Passkey = PasskeyRow;

/** Under which address a browser has opened the house: a passkey is of that name alone. */
export interface Site {
  readonly host: string;
  readonly origin: string;
}

/** How long a device may take to answer. */
export const ANSWER_MS = 5 * 60_000;

const refused = (): Problem =>
  new Problem(
    'unauthenticated',
    'The passkey is not known here.',
    'Sign in by your name and passphrase, and add it under your name.',
  );

export const passkeys = ({ database }: Context): Promise<Passkey[]> => listPasskeys(database);

/** What a device is asked for to become a passkey of whoever is signed in. */
export async function beginPasskey(
  context: Context,
  site: Site,
): Promise<PublicKeyCredentialCreationOptionsJSON> {
  const { database } = context;
  const [name, known] = await Promise.all([personName(context), listCredentials(database)]);
  const options = await generateRegistrationOptions({
    ...{ rpName: 'Melto', rpID: site.host, userName: name, userDisplayName: name },
    userID: new Uint8Array(Buffer.from(`${database.house}:${database.person}`)),
    attestationType: 'none',
    excludeCredentials: known.map((id) => ({ id })),
    authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
  });
  await keepChallenge(context, options.challenge, database.person);
  return options;
}

/** Keeps a passkey that a device has made. */
export async function keepPasskey(
  context: Context,
  site: Site,
  given: { readonly name: string; readonly response: unknown },
): Promise<void> {
  const name = named(given.name, 'name', 'passkey');
  const { database } = context;
  const told = await verifyRegistrationResponse({
    response: given.response as RegistrationResponseJSON,
    expectedChallenge: (challenge) => took(context, challenge, database.person),
    expectedOrigin: site.origin,
    expectedRPID: site.host,
    requireUserVerification: true,
  }).catch(() => undefined);
  if (told?.verified !== true)
    throw new Problem(
      'bad-input',
      'The device did not answer what it was asked.',
      'Nothing was kept. Add it again.',
    );
  const { id, publicKey, counter, transports = [] } = told.registrationInfo.credential;
  const passkey = { name, credential: id, publicKey, counter, transports: transports.join(' ') };
  if (!(await insertPasskey(database, passkey, context.now())))
    throw new Problem('conflict', 'This passkey is kept already.', 'Sign in by it.');
}

export async function removePasskey({ database }: Context, id: number): Promise<void> {
  if (!(await deletePasskey(database, id))) throw notFound(`passkey ${id}`);
}

/** What a device is asked for by whoever wants to come in, whose name it knows itself. */
export async function beginPasskeySignIn(
  context: Context,
  site: Site,
): Promise<PublicKeyCredentialRequestOptionsJSON> {
  const options = await generateAuthenticationOptions({ rpID: site.host, userVerification: 'required' });
  await keepChallenge(context, options.challenge, null);
  return options;
}

/** Signs somebody in by what a device proves; the same is said whatever is wrong. */
export async function signInByPasskey(
  context: Context,
  site: Site,
  { response, agent, origin }: Pick<Coming, 'agent' | 'origin'> & { readonly response: unknown },
): Promise<NewSession> {
  const answer = response as AuthenticationResponseJSON;
  const { database } = context;
  const found = typeof answer.id === 'string' ? await findPasskey(database, answer.id) : undefined;
  if (found === undefined) throw refused();
  const told = await verifyAuthenticationResponse({
    response: answer,
    expectedChallenge: (challenge) => took(context, challenge, null),
    expectedOrigin: site.origin,
    expectedRPID: site.host,
    requireUserVerification: true,
    credential: {
      ...{ id: answer.id, publicKey: new Uint8Array(found.publicKey), counter: Number(found.counter) },
      transports: found.transports.split(' ').filter((word) => word !== '') as AuthenticatorTransport[],
    },
  }).catch(() => undefined);
  if (told?.verified !== true) throw refused();
  const nowMs = context.now();
  return unitOfWork(context, async (inner) => {
    const use = { before: Number(found.counter), counter: told.authenticationInfo.newCounter, nowMs };
    // A copy of the device may have been used meanwhile.
    if (!(await notePasskeyUse(inner.database, found.id, use))) throw refused();
    return startSession(inner, found.person, { agent, origin });
  });
}

function keepChallenge(context: Context, challenge: string, person: number | null): Promise<void> {
  const nowMs = context.now();
  const kept = { digest: digestOf(challenge), person, endsMs: nowMs + ANSWER_MS };
  return insertChallenge(context.database, kept, nowMs);
}

/** Whether a challenge is ours, of that person, and was not answered before; it is none any more. */
const took = (context: Context, challenge: string, person: number | null): Promise<boolean> =>
  takeChallenge(context.database, digestOf(challenge), person, context.now());
