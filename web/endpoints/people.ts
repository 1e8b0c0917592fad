import { Type } from '@sinclair/typebox';
import { ROLES } from '@melto/core/people/role';
import type { DeskPerson } from '@melto/services/people/desks';
import type { Act } from '@melto/services/people/acts';
import type { MachineKey } from '@melto/services/people/machineKeys';
import type { Passkey } from '@melto/services/people/passkeys';
import type { Person } from '@melto/services/people/people';
import { answers, DONE, makes, oneOf, reads, sets, strict } from './endpoint';
import { ID, IN_PATH, text, word } from './fields';

const PASSPHRASE = Type.String({ minLength: 1, maxLength: 200 });
const ROLE = oneOf(ROLES);

export const FIRST_PERSON = makes({
  ...{ path: '/api/first-person', says: 'Make the first person of a house, who keeps it', who: 'anyone' },
  body: strict({ name: word(120), passphrase: PASSPHRASE }),
  answer: DONE,
});

export const SIGN_IN = makes({
  ...{ path: '/api/session', says: 'Sign in', who: 'anyone' },
  body: strict({ name: word(120), passphrase: PASSPHRASE }),
  answer: DONE,
});

export const SIGN_OUT = makes({
  ...{ path: '/api/session/end', says: 'Sign out, here or everywhere', who: 'viewer' },
  body: strict({ everywhere: Type.Boolean() }),
  answer: DONE,
});

export const CHANGE_PASSPHRASE = sets({
  ...{ path: '/api/passphrase', says: 'Change one’s own passphrase', who: 'viewer' },
  body: strict({ before: PASSPHRASE, passphrase: PASSPHRASE }),
  answer: DONE,
});

/** What a browser hands on between a device and the server, as WebAuthn has it. */
const OPTIONS = answers<Record<string, unknown>>(Type.Object({ challenge: Type.String() }));
const RESPONSE = Type.Object({ id: Type.String({ maxLength: 1500 }) });

export const PASSKEYS = reads({
  ...{ path: '/api/passkeys', says: 'One’s own passkeys', who: 'viewer' },
  answer: answers<readonly Passkey[]>(Type.Array(Type.Object({ id: Type.Integer(), name: Type.String() }))),
});

export const BEGIN_PASSKEY = makes({
  ...{
    path: '/api/passkeys/options',
    says: 'Ask a device to become a passkey',
    who: 'viewer',
    byItself: true,
  },
  answer: OPTIONS,
});

export const KEEP_PASSKEY = makes({
  ...{ path: '/api/passkeys', says: 'Keep a passkey that a device has made', who: 'viewer' },
  body: strict({ name: word(80), response: RESPONSE }),
  answer: DONE,
});

export const REMOVE_PASSKEY = makes({
  ...{ path: '/api/passkeys/{id}/removed', says: 'Take a passkey away', who: 'viewer' },
  params: IN_PATH,
  answer: DONE,
});

export const BEGIN_PASSKEY_SIGN_IN = makes({
  ...{ path: '/api/session/passkey/options', says: 'Ask a device who comes in', who: 'anyone' },
  answer: OPTIONS,
});

export const PASSKEY_SIGN_IN = makes({
  ...{ path: '/api/session/passkey', says: 'Sign in by a passkey', who: 'anyone' },
  body: strict({ response: RESPONSE }),
  answer: DONE,
});

const CODE = Type.String({ minLength: 1, maxLength: 20 });

/** Where one works: at a desk, which anybody of the house takes over by their code, or by oneself. */
export interface DeskState {
  readonly name: string | null;
  /** Whether somebody works at the desk. */
  readonly taken: boolean;
  readonly people: readonly DeskPerson[];
}

export const DESK_STATE = reads({
  ...{ path: '/api/desk', says: 'Whether this is a desk, and who can take it over', who: 'viewer' },
  answer: answers<DeskState>(Type.Object({ taken: Type.Boolean(), people: Type.Array(Type.Object({})) })),
});

