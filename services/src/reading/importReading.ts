import { labAt } from '@melto/core/colour/labAt';
import { createHash } from 'node:crypto';
import { labToHex } from '@melto/core/colour/srgb';
import { patchXyz } from '@melto/core/cgats/patchColours';
import { doubtfulPatches } from '@melto/core/measured/doubtfulRows';
import type { MatchedBy } from '@melto/core/measured/matchPatches';
import type { ToldConditions } from '@melto/core/measured/conditions';
import type { Answers, Measurement, Question } from '@melto/core/measured/measurement';
import type { DamagedRow } from '@melto/core/measured/measuredTable';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { channelCount } from '@melto/core/device/process';
import type { ReadingMode } from '@melto/store/readings';
import type { StripRow } from '@melto/store/strips';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { measuredFile, unanswered } from './measuredFile.ts';
import type { MeasuredFile } from './measuredFile.ts';
import { storeStrips } from './storeStrips.ts';

/** What a file would become, before anything is stored. */
export interface ImportPreview {
  readonly code: string;
  readonly questions: readonly Question[];
  readonly modes: readonly ImportedMode[];
  readonly told: ToldConditions;
  /** It holds spectra, whose bandpass can be taken out. */
  readonly spectral: boolean;
  readonly unused: readonly string[];
  readonly damaged: readonly DamagedRow[];
  readonly notes: readonly string[];
}

export interface ImportedMode {
  readonly mode: ReadingMode | null;
  readonly by: MatchedBy;
  /** Patches of the chart that the file has, and all of them. */
  readonly patches: number;
  readonly ofPatches: number;
  /** Strips with all their patches, and all of them. */
  readonly strips: number;
  readonly ofStrips: number;
  /** Patches that were averaged over several rows. */
  readonly repeated: number;
  /** Rows of the file that are no patch of the chart. */
  readonly foreign: number;
  readonly doubtful: readonly { readonly id: string; readonly off: number }[];
  /** Screen colours by page, strip and place; null where a patch is missing. */
  readonly pages: readonly (readonly (readonly (string | null)[])[])[];
}

export interface ImportedReading {
  readonly readingId: number;
  /** All readings that the file became, one for each of its modes. */
  readonly readings: readonly { readonly mode: ReadingMode; readonly readingId: number }[];
  readonly notes: readonly string[];
}

/** Says what a file of measurements would become on a sheet's chart. */
export async function previewReading(
  context: Context,
  code: string,
  file: Uint8Array | string,
  answers: Answers = {},
): Promise<ImportPreview> {
  const read = await measuredFile(context, code, file, answers);
  const { measurement, chart, condition } = read;
  const { questions, told, unused, damaged, notes } = measurement;
  const channels = channelCount(condition.process);
  return {
    ...{ code, questions, told, unused, damaged, notes, spectral: isSpectral(measurement) },
    modes: read.modes.map((mode): ImportedMode => {
      const values = patchValues(mode);
      const lab = labOf(values);
      const device = chart.set.device ?? read.print.deviceValues;
      const present = (row: number): boolean => mode.match.rows[row].length > 0;
      const strips = chart.layout.pages.flat();
      return {
        mode: mode.mode ?? null,
        by: mode.match.by,
        patches: mode.match.rows.filter((rows) => rows.length > 0).length,
        ofPatches: chart.patches,
        strips: strips.filter((rows) => rows.every(present)).length,
        ofStrips: strips.length,
        repeated: mode.match.rows.filter((rows) => rows.length > 1).length,
        foreign: mode.match.foreign.length,
        doubtful: doubtfulPatches(device, channels, lab).map(({ patch, off }) => ({
          id: chart.set.ids[patch],
          off,
        })),
        pages: chart.layout.pages.map((page) =>
          page.map((rows) => rows.map((row) => (present(row) ? labToHex(labAt(lab, row)) : null))),
        ),
      };
    }),
  };
}

/**
 * Takes a file of measurements in place of reading a print at the desk, as a reading for each of its modes. All that
 * the file leaves open must be answered. Patches that are missing stay open until another file brings them.
 */
