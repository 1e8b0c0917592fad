import { failure, success } from '../result.ts';
import type { Result } from '../result.ts';
import { PROCESS_INKS } from '../tone/toneMeasure.ts';
import { MOST_CORRECTION, ZONES } from './evenness.ts';

/** Corrections by channel C, M, Y, K and zone, shares of density. */
export type ZoneCorrections = readonly (readonly number[])[];

/** Corrections as CSV: zone and a column an ink, per cent of density. */
export function zonesToCsv(zones: ZoneCorrections): string {
  const rows = Array.from({ length: ZONES }, (_, zone) =>
    [String(zone + 1), ...zones.map((ink) => (100 * ink[zone]).toFixed(4))].join(','),
  );
  return [['zone', ...PROCESS_INKS].join(','), ...rows, ''].join('\r\n');
}

export function zonesFromCsv(text: string): Result<ZoneCorrections> {
  const lines = text
    .slice(0, 20_000)
    .split(/\r\n|\n|\r/)
    .filter((line) => line.trim() !== '');
  const head = ['zone', ...PROCESS_INKS].join(',');
  if (lines[0]?.trim() !== head)
    return failure({
      code: 'zones.head',
      line: 1,
      expected: head,
      found: `"${(lines[0] ?? '').slice(0, 40)}"`,
    });
  if (lines.length !== ZONES + 1)
    return failure({
      code: 'zones.rows',
      line: lines.length,
      expected: `${ZONES} rows`,
      found: `${lines.length - 1}`,
    });
  const zones = PROCESS_INKS.map((): number[] => []);
  for (const [i, line] of lines.slice(1).entries()) {
    const cells = line
      .split(',')
      .slice(1)
      .map((cell) => (cell.trim() === '' ? NaN : Number(cell)));
    if (
      cells.length !== PROCESS_INKS.length ||
      cells.some((cell) => !(Math.abs(cell) <= 100 * MOST_CORRECTION))
    )
      return failure({
        code: 'zones.value',
        line: i + 2,
        expected: `four corrections of ${-100 * MOST_CORRECTION} to ${100 * MOST_CORRECTION} per cent`,
        found: `"${line.slice(0, 40)}"`,
      });
    cells.forEach((cell, ink) => zones[ink].push(cell / 100));
  }
  return success(zones);
}
