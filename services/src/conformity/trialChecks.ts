import { isSpot } from '@melto/core/conformity/checkDetail';
import type { CheckDetail } from '@melto/core/conformity/checkDetail';
import type { Services } from '../kernel/context.ts';

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
  }[];
}

const MOST = 24;

/** The latest checks against aims, over all conditions. */
export async function trialChecks(services: Services): Promise<TrialCheck[]> {
  const rows = await services.database.rows<{ id: number; madeMs: number; detail: string }>(
    `SELECT r.id, r.made_ms AS madeMs, r.detail FROM result r
     WHERE r.link = 'conformity' AND r.summary LIKE '{"kind":"aims"%' ORDER BY r.id DESC LIMIT ?`,
    [MOST],
  );
  const round = (values: readonly number[]): number[] => values.map((value) => Math.round(value * 1e4) / 1e4);
  return rows.map(({ id, madeMs, detail }) => {
    const { header, patches, verdict } = JSON.parse(detail) as CheckDetail;
    return {
      id,
      condition: header.condition,
      code: header.sheet,
      madeMs,
      tolerances: header.tolerances.name,
      verdict,
      patches: patches.map(({ name, device, aim, measured }) => ({
        ...(isSpot({ device }) ? { spot: name } : {}),
        device: device.map((value) => value / 100),
        aim: round(aim),
        measured: round(measured),
      })),
    };
  });
}
