import { Type } from '@sinclair/typebox';
import { MOST_BAR_TEXT } from '@melto/core/press/barText';
import { BAR_ZONES, PATCH_MM, ZONE_MM } from '@melto/core/press/colourBar';
import { STANDARD_LIGHTS } from '@melto/core/light/standardLights';
import { OBSERVERS } from '@melto/core/spectral/xyzWeights';
import { MOST_BAR_PATCHES, MOST_IMPRESSIONS } from '@melto/core/press/incomingSheet';
import type { IncomingSheet } from '@melto/core/press/incomingSheet';
import { MOST_UNITS } from '@melto/core/press/pressUnit';
import { GUIDES, PHASES, RUN_FORMULAS, RUN_STATUSES, WHITE_BASES } from '@melto/core/press/runSettings';
import type { RunSettings } from '@melto/core/press/runSettings';
import type { RunComparison } from '@melto/services/press/compareRuns';
import type { AnalysisView } from '@melto/services/press/analysis';
import { MOST_COMPARED, SCOPES } from '@melto/core/press/scopes';
import type { UnderSensor } from '@melto/services/simulated/pressHand';
import type { Delivered, FeedRow } from '@melto/services/press/feeds';
import { FEED_KINDS } from '@melto/core/press/feedKinds';
import type { Page } from '@melto/services/kernel/page';
import type { RunRow } from '@melto/services/press/runs';
import type { RunView } from '@melto/services/press/runView';
import type { SheetTaken } from '@melto/services/press/sheets';
import { answers, DONE, MADE, makes, oneOf, reads, sets, strict } from './endpoint';
import { FIND, ID, IN_PATH, LIMIT, MODE, NEXT, text, word } from './fields';

const MOMENT = Type.Integer({ minimum: 0, maximum: Number.MAX_SAFE_INTEGER });
const IMPRESSION = Type.Integer({ minimum: 0, maximum: MOST_IMPRESSIONS });
const range = ({ least, most }: { readonly least: number; readonly most: number }) => ({
  minimum: least,
  maximum: most,
});

const TOLERANCES = strict({
  ...{ paper: LIMIT, solids: LIMIT, blackSolid: LIMIT, spots: LIMIT, overprints: LIMIT, greys: LIMIT },
  ...{ tone: LIMIT, spread: LIMIT },
  density: Type.Number({ exclusiveMinimum: 0, maximum: 1 }),
});

const SETTINGS = Type.Unsafe<RunSettings>(
  strict({
    guide: oneOf(GUIDES),
    formula: oneOf(RUN_FORMULAS),
    status: oneOf(RUN_STATUSES),
    light: oneOf(STANDARD_LIGHTS.map(({ key }) => key)),
    observer: oneOf(OBSERVERS),
    white: oneOf(WHITE_BASES),
    mode: MODE,
    settle: Type.Integer({ minimum: 0, maximum: 5000 }),
    tolerances: TOLERANCES,
    densities: Type.Record(Type.String({ maxLength: 120 }), Type.Number({ minimum: 0.05, maximum: 4 })),
  }),
);

export const RUNS = reads({
  ...{ path: '/api/runs', says: 'Runs on the press, the newest first', who: 'viewer' },
  query: FIND,
  answer: answers<Page<RunRow>>(
    Type.Object({ rows: Type.Array(Type.Object({ id: Type.Integer() })), next: NEXT }),
  ),
});

export const CREATE_RUN = makes({
  path: '/api/runs',
  says: 'Begin a run: its inks by unit, its colour bar and what it is judged by',
  who: 'operator',
  body: strict({
    conditionId: ID,
    aimSetId: ID,
    listId: Type.Optional(ID),
    fromRunId: Type.Optional(ID),
    jobNumber: word(40),
    title: word(120),
    customer: text(120),
    side: text(20),
    quantity: IMPRESSION,
    repeatMm: Type.Optional(Type.Integer({ minimum: 50, maximum: 3000 })),
    inks: Type.Array(word(120), { minItems: 1, maxItems: MOST_UNITS }),
    zones: Type.Integer(range(BAR_ZONES)),
    bar: Type.Optional(text(MOST_BAR_TEXT)),
    zoneMm: Type.Number(range(ZONE_MM)),
    patchMm: Type.Number(range(PATCH_MM)),
    settings: SETTINGS,
  }),
  answer: MADE,
});

export const RUN = reads({
  ...{ path: '/api/runs/{id}', says: 'A run: its newest sheet and the next move', who: 'viewer' },
  params: IN_PATH,
  answer: answers<RunView>(
    Type.Object({
      id: Type.Integer(),
      lines: Type.Array(Type.Object({})),
      patches: Type.Array(Type.Object({})),
    }),
  ),
});

export const RUN_STREAM = reads({
  path: '/api/runs/{id}/stream',
  says: 'Server-sent events: the edition of a run, each time that something of it is new',
  who: 'viewer',
  params: IN_PATH,
});

