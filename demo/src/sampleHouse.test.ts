import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { installedCharacterisations } from '@melto/paper/measured/installedCharacterisations';
import { registerPublishedAims } from '@melto/services/conformity/aimSets';
import { floor } from '@melto/services/overview/floor';
import { house } from '@melto/services/house/house';
import { libraryInkSets } from '@melto/services/house/inkSets';
import { libraryDevices, libraryStocks } from '@melto/services/house/library';
import { versionsOf } from '@melto/services/ledger/versions';
import { standingOf } from '@melto/services/overview/standing';
import { openTestServices } from '@melto/services/testing/testServices';
import type { TestServices } from '@melto/services/testing/testServices';
import { loadSampleHouse } from './sampleHouse.ts';
import { THIN } from './sampleSize.ts';

let services: TestServices;
beforeAll(async () => {
  services = await openTestServices('melto_demo');
  // As ./start does: the full characterisations that this machine has.
  await registerPublishedAims(services, installedCharacterisations());
});
afterAll(() => services.database.close());

/** A guard against hanging, many times what loading takes: it begins with the run, beside everything else. */
const LOADING_MS = 1_200_000;

describe('sample house', () => {
  it(
    'has a condition in each state and says how far its loading is',
    async () => {
      const fractions: number[] = [];
      await loadSampleHouse(services, (fraction) => fractions.push(fraction), THIN);
      for (let i = 1; i < fractions.length; i++)
        expect(fractions[i]).toBeGreaterThanOrEqual(fractions[i - 1]);
      expect(fractions.at(-1)).toBe(1);
      expect((await libraryDevices(services)).every(({ facts }) => facts.pages !== undefined)).toBe(true);
      expect((await libraryStocks(services)).every(({ facts }) => facts.weightGsm !== undefined)).toBe(true);
      expect((await libraryInkSets(services)).every(({ kind }) => kind !== '')).toBe(true);
      const { rows } = await floor(services);
      expect(rows.map(({ whatNow }) => whatNow?.words ?? 'nothing')).toEqual([
        'See why it does not conform',
        'Print again: colour management was on',
        'Print again: colour management was on',
        'Do the watch check: overdue 5 d',
        'See what has moved',
        'Do another round',
        'Read 13 more strips',
        'Print a check',
        '2 sheets rest',
      ]);
      const states = rows
        .filter(({ device }) => device !== 'Osprey')
        .map(
          ({ device, stock, mode, links }) =>
            `${device}, ${stock}, ${mode}: ${links.map(({ state }) => state).join(' ')}`,
        );
      expect(states).toContain(
        'Heron, Marsh Silk 130, standard: current current current none does-not-conform none',
      );
      const gloss = states.find((words) => words.startsWith('Heron, Lantern Gloss 150')) ?? '';
      // The magenta weakens: the watch has seen it, and no check has failed yet.
      expect(gloss).toMatch(/: current \S+ \S+ current conforms near$/);
      expect(states).toContain('Wren, Quay Proof 200, fine: current conforms due');
      const heron = rows.find(({ device, stock }) => device === 'Heron' && stock === 'Lantern Gloss 150');
      expect(heron?.watch?.spark.length).toBeGreaterThan(15);
      const standing = await standingOf(services, heron?.id ?? 0);
      expect(standing.watch?.cause).toContain('Magenta has moved');
      const checks = await versionsOf(services, heron?.id ?? 0, 'conformity');
      expect(checks.map(({ verdict }) => verdict)).toEqual([
        'does-not-conform',
        'conforms',
        'conforms',
        'conforms',
      ]);
      const { slips, instruments } = await house(services);
      expect(slips.map(({ state }) => state).sort()).toEqual(['partly read', 'resting', 'resting']);
      expect(slips[0].thumbnail).toHaveLength(36);
      expect(instruments.map(({ name }) => name)).toContain('Strip reader 2');
    },
    LOADING_MS,
  );

  it(
    'does nothing twice',
    async () => {
      const count = async (): Promise<unknown> =>
        database(
          'SELECT (SELECT COUNT(*) FROM print) AS prints, (SELECT COUNT(*) FROM strip_reading) AS strips, (SELECT COUNT(*) FROM result) AS results',
        );
      const database = (sql: string): Promise<unknown[]> => services.database.rows(sql);
      const before = await count();
      await loadSampleHouse(services, () => {}, THIN);
      expect(await count()).toEqual(before);
    },
    LOADING_MS,
  );
});
