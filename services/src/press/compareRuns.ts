import { analyseRun } from '@melto/core/press/runAnalysis';
import type { RunAnalysis } from '@melto/core/press/runAnalysis';
import { lightWords } from '@melto/core/press/runLight';
import { MOST_COMPARED } from '@melto/core/press/scopes';
import type { Phase } from '@melto/core/press/runSettings';
import { factsOf } from '@melto/store/pressRuns';
import type { RunFacts, RunWithPlan } from '@melto/store/pressRuns';
import { listSheetFigures } from '@melto/store/pressSheets';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { isJudgedByOwnSheet } from './ownAims.ts';
import { runOf } from './runs.ts';

/** A run among others. */
export interface ComparedRun extends Pick<RunAnalysis, 'sheets' | 'values' | 'sheetShare' | 'patchShare'> {
  readonly run: RunFacts;
  /** By the key of their rows: an ink's solids, its tints, greys. */
  readonly rows: Readonly<Record<string, RunAnalysis['rows'][number]>>;
}

export interface RunComparison {
  readonly runs: readonly ComparedRun[];
  /** Rows in the order of the first run that has them. */
  readonly keys: readonly { readonly key: string; readonly words: string; readonly quantity: string }[];
  /** What makes figures of these runs not quite alike, in sentences. */
  readonly unlike: readonly string[];
}

/** Two to eight different runs, no more and no fewer. */
export const canCompare = (ids: readonly number[]): boolean =>
  new Set(ids).size === ids.length && ids.length >= 2 && ids.length <= MOST_COMPARED;

/** Runs beside each other, each by its own aims and tolerances. @param ids two to eight, in the order they are shown. */
export async function compareRuns(
  context: Context,
  ids: readonly number[],
  phase?: Phase,
): Promise<RunComparison> {
  if (!canCompare(ids))
    throw new Problem(
      'bad-input',
      `Two to ${MOST_COMPARED} different runs are compared.`,
      'Choose them in the list of runs.',
      'runs',
    );
  const found = await Promise.all(ids.map((id) => runOf(context, id)));
  const runs: ComparedRun[] = [];
  // One after the other: each may have some thousand sheets.
  for (const run of found) {
    const { bar, units } = run.plan;
    const sheets = await listSheetFigures(context.database, [run.id], phase);
    const { rows, overTime: _overTime, ...rest } = analyseRun(bar, units, run.settings, sheets);
    runs.push({
      ...rest,
      run: factsOf(run),
      rows: Object.fromEntries(rows.filter(({ share }) => share !== undefined).map((row) => [row.key, row])),
    });
  }
  const keys = new Map(
    runs.flatMap(({ rows }) =>
      Object.values(rows).map(({ key, words, quantity }) => [key, { key, words, quantity }] as const),
    ),
  );
  const own: RunWithPlan[] = [];
  for (const run of found) if (await isJudgedByOwnSheet(context, run)) own.push(run);
  const differ = (words: string, of: (run: (typeof found)[number]) => unknown): string[] =>
    new Set(found.map((run) => JSON.stringify(of(run)))).size > 1 ? [words] : [];
  return {
    runs,
    keys: [...keys.values()],
    unlike: [
      ...differ('They are printed to different aims.', ({ aimSetId }) => aimSetId),
      ...ownAimsWords(own, found),
      ...differ('They are judged by different tolerances.', ({ settings }) => settings.tolerances),
      ...differ('They are judged by different formulas.', ({ settings }) => settings.formula),
      ...differ('They are judged under different lights.', ({ settings }) => lightWords(settings)),
      ...differ('They are read in different modes.', ({ settings }) => settings.mode),
      ...differ('They are printed on different conditions.', ({ conditionId }) => conditionId),
    ],
  };
}

/** Whose shares are told against a sheet of their own, where that is not so of none. */
function ownAimsWords(own: readonly RunWithPlan[], all: readonly RunWithPlan[]): string[] {
  if (own.length === 0) return [];
  if (own.length === all.length) return ['Each is judged by its own OK sheet.'];
  const names = own.map(({ jobNumber }) => jobNumber).join(', ');
  return [
    `${names}: judged by ${own.length === 1 ? 'its own OK sheet' : 'their own OK sheets'}, the ${all.length - own.length === 1 ? 'other' : 'others'} by ${all.length - own.length === 1 ? 'its' : 'their'} aim set.`,
  ];
}
