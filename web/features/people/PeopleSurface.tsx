'use client';

import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Role } from '@melto/core/people/role';
import { ROLES } from '@melto/core/people/role';
import type { MachineKey } from '@melto/services/people/machineKeys';
import type { Person } from '@melto/services/people/people';
import {
  CHANGE_PERSON,
  END_MACHINE_KEY,
  GIVE_PASSPHRASE,
  MAKE_MACHINE_KEY,
  MAKE_PERSON,
  SET_LEFT,
} from '@/endpoints/people';
import { send } from '@/ui/api';
import { FormDialog } from '@/ui/FormDialog';
import { ChoiceIn, TextIn } from '@/ui/form/fields';
import { useBodyForm } from '@/ui/form/useBodyForm';
import { formatDay, formatMoment } from '@/ui/format';
import { numberOf } from '@/ui/numberOf';
import { useSending } from '@/ui/useSending';
import { ToldOnce } from './ToldOnce';

type Acts = readonly { readonly role: Role; readonly acts: readonly string[] }[];
interface Told {
  readonly title: string;
  readonly secret: string;
  readonly detail: string;
}

/** Who comes into the house and what they may do, and the keys of programs. */
export function PeopleSurface({
  people,
  keys,
  acts,
}: {
  people: readonly Person[];
  keys: readonly MachineKey[];
  acts: Acts;
}) {
  const router = useRouter();
  const { problem, run } = useSending();
  const [changing, setChanging] = useState<Person | 'new' | 'key'>();
  const [told, setTold] = useState<Told>();
  const tell = (one: Told): void => {
    setChanging(undefined);
    setTold(one);
    router.refresh();
  };
  const act = (work: () => Promise<unknown>): void =>
    void run(async () => {
      await work();
      router.refresh();
    });
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>People</h1>
        <p className="quiet">Who comes in, and what they may do. What somebody made keeps their name.</p>
        <Button onClick={() => setChanging('key')}>New key for a program</Button>
        <Button variant="contained" onClick={() => setChanging('new')}>
          New person
        </Button>
      </div>
      {problem !== undefined && (
        <p className="error" role="alert">
          {problem}
        </p>
      )}
      <div className="panel">
        <table className="table">
          <thead>
            <tr>
              <th>Name</th>
              <th>Is</th>
              <th>Last here</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {people.map((person) => (
              <tr key={person.id}>
                <td>
                  <b>{person.name}</b>
                  {person.away && <span className="quiet"> has left</span>}
                </td>
                <td>{person.role}</td>
                <td className="quiet">
                  {person.seenMs !== null
                    ? formatMoment(person.seenMs)
                    : person.comesIn
                      ? 'not signed in'
                      : 'cannot sign in: has no passphrase'}
                </td>
                <td className="row-acts">
                  <Button
                    size="small"
                    aria-label={`Change ${person.name}`}
                    onClick={() => setChanging(person)}
                  >
                    Change
                  </Button>
                  <Button
                    size="small"
                    aria-label={`New passphrase for ${person.name}`}
                    onClick={() =>
                      act(async () => {
                        const { passphrase } = await send(GIVE_PASSPHRASE, { params: { id: person.id } });
                        tell(firstWords(person.name, passphrase));
                      })
                    }
                  >
                    New passphrase
                  </Button>
                  <Button
                    size="small"
                    aria-label={person.away ? `${person.name} is back` : `${person.name} has left`}
                    onClick={() =>
                      act(() => send(SET_LEFT, { params: { id: person.id }, body: { away: !person.away } }))
                    }
                  >
                    {person.away ? 'Is back' : 'Has left'}
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Keys keys={keys} onEnd={(id) => act(() => send(END_MACHINE_KEY, { params: { id } }))} />
      <RolesTable acts={acts} />
      {changing === 'key' && <KeyDialog onClose={() => setChanging(undefined)} onMade={tell} />}
      {changing !== undefined && changing !== 'key' && (
        <PersonDialog
          person={changing === 'new' ? undefined : changing}
          onClose={() => setChanging(undefined)}
          onMade={(name, passphrase) =>
            passphrase === undefined
              ? (setChanging(undefined), router.refresh())
              : tell(firstWords(name, passphrase))
          }
        />
      )}
      {told !== undefined && <ToldOnce {...told} onClose={() => setTold(undefined)} />}
    </section>
  );
}

const firstWords = (name: string, secret: string): Told => ({
  title: `The passphrase of ${name}`,
  secret,
  detail: 'It is shown this once. Hand it over, and have it changed in the menu under their name.',
});

function Keys({ keys, onEnd }: { keys: readonly MachineKey[]; onEnd: (id: number) => void }) {
  if (keys.length === 0) return null;
  return (
    <div className="panel">
      <header>
        <h2>Keys of programs</h2>
        <span className="quiet">
          each acts in the name of whoever made it, and does no more than they may
        </span>
      </header>
      <table className="table">
        <thead>
          <tr>
            <th>For</th>
            <th>Is</th>
            <th>In the name of</th>
            <th>Until</th>
            <th>Last used</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {keys.map(({ id, name, role, author, endsMs, usedMs, over }) => (
            <tr key={id}>
              <td>
                <b>{name}</b>
              </td>
              <td>{role}</td>
              <td>{author}</td>
              <td>{over ? 'is over' : formatDay(endsMs)}</td>
              <td className="quiet">{usedMs === null ? 'never' : formatMoment(usedMs)}</td>
              <td className="row-acts">
                {!over && (
                  <Button size="small" aria-label={`End ${name}`} onClick={() => onEnd(id)}>
                    End it
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** What roles may do, as the routes check it. */
function RolesTable({ acts }: { acts: Acts }) {
  return (
    <div className="panel">
      <header>
        <h2>What they may do</h2>
        <span className="quiet">
          each also what stands before it; everybody may see all of the colour work
        </span>
      </header>
      {acts.map(({ role, acts: own }) => (
        <details key={role}>
          <summary>
            <b>{role}</b>{' '}
            <span className="quiet">
              {own.length} {own.length === 1 ? 'act' : 'acts'}
            </span>
          </summary>
          <ul className="role-acts">
            {own.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </details>
      ))}
    </div>
  );
}

function PersonDialog({
  person,
  onClose,
  onMade,
}: {
  person: Person | undefined;
  onClose: () => void;
  onMade: (name: string, passphrase?: string) => void;
}) {
  const form = useBodyForm(
    MAKE_PERSON.body,
    { name: person?.name ?? '', role: person?.role ?? 'operator' },
    ({ name, role }) => ({ name: name.trim(), role }),
  );
  return (
    <FormDialog
      title={person === undefined ? 'A person' : `Change ${person.name}`}
      act={person === undefined ? 'Add the person' : 'Keep it'}
      ready={form.ready}
      onClose={onClose}
      onSubmit={async () => {
        const body = form.body();
        if (person === undefined) onMade(body.name, (await send(MAKE_PERSON, { body })).passphrase);
        else {
          await send(CHANGE_PERSON, { params: { id: person.id }, body });
          onMade(body.name);
        }
      }}
    >
      <TextIn
        form={form}
        name="name"
        label="Name"
        help="As it stands on reports and slips"
        most={120}
        first
      />
      <ChoiceIn form={form} name="role" label="Is" choices={choicesOf(ROLES)} />
    </FormDialog>
  );
}

/** Roles by their words, which they are. */
const choicesOf = (roles: readonly Role[]): Readonly<Record<string, string>> =>
  Object.fromEntries(roles.map((role) => [role, role]));
/** Whoever has a key has its role: nobody keeps people by one. */
const KEY_ROLES = choicesOf(ROLES.filter((role) => role !== 'keeper'));

function KeyDialog({ onClose, onMade }: { onClose: () => void; onMade: (told: Told) => void }) {
  const form = useBodyForm(
    MAKE_MACHINE_KEY.body,
    { name: '', role: 'operator' as Role, days: '365' },
    ({ name, role, days }) => ({ name: name.trim(), role, days: numberOf(days) }),
  );
  return (
    <FormDialog
      title="A key for a program"
      act="Make the key"
      ready={form.ready}
      onClose={onClose}
      onSubmit={async () => {
        const body = form.body();
        const { key } = await send(MAKE_MACHINE_KEY, { body });
        onMade({
          title: `The key of ${body.name}`,
          secret: key,
          detail: 'It is shown this once. Send it with each request: Authorization: Bearer, and the key.',
        });
      }}
    >
      <TextIn form={form} name="name" label="For" help="The program or machine that has it" most={80} first />
      <ChoiceIn form={form} name="role" label="Is" choices={KEY_ROLES} />
      <TextIn form={form} name="days" label="Days it can be used" />
    </FormDialog>
  );
}
