import { Type } from '@sinclair/typebox';
import { answers, MADE, makes, oneOf, reads, sets, strict } from './endpoint';
import { ID, IN_PATH, text } from './fields';

const FROM_READING = strict({ readingId: ID });

export const CORRECT_EVENNESS = makes({
  ...{ path: '/api/conditions/{id}/evenness', says: 'Correct the zones from a reading', who: 'specialist' },
  params: IN_PATH,
  body: FROM_READING,
  answer: MADE,
});

export const PROPOSE_LIMITS = makes({
  ...{ path: '/api/conditions/{id}/limits', says: 'Have limits proposed from a reading', who: 'specialist' },
  params: IN_PATH,
  body: FROM_READING,
  answer: MADE,
});

export const SET_LIMITS = sets({
  ...{ path: '/api/conditions/{id}/limits', says: 'Set other limits', who: 'specialist' },
  params: IN_PATH,
  body: strict({
    limits: Type.Array(Type.Number({ minimum: 0.2, maximum: 1 }), { minItems: 1, maxItems: 8 }),
    total: Type.Number({ minimum: 1, maximum: 8 }),
  }),
  answer: MADE,
});

const TVI = Type.Union([
  strict({ aimSetId: ID }),
  strict({ letter: oneOf(['A', 'B', 'C', 'D', 'E'] as const) }),
  strict({
    points: Type.Array(
      strict({
        tone: Type.Number({ exclusiveMinimum: 0, exclusiveMaximum: 1 }),
        increase: Type.Number({ minimum: -0.2, maximum: 0.5 }),
      }),
      { minItems: 1, maxItems: 20 },
    ),
  }),
]);

export const MAKE_CURVES = makes({
  ...{ path: '/api/conditions/{id}/curves', says: 'Make a round of curves from a reading' },
  who: 'specialist',
  params: IN_PATH,
  body: strict({
    readingId: ID,
    measure: oneOf(['sctv', 'density', 'delta-e', 'tvi'] as const),
    tvi: Type.Optional(TVI),
  }),
  answer: MADE,
});

export const IMPORT_CURVES = makes({
  ...{ path: '/api/conditions/{id}/curves/file', says: 'Take curves from a CSV file', who: 'specialist' },
  params: IN_PATH,
  query: strict({ name: Type.Optional(text(200)) }),
  body: { file: true, mostBytes: 1_000_000 } as const,
  answer: MADE,
});

export const MAKE_BALANCE = makes({
  ...{ path: '/api/conditions/{id}/balance', says: 'Make a round of balance from a reading' },
  who: 'specialist',
  params: IN_PATH,
  body: FROM_READING,
  answer: MADE,
});

export const CURVES_FILE = reads({
  ...{ path: '/api/results/{id}/curves', says: 'Curves as CSV, CGATS, JSON or device link', who: 'viewer' },
  params: IN_PATH,
  query: strict({
    format: Type.Optional(oneOf(['csv', 'cgats', 'json', 'link'] as const)),
    points: Type.Optional(Type.Integer({ minimum: 2, maximum: 1024 })),
    channels: Type.Optional(text(40)),
  }),
});

export const PUT_IN_FORCE = sets({
  ...{ path: '/api/results/{id}/in-force', says: 'Put a version in force', who: 'specialist' },
  params: IN_PATH,
  answer: answers<{ readonly id: number }>(Type.Object({ id: Type.Integer() })),
});