export async function importReading(
  context: Context,
  code: string,
  file: Uint8Array | string,
  answers: Answers = {},
): Promise<ImportedReading> {
  const read = await measuredFile(context, code, file, answers);
  const { measurement, print, chart, condition } = read;
  const [open] = measurement.questions;
  if (open !== undefined) throw unanswered(open);
  const nowMs = await domainNow(context);
  const told = JSON.stringify({ ...measurement.told, ...answered(answers) });
  // Another file in the same moment is another attempt.
  const attempt = `file ${nowMs} ${createHash('sha256').update(file).digest('hex').slice(0, 12)}`;
  const toStore = read.modes.map((mode) => {
    const strips = stripsOf(read, mode, attempt, nowMs);
    if (mode.mode === undefined) throw new Error('a mode was neither told nor asked');
    if (strips.length === 0)
      throw new Problem(
        'bad-input',
        `The file has none of the chart’s ${chart.patches} patches.`,
        'Nothing was stored. Give the file that was measured from this chart.',
      );
    return { mode: mode.mode, strips };
  });
  return unitOfWork(context, async (inner) => {
    const readings: { mode: ReadingMode; readingId: number }[] = [];
    for (const { mode, strips } of toStore) {
      const { readingId } = await storeStrips(
        inner,
        { print, chart, condition },
        { mode, told, source: 'file', strips, nowMs },
      );
      readings.push({ mode, readingId });
    }
    return { readingId: readings[0].readingId, readings, notes: notesOf(read) };
  });
}

export const isSpectral = ({ modes }: Pick<Measurement, 'modes'>): boolean =>
  modes.some(({ set }) => set.spectra !== undefined);

/** What a person added to what the file told. */
function answered({ light, bandpass }: Answers): Partial<ToldConditions> {
  return {
    ...(light === undefined ? {} : { illuminant: 'D50', observer: 2 }),
    ...(bandpass === undefined ? {} : { bandpass: 'taken out' }),
  };
}

function notesOf({ measurement, modes, chart }: MeasuredFile): string[] {
  const { notes, unused, damaged } = measurement;
  return [
    ...notes,
    ...(unused.length > 0 ? [`Not used: ${unused.join(', ')}.`] : []),
    ...(damaged.length > 0
      ? [
          `${damaged.length === 1 ? '1 row was' : `${damaged.length} rows were`} left out; the first, line ${damaged[0].line}: ${damaged[0].why}.`,
        ]
      : []),
    ...modes.flatMap(({ mode, match }) => {
      const missing = match.rows.filter((rows) => rows.length === 0).length;
      return [
        `${mode ?? ''}: matched by ${match.by}.`,
        ...(missing > 0 ? [`${missing} of ${chart.patches} patches are missing.`] : []),
      ];
    }),
  ];
}

/** Values of each patch of the chart, means of its rows; NaN where it is missing. */
interface PatchValues {
  readonly kind: 'spectra' | 'xyz';
  readonly grid: StripRow['grid'];
  readonly width: number;
  readonly values: Float64Array;
  /** XYZ, row-major × 3. */
  readonly xyz: Float64Array;
}

function patchValues({ set, match }: MeasuredFile['modes'][number]): PatchValues {
  const colours = patchXyz(set) ?? new Float64Array(0);
  const { spectra } = set;
  const width = spectra?.grid.count ?? 3;
  const xyz = meanRows(colours, match.rows, 3);
  return {
    kind: spectra === undefined ? 'xyz' : 'spectra',
    grid: spectra?.grid ?? { startNm: 0, stepNm: 0, count: 0 },
    width,
    values: spectra === undefined ? xyz : meanRows(spectra.values, match.rows, width),
    xyz,
  };
}

function meanRows(values: Float64Array, rows: readonly (readonly number[])[], width: number): Float64Array {
  const out = new Float64Array(rows.length * width).fill(NaN);
  rows.forEach((own, patch) => {
    if (own.length === 0) return;
    for (let i = 0; i < width; i++)
      out[patch * width + i] = own.reduce((sum, row) => sum + values[row * width + i], 0) / own.length;
  });
  return out;
}

function labOf({ xyz }: PatchValues): Float64Array {
  const lab = new Float64Array(xyz.length);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
  return lab;
}

/** The strips of which a patch is there; NaN where one is missing. */
function stripsOf(
  { chart }: MeasuredFile,
  mode: MeasuredFile['modes'][number],
  attempt: string,
  nowMs: number,
): StripRow[] {
  const { kind, grid, width, values } = patchValues(mode);
  return chart.layout.pages.flatMap((page, pageIndex) =>
    page.flatMap((rows, stripIndex): StripRow[] => {
      if (rows.every((row) => mode.match.rows[row].length === 0)) return [];
      const own = new Float64Array(rows.length * width);
      rows.forEach((row, place) => own.set(values.subarray(row * width, (row + 1) * width), place * width));
      return [
        {
          page: pageIndex + 1,
          strip: stripIndex + 1,
          ...{ attempt, reversed: false, kind, grid, readMs: nowMs },
          values: own,
        },
      ];
    }),
  );
}