/** A sheet’s bar: spectra, or densities with or without colours; by patch numbers, or in the order of reading. */
const SHEET = {
  impression: IMPRESSION,
  grid: Type.Optional(
    strict({
      startNm: Type.Number({ minimum: 300, maximum: 500 }),
      stepNm: Type.Number({ minimum: 1, maximum: 20 }),
      count: Type.Integer({ minimum: 10, maximum: 101 }),
    }),
  ),
  patches: Type.Array(
    strict({
      patch: Type.Optional(Type.Integer({ minimum: 1, maximum: MOST_BAR_PATCHES })),
      spectrum: Type.Optional(Type.Array(Type.Number(), { maxItems: 101 })),
      density: Type.Optional(Type.Array(Type.Number(), { maxItems: 4 })),
      lab: Type.Optional(Type.Array(Type.Number(), { maxItems: 3 })),
    }),
    { minItems: 1, maxItems: MOST_BAR_PATCHES },
  ),
};
const SHEET_BYTES = 2_000_000;

export const TAKE_SHEET = makes({
  path: '/api/runs/{id}/sheets',
  says: 'Take the colour bar of a sheet into a run; what it lacked before is completed',
  who: 'operator',
  params: IN_PATH,
  mostBytes: SHEET_BYTES,
  body: Type.Unsafe<IncomingSheet>(strict(SHEET)),
  answer: answers<SheetTaken>(
    strict({
      ...{
        impression: Type.Integer(),
        open: Type.Integer(),
        completed: Type.Boolean(),
        turned: Type.Boolean(),
      },
      surplus: Type.Integer(),
    }),
  ),
});

export const TAKE_SHEET_FILE = makes({
  path: '/api/runs/{id}/sheet-files',
  says: 'Take a file of measurements of one sheet’s bar (CGATS, CxF, CSV) into a run',
  who: 'operator',
  params: IN_PATH,
  query: strict({
    impression: IMPRESSION,
    modeTold: Type.Optional(oneOf(['true', 'false'] as const)),
  }),
  body: { file: true, mostBytes: 8_000_000 } as const,
  answer: answers<SheetTaken>(Type.Object({ impression: Type.Integer(), open: Type.Integer() })),
});

export const PULL_SHEET = makes({
  path: '/api/runs/{id}/pull',
  says: 'Take a sheet from a simulated press and read it',
  who: 'operator',
  params: IN_PATH,
  body: strict({ impression: IMPRESSION }),
  answer: answers<SheetTaken>(Type.Object({ impression: Type.Integer(), open: Type.Integer() })),
});

export const NOTE_MOVES = makes({
  path: '/api/runs/{id}/moves',
  says: 'Note that keys were moved: changes of density by zone, of one unit or several',
  who: 'operator',
  params: IN_PATH,
  body: strict({
    impression: IMPRESSION,
    moves: Type.Array(
      strict({
        unit: Type.Integer({ minimum: 0, maximum: MOST_UNITS - 1 }),
        changes: Type.Array(Type.Number({ minimum: -1, maximum: 1 }), {
          minItems: 1,
          maxItems: BAR_ZONES.most,
        }),
      }),
      { minItems: 1, maxItems: MOST_UNITS },
    ),
  }),
  answer: DONE,
});

export const SET_PHASE = sets({
  path: '/api/runs/{id}/phase',
  says: 'Go from make-ready to production at a stand of the counter, or finish a run',
  who: 'operator',
  params: IN_PATH,
  body: strict({ phase: oneOf(PHASES), from: Type.Optional(IMPRESSION) }),
  answer: DONE,
});

export const MARK_OK_SHEET = sets({
  path: '/api/runs/{id}/ok-sheet',
  says: 'Mark a sheet as the OK sheet, and lock the aims to it where that is asked',
  who: 'operator',
  params: IN_PATH,
  body: strict({ impression: IMPRESSION, lock: Type.Boolean() }),
  answer: DONE,
});

export const CHANGE_RUN_SETTINGS = sets({
  path: '/api/runs/{id}/settings',
  says: 'Change what a run goes by; all its sheets are judged again',
  who: 'specialist',
  params: IN_PATH,
  body: SETTINGS,
  answer: DONE,
});

const ANALYSED = {
  scope: Type.Optional(oneOf(SCOPES)),
  phase: Type.Optional(oneOf(PHASES)),
  /** A moment of the shift, where that is the scope. */
  at: Type.Optional(MOMENT),
  /** The aim set that sheets are judged by instead of the run's own aims. */
  aims: Type.Optional(ID),
};

export const RUN_ANALYSIS = reads({
  path: '/api/runs/{id}/analysis',
  says: 'Shares within tolerance by ink, zone and time: of a run, its job, its press or a shift',
  who: 'viewer',
  params: IN_PATH,
  query: strict(ANALYSED),
  answer: answers<AnalysisView>(Type.Object({ rows: Type.Array(Type.Object({})) })),
});

