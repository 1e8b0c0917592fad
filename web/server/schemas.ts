import type { JSONSchemaType } from 'ajv';
import type { HandMovement, MeasurementMode } from '@melto/core/device/instrument';
import type { PaperName } from '@melto/core/charts/pageGeometry';
import type { FrontEndFault } from '@melto/core/device/printPath';
import { REFINEMENT_MOST } from '@melto/services/profile/chartJobs';
import type { RefinementRequest } from '@melto/services/profile/chartJobs';
import type { CurvesChoices } from '@melto/services/calibration/curves';
import type { NewPressChart } from '@melto/services/calibration/pressCharts';
import type { NewCondition } from '@melto/services/ledger/conditions';
import { MOST_SPOT_COLOURS } from '@melto/core/conformity/spotColour';
import { MOST_WEDGE_PATCHES, WEDGE_KINDS } from '@melto/core/charts/controlWedge';
import { PATCH_GROUPS } from '@melto/core/conformity/patchGroups';
import { QUANTITIES, STATISTICS } from '@melto/core/conformity/toleranceSet';
import { CHANGE_KINDS } from '@melto/core/device/printPath';
import type { ChangeKind } from '@melto/core/device/printPath';
import type { MeasurementConditions } from '@melto/core/cgats/patchSet';
import type { AimByHand } from '@melto/services/conformity/aimSets';
import type { CheckChoice } from '@melto/services/conformity/checkChoice';
import type { ProfileChoices } from '@melto/services/profile/profiles';
import type { ToleranceSetInput } from '@melto/services/conformity/toleranceSets';
import type { WatchSchedule } from '@melto/services/watch/watch';
import type { WedgeInput } from '@melto/services/conformity/wedges';

/** Bodies of requests and their schemas; the types that routes use are the schemas' own. */
export interface Bodies {
  readonly newCondition: NewCondition;
  readonly newChart: { readonly patches: number; readonly paper: PaperName };
  readonly newPressChart: NewPressChart;
  readonly print: {
    readonly ticks: string[];
    readonly conversion?: string;
    readonly side?: 'printing' | 'wrong';
    readonly frontEnd?: FrontEndFault;
    readonly curves?: 'in force' | 'none';
  };
  readonly reading: { readonly readingId: number };
  readonly limits: { readonly limits: number[]; readonly total: number };
  readonly curves: CurvesChoices;
  readonly lender: { readonly conditionId: number };
  readonly shortCheck: {
    readonly profileResultId: number;
    readonly paper: PaperName;
    readonly ticks: string[];
    readonly conversion?: string;
    readonly side?: 'printing' | 'wrong';
  };
  readonly profile: ProfileChoices;
  readonly refinement: RefinementRequest;
  readonly pass: {
    readonly attempt: string;
    readonly strip: number;
    readonly mode: MeasurementMode;
    readonly hand?: HandMovement;
    readonly averageWith?: string[];
    readonly more?: boolean;
  };
  readonly mark: { readonly strip: number; readonly marked: boolean };
  readonly onRack: { readonly onRack: boolean };
  readonly withdrawn: { readonly withdrawn: boolean };
  readonly clock: { readonly byMs: number };
  readonly aimSet: {
    readonly name: string;
    readonly versionOf?: number;
    readonly readingId?: number;
    readonly rows?: AimByHand[];
    readonly conditions?: MeasurementConditions;
  };
  readonly toleranceSet: ToleranceSetInput;
  readonly removed: { readonly removed: boolean };
  readonly wedge: WedgeInput & {
    readonly ticks: string[];
    readonly conversion?: string;
    readonly side?: 'printing' | 'wrong';
    readonly frontEnd?: FrontEndFault;
  };
  readonly check: CheckChoice & { readonly readingId: number };
  readonly watch: WatchSchedule & { readonly readingIds: number[] };
  readonly shared: { readonly shared: boolean };
  readonly change: { readonly kind?: ChangeKind; readonly ink?: number };
}

type Schema<T> = JSONSchemaType<T> | Record<string, unknown>;

