import { Type } from '@sinclair/typebox';
import { EYE_WORDS } from '@melto/core/eye/eyeWords';
import type { EyeNote } from '@melto/core/eye/eyeWords';
import { EYE_CAUSES } from '@melto/core/eye/pointOut';
import { EYE_MOST_COLOURS } from '@melto/core/eye/referenceColours';
import type { EyeCheckGround } from '@melto/services/eye/eyeGround';
import type { EyesCheck } from '@melto/services/eye/eyesChecks';
import { answers, MADE, makes, oneOf, reads, strict } from './endpoint';
import { ID, IN_PATH, PAPER, SHARE, word } from './fields';
import { LIGHT_KEY } from './light';

const LIST = { listId: Type.Optional(ID) };
const NOTES = Type.Array(
  strict({
    colour: Type.Integer({ minimum: 0, maximum: EYE_MOST_COLOURS - 1 }),
    words: Type.Array(oneOf(EYE_WORDS), { maxItems: 4, uniqueItems: true }),
  }),
  { minItems: 1, maxItems: EYE_MOST_COLOURS },
);

export const EYE_FILE = reads({
  ...{ path: '/api/conditions/{id}/eye-file', says: 'The pages of an eye’s check, as PDF', who: 'viewer' },
  params: IN_PATH,
  query: strict({ ...LIST, paper: Type.Optional(PAPER) }),
});

export const EYE_GROUND = reads({
  path: '/api/conditions/{id}/eye-ground',
  says: 'What tells how causes would show on the page of an eye’s check',
  who: 'viewer',
  params: IN_PATH,
  query: strict(LIST),
  answer: answers<EyeCheckGround>(Type.Object({ resultId: Type.Integer() })),
});

export const EYES_CHECKS = reads({
  ...{
    path: '/api/conditions/{id}/eyes-checks',
    says: 'What eyes said of pages of a condition',
    who: 'viewer',
  },
  params: IN_PATH,
  answer: answers<readonly EyesCheck[]>(Type.Array(Type.Object({ id: Type.Integer() }))),
});

export const KEEP_EYES_CHECK = makes({
  path: '/api/conditions/{id}/eyes-checks',
  says: 'Keep what an eye said of a page beside its references, and what that points to',
  who: 'operator',
  params: IN_PATH,
  body: strict({
    resultId: ID,
    ...LIST,
    light: LIGHT_KEY,
    notes: NOTES,
    points: Type.Array(strict({ cause: oneOf(EYE_CAUSES), share: SHARE, words: word(200) }), {
      maxItems: EYE_CAUSES.length,
    }),
  }),
  answer: MADE,
});

export const SIMULATED_NOTES = reads({
  path: '/api/conditions/{id}/simulated-notes',
  says: 'What a simulated eye says of a page of a simulated device, where something is wrong with it',
  who: 'viewer',
  params: IN_PATH,
  query: strict({ ...LIST, light: LIGHT_KEY, wrong: oneOf(['nothing', 'profile', 'ink'] as const) }),
  answer: answers<readonly EyeNote[]>(Type.Array(Type.Object({ colour: Type.Integer() }))),
});
