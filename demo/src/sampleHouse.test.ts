import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { floor } from '@melto/services/floor';
import { house } from '@melto/services/house';
import { openTestServices } from '@melto/services/testing/testServices';
import type { TestServices } from '@melto/services/testing/testServices';
import { loadSampleHouse } from './sampleHouse.ts';

let services: TestServices;
beforeAll(async () => {
  services = await openTestServices('melto_demo');
});
afterAll(() => services.database.close());

describe('sample house', () => {
  it('has a condition in each state and says how far its loading is', async () => {
    const fractions: number[] = [];
    await loadSampleHouse(services, (fraction) => fractions.push(fraction));
    for (let i = 1; i < fractions.length; i++) expect(fractions[i]).toBeGreaterThanOrEqual(fractions[i - 1]);
    expect(fractions.at(-1)).toBe(1);
    const { rows } = await floor(services);
    expect(rows.map(({ whatNow }) => whatNow?.words ?? 'nothing')).toEqual([
      'Print again: colour management was on',
      'Print again: colour management was on',
      'Do another round',
      'Read 13 more strips',
      'Print a profiling chart',
      'Print a short check',
      '2 sheets rest',
      'nothing',
      'nothing',
    ]);
    expect(rows.at(-1)?.check?.verdict).toBe('conforms');
    for (const row of rows.filter(({ whatNow }) => whatNow === null))
      expect([...new Set(row.ramps.map((ramp) => ramp.length))]).toEqual([9]);
    const states = rows
      .filter(({ device }) => device === 'Heron')
      .map(({ stock, links }) => `${stock}: ${links.map(({ state }) => state).join(' ')}`);
    expect(states).toEqual([
      'Fenland Smooth 120: none none none none',
      'Marsh Silk 130: current current current none',
      'Lantern Gloss 150: current conforms conforms current',
    ]);
    const { slips, instrument } = await house(services);
    expect(slips.map(({ state }) => state).sort()).toEqual(['partly read', 'resting', 'resting']);
    expect(slips[0].thumbnail).toHaveLength(36);
    expect(instrument?.name).toBe('Strip reader 2');
  });

  it('does nothing twice', async () => {
    const count = async (): Promise<unknown> =>
      database(
        'SELECT (SELECT COUNT(*) FROM print) AS prints, (SELECT COUNT(*) FROM strip_reading) AS strips, (SELECT COUNT(*) FROM result) AS results',
      );
    const database = (sql: string): Promise<unknown[]> => services.database.rows(sql);
    const before = await count();
    await loadSampleHouse(services, () => {});
    expect(await count()).toEqual(before);
  });
});
