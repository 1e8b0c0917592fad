import { Type } from '@sinclair/typebox';
import type { TUnsafe } from '@sinclair/typebox';
import { CHECK_VALID_DAYS } from '@melto/core/conformity/checkValidity';
import { PATCH_SIZES } from '@melto/core/charts/chartForm';
import type { PatchSize } from '@melto/core/charts/chartForm';
import type { ReaderKind, PaperName } from '@melto/core/charts/pageGeometry';
import { oneOf, strict } from './endpoint';

// Pieces that the bodies of several routes share.

export const ID = Type.Integer({ minimum: 1, maximum: Number.MAX_SAFE_INTEGER });
export const IN_PATH = strict({ id: ID });
/** A sheet's code as it stands on paper. */
export const SHEET = strict({ code: Type.String({ minLength: 1, maxLength: 40 }) });
/** What comes after the id that the page before ended with, of those whose names hold what was typed. */
export const FIND = strict({
  after: Type.Optional(ID),
  find: Type.Optional(Type.String({ maxLength: 80 })),
});

/** Where the next page begins; null after the last. */
export const NEXT = Type.Union([Type.Integer(), Type.Null()]);

/** A side of a page of one's own: 90 to 1,620 mm. */
const SIDE = '(9\\d|[1-9]\\d{2}|1[0-5]\\d{2}|16[01]\\d|1620)';
export const PAPER: TUnsafe<PaperName> = Type.Unsafe(
  Type.String({
    pattern: `^(a4|letter|a3|${SIDE}x${SIDE})$`,
    description: 'a4, letter, a3, or width and height in mm, as 610x914',
  }),
);
export const READER = oneOf(['strip', 'spot', 'sheet'] as const satisfies readonly ReaderKind[]);
/** How a chart stands on paper. */
export const FORM = {
  paper: PAPER,
  reader: READER,
  patchSize: Type.Optional(oneOf(Object.keys(PATCH_SIZES) as PatchSize[])),
};
export const MODE = oneOf(['M0', 'M1', 'M2', 'M3'] as const);
export const SHARE = Type.Number({ minimum: 0, maximum: 1 });
export const DAYS = Type.Integer({ minimum: 1, maximum: 400 });
export const LIMIT = Type.Number({ exclusiveMinimum: 0, maximum: 100 });

export const word = (maxLength: number) => Type.String({ minLength: 1, maxLength });
export const text = (maxLength: number) => Type.String({ maxLength });

export const LAB: TUnsafe<readonly [number, number, number]> = Type.Unsafe(
  Type.Array(Type.Number({ minimum: -250, maximum: 250 }), { minItems: 3, maxItems: 3 }),
);
export const INKS_PCT: TUnsafe<readonly number[]> = Type.Unsafe(
  Type.Array(Type.Number({ minimum: 0, maximum: 100 }), { minItems: 4, maxItems: 4 }),
);
export const NAMED_COLOUR = strict({ name: text(200), lab: LAB });

/** Points of the settings record that were ticked, and faults of a simulated device on demand. */
export const PRINT = {
  ticks: Type.Array(text(120), { maxItems: 40 }),
  conversion: Type.Optional(text(60)),
  side: Type.Optional(oneOf(['printing', 'wrong'] as const)),
};
export const FRONT_END = Type.Optional(oneOf(['factory curves', 'no curves'] as const));

/** What a reading is judged by. */
export const CHOICE = {
  aimSetId: ID,
  toleranceSetId: ID,
  substrateCorrected: Type.Boolean(),
  spotsMoved: Type.Optional(Type.Boolean()),
  everyDays: Type.Optional(Type.Integer({ minimum: 1, maximum: CHECK_VALID_DAYS })),
};
