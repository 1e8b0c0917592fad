import { Type } from '@sinclair/typebox';
import type { Health } from '@melto/services/house/health';
import type { HouseState } from '@melto/services/house/house';
import type { JobRow } from '@melto/services/kernel/jobs';
import { DENSITY_STATUSES } from '@melto/core/density/density';
import type { Role } from '@melto/core/people/role';
import { UNITS } from '@melto/core/units/units';
import { FLOOR_FILTERS, FLOOR_ORDERS } from '@melto/core/judgement/floorFilter';
import type { FloorState } from '@melto/services/overview/floor';
import type { Found } from '@melto/services/overview/search';
import { answers, DONE, makes, oneOf, reads, sets, strict } from './endpoint';
import { ID, IN_PATH, text, word } from './fields';

export const HEALTH = reads({
  ...{ path: '/api/health', says: 'Whether the server, its database and a runner answer', who: 'anyone' },
  answer: answers<Health>(strict({ ok: Type.Boolean(), database: Type.Boolean(), runner: Type.Boolean() })),
});

export const METRICS = reads({
  ...{ path: '/api/metrics', says: 'Figures of this web process, for Prometheus', who: 'viewer' },
});

export const DESCRIPTION = reads({ path: '/api/openapi.json', says: 'This description', who: 'anyone' });

export const FLOOR = reads({
  ...{ path: '/api/floor', says: 'Conditions with what they need now, most pressing first', who: 'viewer' },
  query: strict({
    show: Type.Optional(oneOf(FLOOR_FILTERS)),
    order: Type.Optional(oneOf(FLOOR_ORDERS)),
    find: Type.Optional(text(80)),
    after: Type.Optional(ID),
    limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 500 })),
  }),
  answer: answers<FloorState>(
    Type.Object({
      nowMs: Type.Number(),
      counts: Type.Object({ conditions: Type.Integer(), fails: Type.Integer(), due: Type.Integer() }),
      rows: Type.Array(Type.Object({ id: Type.Integer(), device: Type.String(), stock: Type.String() })),
      next: Type.Union([Type.Integer(), Type.Null()]),
    }),
  ),
});

/** Free space of the database's disk under which nothing is stored, and under which it is said in time, MB. */
export const ROOM_MB = { least: 300, scarce: 2000 } as const;

/** The house, where its start has put an instrument bridge, empty where it has none, and who asks. */
export type HouseOnPages = HouseState & {
  readonly bridge: string;
  readonly role: Role;
  /** How whoever asks is known; the sample house knows whoever sits at its own machine. */
  readonly how: 'session' | 'key' | 'sample';
  /** The desk that asks, and whether somebody works there; null for whoever is no desk. */
  readonly desk: { readonly name: string; readonly taken: boolean } | null;
  /** Free space of the disk of the database, MB; null where it is on another machine. */
  readonly roomMb: number | null;
};

export const HOUSE = reads({
  ...{ path: '/api/house', says: 'Rack, instrument, clock and person', who: 'viewer' },
  answer: answers<HouseOnPages>(
    Type.Object({ nowMs: Type.Number(), offsetMs: Type.Number(), waiting: Type.Integer() }),
  ),
});

export const CHANGE_HOUSE = sets({
  ...{
    path: '/api/house',
    says: 'Name the house and its person, set its time zone and shifts',
    who: 'keeper',
  },
  body: strict({
    ...{ name: word(120), timeZone: word(60), person: word(120) },
    ...{ units: oneOf(UNITS), densityStatus: oneOf(DENSITY_STATUSES) },
    shifts: word(60),
  }),
  answer: DONE,
});

export const SEARCH = reads({
  ...{ path: '/api/search', says: 'Conditions, sheets, readings and profiles by words', who: 'viewer' },
  query: strict({ q: Type.Optional(text(200)) }),
  answer: answers<readonly Found[]>(
    Type.Array(Type.Object({ kind: Type.String(), title: Type.String(), href: Type.String() })),
  ),
});

export const MOVE_CLOCK = makes({
  ...{ path: '/api/clock', says: 'Move the clock of a sample house forward', who: 'specialist' },
  body: strict({ byMs: Type.Number({ exclusiveMinimum: 0 }) }),
  answer: answers<{ readonly offsetMs: number }>(strict({ offsetMs: Type.Number() })),
});

export const LOAD_SAMPLE = makes({
  ...{ path: '/api/sample-house', says: 'Load the sample house into an empty house', who: 'keeper' },
  answer: answers<{ readonly jobId: number }>(strict({ jobId: Type.Integer() })),
});

export const JOBS = reads({
  ...{ path: '/api/jobs', says: 'Background work', who: 'viewer' },
  answer: answers<readonly JobRow[]>(Type.Array(Type.Object({ id: Type.Integer(), state: Type.String() }))),
});

export const JOB_STREAM = reads({
  ...{ path: '/api/jobs/stream', says: 'Background work as server-sent events', who: 'viewer' },
});

export const CANCEL_JOB = makes({
  ...{ path: '/api/jobs/{id}/cancel', says: 'Cancel background work', who: 'operator' },
  params: IN_PATH,
  answer: DONE,
});
