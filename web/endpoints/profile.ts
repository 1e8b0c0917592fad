import { Type } from '@sinclair/typebox';
import { MOST_CHANNELS } from '@melto/core/device/process';
import { OBSERVERS } from '@melto/core/spectral/xyzWeights';
import { MOST_UV } from '@melto/core/light/ultraviolet';
import type { CatalogueRow } from '@melto/services/overview/catalogue';
import type { GivenProfile } from '@melto/services/profile/givenProfile';
import type { ShelfProfile } from '@melto/services/profile/shelf';
import { KEPT_ORIGINS } from '@melto/core/profile/keptOrigin';
import { answers, DONE, makes, oneOf, reads, sets, strict } from './endpoint';
import { ID, IN_PATH, SHARE, text, word } from './fields';
import { LIGHT_KEY } from './light';

const LIGHT_CHOICE = strict({
  key: LIGHT_KEY,
  observer: oneOf(OBSERVERS),
  uv: Type.Optional(
    strict({
      share: Type.Number({ minimum: 0, maximum: MOST_UV }),
      withoutReadingIds: Type.Array(ID, { minItems: 1, maxItems: 13 }),
    }),
  ),
});

/** What two inks may lay down together. */
const PAIR_LIMIT = strict({
  inks: Type.Array(Type.Integer({ minimum: 0, maximum: MOST_CHANNELS - 1 }), { minItems: 2, maxItems: 2 }),
  most: Type.Number({ minimum: 0.5, maximum: 2 }),
});

export const BUILD_PROFILE = makes({
  ...{ path: '/api/conditions/{id}/profiles', says: 'Ask for a profile to be built', who: 'specialist' },
  params: IN_PATH,
  body: strict({
    readingId: ID,
    addedReadingIds: Type.Optional(Type.Array(ID, { maxItems: 12, uniqueItems: true })),
    version: oneOf([2, 4] as const),
    tableSize: oneOf(['small', 'normal', 'large'] as const),
    namePattern: word(120),
    note: Type.Optional(text(2000)),
    light: Type.Optional(LIGHT_CHOICE),
    separation: Type.Optional(
      strict({
        black: oneOf(['light', 'medium', 'heavy', 'max'] as const),
        totalInk: Type.Number({ minimum: 1.2, maximum: MOST_CHANNELS }),
        blackStart: Type.Optional(Type.Number({ minimum: 1, maximum: 100 })),
        blackMost: Type.Optional(SHARE),
        blackShape: Type.Optional(Type.Number({ minimum: 0.3, maximum: 5 })),
        blackChroma: Type.Optional(Type.Number({ minimum: 4, maximum: 120 })),
        inkLimits: Type.Optional(
          Type.Array(Type.Number({ minimum: 0.3, maximum: 1 }), { minItems: 4, maxItems: MOST_CHANNELS }),
        ),
        pairLimits: Type.Optional(Type.Array(PAIR_LIMIT, { maxItems: 28 })),
        replace: Type.Optional(SHARE),
        pureBlack: Type.Optional(Type.Boolean()),
      }),
    ),
  }),
  answer: answers<{ readonly jobId: number }>(strict({ jobId: Type.Integer() })),
});

export const RESULT_FILE = reads({
  ...{ path: '/api/results/{id}/file', says: 'The profile of a result', who: 'viewer' },
  params: IN_PATH,
  query: strict({ role: Type.Optional(oneOf(['profile'] as const)) }),
});

export const PROFILE_SETTINGS = reads({
  path: '/api/results/{id}/settings',
  says: 'The settings record of a profile’s condition, as plain text to go with its file',
  who: 'viewer',
  params: IN_PATH,
});

export const PROFILE_PACKAGE = reads({
  path: '/api/results/{id}/package',
  says: 'A profile with its curves, settings record, pictures and notes on where it goes, as one ZIP',
  who: 'viewer',
  params: IN_PATH,
});

const PROFILE_FILE = { file: true, mostBytes: 32_000_000 } as const;

export const PREVIEW_PROFILE = makes({
  path: '/api/conditions/{id}/given-profiles/preview',
  says: 'What an ICC profile from elsewhere would become as a version of the profile; stores nothing',
  who: 'specialist',
  params: IN_PATH,
  query: strict({ name: word(200) }),
  body: PROFILE_FILE,
  answer: answers<GivenProfile>(Type.Object({ name: Type.String(), warnings: Type.Array(Type.String()) })),
});

export const TAKE_PROFILE = makes({
  path: '/api/conditions/{id}/given-profiles',
  says: 'Take an ICC profile from elsewhere as the next version of the profile, with its origin',
  who: 'specialist',
  params: IN_PATH,
  query: strict({ name: word(200), origin: word(400) }),
  body: PROFILE_FILE,
  answer: answers<{ readonly id: number }>(Type.Object({ id: Type.Integer() })),
});

export const SHELF = reads({
  ...{ path: '/api/profiles', says: 'Every profile of the house, and the standard spaces of this machine' },
  who: 'viewer',
  answer: answers<readonly ShelfProfile[]>(
    Type.Array(Type.Object({ key: Type.String(), name: Type.String(), file: Type.String() })),
  ),
});

export const CATALOGUE = reads({
  ...{ path: '/api/catalogue', says: 'Every condition with a profile in force, and what it prints' },
  who: 'viewer',
  answer: answers<readonly CatalogueRow[]>(
    Type.Array(Type.Object({ conditionId: Type.Integer(), device: Type.String(), stock: Type.String() })),
  ),
});

const KEPT_ORIGIN = oneOf(KEPT_ORIGINS);

export const KEEP_PROFILE = makes({
  ...{ path: '/api/kept-profiles', says: 'Keep an ICC profile from outside on the shelf' },
  who: 'specialist',
  query: strict({ name: word(200), origin: KEPT_ORIGIN, note: Type.Optional(text(2000)) }),
  body: PROFILE_FILE,
  answer: answers<{ readonly id: number }>(Type.Object({ id: Type.Integer() })),
});

export const CHANGE_KEPT_PROFILE = sets({
  ...{ path: '/api/kept-profiles/{id}', says: 'Say anew where a kept profile is from' },
  who: 'specialist',
  params: IN_PATH,
  body: strict({ origin: KEPT_ORIGIN, note: text(2000) }),
  answer: DONE,
});

export const PUT_KEPT_PROFILE_AWAY = sets({
  ...{ path: '/api/kept-profiles/{id}/away', says: 'Take a kept profile off the shelf or put it back' },
  who: 'specialist',
  params: IN_PATH,
  body: strict({ away: Type.Boolean() }),
  answer: DONE,
});

export const KEPT_PROFILE_FILE = reads({
  ...{ path: '/api/kept-profiles/{id}/file', says: 'A profile that the house keeps', who: 'viewer' },
  params: IN_PATH,
});

export const SOURCE_PROFILE_FILE = reads({
  ...{ path: '/api/source-profiles/{id}/file', says: 'A profile that jobs carry', who: 'viewer' },
  params: IN_PATH,
});

export const STANDARD_PROFILE_FILE = reads({
  ...{ path: '/api/standard-profiles/{key}/file', says: 'A standard working space of this machine' },
  who: 'viewer',
  params: strict({ key: Type.String({ pattern: '^[\\w-]{1,80}$' }) }),
});
