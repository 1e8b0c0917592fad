import { Type } from '@sinclair/typebox';
import type { DeskState } from '@melto/services/reading/desk';
import { MOST_REST_MINUTES } from '@melto/core/stock/restMinutes';
import type { MeasuredElsewhere } from '@melto/services/reading/measuredChart';
import type { ImportedReading, ImportPreview } from '@melto/services/reading/importReading';
import type { PatchAnswer } from '@melto/services/reading/storePatch';
import type { PassAnswer } from '@melto/services/reading/storePass';
import type { Page } from '@melto/services/kernel/page';
import type { ReadingOfCondition, ReadingView } from '@melto/services/reading/readingView';
import { answers, DONE, makes, oneOf, reads, sets, strict } from './endpoint';
import { FIND, ID, LAB, NEXT, IN_PATH, MODE, SHEET, text, word } from './fields';

export const DESK = reads({
  ...{ path: '/api/sheets/{code}', says: 'A sheet as the reading desk needs it', who: 'viewer' },
  params: SHEET,
  answer: answers<DeskState>(Type.Object({ code: Type.String(), strips: Type.Array(Type.Object({})) })),
});

/** A pass and, where it completed the sheet, the check that it led to. */
export type JudgedPass = PassAnswer & {
  readonly resultId?: number | null;
  readonly judgeProblem?: string | null;
};

/** What an instrument says of the spectra that it gives. */
const GRID = {
  startNm: Type.Number({ minimum: 300, maximum: 800 }),
  stepNm: Type.Number({ exclusiveMinimum: 0, maximum: 50 }),
};
const SPECTRUM = Type.Array(Type.Number({ minimum: -0.1, maximum: 4 }), { minItems: 8, maxItems: 500 });

export const PASS = makes({
  path: '/api/sheets/{code}/passes',
  says: 'Keep a pass of a strip as an instrument measured it; what is another strip is told and not kept',
  who: 'operator',
  byItself: true,
  params: SHEET,
  body: strict({
    attempt: word(60),
    strip: Type.Integer({ minimum: 1 }),
    mode: MODE,
    averageWith: Type.Optional(Type.Array(word(60), { maxItems: 9 })),
    more: Type.Optional(Type.Boolean()),
    instrument: ID,
    ...GRID,
    spectra: Type.Array(SPECTRUM, {
      minItems: 1,
      maxItems: 2000,
      description: 'reflectance factors of each patch, as they were passed',
    }),
  }),
  answer: answers<JudgedPass>(Type.Object({ ok: Type.Boolean() })),
});

export const PATCH = makes({
  path: '/api/sheets/{code}/patches',
  says: 'Keep one patch of a sheet, by an instrument or as L*, a*, b* (D50, 2°); what looks like the patch beside it is told and not kept, unless `sure`',
  who: 'operator',
  params: SHEET,
  body: strict({
    attempt: word(60),
    strip: Type.Integer({ minimum: 1 }),
    patch: Type.Integer({ minimum: 1 }),
    mode: MODE,
    measured: Type.Optional(strict({ instrument: ID, ...GRID, spectrum: SPECTRUM })),
    lab: Type.Optional(LAB),
    sure: Type.Optional(Type.Boolean()),
  }),
  answer: answers<PatchAnswer>(Type.Object({ ok: Type.Boolean() })),
});

export const UNDER_INSTRUMENT = reads({
  path: '/api/sheets/{code}/under',
  says: 'What lies under a simulated instrument (a strip, or one patch of it), for its bridge; opaque',
  who: 'operator',
  params: SHEET,
  query: strict({ strip: ID, patch: Type.Optional(ID), instrument: ID }),
  answer: answers<{ readonly under: string }>(strict({ under: Type.String() })),
});

export const MARK_STRIP = makes({
  ...{ path: '/api/sheets/{code}/marks', says: 'Mark a strip for later', who: 'operator' },
  params: SHEET,
  body: strict({ strip: Type.Integer({ minimum: 1 }), marked: Type.Boolean() }),
  answer: answers<{ readonly marked: readonly number[] }>(strict({ marked: Type.Array(Type.Integer()) })),
});

/** A reading from a file and, where it completed the sheet, the check that it led to. */
export type JudgedImport = ImportedReading & {
  readonly resultId?: number | null;
  readonly judgeProblem?: string | null;
};

/** What a person says to the questions that a file leaves open. */
const ANSWERS = strict({
  mode: Type.Optional(oneOf(['M0', 'M1', 'M2', 'M3'] as const)),
  scale: Type.Optional(oneOf(['1', '100', '255', '65535'] as const)),
  light: Type.Optional(oneOf(['D50 2°'] as const)),
  bandpass: Type.Optional(oneOf(['take out'] as const)),
  table: Type.Optional(text(200)),
});

const MEASURED_FILE = { file: true, mostBytes: 32_000_000 } as const;