const PAPERS = ['a4', 'letter', 'a3'];
const PRINT = {
  ticks: { type: 'array', items: { type: 'string', maxLength: 120 }, maxItems: 40 },
  conversion: { type: 'string', maxLength: 60 },
  side: { enum: ['printing', 'wrong'] },
};
const PRINT_PRESS = {
  ...PRINT,
  frontEnd: { enum: ['factory curves', 'no curves'] },
  curves: { enum: ['in force', 'none'] },
};
const object = (
  properties: Record<string, unknown>,
  optional: readonly string[] = [],
): Record<string, unknown> => ({
  type: 'object',
  additionalProperties: false,
  properties,
  required: Object.keys(properties).filter((name) => !optional.includes(name)),
});
const ID = { type: 'integer', minimum: 1 };
const SHARE = { type: 'number', minimum: 0, maximum: 1 };
const LAB = {
  type: 'array',
  minItems: 3,
  maxItems: 3,
  items: { type: 'number', minimum: -250, maximum: 250 },
};
const NAMED_COLOUR = object({ name: { type: 'string', maxLength: 200 }, lab: LAB });
const CHOICE = { aimSetId: ID, toleranceSetId: ID, substrateCorrected: { type: 'boolean' } };
const INKS = { type: 'array', minItems: 4, maxItems: 4, items: { type: 'number', minimum: 0, maximum: 100 } };
const DAYS = { type: 'integer', minimum: 1, maximum: 400 };
const LIMIT = { type: 'number', exclusiveMinimum: 0, maximum: 100 };
const word = (maxLength: number): Record<string, unknown> => ({ type: 'string', minLength: 1, maxLength });

