import type { FloorRow } from '@melto/services/overview/floorRow';
import type { LinkMark } from '@melto/services/overview/marks';

const DAY_MS = 86_400_000;

export const FLOOR_NOW = Date.UTC(2026, 2, 14, 9);

const LINKS: readonly LinkMark['link'][] = ['limits', 'curves', 'balance', 'profile', 'conformity', 'watch'];

/** A condition on the floor; `state` is that of the link that is told apart. */
export function floorRow(
  id: number,
  change: Partial<FloorRow> = {},
  marks: Readonly<Partial<Record<LinkMark['link'], LinkMark['state']>>> = {},
): FloorRow {
  return {
    id,
    device: 'Heron',
    stock: `Stock ${id}`,
    mode: 'standard',
    inkSet: 'CMYK',
    whatNow: null,
    attention: 0,
    duty: null,
    ramps: [],
    links: LINKS.map((link) => ({ link, state: marks[link] ?? 'current', version: 1, madeMs: FLOOR_NOW })),
    check: { value: 1, limit: 2.5, verdict: 'conforms', madeMs: FLOOR_NOW - DAY_MS },
    watch: { spark: [0.2, 0.4], limit: 1.5, dueMs: FLOOR_NOW + 3 * DAY_MS, verdict: 'conforms' },
    ...change,
  };
}
