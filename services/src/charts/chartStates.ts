import { listChartPrints } from '@melto/store/charts';
import type { ChartPrints, ChartPurpose, ChartRow } from '@melto/store/charts';
import type { Context } from '../kernel/context.ts';

export interface ChartState extends ChartRow, ChartPrints {
  readonly state: 'made' | 'waits' | 'read' | 'thrown away';
}

/** Charts of a condition for a purpose, the newest first, with where each stands. */
export async function chartStates(
  { database }: Context,
  condition: number,
  purpose: ChartPurpose,
  limit: number,
): Promise<ChartState[]> {
  const rows = await listChartPrints(database, condition, purpose, limit);
  return rows.map((row) => ({ ...row, state: stateOf(row) }));
}

function stateOf({ prints, strips, stripsRead, waiting }: ChartPrints): ChartState['state'] {
  if (prints === 0) return 'made';
  if (waiting !== null) return 'waits';
  return stripsRead === 0 && strips > 0 ? 'thrown away' : 'read';
}