export const SCHEMAS: { readonly [Name in keyof Bodies]: Schema<Bodies[Name]> } = {
  newCondition: object({
    deviceId: ID,
    stockId: ID,
    inkSet: word(80),
    mode: word(60),
    points: {
      type: 'array',
      minItems: 1,
      maxItems: 40,
      items: object({
        label: word(120),
        value: { type: 'string', maxLength: 200 },
        tickAtPrint: { type: 'boolean' },
      }),
    },
  }),
  newChart: object({ patches: { type: 'integer', minimum: 100, maximum: 3000 }, paper: { enum: PAPERS } }),
  newPressChart: object({
    kind: { enum: ['ramps', 'near-neutral', 'evenness'] },
    paper: { enum: PAPERS },
    reader: { enum: ['strip', 'spot', 'sheet'] },
    steps: { type: 'integer', minimum: 5, maximum: 64 },
    copies: { type: 'integer', minimum: 1, maximum: 8 },
    order: { enum: ['scrambled', 'in order'] },
  }),
  print: object(PRINT_PRESS, ['conversion', 'side', 'frontEnd', 'curves']),
  reading: object({ readingId: ID }),
  limits: object({
    limits: { type: 'array', minItems: 4, maxItems: 4, items: { type: 'number', minimum: 0.2, maximum: 1 } },
    total: { type: 'number', minimum: 1, maximum: 4 },
  }),
  curves: object(
    {
      readingId: ID,
      measure: { enum: ['sctv', 'density', 'delta-e', 'tvi'] },
      tvi: {
        oneOf: [
          object({ letter: { enum: ['A', 'B', 'C', 'D', 'E'] } }),
          object({
            points: {
              type: 'array',
              minItems: 1,
              maxItems: 20,
              items: object({
                tone: { type: 'number', exclusiveMinimum: 0, exclusiveMaximum: 1 },
                increase: { type: 'number', minimum: -0.2, maximum: 0.5 },
              }),
            },
          }),
        ],
      },
    },
    ['tvi'],
  ),
  lender: object({ conditionId: ID }),
  shortCheck: object({ profileResultId: ID, paper: { enum: PAPERS }, ...PRINT }, ['conversion', 'side']),
  profile: object(
    {
      readingId: ID,
      addedReadingIds: { type: 'array', items: ID, maxItems: 12, uniqueItems: true },
      version: { enum: [2, 4] },
      tableSize: { enum: ['small', 'normal', 'large'] },
      namePattern: word(120),
      note: { type: 'string', maxLength: 2000 },
      separation: object(
        {
          black: { enum: ['light', 'medium', 'heavy', 'max'] },
          totalInk: { type: 'number', minimum: 1.2, maximum: 4 },
          blackStart: { type: 'number', minimum: 1, maximum: 100 },
          blackMost: SHARE,
          blackShape: { type: 'number', minimum: 0.3, maximum: 5 },
          blackChroma: { type: 'number', minimum: 4, maximum: 120 },
          inkLimits: {
            type: 'array',
            items: { type: 'number', minimum: 0.3, maximum: 1 },
            minItems: 4,
            maxItems: 4,
          },
          pureBlack: { type: 'boolean' },
        },
        ['blackStart', 'blackMost', 'blackShape', 'blackChroma', 'inkLimits', 'pureBlack'],
      ),
    },
    ['separation', 'addedReadingIds', 'note'],
  ),
  refinement: object({
    paper: { enum: PAPERS },
    readingIds: { type: 'array', items: ID, minItems: 1, maxItems: 12, uniqueItems: true },
    unsure: { type: 'integer', minimum: 0, maximum: REFINEMENT_MOST.unsure },
    colours: {
      type: 'array',
      maxItems: REFINEMENT_MOST.colours,
      items: NAMED_COLOUR,
    },
    picture: { type: 'array', maxItems: 64, items: object({ lab: LAB }) },
    readings: { type: 'integer', minimum: 1, maximum: REFINEMENT_MOST.readings },
  }),
  pass: object(
    {
      attempt: word(60),
      strip: { type: 'integer', minimum: 1 },
      mode: { enum: ['M0', 'M1', 'M2', 'M3'] },
      averageWith: { type: 'array', items: word(60), maxItems: 9 },
      more: { type: 'boolean' },
      hand: { enum: ['steady', 'too-fast', 'off-row', 'started-late', 'backwards', 'other-strip'] },
    },
    ['hand', 'averageWith', 'more'],
  ),
  mark: object({ strip: { type: 'integer', minimum: 1 }, marked: { type: 'boolean' } }),
  onRack: object({ onRack: { type: 'boolean' } }),
  withdrawn: object({ withdrawn: { type: 'boolean' } }),
  clock: object({ byMs: { type: 'number', exclusiveMinimum: 0 } }),
  aimSet: object(
    {
      name: word(120),
      versionOf: ID,
      readingId: ID,
      rows: { type: 'array', minItems: 1, maxItems: 400, items: object({ device: INKS, lab: LAB }) },
      conditions: object(
        {
          mode: { enum: ['M0', 'M1', 'M2', 'M3'] },
          backing: word(40),
          filter: word(40),
          illuminant: word(20),
          observer: word(20),
        },
        ['mode', 'backing', 'filter', 'illuminant', 'observer'],
      ),
    },
    ['versionOf', 'readingId', 'rows', 'conditions'],
  ),
  toleranceSet: object(
    {
      name: word(120),
      source: { type: 'string', maxLength: 300 },
      substrateUncorrected: { type: 'boolean' },
      versionOf: ID,
      metrics: {
        type: 'array',
        minItems: 1,
        maxItems: 40,
        items: object({
          group: { enum: [...PATCH_GROUPS] },
          statistic: { enum: [...STATISTICS] },
          quantity: { enum: [...QUANTITIES] },
          limit: LIMIT,
        }),
      },
    },
    ['versionOf'],
  ),
  removed: object({ removed: { type: 'boolean' } }),
  wedge: object(
    {
      kind: { enum: [...WEDGE_KINDS, 'own'] },
      paper: { enum: PAPERS },
      reader: { enum: ['strip', 'spot', 'sheet'] },
      patches: {
        type: 'array',
        minItems: 1,
        maxItems: MOST_WEDGE_PATCHES,
        items: object({ name: { type: 'string', maxLength: 80 }, device: INKS }),
      },
      spots: { type: 'array', maxItems: MOST_SPOT_COLOURS, items: NAMED_COLOUR },
      judgedBy: object({
        ...CHOICE,
        through: { enum: ['profile, absolute', 'profile, relative', 'device values'] },
      }),
      ...PRINT,
      frontEnd: { enum: ['factory curves', 'no curves'] },
    },
    ['patches', 'spots', 'judgedBy', 'conversion', 'side', 'frontEnd'],
  ),
  check: object({ readingId: ID, ...CHOICE }),
  watch: object({
    everyDays: DAYS,
    expiresDays: DAYS,
    meanLimit: LIMIT,
    largestLimit: LIMIT,
    readingIds: { type: 'array', items: ID, minItems: 3, maxItems: 20, uniqueItems: true },
  }),
  shared: object({ shared: { type: 'boolean' } }),
  change: object({ kind: { enum: [...CHANGE_KINDS] }, ink: { type: 'integer', minimum: 0, maximum: 3 } }, [
    'kind',
    'ink',
  ]),
};
