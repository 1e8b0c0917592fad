import { Type } from '@sinclair/typebox';
import { OBSERVERS } from '@melto/core/spectral/xyzWeights';
import { PATCH_GROUPS } from '@melto/core/conformity/patchGroups';
import type { MeasurementConditions } from '@melto/core/cgats/patchSet';
import type { PaperShift } from '@melto/core/conformity/aimsOnPaper';
import type { SeenPair } from '@melto/core/conformity/seenUnder';
import type { PredictedCheck } from '@melto/core/conformity/predictConformity';
import { QUANTITIES, STATISTICS } from '@melto/core/conformity/toleranceSet';
import type { NamedColour } from '@melto/core/refine/namedColour';
import type { AimSetView } from '@melto/services/conformity/aimSets';
import type { ReadingOfHouse } from '@melto/services/conformity/readingsToAim';
import type { ToleranceSetView } from '@melto/services/conformity/toleranceSets';
import type { TrialCheck } from '@melto/services/conformity/trialChecks';
import { answers, DONE, MADE, makes, oneOf, reads, sets, strict } from './endpoint';
import { LIGHT_KEY } from './light';
import { CHOICE, ID, IN_PATH, INKS_PCT, LAB, LIMIT, MODE, text, word } from './fields';

const LISTED = Type.Array(Type.Object({ id: Type.Integer() }));

export const AIM_SETS = reads({
  ...{ path: '/api/aim-sets', says: 'Aim sets, the latest version of each', who: 'viewer' },
  answer: answers<readonly AimSetView[]>(LISTED),
});

export const READINGS_TO_AIM = reads({
  ...{ path: '/api/aim-sets/readings', says: 'Readings that could become a house standard', who: 'viewer' },
  answer: answers<readonly ReadingOfHouse[]>(LISTED),
});

export const NEW_AIM_SET = makes({
  ...{ path: '/api/aim-sets', says: 'Make an aim set of a reading or by hand', who: 'specialist' },
  body: strict({
    name: word(120),
    versionOf: Type.Optional(ID),
    readingId: Type.Optional(ID),
    rows: Type.Optional(Type.Array(strict({ device: INKS_PCT, lab: LAB }), { minItems: 1, maxItems: 400 })),
    conditions: Type.Optional(
      strict({
        mode: Type.Optional(MODE),
        backing: Type.Optional(word(40)),
        filter: Type.Optional(word(40)),
        illuminant: Type.Optional(word(20)),
        observer: Type.Optional(word(20)),
      }),
    ),
  }),
  answer: MADE,
});

export const AIM_SET_FROM_FILE = makes({
  path: '/api/aim-sets/file',
  says: 'Make an aim set of a CGATS characterisation or a CMYK profile',
  who: 'specialist',
  query: strict({ name: word(120), versionOf: Type.Optional(ID), file: Type.Optional(text(200)) }),
  body: { file: true, mostBytes: 32_000_000 } as const,
  answer: answers<{ readonly id: number; readonly notes: readonly string[] }>(
    strict({ id: Type.Integer(), notes: Type.Array(Type.String()) }),
  ),
});

export const AIM_COLOURS = reads({
  path: '/api/aim-sets/{id}/colours',
  says: 'Paper, solids and overprints of an aim set, and how they were measured',
  who: 'viewer',
  params: IN_PATH,
  answer: answers<{ readonly colours: readonly NamedColour[]; readonly conditions: MeasurementConditions }>(
    Type.Object({
      colours: Type.Array(Type.Object({ name: Type.String(), lab: LAB })),
      conditions: Type.Object({ mode: Type.Optional(Type.String()) }),
    }),
  ),
});

export const AIM_SET_FILE = reads({
  ...{ path: '/api/aim-sets/{id}/file', says: 'An aim set as CGATS', who: 'viewer' },
  params: IN_PATH,
});

const REMOVED = strict({ removed: Type.Boolean() });

export const REMOVE_AIM_SET = sets({
  ...{ path: '/api/aim-sets/{id}/removed', says: 'Remove an aim set or take it back', who: 'specialist' },
  params: IN_PATH,
  body: REMOVED,
  answer: DONE,
});

export const SAY_AIM_MODE = makes({
  path: '/api/aim-sets/{id}/mode',
  says: 'Say in which mode the colours of an aim set were measured, where it does not tell',
  who: 'specialist',
  params: IN_PATH,
  body: strict({ mode: MODE }),
  answer: MADE,
});

const WHITE = {
  readingId: Type.Optional(ID),
  mode: Type.Optional(MODE),
  backing: Type.Optional(oneOf(['black', 'white'] as const)),
};

export const PAPERS = reads({
  path: '/api/aim-sets/papers',
  says: 'Readings to whose bare paper an aim set can be moved',
  who: 'viewer',
  answer: answers<readonly ReadingOfHouse[]>(LISTED),
});

