import type { ExpectedRamps } from '@melto/core/faults/rampResponse';
import { PROCESS_INKS } from '@melto/core/tone/toneMeasure';
import { isToneCurve, straightCurve } from '@melto/core/tone/toneCurve';
import type { ToneCurves } from '@melto/core/tone/toneCurve';
import type { Sql } from '@melto/store/database';
import { findResult, listHeads } from '@melto/store/results';
import type { HeadRow } from '@melto/store/results';
import type { PrintRow } from '@melto/store/prints';

/** What results of Curves and Balance keep of their curves. */
export interface KeptCurves {
  /** By channel C, M, Y, K; 257 outputs each, rounded to 1e-6. */
  readonly curves: readonly (readonly number[])[];
  /** The device's own spot colour tone value by device value. */
  readonly native?: readonly (readonly number[])[];
}

export const roundCurves = (curves: ToneCurves): number[][] =>
  curves.map((curve) => Array.from(curve, (value) => Math.round(value * 1e6) / 1e6));

export const keptToCurves = (kept: readonly (readonly number[])[]): ToneCurves =>
  kept.map((values) => {
    if (!isToneCurve(values)) throw new Error('a stored curve is none');
    return Float64Array.from(values);
  });

export const identityCurves = (): ToneCurves => PROCESS_INKS.map(() => straightCurve());

/** The one set of curves in force: Balance starts from Curves and replaces their aim. */
export function curvesAmong(heads: readonly HeadRow[]): HeadRow | undefined {
  return heads.find(({ link }) => link === 'balance') ?? heads.find(({ link }) => link === 'curves');
}

export async function curvesInForce(sql: Sql, condition: number): Promise<HeadRow | undefined> {
  return curvesAmong(await listHeads(sql, condition));
}

export async function curvesOfResult(sql: Sql, id: number): Promise<ToneCurves> {
  const row = await findResult(sql, id);
  if (row === undefined || (row.link !== 'curves' && row.link !== 'balance'))
    throw new Error(`result ${id} has no curves`);
  return keptToCurves((JSON.parse(row.detail) as KeptCurves).curves);
}

/** Zone corrections in force, by channel. */
export async function evennessInForce(
  sql: Sql,
  condition: number,
): Promise<{ readonly id: number; readonly zones: readonly (readonly number[])[] } | undefined> {
  const head = (await listHeads(sql, condition)).find(({ link }) => link === 'evenness');
  const row = head === undefined ? undefined : await findResult(sql, head.id);
  if (row === undefined) return undefined;
  const detail = JSON.parse(row.detail) as { readonly zones: readonly (readonly number[])[] };
  return { id: row.id, zones: detail.zones };
}

/** What is known of the ramps that a print should show. */
export async function expectedRamps(sql: Sql, print: PrintRow): Promise<ExpectedRamps> {
  const curves = print.curvesResultId === null ? undefined : await curvesOfResult(sql, print.curvesResultId);
  const head = (await listHeads(sql, print.conditionId)).find(({ link }) => link === 'curves');
  // A borrowed calibration tells the response of the lender's stock, not of this one.
  const own =
    head !== undefined && head.conditionId === print.conditionId ? await findResult(sql, head.id) : undefined;
  const native = own === undefined ? undefined : (JSON.parse(own.detail) as KeptCurves).native;
  return { curves, native: native === undefined ? undefined : keptToCurves(native) };
}
