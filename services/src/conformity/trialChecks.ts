import { isSpot } from '@melto/core/conformity/checkDetail';
import { listNewestOfShape } from '@melto/store/results';
import { AIM_CHECK } from '../ledger/kinds/aimCheckKind.ts';
import { storedOf } from '../ledger/resultKind.ts';
import type { Context } from '../kernel/context.ts';

/** A past check with what tolerances are tried on: its colours, already corrected where they were. */
export interface TrialCheck {
  readonly id: number;
  readonly condition: string;
  readonly code: string;
  readonly madeMs: number;
  readonly tolerances: string;
  readonly verdict: string;
  readonly patches: readonly {
    readonly device: readonly number[];
    /** Name of the spot colour that it is. */
    readonly spot?: string;
    readonly aim: readonly number[];
    readonly measured: readonly number[];
    readonly estimated: boolean;
  }[];
}

const MOST = 24;

/** The latest checks against aims, over all conditions. */
export async function trialChecks(context: Context): Promise<TrialCheck[]> {
  const rows = await listNewestOfShape(context.database, AIM_CHECK.shape, MOST);
  const round = (values: readonly number[]): number[] => values.map((value) => Math.round(value * 1e4) / 1e4);
  return rows.map((row) => {
    const { id, madeMs } = row;
    const { header, patches, verdict } = storedOf(AIM_CHECK, row, row.detail).detail;
    return {
      id,
      condition: header.condition,
      code: header.sheet,
      madeMs,
      tolerances: header.tolerances.name,
      verdict,
      patches: patches.map(({ name, device, aim, measured, origin }) => ({
        ...(isSpot({ device }) ? { spot: name } : {}),
        device: device.map((value) => value / 100),
        aim: round(aim),
        measured: round(measured),
        estimated: origin === 'completed',
      })),
    };
  });
}
