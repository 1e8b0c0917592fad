import type { PatchSpectra } from '@melto/core/cgats/patchSet';
import { openPatches } from '@melto/core/press/barReading';
import type { BarReading } from '@melto/core/press/barReading';
import { barVerdict, patchMeasures } from '@melto/core/press/barVerdict';
import { isUsualLight, lightWords, USUAL_LIGHT } from '@melto/core/press/runLight';
import type { Phase, RunSettings } from '@melto/core/press/runSettings';
import { measuredLabRows } from '@melto/core/colour/measuredLabRows';
import { insertMove, listMoves, updateRun } from '@melto/store/pressRuns';
import { countWithoutSpectra, findSheet, movePhases } from '@melto/store/pressSheets';
import { lockWatch } from '@melto/store/watches';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { requireSeen, requireUnderWay, runOf } from './runs.ts';
import { enterRun, watchOfRun } from './runWatch.ts';
import { judgeAgain, judgedSheet } from './sheets.ts';

/** Greatest change of density that one move may note. */
const MOST_CHANGE = 1;

/** Notes that keys were moved: of several units at once, at one stand of the counter. */
export async function noteMoves(
  context: Context,
  runId: number,
  {
    impression,
    moves,
  }: {
    readonly impression: number;
    readonly moves: readonly { readonly unit: number; readonly changes: readonly number[] }[];
  },
): Promise<void> {
  await unitOfWork(context, async (inner) => {
    const run = await runOf(inner, runId, true);
    requireUnderWay(run);
    const { units, bar } = run.plan;
    const before = await listMoves(inner.database, runId);
    for (const { unit, changes } of moves) {
      if (unit >= units.length || changes.length !== bar.zones)
        throw new Problem(
          'bad-input',
          `A move is of ${bar.zones} zones of one unit.`,
          'Load the run again.',
          'moves',
        );
      if (changes.some((change) => Math.abs(change) > MOST_CHANGE) || changes.every((change) => change === 0))
        throw new Problem(
          'bad-input',
          'A move changes a zone, by at most one unit of density.',
          'Check it.',
          'moves',
        );
      const later = before.find((move) => move.unit === unit && move.impression >= impression);
      if (later !== undefined)
        throw new Problem(
          'conflict',
          `${units[unit].ink} was moved at impression ${later.impression} already.`,
          'Load the run again: somebody else may have noted this move.',
          'impression',
        );
      await insertMove(inner.database, runId, { unit, impression, changes, madeMs: await domainNow(inner) });
    }
    await updateRun(inner.database, runId, {});
  });
}

/** Make-ready becomes production from a stand of the counter on; a run is finished, or taken up again. */
export async function setPhase(
  context: Context,
  runId: number,
  { phase, from }: { readonly phase: Phase; readonly from?: number },
): Promise<void> {
  const watch =
    phase === 'finished' ? await watchOfRun(context, (await runOf(context, runId)).conditionId) : undefined;
  await unitOfWork(context, async (inner) => {
    // Whoever adds a check to this watch comes before or after.
    if (watch !== undefined) await lockWatch(inner.database, watch.id);
    const run = await runOf(inner, runId, true);
    if (phase === 'make-ready' && run.okImpression !== null && run.productionFrom !== null)
      throw new Problem('conflict', 'This run is in production.', 'Finish it, or start another from it.');
    if (phase === 'production' && from === undefined && run.productionFrom === null)
      throw new Problem('bad-input', 'From which impression on is not told.', 'Give the counter.', 'from');
    const productionFrom = phase === 'production' ? (run.productionFrom ?? from) : undefined;
    await updateRun(inner.database, runId, { phase, productionFrom });
    if (productionFrom !== undefined && productionFrom !== null)
      await movePhases(inner.database, runId, productionFrom);
    if (watch !== undefined) await enterRun(inner, run, watch);
  });
}

/**
 * Marks a sheet as the OK sheet. @param lock takes its own colours and tone values as the aims from now on; what was read
 * before keeps its verdict by the aims of then.
 */
export async function markOkSheet(
  context: Context,
  runId: number,
  { impression, lock }: { readonly impression: number; readonly lock: boolean },
): Promise<void> {
  await unitOfWork(context, async (inner) => {
    const run = await runOf(inner, runId, true);
    const sheet = await findSheet(inner.database, runId, impression);
    if (sheet === undefined)
      throw new Problem(
        'not-found',
        `No sheet was read at impression ${impression}.`,
        'Read it first.',
        'impression',
      );
    const open = openPatches(sheet.reading).length;
    if (open > 0)
      throw new Problem(
        'not-ready',
        `${open} ${open === 1 ? 'patch of this sheet is' : 'patches of this sheet are'} open.`,
        'Read what is missing first.',
        'impression',
      );
    const { plan } = run;
    const { figures } = judgedSheet(run, sheet.reading);
    const { outside } = barVerdict(patchMeasures(plan.bar, plan.units, run.settings), figures);
    const away = outside.some((patch) => plan.bar.patches[patch].kind === 'solid');
    // Of tints the third figure is how far their tone value is from its aim, in per cent.
    const tone = plan.aims.tone.map((aim, patch) => aim + figures[3 * patch + 2] / 100);
    const spectra = wholeSpectra(sheet.reading);
    if (lock) requireSeen(run.settings, spectra);
    const aims = { lab: measuredLabRows(sheet.reading.xyz), tone, spectra };
    await updateRun(inner.database, runId, {
      okImpression: impression,
      ...(lock ? { plan: { ...plan, aims }, ...(away ? { aimsAway: true } : {}) } : {}),
    });
  });
}

/** The spectra of a sheet, where all of its patches have one. */
function wholeSpectra({ grid, spectra }: BarReading): PatchSpectra | undefined {
  return grid !== undefined && spectra?.every(Number.isFinite) === true
    ? { grid, values: spectra }
    : undefined;
}

/** Other settings, with all that was read judged by them. */
export async function changeSettings(context: Context, runId: number, settings: RunSettings): Promise<void> {
  await unitOfWork(context, async (inner) => {
    const run = await runOf(inner, runId, true);
    requireSeen(settings, run.plan.aims.spectra);
    const bare = isUsualLight(settings) ? 0 : await countWithoutSpectra(inner.database, runId);
    if (bare > 0)
      throw new Problem(
        'bad-input',
        `${bare} ${bare === 1 ? 'sheet of this run was' : 'sheets of this run were'} read without spectra: under ${lightWords(settings)} their colours are not known.`,
        `Judge this run for ${lightWords(USUAL_LIGHT)}.`,
        'light',
      );
    await updateRun(inner.database, runId, { settings });
    await judgeAgain(inner, { ...run, settings });
  });
}
