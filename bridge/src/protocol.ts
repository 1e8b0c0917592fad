import { Type } from '@sinclair/typebox';
import type { Static, TSchema } from '@sinclair/typebox';

// What a reading desk and an instrument bridge say to each other: docs/instrument-bridge.md.

export const PROTOCOL = 1;
/** Where a bridge listens unless it is told otherwise. */
export const DEFAULT_ADDRESS = 'ws://127.0.0.1:3471';
/** A message longer than this is refused: a strip of 200 patches with 81 bands takes a tenth of it. */
export const MOST_BYTES = 2_000_000;

const words = (most: number): ReturnType<typeof Type.String> =>
  Type.String({ minLength: 1, maxLength: most });
const ID = words(60);
const TIME = Type.Number({ minimum: 0, maximum: 8.64e15 });
const MODE = Type.Union(
  ['M0', 'M1', 'M2', 'M3'].map((mode) => Type.Literal(mode as 'M0' | 'M1' | 'M2' | 'M3')),
);

const message = <K extends string, P extends Record<string, TSchema>>(type: K, fields: P) =>
  Type.Object({ type: Type.Literal(type), ...fields }, { additionalProperties: false });

/** An instrument as its bridge tells of it. */
export const INSTRUMENT = Type.Object(
  {
    serial: words(60),
    name: words(80),
    kind: Type.Union([Type.Literal('strip'), Type.Literal('spot'), Type.Literal('sheet')], {
      description: 'drawn along a strip by hand; set on single patches; moves over the page by itself',
    }),
    modes: Type.Array(MODE, { minItems: 1, maxItems: 4, uniqueItems: true }),
    begins: Type.Union([Type.Literal('when-asked'), Type.Literal('at-instrument')], {
      description:
        'when-asked: a pass begins with the message; at-instrument: it waits for the person’s button or movement',
    }),
    tileLifeMs: Type.Integer({
      minimum: 60_000,
      maximum: 31_536_000_000,
      description: 'how long a reading of the white tile holds',
    }),
    apertureMm: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 50 })),
    filter: Type.Optional(words(40)),
    backing: Type.Optional(words(40)),
    simulated: Type.Optional(
      Type.Boolean({
        description: 'reads only sheets of simulated devices, and needs `under` with each pass',
      }),
    ),
    movements: Type.Optional(
      Type.Array(words(40), {
        maxItems: 20,
        description: 'what a simulated hand can do; real ones have none',
      }),
    ),
  },
  { additionalProperties: false },
);
export type InstrumentInfo = Static<typeof INSTRUMENT>;

const INSTRUMENTS = Type.Array(INSTRUMENT, { maxItems: 50 });

/** What a desk says. */
export const FROM_DESK = Type.Union([
  message('hello', { protocol: Type.Integer({ minimum: 1 }), desk: words(80) }),
  message('calibrate', { id: ID, instrument: words(60), at: TIME }),
  message('read', {
    id: Type.String({
      minLength: 1,
      maxLength: 60,
      description: 'the attempt: asked again, it is the same pass',
    }),
    instrument: words(60),
    mode: MODE,
    patches: Type.Integer({ minimum: 1, maximum: 2000 }),
    at: Type.Number({ minimum: 0, maximum: 8.64e15, description: 'the house’s time, ms since 1970' }),
    page: Type.Optional(Type.Integer({ minimum: 1, maximum: 10_000 })),
    strip: Type.Optional(Type.Integer({ minimum: 1, maximum: 10_000 })),
    under: Type.Optional(
      Type.String({ maxLength: 1_000_000, description: 'what lies under a simulated instrument; opaque' }),
    ),
    movement: Type.Optional(words(40)),
  }),
  message('cancel', { id: ID }),
  message('kept', { id: ID }),
]);
export type FromDesk = Static<typeof FROM_DESK>;
export type ReadMessage = Extract<FromDesk, { readonly type: 'read' }>;

/** Why a bridge did not do what it was asked; any other word is shown with the bridge's own words. */
export const REASONS = [
  'too-fast',
  'off-row',
  'started-late',
  'patch-count',
  'tile-needed',
  'busy',
  'cancelled',
  'no-instrument',
  'no-mode',
  'nothing-under',
  'instrument',
] as const;

/** What a bridge says. */
export const FROM_BRIDGE = Type.Union([
  message('hello', {
    protocol: Type.Integer({ minimum: 1 }),
    bridge: words(80),
    instruments: INSTRUMENTS,
    waiting: Type.Array(ID, {
      maxItems: 1000,
      description: 'passes that were measured and that no desk has kept',
    }),
  }),
  message('instruments', { instruments: INSTRUMENTS }),
  message('calibrated', { id: ID }),
  message('armed', { id: ID }),
  message('progress', { id: ID, done: Type.Integer({ minimum: 0, maximum: 2000 }) }),
  message('measured', {
    id: ID,
    instrument: words(60),
    mode: MODE,
    startNm: Type.Number({ minimum: 300, maximum: 800 }),
    stepNm: Type.Number({ exclusiveMinimum: 0, maximum: 50 }),
    spectra: Type.Array(
      Type.Array(Type.Number({ minimum: -0.1, maximum: 4 }), { minItems: 8, maxItems: 500 }),
      {
        minItems: 1,
        maxItems: 2000,
        description:
          'reflectance factors (1 = perfect diffuser) of each patch, in the order they were passed',
      },
    ),
  }),
  message('failed', {
    id: ID,
    reason: words(40),
    words: Type.Optional(words(300)),
    found: Type.Optional(Type.Integer({ minimum: 0, maximum: 10_000 })),
  }),
  message('error', { words: words(300) }),
]);
export type FromBridge = Static<typeof FROM_BRIDGE>;
export type Measured = Extract<FromBridge, { readonly type: 'measured' }>;