export const PREVIEW_READING = makes({
  path: '/api/sheets/{code}/reading/preview',
  says: 'What a file of measurements (CGATS, CxF3, CSV) would become, and what it leaves open; stores nothing',
  who: 'operator',
  params: SHEET,
  query: ANSWERS,
  body: MEASURED_FILE,
  answer: answers<ImportPreview>(
    Type.Object({ questions: Type.Array(Type.Object({})), modes: Type.Array(Type.Object({})) }),
  ),
});

export const IMPORT_READING = makes({
  path: '/api/sheets/{code}/reading',
  says: 'Give a file of measurements (CGATS, CxF3, CSV) in place of reading; what it leaves open is answered in the query',
  who: 'operator',
  params: SHEET,
  query: ANSWERS,
  body: MEASURED_FILE,
  answer: answers<JudgedImport>(Type.Object({ readingId: Type.Integer(), notes: Type.Array(Type.String()) })),
});

export const PREVIEW_MEASURED_ELSEWHERE = makes({
  path: '/api/measured-files/preview',
  says: 'What a file with device values and colours holds, where there is no condition for it yet; stores nothing',
  who: 'specialist',
  query: ANSWERS,
  body: MEASURED_FILE,
  answer: answers<MeasuredElsewhere>(Type.Object({ process: Type.String() })),
});

export const TAKE_MEASURED_ELSEWHERE = makes({
  path: '/api/measured-files',
  says: 'Take a file that was measured elsewhere with its device, stock and condition, new ones by their names',
  who: 'specialist',
  query: Type.Composite(
    [
      ANSWERS,
      strict({
        name: word(120),
        asRecorded: oneOf(['yes'] as const),
        deviceId: Type.Optional(ID),
        device: Type.Optional(word(80)),
        kind: Type.Optional(oneOf(['rgb-driver', 'cmyk-front-end', 'press'] as const)),
        inkSet: Type.Optional(word(80)),
        stockId: Type.Optional(ID),
        stock: Type.Optional(word(80)),
        finish: Type.Optional(oneOf(['matt', 'semi-matt', 'gloss'] as const)),
        restMinutes: Type.Optional(Type.Integer({ minimum: 0, maximum: MOST_REST_MINUTES })),
        printMode: word(60),
      }),
    ],
    { additionalProperties: false },
  ),
  body: MEASURED_FILE,
  answer: answers<ImportedReading & { readonly conditionId: number }>(
    Type.Object({ readingId: Type.Integer(), conditionId: Type.Integer() }),
  ),
});

export const PREVIEW_MEASURED_CHART = makes({
  path: '/api/conditions/{id}/measured-chart/preview',
  says: 'What a file with device values and colours would become as a chart of a condition; stores nothing',
  who: 'specialist',
  params: IN_PATH,
  query: ANSWERS,
  body: MEASURED_FILE,
  answer: answers<ImportPreview>(
    Type.Object({ questions: Type.Array(Type.Object({})), modes: Type.Array(Type.Object({})) }),
  ),
});

export const TAKE_MEASURED_CHART = makes({
  path: '/api/conditions/{id}/measured-chart',
  says: 'Take a chart that was printed and measured elsewhere, as the settings record says, with its reading',
  who: 'specialist',
  params: IN_PATH,
  query: Type.Composite([ANSWERS, strict({ name: word(120), asRecorded: oneOf(['yes'] as const) })], {
    additionalProperties: false,
  }),
  body: MEASURED_FILE,
  answer: answers<ImportedReading>(
    Type.Object({ readingId: Type.Integer(), notes: Type.Array(Type.String()) }),
  ),
});

export const READING = reads({
  ...{ path: '/api/readings/{id}', says: 'A reading with its patches', who: 'viewer' },
  params: IN_PATH,
  answer: answers<ReadingView>(Type.Object({ id: Type.Integer(), patches: Type.Array(Type.Object({})) })),
});

export const READING_PATCHES = reads({
  ...{ path: '/api/readings/{id}/patches', says: 'Device values and XYZ of a reading', who: 'viewer' },
  params: IN_PATH,
  answer: answers<{ readonly device: readonly number[]; readonly xyz: readonly number[] }>(
    strict({ device: Type.Array(Type.Number()), xyz: Type.Array(Type.Number()) }),
  ),
});

export const READING_FILE = reads({
  ...{ path: '/api/readings/{id}/file', says: 'A reading as CGATS', who: 'viewer' },
  params: IN_PATH,
});

export const WITHDRAW_READING = sets({
  ...{ path: '/api/readings/{id}/withdrawn', says: 'Withdraw a reading or take it back', who: 'specialist' },
  params: IN_PATH,
  body: strict({ withdrawn: Type.Boolean() }),
  answer: DONE,
});

export const READINGS = reads({
  path: '/api/conditions/{id}/readings',
  says: 'Readings of a condition, the latest first',
  who: 'viewer',
  params: IN_PATH,
  query: FIND,
  answer: answers<Page<ReadingOfCondition>>(
    Type.Object({ rows: Type.Array(Type.Object({ id: Type.Integer() })), next: NEXT }),
  ),
});
