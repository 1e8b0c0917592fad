import { Type } from '@sinclair/typebox';
import { MOST_CHANNELS } from '@melto/core/device/process';
import type { TUnsafe } from '@sinclair/typebox';
import { MOST_DUTY_DAYS } from '@melto/core/device/calibrationDuty';
import type { ChangeKind, SimulatedChange } from '@melto/core/device/printPath';
import { CURVE_FORMATS, DEVICE_BOUNDS } from '@melto/core/device/deviceFacts';
import type { DeviceFacts } from '@melto/core/device/deviceFacts';
import { INK_COST_RANGES } from '@melto/core/stock/inkCosts';
import { INK_KINDS } from '@melto/core/stock/inkKinds';
import { BACKINGS, BRIGHTENERS, PRICE_PER_M2, WEIGHT_GSM } from '@melto/core/stock/stockFacts';
import type { StockFacts } from '@melto/core/stock/stockFacts';
import { MOST_REST_MINUTES } from '@melto/core/stock/restMinutes';
import { CHANGE_KINDS } from '@melto/core/device/printPath';
import type { LibraryDevice, LibraryStock } from '@melto/services/house/library';
import type { LibraryInkSet } from '@melto/services/house/inkSets';
import type { ConditionChoices } from '@melto/services/house/newCondition';
import type { OwnDeviceKind } from '@melto/services/house/ownDevices';
import type { SettingsPoint } from '@melto/services/ledger/conditions';
import type { ConditionView } from '@melto/services/overview/conditionView';
import type { Standing } from '@melto/services/overview/standing';
import { answers, DONE, MADE, makes, oneOf, reads, sets, strict } from './endpoint';
import { ID, IN_PATH, PAPER, text, word } from './fields';

const POINTS = Type.Array(strict({ label: word(120), value: text(200), tickAtPrint: Type.Boolean() }), {
  minItems: 1,
  maxItems: 40,
});

export const NEW_CONDITION = makes({
  ...{ path: '/api/conditions', says: 'Make a condition', who: 'specialist' },
  body: strict({
    deviceId: ID,
    stockId: ID,
    inkSet: word(80),
    mode: word(60),
    label: Type.Optional(text(80)),
    points: POINTS,
  }),
  answer: MADE,
});

export const CONDITION_CHOICES = reads({
  path: '/api/conditions/choices',
  says: 'Devices with their modes and stocks that a condition can be made of',
  who: 'viewer',
  answer: answers<ConditionChoices>(
    Type.Object({ devices: Type.Array(Type.Object({ id: Type.Integer() })) }),
  ),
});

const within = ({ least, most }: { readonly least: number; readonly most: number }) =>
  Type.Optional(Type.Integer({ minimum: least, maximum: most }));

const DEVICE_FACTS: TUnsafe<DeviceFacts> = Type.Unsafe(
  strict({
    pages: Type.Optional(Type.Array(PAPER, { maxItems: DEVICE_BOUNDS.pages, uniqueItems: true })),
    printedWidthMm: within(DEVICE_BOUNDS.printedWidthMm),
    zones: within(DEVICE_BOUNDS.zones),
    screenPerCm: within(DEVICE_BOUNDS.screenPerCm),
    curveFormats: Type.Optional(Type.Array(oneOf(CURVE_FORMATS), { minItems: 1, uniqueItems: true })),
  }),
);

const STOCK_FACTS: TUnsafe<StockFacts> = Type.Unsafe(
  strict({
    weightGsm: within(WEIGHT_GSM),
    side: Type.Optional(word(80)),
    backing: Type.Optional(oneOf(BACKINGS)),
    brightener: Type.Optional(oneOf(BRIGHTENERS)),
    pricePerM2: Type.Optional(Type.Number(PRICE_PER_M2)),
  }),
);

export const NEW_DEVICE = makes({
  ...{ path: '/api/devices', says: 'Make a device of the house’s own', who: 'specialist' },
  body: strict({
    name: word(80),
    kind: oneOf([
      'rgb-driver',
      'cmyk-front-end',
      'press',
      'ink-front-end',
    ] as const satisfies readonly OwnDeviceKind[]),
    inks: Type.Optional(Type.Array(word(12), { minItems: 1, maxItems: MOST_CHANNELS })),
    inkSet: word(80),
    modes: Type.Array(word(60), { minItems: 1, maxItems: 40 }),
    facts: Type.Optional(DEVICE_FACTS),
  }),
  answer: MADE,
});

