import { Type } from '@sinclair/typebox';
import { MOST_WEDGE_PATCHES, WEDGE_KINDS } from '@melto/core/charts/controlWedge';
import { CHAIN_INTENTS } from '@melto/core/chain/chainIntent';
import type { ChainIntent } from '@melto/core/chain/chainIntent';
import type { PaperName } from '@melto/core/charts/pageGeometry';
import { MOST_SPOT_COLOURS } from '@melto/core/conformity/spotColour';
import type { Page } from '@melto/services/kernel/page';
import type { SheetOfCondition } from '@melto/services/charts/rack';
import type { SourceProfileRow } from '@melto/services/charts/sourceProfiles';
import type { Printed } from '@melto/services/charts/printChart';
import { answers, MADE, makes, oneOf, reads, sets, strict, DONE } from './endpoint';
import { FIND, LIMIT, NEXT } from './fields';
import {
  CHOICE,
  FORM,
  FRONT_END,
  ID,
  IN_PATH,
  INKS_PCT,
  LAB,
  NAMED_COLOUR,
  PAPER,
  PRINT,
  READER,
  SHEET,
  text,
} from './fields';

export const PAGE_FORMATS = ['pdf', 'tiff', 'png'] as const;

const PRINTED = answers<Printed>(
  Type.Object({ printId: Type.Integer(), code: Type.String(), sheets: Type.Array(Type.String()) }),
);

export const NEW_CHART = makes({
  ...{ path: '/api/conditions/{id}/charts', says: 'Make a profiling chart', who: 'specialist' },
  params: IN_PATH,
  body: strict({
    ...{ ...FORM, reader: Type.Optional(READER) },
    patches: Type.Integer({ minimum: 100, maximum: 3000 }),
  }),
  answer: answers<{ readonly id?: number; readonly jobId?: number }>(
    strict({ id: Type.Optional(Type.Integer()), jobId: Type.Optional(Type.Integer()) }),
  ),
});

/** What a chart may add to readings at the most. */
export const REFINEMENT_MOST = { unsure: 800, colours: 500, readings: 6 } as const;

export const REFINEMENT = makes({
  path: '/api/conditions/{id}/refinements',
  says: 'Make a chart that adds to readings: unsure regions, colours, a picture',
  who: 'specialist',
  params: IN_PATH,
  body: strict({
    ...{ ...FORM, reader: Type.Optional(READER) },
    readingIds: Type.Array(ID, { minItems: 1, maxItems: 12, uniqueItems: true }),
    unsure: Type.Integer({ minimum: 0, maximum: REFINEMENT_MOST.unsure }),
    colours: Type.Array(NAMED_COLOUR, { maxItems: REFINEMENT_MOST.colours }),
    picture: Type.Array(strict({ lab: LAB }), { maxItems: 64 }),
    readings: Type.Integer({ minimum: 1, maximum: REFINEMENT_MOST.readings }),
  }),
  answer: answers<{ readonly jobId: number }>(strict({ jobId: Type.Integer() })),
});

export const NEW_PRESS_CHART = makes({
  path: '/api/conditions/{id}/press-charts',
  says: 'Make a chart of ramps, near-neutral scales or evenness',
  who: 'specialist',
  params: IN_PATH,
  body: strict({
    kind: oneOf(['ramps', 'near-neutral', 'evenness'] as const),
    ...FORM,
    steps: Type.Integer({ minimum: 5, maximum: 64 }),
    copies: Type.Integer({ minimum: 1, maximum: 8 }),
    order: oneOf(['scrambled', 'in order'] as const),
  }),
  answer: MADE,
});

/** Versions that whoever prints was told of, null for none: refused where others are in force by now. */
const TOLD_VERSIONS = Type.Optional(
  strict({
    curves: Type.Optional(Type.Union([ID, Type.Null()])),
    profile: Type.Optional(Type.Union([ID, Type.Null()])),
  }),
);

export const PRINT_CHART = makes({
  ...{ path: '/api/charts/{id}/prints', says: 'Print a chart', who: 'operator' },
  params: IN_PATH,
  body: strict({
    ...PRINT,
    frontEnd: FRONT_END,
    curves: Type.Optional(oneOf(['in force', 'none'] as const)),
    told: TOLD_VERSIONS,
  }),
  answer: PRINTED,
});

export const PRINT_SHORT_CHECK = makes({
  ...{ path: '/api/conditions/{id}/short-checks', says: 'Print a short check through a profile' },
  who: 'operator',
  params: IN_PATH,
  body: strict({
    profileResultId: ID,
    ...{ ...FORM, reader: Type.Optional(READER) },
    limits: Type.Optional(strict({ mean: LIMIT, largest: LIMIT })),
    ...PRINT,
  }),
  answer: PRINTED,
});

