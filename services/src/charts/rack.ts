import { countRack, listRack, listSheets, setOnRack } from '@melto/store/prints';
import type { ChartPurpose } from '@melto/store/charts';
import type { SheetRow } from '@melto/store/prints';
import type { Page } from '@melto/store/page';
import type { ListAsked } from '../kernel/page.ts';
import { clockOffset, domainNow } from '../kernel/clock.ts';
import type { Context } from '../kernel/context.ts';
import { notFound } from '../kernel/problem.ts';

export type SheetState = 'resting' | 'ready' | 'partly read';

/** A slip of the rack. */
export interface RackSlip {
  readonly code: string;
  readonly conditionId: number;
  readonly title: string;
  readonly page: number;
  readonly strips: number;
  readonly stripsRead: number;
  readonly printedMs: number;
  readonly restUntilMs: number;
  readonly thumbnail: readonly string[];
  readonly state: SheetState;
}

export interface RackState {
  /** Domain time of the answer, and how far it runs ahead of real time. */
  readonly nowMs: number;
  readonly offsetMs: number;
  /** The first that wait, and how many wait in all. */
  readonly slips: readonly RackSlip[];
  readonly waiting: number;
}

/** Slips that a rack has room for. */
const SHOWN = 60;

export async function rack(context: Context): Promise<RackState> {
  const [offsetMs, { rows }, waiting] = await Promise.all([
    clockOffset(context),
    listRack(context.database, { limit: SHOWN }),
    countRack(context.database),
  ]);
  const nowMs = context.now() + offsetMs;
  return { nowMs, offsetMs, slips: rows.map((sheet) => slipOf(sheet, nowMs)), waiting };
}

/** What a sheet waits for. */
export function sheetState(
  { stripsRead, restUntilMs }: Pick<SheetRow, 'stripsRead' | 'restUntilMs'>,
  nowMs: number,
): SheetState {
  if (stripsRead > 0) return 'partly read';
  return nowMs < restUntilMs ? 'resting' : 'ready';
}

function slipOf(sheet: SheetRow, nowMs: number): RackSlip {
  const { code, conditionId, title, page, strips, stripsRead, printedMs, restUntilMs, thumbnail } = sheet;
  return {
    ...{ code, conditionId, title, page, strips, stripsRead, printedMs, restUntilMs, thumbnail },
    state: sheetState(sheet, nowMs),
  };
}

export interface SheetOfCondition extends RackSlip {
  readonly id: number;
  readonly purpose: ChartPurpose;
  /** What a job's picture has values of; null for other sheets. */
  readonly job: string | null;
  readonly onRack: boolean;
  readonly printId: number;
}

const PAGE = 100;

/** Sheets of a condition, the latest first. */
export async function sheetsOf(
  context: Context,
  condition: number,
  asked: ListAsked = {},
): Promise<Page<SheetOfCondition>> {
  const nowMs = await domainNow(context);
  const { rows, next } = await listSheets(context.database, condition, { ...asked, limit: PAGE });
  return {
    rows: rows.map((sheet) => ({
      ...slipOf(sheet, nowMs),
      id: sheet.id,
      purpose: sheet.purpose,
      job: sheet.purpose === 'job' ? sheet.processName : null,
      onRack: sheet.onRack,
      printId: sheet.printId,
    })),
    next,
  };
}

/** Throws a sheet away (or takes it back); what was read of it stays. */
export async function discardSheet({ database }: Context, code: string, onRack: boolean): Promise<void> {
  if (!(await setOnRack(database, code, onRack))) throw notFound(`sheet ${code}`);
}
