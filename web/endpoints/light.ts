import { Type } from '@sinclair/typebox';
import type { StudyPick } from '@melto/core/light/brightenerStudy';
import type { StudyData } from '@melto/core/light/predictStudyPage';
import { MOST_UV } from '@melto/core/light/ultraviolet';
import { OBSERVERS } from '@melto/core/spectral/xyzWeights';
import type { ViewingLight } from '@melto/services/light/viewingLights';
import type { SheetBrightener } from '@melto/services/profile/ultraviolet';
import type { SeenPatch } from '@melto/services/reading/readingUnder';
import { answers, DONE, makes, oneOf, reads, sets, strict } from './endpoint';
import { IN_PATH, text, word } from './fields';

/** What a light is asked for by. */
export const LIGHT_KEY = Type.String({ pattern: '^([A-Z]\\d{0,2}|own-\\d{1,15})$' });

const SEEN_IN = strict({ light: LIGHT_KEY, observer: oneOf(OBSERVERS) });

export const LIGHTS = reads({
  ...{ path: '/api/lights', says: 'Standard lights and those of the house, with what they are like' },
  who: 'viewer',
  answer: answers<readonly ViewingLight[]>(
    Type.Array(Type.Object({ key: Type.String(), name: Type.String(), away: Type.Boolean() })),
  ),
});

export const TAKE_LIGHTS = makes({
  ...{ path: '/api/lights', says: 'Take the lights of a file (CGATS, CSV, CxF) into the library' },
  who: 'specialist',
  query: strict({ name: word(200) }),
  body: { file: true, mostBytes: 8_000_000 } as const,
  answer: answers<{ readonly taken: readonly { readonly id: number; readonly name: string }[] }>(
    Type.Object({ taken: Type.Array(Type.Object({ id: Type.Integer(), name: Type.String() })) }),
  ),
});

export const CHANGE_LIGHT = sets({
  ...{
    path: '/api/lights/{id}',
    says: 'Name a light of the house and note what hangs in it',
    who: 'specialist',
  },
  params: IN_PATH,
  body: strict({ name: word(80), note: text(400) }),
  answer: DONE,
});

export const PUT_LIGHT_AWAY = sets({
  ...{
    path: '/api/lights/{id}/away',
    says: 'Put a light of the house away or take it out',
    who: 'specialist',
  },
  params: IN_PATH,
  body: strict({ away: Type.Boolean() }),
  answer: DONE,
});

export const READING_UNDER = reads({
  ...{
    path: '/api/readings/{id}/under',
    says: 'The patches of a reading as a light shows them',
    who: 'viewer',
  },
  params: IN_PATH,
  query: SEEN_IN,
  answer: answers<readonly SeenPatch[]>(Type.Array(Type.Object({}))),
});

export const SHEET_BRIGHTENER = reads({
  path: '/api/readings/{id}/brightener',
  says: 'What ultraviolet does to a sheet that was read in M1 and in M2; null where it was not',
  who: 'viewer',
  params: IN_PATH,
  answer: answers<SheetBrightener | null>(Type.Union([Type.Object({}), Type.Null()])),
});

const UV_SHARE = Type.Number({ minimum: 0, maximum: MOST_UV });

export const TELL_ULTRAVIOLET = sets({
  path: '/api/lights/{id}/ultraviolet',
  says: 'Keep what a brightener study told of the ultraviolet of a light',
  who: 'specialist',
  params: IN_PATH,
  body: strict({ share: UV_SHARE, low: UV_SHARE, high: UV_SHARE }),
  answer: DONE,
});

export const STUDY_FILE = reads({
  ...{ path: '/api/conditions/{id}/study-file', says: 'The page of greys of a brightener study, as PDF' },
  who: 'viewer',
  params: IN_PATH,
  query: strict({ paper: Type.Optional(oneOf(['a4', 'a3', 'letter'] as const)) }),
});

export const STUDY_DATA = reads({
  path: '/api/conditions/{id}/study-data',
  says: 'What tells how the page of a brightener study looks in a light',
  who: 'viewer',
  params: IN_PATH,
  query: SEEN_IN,
  answer: answers<StudyData>(Type.Object({ channels: Type.Integer() })),
});

export const SIMULATED_PICKS = reads({
  path: '/api/conditions/{id}/simulated-picks',
  says: 'What a simulated eye picks on the page of a brightener study, in a light of the sample house',
  who: 'viewer',
  params: IN_PATH,
  query: SEEN_IN,
  answer: answers<readonly StudyPick[]>(
    Type.Array(Type.Object({ row: Type.Integer(), field: Type.Integer() })),
  ),
});