export const PREVIEW_PAPER_AIMS = reads({
  path: '/api/aim-sets/{id}/on-paper',
  says: 'How far an aim set would move to the paper of a reading, or to a white of its own (L, a, b and a mode)',
  who: 'viewer',
  params: IN_PATH,
  query: strict({
    ...WHITE,
    L: Type.Optional(Type.Number({ minimum: 0, maximum: 110 })),
    a: Type.Optional(Type.Number({ minimum: -130, maximum: 130 })),
    b: Type.Optional(Type.Number({ minimum: -130, maximum: 130 })),
  }),
  answer: answers<PaperShift>(Type.Object({ deltaE: Type.Number() })),
});

export const MAKE_PAPER_AIMS = makes({
  path: '/api/aim-sets/{id}/on-paper',
  says: 'Keep an aim set moved to the paper of a reading, or to a white of its own',
  who: 'specialist',
  params: IN_PATH,
  body: strict({ name: word(120), versionOf: Type.Optional(ID), ...WHITE, lab: Type.Optional(LAB) }),
  answer: MADE,
});

export const PREDICTED_CONFORMITY = reads({
  path: '/api/conditions/{id}/predicted-conformity',
  says: 'What a control wedge would be judged as, were it printed now; null where no profile tells',
  who: 'viewer',
  params: IN_PATH,
  query: strict({
    kind: oneOf(['proof', 'near-neutral'] as const),
    ...{ aimSetId: ID, toleranceSetId: ID },
    substrateCorrected: oneOf(['yes', 'no'] as const),
    through: oneOf(['profile, absolute', 'profile, relative', 'device values'] as const),
  }),
  answer: answers<PredictedCheck | null>(Type.Union([Type.Null(), Type.Object({ chance: Type.Number() })])),
});

export const TOLERANCE_SETS = reads({
  ...{ path: '/api/tolerance-sets', says: 'Tolerance sets, the latest version of each', who: 'viewer' },
  answer: answers<readonly ToleranceSetView[]>(LISTED),
});

export const SAVE_TOLERANCE_SET = makes({
  ...{ path: '/api/tolerance-sets', says: 'Save a tolerance set, a new one or a version' },
  who: 'specialist',
  body: strict({
    name: word(120),
    source: text(300),
    substrateUncorrected: Type.Boolean(),
    versionOf: Type.Optional(ID),
    metrics: Type.Array(
      strict({
        group: oneOf(PATCH_GROUPS),
        statistic: oneOf(STATISTICS),
        quantity: oneOf(QUANTITIES),
        limit: LIMIT,
      }),
      { minItems: 1, maxItems: 40 },
    ),
  }),
  answer: MADE,
});

export const REMOVE_TOLERANCE_SET = sets({
  ...{ path: '/api/tolerance-sets/{id}/removed', says: 'Remove a tolerance set or take it back' },
  who: 'specialist',
  params: IN_PATH,
  body: REMOVED,
  answer: DONE,
});

export const TRIALS = reads({
  ...{ path: '/api/tolerance-sets/trials', says: 'Past checks to try tolerances on', who: 'viewer' },
  answer: answers<readonly TrialCheck[]>(LISTED),
});

export const JUDGE = makes({
  ...{ path: '/api/conditions/{id}/checks', says: 'Judge a reading by aims and tolerances' },
  who: 'specialist',
  params: IN_PATH,
  body: strict({ readingId: ID, ...CHOICE }),
  answer: MADE,
});

export const SEEN = reads({
  ...{ path: '/api/results/{id}/seen', says: 'The patches of a check under another light', who: 'viewer' },
  params: IN_PATH,
  query: strict({ light: LIGHT_KEY, observer: oneOf(OBSERVERS) }),
  answer: answers<readonly SeenPair[]>(Type.Array(Type.Object({}))),
});

export const REPORT_FORMATS = ['html', 'pdf', 'slip'] as const;

export const REPORT = reads({
  ...{ path: '/api/results/{id}/report', says: 'The report of a check (html, pdf) or its slip' },
  who: 'viewer',
  params: IN_PATH,
  query: strict({ format: Type.Optional(oneOf(REPORT_FORMATS)) }),
});

export const NOTE_RESULT = sets({
  ...{ path: '/api/results/{id}/note', says: 'Keep a note with a version', who: 'operator' },
  params: IN_PATH,
  body: strict({ note: text(1000) }),
  answer: DONE,
});

export const SHARE_REPORT = sets({
  path: '/api/results/{id}/link',
  says: 'Make the report of a check public under a code, or end that',
  who: 'specialist',
  params: IN_PATH,
  body: strict({ shared: Type.Boolean() }),
  answer: answers<{ readonly code?: string }>(strict({ code: Type.Optional(Type.String()) })),
});