export const PRINT_WEDGE = makes({
  ...{ path: '/api/conditions/{id}/wedges', says: 'Print a control wedge', who: 'operator' },
  params: IN_PATH,
  body: strict({
    kind: oneOf([...WEDGE_KINDS, 'own'] as const),
    ...FORM,
    patches: Type.Optional(
      Type.Array(strict({ name: text(80), device: INKS_PCT }), { minItems: 1, maxItems: MOST_WEDGE_PATCHES }),
    ),
    spots: Type.Optional(Type.Array(NAMED_COLOUR, { maxItems: MOST_SPOT_COLOURS })),
    copies: Type.Optional(Type.Integer({ minimum: 1, maximum: 6 })),
    judgedBy: Type.Optional(
      strict({
        ...CHOICE,
        through: oneOf(['profile, absolute', 'profile, relative', 'device values'] as const),
      }),
    ),
    ...PRINT,
    frontEnd: FRONT_END,
    told: TOLD_VERSIONS,
  }),
  answer: PRINTED,
});

export const PRINT_JOB_CHECK = makes({
  ...{ path: '/api/conditions/{id}/job-checks', says: 'Print a picture that tells how jobs are converted' },
  who: 'operator',
  params: IN_PATH,
  body: strict({
    intent: oneOf(Object.keys(CHAIN_INTENTS) as ChainIntent[]),
    sourceId: Type.Optional(ID),
    ...FORM,
    happens: Type.Optional(oneOf(['right', 'no-profile', 'twice', 'intent', 'source'] as const)),
  }),
  answer: PRINTED,
});

export const PAGES_OF_CONDITION = reads({
  ...{ path: '/api/conditions/{id}/pages', says: 'Pages of the device of a condition', who: 'viewer' },
  params: IN_PATH,
  answer: answers<{ readonly pages: readonly PaperName[]; readonly screenPerCm: number | null }>(
    strict({ pages: Type.Array(PAPER), screenPerCm: Type.Union([Type.Number(), Type.Null()]) }),
  ),
});

const SOURCE_PROFILE = answers<SourceProfileRow>(Type.Object({ id: Type.Integer(), name: Type.String() }));

export const SOURCE_PROFILES = reads({
  ...{ path: '/api/source-profiles', says: 'Profiles that CMYK jobs of the house carry', who: 'viewer' },
  answer: answers<readonly SourceProfileRow[]>(Type.Array(SOURCE_PROFILE)),
});

export const TAKE_SOURCE_PROFILE = makes({
  ...{ path: '/api/source-profiles', says: 'Take a profile that CMYK jobs carry', who: 'operator' },
  query: strict({ name: Type.String({ minLength: 1, maxLength: 200 }) }),
  body: { file: true, mostBytes: 16_000_000 } as const,
  answer: SOURCE_PROFILE,
});

export const CHART_FILE = reads({
  ...{ path: '/api/charts/{id}/file', says: 'A chart as PDF, TIFF, PNG or CGATS', who: 'viewer' },
  params: IN_PATH,
  query: strict({
    format: Type.Optional(oneOf([...PAGE_FORMATS, 'txt'] as const)),
    page: Type.Optional(Type.Integer({ minimum: 1, maximum: 1000 })),
  }),
});

export const SHEET_FILE = reads({
  ...{ path: '/api/sheets/{code}/file', says: 'A printed sheet as PDF, TIFF, PNG or CGATS', who: 'viewer' },
  params: SHEET,
  query: strict({
    format: Type.Optional(oneOf([...PAGE_FORMATS, 'txt'] as const)),
    asked: Type.Optional(Type.Integer({ minimum: 0, maximum: 1 })),
  }),
});

export const SET_ON_RACK = sets({
  ...{ path: '/api/sheets/{code}/rack', says: 'Throw a sheet away or take it back', who: 'operator' },
  params: SHEET,
  body: strict({ onRack: Type.Boolean() }),
  answer: DONE,
});

export const SHEETS = reads({
  ...{ path: '/api/conditions/{id}/sheets', says: 'Sheets of a condition, the latest first', who: 'viewer' },
  params: IN_PATH,
  query: FIND,
  answer: answers<Page<SheetOfCondition>>(
    Type.Object({ rows: Type.Array(Type.Object({ code: Type.String() })), next: NEXT }),
  ),
});
