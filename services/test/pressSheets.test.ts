import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BarReading } from '@melto/core/press/barReading';
import type { Database } from '@melto/store/database';
import { openTestServices } from '../src/testing/testServices.ts';
import {
  FIGURES_OF_RUNS,
  findSheet,
  listSheetFigures,
  listSheetValues,
  storeSheet,
} from '@melto/store/pressSheets';

let database: Database;
beforeAll(async () => {
  ({ database } = await openTestServices('melto_press_sheets'));
  await database.transaction(async (sql) => {
    await sql.change('SET FOREIGN_KEY_CHECKS = 0');
    await sql.change(
      `INSERT INTO press_sheet (house_id, run_id, impression, phase, measured, figures, open_patches, outside, judged, read_ms)
       SELECT 1, 1 + MOD(seq, 100), seq, IF(seq > 3000, 'production', 'make-ready'), REPEAT('m', 56), REPEAT('f', 24), 0, 0, 2, seq FROM seq_1_to_6000`,
    );
    await sql.change('SET FOREIGN_KEY_CHECKS = 1');
  });
});
afterAll(() => database.close());

describe('sheets of a run', () => {
  it('are found for an analysis by their run, and not by a look at all', async () => {
    await database.rows('ANALYZE TABLE press_sheet');
    const [plan] = await database.rows<{ key: string | null; rows: number }>(
      `EXPLAIN ${FIGURES_OF_RUNS(2, false)}`,
      [1, 7, 8],
    );
    expect(plan.key).toBe('press_sheet_once');
    expect(Number(plan.rows)).toBeLessThan(400);
    expect(await listSheetFigures(database, [7, 8], undefined)).toHaveLength(120);
    expect(await listSheetFigures(database, [7], 'production')).toHaveLength(30);
    expect(await listSheetFigures(database, [], undefined)).toEqual([]);
  });

  it('come back as they were stored, with what was not read, and are replaced by what completes them', async () => {
    const reading: BarReading = {
      xyz: Float64Array.of(50, 51, 52, NaN, NaN, NaN),
      density: Float64Array.of(0.5, 0.25, 1, 1.5, NaN, NaN, NaN, NaN),
      grid: { startNm: 400, stepNm: 100, count: 4 },
      spectra: Float64Array.of(0.5, 0.25, 0.125, 1, NaN, NaN, NaN, NaN),
    };
    const sheet = {
      ...{
        reading,
        figures: Float64Array.of(1, 2, 3, NaN, NaN, NaN),
        impression: 9000,
        phase: 'production' as const,
      },
      ...{ openPatches: 1, outside: 0, judged: 1, spread: null, readMs: 5 },
    };
    await database.transaction(async (sql) => {
      await sql.change('SET FOREIGN_KEY_CHECKS = 0');
      await storeSheet(sql, 500, sheet);
      expect((await findSheet(sql, 500, 9000))?.reading).toEqual(reading);
      await storeSheet(sql, 500, {
        ...sheet,
        reading: { xyz: reading.xyz, density: reading.density },
        openPatches: 0,
        readMs: 7,
      });
      const [again] = await listSheetValues(sql, 500, 10);
      expect(again.reading.spectra).toBeUndefined();
      expect([again.openPatches, again.readMs]).toEqual([0, 5]);
      const [{ figures }] = await listSheetFigures(sql, [500], undefined);
      expect([...figures]).toEqual([1, 2, 3, NaN, NaN, NaN]);
      await sql.change('SET FOREIGN_KEY_CHECKS = 1');
    });
  });
});