export const NEW_STOCK = makes({
  ...{ path: '/api/stocks', says: 'Make a stock of the house’s own', who: 'specialist' },
  body: strict({
    name: word(80),
    finish: oneOf(['matt', 'semi-matt', 'gloss'] as const),
    restMinutes: Type.Integer({ minimum: 0, maximum: MOST_REST_MINUTES }),
    facts: Type.Optional(STOCK_FACTS),
  }),
  answer: MADE,
});

export const DEVICES = reads({
  ...{ path: '/api/devices', says: 'Devices of the library', who: 'viewer' },
  answer: answers<readonly LibraryDevice[]>(Type.Array(Type.Object({ id: Type.Integer() }))),
});

export const STOCKS = reads({
  ...{ path: '/api/stocks', says: 'Stocks of the library', who: 'viewer' },
  answer: answers<readonly LibraryStock[]>(Type.Array(Type.Object({ id: Type.Integer() }))),
});

const INK_SET = strict({
  name: word(80),
  kind: oneOf(['', ...INK_KINDS]),
  restMinutes: Type.Union([Type.Null(), Type.Integer({ minimum: 0, maximum: MOST_REST_MINUTES })]),
  costs: Type.Array(
    strict({
      pricePerLitre: Type.Number(INK_COST_RANGES.pricePerLitre),
      millilitresPerM2: Type.Number(INK_COST_RANGES.millilitresPerM2),
    }),
    { maxItems: 8 },
  ),
  note: text(400),
});

export const INK_SETS = reads({
  ...{ path: '/api/ink-sets', says: 'Ink sets of the library', who: 'viewer' },
  answer: answers<readonly LibraryInkSet[]>(Type.Array(Type.Object({ id: Type.Integer() }))),
});

export const NEW_INK_SET = makes({
  ...{ path: '/api/ink-sets', says: 'Make an ink set', who: 'specialist' },
  body: INK_SET,
  answer: MADE,
});

export const CHANGE_INK_SET = sets({
  ...{ path: '/api/ink-sets/{id}', says: 'Rename an ink set where it is used, change what is noted of it' },
  who: 'specialist',
  params: IN_PATH,
  body: INK_SET,
  answer: DONE,
});

export const CHANGE_DEVICE = sets({
  ...{ path: '/api/devices/{id}', says: 'Rename a device, note something, add print modes' },
  who: 'specialist',
  params: IN_PATH,
  body: strict({
    name: word(80),
    note: text(400),
    modes: Type.Optional(Type.Array(word(60), { minItems: 1, maxItems: 40 })),
    duty: Type.Optional(
      Type.Union([
        Type.Null(),
        strict({ words: word(120), days: Type.Integer({ minimum: 1, maximum: MOST_DUTY_DAYS }) }),
      ]),
    ),
    facts: Type.Optional(DEVICE_FACTS),
  }),
  answer: DONE,
});

export const DUTY_DONE = makes({
  ...{ path: '/api/devices/{id}/duty', says: 'Keep that the calibration of a device was done now' },
  who: 'operator',
  params: IN_PATH,
  answer: answers<{ readonly doneMs: number }>(strict({ doneMs: Type.Number() })),
});

export const DELETE_CONDITION = sets({
  path: '/api/conditions/{id}/deleted',
  says: 'Delete a condition for which nothing was printed or made, or take that back',
  who: 'specialist',
  params: IN_PATH,
  body: strict({ deleted: Type.Boolean() }),
  answer: DONE,
});

const PICTURE_FILE = { file: true, mostBytes: 16_000_000 } as const;

export const ADD_PICTURE = makes({
  ...{
    path: '/api/conditions/{id}/pictures',
    says: 'Keep a picture of a driver’s dialog with a settings record',
  },
  who: 'specialist',
  params: IN_PATH,
  query: strict({ name: word(200) }),
  body: PICTURE_FILE,
  answer: MADE,
});

export const SET_LOGO = makes({
  ...{ path: '/api/house/logo', says: 'Take a picture as the house’s logo', who: 'keeper' },
  query: strict({ name: word(200) }),
  body: PICTURE_FILE,
  answer: MADE,
});

export const PICTURE_FILE_OF = reads({
  ...{ path: '/api/pictures/{id}/file', says: 'A picture, as PNG', who: 'viewer' },
  params: IN_PATH,
});

export const REMOVE_PICTURE = sets({
  ...{ path: '/api/pictures/{id}/removed', says: 'Remove a picture or take it back', who: 'specialist' },
  params: IN_PATH,
  body: strict({ removed: Type.Boolean() }),
  answer: DONE,
});

