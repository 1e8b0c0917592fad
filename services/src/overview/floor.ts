import type { FloorFilter, FloorOrder } from '@melto/core/judgement/floorFilter';
import { modeName } from '@melto/core/device/modeName';
import type { Process } from '@melto/core/device/process';
import { findConditions, listConditionNames } from '@melto/store/conditions';
import type { ConditionName, ConditionRow } from '@melto/store/conditions';
import { listDevices } from '@melto/store/devices';
import { listBusyConditions } from '@melto/store/jobs';
import { listRackPlaces } from '@melto/store/prints';
import type { RackPlace } from '@melto/store/prints';
import { listNewestReadings } from '@melto/store/readings';
import { listReachedMarks } from '@melto/store/reached';
import { listHeadMarks, listHeadsOf, listHeadSources } from '@melto/store/results';
import type { HeadRow } from '@melto/store/results';
import { listWatchStates } from '@melto/store/watches';
import { sheetState } from '../charts/rack.ts';
import { domainNow } from '../kernel/clock.ts';
import type { Context } from '../kernel/context.ts';
import { dueDuty } from '../ledger/deviceDuty.ts';
import { linksOf } from '../ledger/links.ts';
import { markKey, staleMarks } from '../ledger/staleMarks.ts';
import { linkMark } from './marks.ts';
import type { LinkMark } from './marks.ts';
import { nextMove } from './nextMove.ts';
import type { Move } from './nextMove.ts';

import { floorOrders } from './floorOrder.ts';
import type { Weighed } from './floorOrder.ts';
import { checkOf, rampsOf, watchOf } from './floorRow.ts';
import type { FloorRow } from './floorRow.ts';

/** What the sentences above the floor count, over all conditions. */
export interface FloorCounts {
  readonly conditions: number;
  /** Conditions with a link that does not conform, and with one that is due. */
  readonly fails: number;
  readonly due: number;
  /** Sheets that can be read, and that rest. */
  readonly ready: number;
  readonly resting: number;
  /** When the last of those that rest is ready. */
  readonly restUntilMs: number;
}

export interface FloorAsked {
  readonly show?: FloorFilter;
  readonly order?: FloorOrder;
  /** Words that device, stock and mode hold all of. */
  readonly find?: string;
  /** The condition that the page before ended with. */
  readonly after?: number;
  readonly limit?: number;
}

export interface FloorState {
  readonly nowMs: number;
  readonly counts: FloorCounts;
  readonly rows: readonly FloorRow[];
  /** The condition that the next page comes after; null after the last. */
  readonly next: number | null;
}

const PAGE = 100;

/** All that orders the floor is looked at of each condition; what fills a row, of those that are shown. */
export async function floor(
  context: Context,
  { show, order = 'attention', find = '', after, limit = PAGE }: FloorAsked = {},
): Promise<FloorState> {
  const { database } = context;
  const nowMs = await domainNow(context);
  const [places, standings] = await Promise.all([listRackPlaces(database), standingsOf(context, nowMs)]);
  const sheets = grouped(places, ({ conditionId }) => conditionId);
  const weighed = standings.map(({ name, facts }) => {
    const { move, attention } = nextMove({ ...facts, sheets: sheets.get(name.id) ?? [] });
    return { name, facts, move, attention };
  });
  const ready = places.filter((place) => sheetState(place, nowMs) !== 'resting');
  const resting = places.filter((place) => sheetState(place, nowMs) === 'resting');
  const marked = (links: readonly LinkMark[], state: LinkMark['state']): boolean =>
    links.some((mark) => mark.state === state);
  const shows: Readonly<Record<FloorFilter, (row: (typeof weighed)[number]) => boolean>> = {
    fails: ({ facts }) => marked(facts.links, 'does-not-conform'),
    due: ({ facts }) => marked(facts.links, 'due'),
    ready: within(ready),
    rest: within(resting),
  };
  const counts: FloorCounts = {
    conditions: weighed.length,
    fails: weighed.filter(shows.fails).length,
    due: weighed.filter(shows.due).length,
    ready: ready.length,
    resting: resting.length,
    restUntilMs: resting.reduce((last, { restUntilMs }) => Math.max(last, restUntilMs), 0),
  };
  const compare = floorOrders(standings.map(({ name }) => name))[order];
  const words = find.toLowerCase().match(/\S+/g) ?? [];
  const found = ({ name }: Weighed): boolean => {
    if (words.length === 0) return true;
    const text = `${name.device} ${name.stock} ${modeName(name)}`.toLowerCase();
    return words.every((word) => text.includes(word));
  };
  const sorted = weighed
    .filter((row) => found(row) && (show === undefined || shows[show](row)))
    .sort(compare);
  const from = after === undefined ? 0 : sorted.findIndex(({ name }) => name.id === after) + 1;
  const shown = sorted.slice(from, from + limit);
  const rows = await rowsOf(context, shown);
  return { nowMs, counts, rows, next: from + limit < sorted.length ? (shown.at(-1)?.name.id ?? null) : null };
}