export const MAKE_DESK = makes({
  ...{ path: '/api/desk', says: 'Make this browser a desk of the house', who: 'specialist' },
  body: strict({ name: word(60) }),
  answer: DONE,
});

export const TAKE_DESK = makes({
  ...{ path: '/api/desk/taken', says: 'Take this desk over by one’s code', who: 'viewer', byItself: true },
  body: strict({ person: Type.Integer({ minimum: 1 }), code: CODE }),
  answer: DONE,
});

export const LEAVE_DESK = makes({
  ...{ path: '/api/desk/left', says: 'Leave this desk', who: 'viewer' },
  answer: DONE,
});

export const SET_DESK_CODE = sets({
  ...{ path: '/api/desk-code', says: 'Set one’s own code for desks', who: 'operator' },
  body: strict({ code: CODE }),
  answer: DONE,
});

export const PEOPLE = reads({
  ...{ path: '/api/people', says: 'People of the house', who: 'keeper' },
  answer: answers<readonly Person[]>(Type.Array(Type.Object({ id: Type.Integer(), name: Type.String() }))),
});

const PERSON = strict({ name: word(120), role: ROLE });

export const MAKE_PERSON = makes({
  ...{ path: '/api/people', says: 'Make a person; their first passphrase is told once', who: 'keeper' },
  body: PERSON,
  answer: answers<{ readonly id: number; readonly passphrase: string }>(
    Type.Object({ id: Type.Integer(), passphrase: Type.String() }),
  ),
});

export const CHANGE_PERSON = sets({
  ...{ path: '/api/people/{id}', says: 'Name a person and say what they may do', who: 'keeper' },
  params: IN_PATH,
  body: PERSON,
  answer: DONE,
});

export const SET_LEFT = sets({
  ...{
    path: '/api/people/{id}/away',
    says: 'Say that somebody has left the house, or is back',
    who: 'keeper',
  },
  params: IN_PATH,
  body: strict({ away: Type.Boolean() }),
  answer: DONE,
});

export const GIVE_PASSPHRASE = makes({
  ...{
    path: '/api/people/{id}/passphrase',
    says: 'Give somebody a new passphrase, told once',
    who: 'keeper',
  },
  params: IN_PATH,
  answer: answers<{ readonly passphrase: string }>(Type.Object({ passphrase: Type.String() })),
});

export const MACHINE_KEYS = reads({
  ...{ path: '/api/machine-keys', says: 'Keys of programs, without the keys', who: 'keeper' },
  answer: answers<readonly MachineKey[]>(
    Type.Array(Type.Object({ id: Type.Integer(), name: Type.String() })),
  ),
});

export const MAKE_MACHINE_KEY = makes({
  ...{ path: '/api/machine-keys', says: 'Make a key for a program, told once', who: 'keeper' },
  body: strict({ name: word(80), role: ROLE, days: Type.Integer({ minimum: 1, maximum: 800 }) }),
  answer: answers<{ readonly id: number; readonly key: string }>(
    Type.Object({ id: Type.Integer(), key: Type.String() }),
  ),
});

export const END_MACHINE_KEY = makes({
  ...{ path: '/api/machine-keys/{id}/end', says: 'End a key', who: 'keeper' },
  params: IN_PATH,
  answer: DONE,
});

export const ACTS = reads({
  ...{ path: '/api/acts', says: 'The record of acts, the newest first', who: 'keeper' },
  query: strict({
    find: Type.Optional(text(80)),
    before: Type.Optional(ID),
    limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 500 })),
  }),
  answer: answers<readonly Act[]>(Type.Array(Type.Object({ id: Type.Integer(), what: Type.String() }))),
});

export const ACTS_FILE = reads({
  ...{ path: '/api/acts/file', says: 'The record of acts as CSV', who: 'keeper' },
  query: strict({ find: Type.Optional(text(80)) }),
});