export const KEEP_TEMPLATE = sets({
  path: '/api/conditions/{id}/template',
  says: 'Keep the settings of a condition as what new conditions of its device begin with, or go back to those of the house',
  who: 'specialist',
  params: IN_PATH,
  body: strict({ keep: Type.Boolean(), points: Type.Optional(POINTS) }),
  answer: answers<{ readonly before: readonly SettingsPoint[] | null }>(
    Type.Object({ before: Type.Union([Type.Null(), POINTS]) }),
  ),
});

export const SET_REST = sets({
  path: '/api/conditions/{id}/rest',
  says: 'Set how long prints of a condition rest; null for the time of its stock',
  who: 'specialist',
  params: IN_PATH,
  body: strict({
    restMinutes: Type.Union([Type.Null(), Type.Integer({ minimum: 0, maximum: MOST_REST_MINUTES })]),
  }),
  answer: DONE,
});

export const CHANGE_STOCK = sets({
  ...{ path: '/api/stocks/{id}', says: 'Rename a stock, change what is noted of it', who: 'specialist' },
  params: IN_PATH,
  body: strict({
    name: word(80),
    boxLabel: text(200),
    note: text(400),
    restMinutes: Type.Integer({ minimum: 0, maximum: MOST_REST_MINUTES }),
    facts: Type.Optional(STOCK_FACTS),
  }),
  answer: DONE,
});

const AWAY = strict({ away: Type.Boolean() });

export const PUT_DEVICE_AWAY = sets({
  ...{ path: '/api/devices/{id}/away', says: 'Put a device away or take it out', who: 'specialist' },
  params: IN_PATH,
  body: AWAY,
  answer: DONE,
});

export const PUT_STOCK_AWAY = sets({
  ...{ path: '/api/stocks/{id}/away', says: 'Put a stock away or take it out', who: 'specialist' },
  params: IN_PATH,
  body: AWAY,
  answer: DONE,
});

export const PUT_INK_SET_AWAY = sets({
  ...{ path: '/api/ink-sets/{id}/away', says: 'Put an ink set away or take it out', who: 'specialist' },
  params: IN_PATH,
  body: AWAY,
  answer: DONE,
});

export const RENAME_CONDITION = sets({
  path: '/api/conditions/{id}/label',
  says: 'Name a condition, to tell it from others of the same device, stock and mode',
  who: 'specialist',
  params: IN_PATH,
  body: strict({ label: text(80) }),
  answer: DONE,
});

export const ARCHIVE_CONDITION = sets({
  ...{ path: '/api/conditions/{id}/archived', says: 'Archive a condition or take it back' },
  who: 'specialist',
  params: IN_PATH,
  body: strict({ archived: Type.Boolean() }),
  answer: DONE,
});

export const FILL_POINT = sets({
  path: '/api/conditions/{id}/settings-point',
  says: 'Fill a point of the settings record that was left empty',
  who: 'specialist',
  params: IN_PATH,
  body: strict({ label: word(120), value: word(200) }),
  answer: DONE,
});

export const CONDITION = reads({
  ...{ path: '/api/conditions/{id}', says: 'A condition with its links', who: 'viewer' },
  params: IN_PATH,
  answer: answers<ConditionView>(
    Type.Object({ condition: Type.Object({ id: Type.Integer() }), links: Type.Array(Type.Object({})) }),
  ),
});

export const STANDING = reads({
  path: '/api/conditions/{id}/standing',
  says: 'Whether jobs may be printed: go, mark or stop, with reasons',
  who: 'viewer',
  params: IN_PATH,
  answer: answers<Standing>(
    Type.Object({ standing: oneOf(['go', 'mark', 'stop']), reasons: Type.Array(Type.String()) }),
  ),
});

export const BORROW = sets({
  ...{ path: '/api/conditions/{id}/borrowed', says: 'Borrow the calibration of another condition' },
  who: 'specialist',
  params: IN_PATH,
  body: strict({ conditionId: ID }),
  answer: answers<{ readonly links: readonly string[] }>(strict({ links: Type.Array(Type.String()) })),
});

export const SIMULATED_CHANGES = sets({
  path: '/api/conditions/{id}/simulated-changes',
  says: 'Let something happen at a simulated device, or put it right',
  who: 'specialist',
  params: IN_PATH,
  body: strict({
    kind: Type.Optional(oneOf(CHANGE_KINDS satisfies readonly ChangeKind[])),
    ink: Type.Optional(Type.Integer({ minimum: 0, maximum: 7 })),
  }),
  answer: answers<readonly SimulatedChange[]>(Type.Array(Type.Object({ kind: Type.String() }))),
});
