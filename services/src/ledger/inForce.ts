import type { ExpectedRamps } from '@melto/core/faults/rampResponse';
import type { Process } from '@melto/core/device/process';
import { straightCurve } from '@melto/core/tone/toneCurve';
import type { ToneCurves } from '@melto/core/tone/toneCurve';
import { readIcc } from '@melto/core/icc/readIcc';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { unwrap } from '@melto/core/result';
import { findHead, findResult, findResultFile, listHeads } from '@melto/store/results';
import type { HeadRow, WholeResultRow } from '@melto/store/results';
import type { PrintRow } from '@melto/store/prints';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { BALANCE } from './kinds/balanceKind.ts';
import { CURVES, keptToCurves } from './kinds/curvesKind.ts';
import type { KeptCurves } from './kinds/curvesKind.ts';
import { EVENNESS } from './kinds/evennessKind.ts';
import { linkWord } from './links.ts';
import { storedOf } from './resultKind.ts';
import { storedHead } from './storedResult.ts';

/** Curves that change nothing, one a channel. */
export const identityCurves = ({ channels }: Process): ToneCurves => channels.map(() => straightCurve());

/** The one set of curves in force: Balance starts from Curves and replaces their aim. */
export function curvesAmong(heads: readonly HeadRow[]): HeadRow | undefined {
  return heads.find(({ link }) => link === 'balance') ?? heads.find(({ link }) => link === 'curves');
}

export async function curvesInForce({ database }: Context, condition: number): Promise<HeadRow | undefined> {
  return curvesAmong(await listHeads(database, condition));
}

/** Which curves they are, in words. */
export function curvesWords(head: HeadRow, condition: number): string {
  return `${linkWord(head.link)} v${head.version}${head.conditionId === condition ? '' : ', borrowed'}`;
}

/** Curves in force as a page tells of them. */
export interface CurvesTold {
  readonly id: number;
  readonly words: string;
}

export function curvesTold(head: HeadRow, condition: number): CurvesTold {
  return { id: head.id, words: curvesWords(head, condition) };
}

function curvesKept(row: WholeResultRow): KeptCurves | undefined {
  if (row.shape === CURVES.shape) return storedOf(CURVES, row, row.detail).detail;
  return row.shape === BALANCE.shape ? storedOf(BALANCE, row, row.detail).detail : undefined;
}

/** Curves of a result of Curves or Balance; undefined where it is another. */
export async function curvesOf({ database }: Context, id: number): Promise<ToneCurves | undefined> {
  const row = await findResult(database, id);
  const kept = row === undefined ? undefined : curvesKept(row);
  return kept === undefined ? undefined : keptToCurves(kept.curves);
}

export async function curvesOfResult(context: Context, id: number): Promise<ToneCurves> {
  const curves = await curvesOf(context, id);
  if (curves === undefined) throw new Error(`result ${id} has no curves`);
  return curves;
}

/** Zone corrections in force, by channel. */
export async function evennessInForce(
  context: Context,
  condition: number,
): Promise<{ readonly id: number; readonly zones: readonly (readonly number[])[] } | undefined> {
  const head = await storedHead(context, condition, EVENNESS);
  return head === undefined ? undefined : { id: head.row.id, zones: head.detail.zones };
}

/** What is known of the ramps that a print should show. */
export async function expectedRamps(context: Context, print: PrintRow): Promise<ExpectedRamps> {
  const curves =
    print.curvesResultId === null ? undefined : await curvesOfResult(context, print.curvesResultId);
  const head = await storedHead(context, print.conditionId, CURVES);
  // A borrowed calibration tells the response of the lender's stock, not of this one.
  const native =
    head !== undefined && head.row.conditionId === print.conditionId ? head.detail.native : undefined;
  return { curves, native: native === undefined ? undefined : keptToCurves(native) };
}

const MOST_PROFILES = 12;

/** The profile that a result holds, as it was parsed the first time. */
export function profileOfResult(context: Context, resultId: number): Promise<IccProfile> {
  return context.cache.keep('profile', MOST_PROFILES, context.database, resultId, async () => {
    const file = await findResultFile(context.database, resultId, 'profile');
    if (file === undefined)
      throw new Problem('conflict', 'The profile of this result is gone.', 'Build it again.');
    return unwrap(readIcc(file.content));
  });
}

/** The profile in force on a condition. */
export async function profileInForce(
  context: Context,
  condition: number,
): Promise<
  { readonly resultId: number; readonly version: number; readonly profile: IccProfile } | undefined
> {
  const head = await findHead(context.database, condition, 'profile');
  if (head === undefined) return undefined;
  return { resultId: head.id, version: head.version, profile: await profileOfResult(context, head.id) };
}