export const RUN_OUTSIDE = reads({
  path: '/api/runs/{id}/outside',
  says: 'Readings outside of tolerance of one ink, by zone',
  who: 'viewer',
  params: IN_PATH,
  query: strict({
    key: word(140),
    zone: Type.Optional(Type.Integer({ minimum: 0, maximum: BAR_ZONES.most - 1 })),
    phase: Type.Optional(oneOf(PHASES)),
  }),
  answer: answers<
    readonly {
      readonly impression: number;
      readonly words: string;
      readonly zone: number;
      readonly value: number;
    }[]
  >(Type.Array(Type.Object({ impression: Type.Integer() }))),
});

export const RUN_REPORT = reads({
  path: '/api/runs/{id}/report',
  says: 'The analysis of a run as a page (html) or PDF',
  who: 'viewer',
  params: IN_PATH,
  query: strict({ format: Type.Optional(oneOf(['html', 'pdf'] as const)), ...ANALYSED }),
});

export const RUN_LINK = reads({
  path: '/api/runs/{id}/link',
  says: 'The code under which an analysis of a run is public; null where it is not',
  who: 'viewer',
  params: IN_PATH,
  query: strict(ANALYSED),
  answer: answers<{ readonly code: string | null }>(
    strict({ code: Type.Union([Type.String(), Type.Null()]) }),
  ),
});

export const SHARE_RUN = sets({
  path: '/api/runs/{id}/link',
  says: 'Make an analysis of a run public under a code, or end that',
  who: 'specialist',
  params: IN_PATH,
  body: strict({ shared: Type.Boolean(), ...ANALYSED }),
  answer: answers<{ readonly code?: string }>(strict({ code: Type.Optional(Type.String()) })),
});

export const COMPARE_RUNS = reads({
  path: '/api/runs/comparison',
  says: 'Two to eight runs beside each other',
  who: 'viewer',
  query: strict({
    runs: Type.String({ pattern: `^[0-9]{1,15}(,[0-9]{1,15}){1,${MOST_COMPARED - 1}}$` }),
    phase: Type.Optional(oneOf(PHASES)),
  }),
  answer: answers<RunComparison>(Type.Object({ runs: Type.Array(Type.Object({})) })),
});

export const BAR_PDF = reads({
  path: '/api/runs/{id}/bar-file',
  says: 'The colour bar of a run as a PDF, to be put on the plates',
  who: 'viewer',
  params: IN_PATH,
});

export const FEEDS = reads({
  ...{ path: '/api/feeds', says: 'Feeds that deliver readings by themselves', who: 'viewer' },
  answer: answers<readonly FeedRow[]>(Type.Array(Type.Object({ id: Type.Integer() }))),
});

export const CREATE_FEED = makes({
  ...{
    path: '/api/feeds',
    says: 'Make a feed known: a sensor, or a folder on the server',
    who: 'specialist',
  },
  body: strict({
    name: word(120),
    kind: oneOf(FEED_KINDS),
    folder: Type.Optional(text(400)),
    byItself: Type.Boolean(),
  }),
  answer: MADE,
});

export const DELIVER = makes({
  path: '/api/feeds/{id}/readings',
  says: 'Deliver the colour bar of a sheet; the same key is taken once',
  who: 'operator',
  params: IN_PATH,
  mostBytes: SHEET_BYTES,
  byItself: true,
  body: Type.Unsafe<IncomingSheet & { readonly key: string }>(strict({ key: word(80), ...SHEET })),
  answer: answers<Delivered>(Type.Object({ state: Type.String() })),
});

export const FEED_UNDER = reads({
  path: '/api/feeds/{id}/under',
  says: 'What lies under a simulated sensor: the press of the run that it reads, and the moves that were made',
  who: 'operator',
  params: IN_PATH,
  answer: answers<UnderSensor>(Type.Object({ runId: Type.Integer(), simulated: Type.String() })),
});

export const FEED_RUN = sets({
  path: '/api/feeds/{id}/run',
  says: 'Tell a feed which run it reads, and whether it is taken in by itself',
  who: 'operator',
  params: IN_PATH,
  body: strict({ runId: Type.Union([ID, Type.Null()]), byItself: Type.Boolean() }),
  answer: DONE,
});

export const TAKE_WAITING = makes({
  path: '/api/feeds/{id}/waiting',
  says: 'Take in what waits at a feed',
  who: 'operator',
  params: IN_PATH,
  answer: answers<{ readonly taken: number; readonly refused: number }>(
    strict({ taken: Type.Integer(), refused: Type.Integer() }),
  ),
});

export const REMOVE_FEED = sets({
  path: '/api/feeds/{id}/removed',
  says: 'Take a feed off the list, or put it back',
  who: 'specialist',
  params: IN_PATH,
  body: strict({ removed: Type.Boolean() }),
  answer: DONE,
});
