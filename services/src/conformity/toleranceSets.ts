import { randomUUID } from 'node:crypto';
import { TOLERANCE_SETS } from '@melto/core/conformity/data/toleranceSets';
import type { ToleranceMetric, ToleranceSet } from '@melto/core/conformity/toleranceSet';
import {
  findToleranceSet,
  insertToleranceSet,
  listToleranceSets,
  listToleranceSetVersions,
  setToleranceSetRemoved,
} from '@melto/store/toleranceSets';
import type { ToleranceSetRow } from '@melto/store/toleranceSets';
import { domainNow } from '../kernel/clock.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { refuseStandardName } from './ownName.ts';

export interface ToleranceSetView {
  readonly id: number;
  readonly version: number;
  readonly shipped: boolean;
  readonly author: string;
  readonly madeMs: number;
  readonly set: ToleranceSet;
}

type Definition = Pick<ToleranceSet, 'metrics' | 'substrateUncorrected' | 'notJudged'>;

function viewOf({ id, version, shipped, author, madeMs, ...row }: ToleranceSetRow): ToleranceSetView {
  const definition = JSON.parse(row.definition) as Definition;
  return {
    id,
    version,
    shipped,
    author,
    madeMs,
    set: { id: row.family, name: row.name, source: row.source, ...definition },
  };
}

export async function toleranceSets(context: Context): Promise<ToleranceSetView[]> {
  return (await listToleranceSets(context.database)).map(viewOf);
}

export async function loadToleranceSet(context: Context, id: number): Promise<ToleranceSetView> {
  const row = await findToleranceSet(context.database, id);
  if (row === undefined) throw notFound(`tolerance set ${id}`);
  return viewOf(row);
}

export async function toleranceSetVersions(context: Context, id: number): Promise<ToleranceSetView[]> {
  const { set } = await loadToleranceSet(context, id);
  return (await listToleranceSetVersions(context.database, set.id)).map(viewOf);
}

/** Makes the shipped tolerance sets known; one that has changed since becomes the next version. */
export async function registerShippedTolerances(context: Context): Promise<void> {
  const known = await listToleranceSets(context.database);
  for (const { id, name, source, ...definition } of TOLERANCE_SETS) {
    const before = known.find(({ family }) => family === id);
    const same = before?.definition === JSON.stringify(definition);
    if (same && before.name === name && before.source === source) continue;
    await insertToleranceSet(context.database, {
      family: id,
      name,
      source,
      shipped: true,
      definition,
      madeMs: context.now(),
    });
  }
}

export interface ToleranceSetInput {
  readonly name: string;
  readonly source: string;
  readonly substrateUncorrected: boolean;
  readonly metrics: readonly ToleranceMetric[];
  /** The own set to add a version to; a new one otherwise. A shipped one is never changed. */
  readonly versionOf?: number;
}

export async function saveToleranceSet(
  context: Context,
  { name, source, versionOf, ...definition }: ToleranceSetInput,
): Promise<{ readonly id: number }> {
  const before = versionOf === undefined ? undefined : await loadToleranceSet(context, versionOf);
  refuseStandardName(name);
  if (before?.shipped === true)
    throw new Problem(
      'conflict',
      `${before.set.name} comes with Melto and stays as it is.`,
      'Save it under another name.',
      'name',
    );
  const row = {
    family: before?.set.id ?? `own-${randomUUID()}`,
    name,
    source,
    shipped: false,
    definition,
    madeMs: await domainNow(context),
  };
  return { id: await unitOfWork(context, ({ database }) => insertToleranceSet(database, row)) };
}

export async function removeToleranceSet(context: Context, id: number, removed: boolean): Promise<void> {
  const { shipped, set } = await loadToleranceSet(context, id);
  if (shipped)
    throw new Problem('conflict', `${set.name} comes with Melto and stays.`, 'Remove own sets only.');
  await setToleranceSetRemoved(context.database, set.id, removed ? context.now() : null);
}
