import { isUsualLight, lightWords, USUAL_LIGHT } from '@melto/core/press/runLight';
import type { RunSettings } from '@melto/core/press/runSettings';
import { findRun, insertRun, listRuns, runEditions } from '@melto/store/pressRuns';
import type { RunRow, RunWithPlan } from '@melto/store/pressRuns';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { named } from '../kernel/named.ts';
import type { ListAsked, Page } from '../kernel/page.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { conditionOf } from '../ledger/conditions.ts';
import { curvesInForce, curvesOfResult } from '../ledger/inForce.ts';
import { planOf } from './plan.ts';
import type { PlanInput } from './plan.ts';

export type { RunRow };

export interface NewRun extends PlanInput {
  readonly conditionId: number;
  readonly jobNumber: string;
  readonly title: string;
  readonly customer: string;
  readonly side: string;
  readonly quantity: number;
  readonly repeatMm?: number;
  readonly settings: RunSettings;
  /** The run that this one was started from. */
  readonly fromRunId?: number;
}

const PAGE = 50;

/** Runs of the house, the newest first; found by number, title, customer, side, device or stock. */
export function runs({ database }: Context, { find = '', ...asked }: ListAsked): Promise<Page<RunRow>> {
  return listRuns(database, { ...asked, find: find.trim(), limit: PAGE });
}

export async function runOf({ database }: Context, id: number, lock = false): Promise<RunWithPlan> {
  const run = Number.isSafeInteger(id) ? await findRun(database, id, lock) : undefined;
  if (run === undefined) throw notFound(`run ${id}`);
  return run;
}

/** Refuses what would go into a run that is finished. */
export function requireUnderWay({ phase }: Pick<RunWithPlan, 'phase'>): void {
  if (phase === 'finished')
    throw new Problem('not-ready', 'This run is finished.', 'Take it up again, or start another from it.');
}

/** Refuses a light under which the aims are not known. @param spectra of the aims. */
export function requireSeen(settings: RunSettings, spectra: unknown): void {
  if (isUsualLight(settings) || spectra !== undefined) return;
  throw new Problem(
    'bad-input',
    `The aims of this run are colours for ${lightWords(USUAL_LIGHT)}: without spectra they are not known under ${lightWords(settings)}.`,
    'Lock the aims to an OK sheet that was read with spectra, then choose the light.',
    'light',
  );
}

export async function createRun(context: Context, input: NewRun): Promise<{ readonly id: number }> {
  const condition = await conditionOf(context, input.conditionId);
  requireSeen(input.settings, undefined);
  if (input.fromRunId !== undefined) await runOf(context, input.fromRunId);
  const plan = await planOf(context, input);
  const missing = plan.units.find(
    ({ ink }) => input.settings.guide === 'density' && !(ink in input.settings.densities),
  );
  if (missing !== undefined)
    throw new Problem(
      'bad-input',
      `No density is told for ${missing.ink}.`,
      'Where density is the guide each ink needs one.',
      'settings',
    );
  const curves = await curvesInForce(context, condition.id);
  const simulated =
    context.press?.begin({
      device: condition.deviceDriver,
      stock: condition.stockDriver,
      mode: condition.mode,
      seed: context.seed(),
      inks: input.inks,
      bar: plan.bar,
      curves: curves === undefined ? undefined : await curvesOfResult(context, curves.id),
    }) ?? null;
  return unitOfWork(context, async (inner) => ({
    id: await insertRun(inner.database, {
      ...{ conditionId: condition.id, aimSetId: input.aimSetId, quantity: input.quantity, plan, simulated },
      jobNumber: named(input.jobNumber, 'jobNumber', 'job'),
      title: named(input.title, 'title', 'run'),
      customer: input.customer.trim(),
      side: input.side.trim(),
      repeatMm: input.repeatMm ?? null,
      settings: input.settings,
      curvesResultId: curves?.id ?? null,
      fromRunId: input.fromRunId ?? null,
      madeMs: await domainNow(inner),
    }),
  }));
}

/** How far some runs have come, by id; those of other houses are left out. */
export async function editionsOf(
  { database }: Context,
  ids: readonly number[],
): Promise<ReadonlyMap<number, number>> {
  return new Map((await runEditions(database, ids)).map(({ id, edition }) => [id, edition]));
}
