import { channelCount } from '@melto/core/device/process';
import type { StripPatches } from '@melto/core/device/instrument';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import type { Context } from '../kernel/context.ts';
import { Problem } from '../kernel/problem.ts';
import { deskData, requirePatch, requireStrip } from './deskData.ts';
import type { DeskData } from './deskData.ts';
import { isOwnDevice } from '../ledger/conditions.ts';
import { instrumentOf } from './instruments.ts';
import type { InstrumentRow } from './instruments.ts';

/** Whether a simulated device printed a sheet, and its simulator is there. */
export function isSimulatedSheet({ under }: Context, { condition }: Pick<DeskData, 'condition'>): boolean {
  return under !== undefined && !isOwnDevice(condition);
}

export interface UnderAsked {
  readonly strip: number;
  /** One patch of it, counted from 1; the strip without it. */
  readonly patch?: number;
  readonly instrument: number;
}

/**
 * What lies under a simulated instrument that reads a strip of a sheet: text that the desk hands to the bridge as it is.
 * Real instruments see for themselves.
 */
export async function underInstrument(
  context: Context,
  code: string,
  asked: UnderAsked,
): Promise<{ readonly under: string }> {
  const { instrument, ...place } = asked;
  const data = await deskData(context, code);
  return { under: await underOf(context, data, await instrumentOf(context, instrument), place) };
}

/** The same for a sheet and an instrument that are at hand already. */
export async function underOf(
  context: Context,
  { sheet, print, chart, condition }: DeskData,
  { tileMs }: Pick<InstrumentRow, 'tileMs'>,
  { strip, patch }: Omit<UnderAsked, 'instrument'>,
): Promise<string> {
  const { code } = sheet;
  const strips = chart.layout.pages[sheet.page - 1];
  requireStrip(code, strip, strips.length);
  if (context.under === undefined || !isSimulatedSheet(context, { condition }))
    throw new Problem(
      'bad-input',
      `${code} was printed at a real device: no simulated instrument reads it.`,
      'Read it with a real instrument, or give its measurements from a file.',
    );
  const rows = strips[strip - 1];
  if (patch !== undefined) requirePatch(strip, patch, rows.length);
  const changes = await context.circumstances(context, condition.id);
  const patchesOf = (index: number, only: readonly number[]): StripPatches => ({
    device: gatherRows(print.deviceValues, only, channelCount(condition.process)),
    page: sheet.page,
    strip: index + 1,
    strips: strips.length,
  });
  return context.under({
    printState: sheet.printState,
    patches: patchesOf(strip - 1, patch === undefined ? rows : [rows[patch - 1]]),
    otherPatches: patchesOf(strip % strips.length, strips[strip % strips.length]),
    tileMs: tileMs ?? undefined,
    biasFromMs: changes.find(({ kind }) => kind === 'instrument')?.fromMs,
  });
}