/** Conditions that some sheets belong to. */
function within(places: readonly RackPlace[]): (row: { readonly name: ConditionName }) => boolean {
  const ids = new Set(places.map(({ conditionId }) => conditionId));
  return ({ name }) => ids.has(name.id);
}

type Facts = Omit<Parameters<typeof nextMove>[0], 'sheets'>;

/** What is known of each condition, by the least that its marks and its next move follow from. */
async function standingsOf(
  context: Context,
  nowMs: number,
): Promise<{ readonly name: ConditionName; readonly facts: Facts }[]> {
  const { database } = context;
  const [names, devices, heads, sources, reached, busy, watches, readings] = await Promise.all([
    listConditionNames(database),
    listDevices(database),
    listHeadMarks(database),
    listHeadSources(database),
    listReachedMarks(database),
    listBusyConditions(database),
    listWatchStates(database),
    listNewestReadings(database, ['profile', 'ramps', 'near-neutral']),
  ]);
  const processes = new Map<number, Process>(devices.map(({ id, process }) => [id, process]));
  const headsOf = grouped(heads, ({ headConditionId }) => headConditionId);
  const stale = staleMarks(heads, sources);
  const reachedOf = new Map(
    reached.map(({ conditionId, link, verdict }) => [markKey(conditionId, link), verdict]),
  );
  const watchOf = new Map(watches.map((row) => [row.conditionId, row]));
  const readingOf = new Map(readings.map((row) => [row.conditionId, row]));
  const atWork = new Set(busy);
  return names.map((name) => {
    const conditionId = name.id;
    const process = processes.get(name.deviceId);
    if (process === undefined) throw new Error(`condition ${conditionId} has no device`);
    const own = headsOf.get(conditionId) ?? [];
    const watch = watchOf.get(conditionId);
    const links = linksOf(process).map((link): LinkMark => {
      const head = own.find((row) => row.link === link);
      if (head === undefined) return { link, state: 'none' };
      const key = markKey(conditionId, link);
      const { id: resultId, verdict: stored, madeMs, validDays } = head;
      const reachedNow = reachedOf.get(key);
      const standing = {
        link,
        resultId,
        stored,
        reached: reachedNow,
        stale: stale.has(key),
        madeMs,
        validDays,
      };
      return { link, state: linkMark(standing, watch, nowMs) };
    });
    const reading = readingOf.get(conditionId);
    const facts = { conditionId, process, links, busy: atWork.has(conditionId), watch, nowMs, reading };
    return { name, facts };
  });
}

/** Rows by a key; of many conditions none is looked through twice. */
function grouped<T>(rows: readonly T[], keyOf: (row: T) => number): Map<number, T[]> {
  const out = new Map<number, T[]>();
  for (const row of rows) {
    const own = out.get(keyOf(row));
    if (own === undefined) out.set(keyOf(row), [row]);
    else own.push(row);
  }
  return out;
}

async function rowsOf(
  { database }: Context,
  shown: readonly (Move & { readonly name: ConditionName; readonly facts: Facts })[],
): Promise<FloorRow[]> {
  const ids = shown.map(({ name }) => name.id);
  const [conditions, heads] = await Promise.all([findConditions(database, ids), listHeadsOf(database, ids)]);
  const conditionBy = new Map(conditions.map((row) => [row.id, row]));
  const headsOf = grouped(heads, ({ headConditionId }) => headConditionId);
  return shown.flatMap(({ name, facts, move, attention }) => {
    const condition = conditionBy.get(name.id);
    return condition === undefined
      ? []
      : [rowOf(condition, headsOf.get(name.id) ?? [], facts, { move, attention })];
  });
}

function rowOf(
  condition: ConditionRow,
  heads: readonly HeadRow[],
  { links, watch, nowMs }: Facts,
  { move, attention }: Move,
): FloorRow {
  const { id, device, stock, inkSet } = condition;
  return {
    ...{ id, device, stock, inkSet, attention, links },
    mode: modeName(condition),
    whatNow: move,
    duty: dueDuty(condition, nowMs)?.words ?? null,
    // Borrowed curves tell the ramps of another stock.
    ramps: rampsOf(heads.filter(({ conditionId }) => conditionId === id)),
    check: checkOf(heads.find(({ link }) => link === 'conformity')),
    watch: watchOf(
      heads.find(({ link }) => link === 'watch'),
      watch,
    ),
  };
}
