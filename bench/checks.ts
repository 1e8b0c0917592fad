import { join } from 'node:path';
import { controlWedge } from '@melto/core/charts/controlWedge';
import { floor } from '@melto/services/overview/floor';
import { composeServices, registerDrivers } from '@melto/services/composition';
import { conditionView } from '@melto/services/overview/conditionView';
import { standingOf } from '@melto/services/overview/standing';
import { AIM_CHECK } from '@melto/services/ledger/kinds/aimCheckKind';
import { WATCH } from '@melto/services/ledger/kinds/watchKind';
import { settleWatchById } from '@melto/services/watch/settleWatch';
import { watchView } from '@melto/services/watch/watchView';
import { watchCharts } from '@melto/core/watch/watchCharts';
import { simulateWatch } from '@melto/simulator/simulateWatch';
import type { Database } from '@melto/store/database';
import { openDatabase } from '@melto/store/database';
import { migrate } from '@melto/store/migrate';
import { encodeValues } from '@melto/store/valueBlock';
import { printTable } from './table.ts';

const CONDITIONS = 2000;
const CHECKS = 100_000;
const DAY_MS = 86_400_000;
/** Two years of one check a day on the condition whose chart is timed. */
const LONG = 730;

/** The floor and a watch chart of two years over 100,000 checks; run by scripts/withTestDatabase.sh. */
export async function checks(): Promise<void> {
  const url = process.env['MELTO_TEST_DATABASE_URL'];
  if (url === undefined) {
    console.log('checks: run by scripts/withTestDatabase.sh');
    return;
  }
  const admin = openDatabase(url);
  await admin.change('DROP DATABASE IF EXISTS melto_bench');
  await admin.change('CREATE DATABASE melto_bench');
  await admin.close();
  const services = composeServices(url.replace(/\/[^/]*$/, '/melto_bench'));
  await migrate(services.database, join(import.meta.dirname, '../store/migrations'));
  await registerDrivers(services);
  await fill(services.database, services.now());
  const rows: (string | number)[][] = [];
  const time = async (name: string, work: () => Promise<unknown>): Promise<void> => {
    const times: number[] = [];
    for (let i = 0; i < 6; i++) {
      const from = performance.now();
      await work();
      times.push(performance.now() - from);
    }
    rows.push([name, times[0], Math.min(...times.slice(1)), Math.max(...times.slice(1))]);
  };
  await time('floor', () => floor(services));
  await time('condition', () => conditionView(services, 1));
  await time('standing', () => standingOf(services, 1));
  await time('watch of two years, data', () => watchView(services, 1));
  const view = await watchView(services, 1);
  const figures = view.checks.map((check) => Float64Array.from(check.figures));
  const last = view.checks.at(-1)?.madeMs ?? 0;
  await time('its latest check, judged', () =>
    services.database.transaction((inner) => settleWatchById(inner, view.watch?.id ?? 0, last)),
  );
  await time(`its control charts, ${figures.length} checks`, async () => watchCharts(figures));
  printTable(
    `${CHECKS} watch checks and ${CHECKS} conformity checks on ${CONDITIONS} conditions, ms`,
    ['', 'first', 'least', 'most'],
    rows,
  );
  await services.database.close();
}

/** Fills the tables directly: rows as the services would write them, with few details. */
async function fill(sql: Database, nowMs: number): Promise<void> {
  const [device] = await sql.rows<{ id: number }>("SELECT id FROM device WHERE name = 'Heron'");
  const [stock] = await sql.rows<{ id: number }>("SELECT id FROM stock WHERE name = 'Lantern Gloss 150'");
  await many(
    sql,
    'printing_condition (id, device_id, stock_id, ink_set, mode, author_id, made_ms)',
    CONDITIONS,
    (i) => [i + 1, device.id, stock.id, 'CMYK', `mode ${i + 1}`, 1, 0],
  );
  await many(
    sql,
    'chart (id, condition_id, purpose, kind, process, title, patches, paper, seed, reference, author_id, made_ms)',
    CONDITIONS,
    (i) => [i + 1, i + 1, 'wedge', 'watch', 'CMYK', 'Watch wedge', 42, 'a4', 1, '', 1, 0],
  );
  const values = encodeValues(controlWedge('watch').device);
  const conditionOf = (i: number): number => (i < LONG ? 1 : 2 + ((i - LONG) % (CONDITIONS - 1)));
  const timeOf = (i: number): number =>
    nowMs - DAY_MS * (i < LONG ? LONG - i : 7 * (60 - Math.floor((i - LONG) / (CONDITIONS - 1))));
  await many(
    sql,
    'print (id, condition_id, chart_id, code, device_values, ticks, printed_ms, rest_until_ms, author_id)',
    CHECKS,
    (i) => [i + 1, conditionOf(i), conditionOf(i), `BEN-${i + 1}`, values, '[]', timeOf(i), timeOf(i), 1],
  );
  await many(sql, 'reading (id, print_id, source, mode, started_ms, finished_ms, author_id)', CHECKS, (i) => [
    i + 1,
    i + 1,
    'desk',
    'M1',
    timeOf(i),
    timeOf(i),
    1,
  ]);
  const schedule = { everyDays: 7, expiresDays: 14, meanLimit: 1.5, largestLimit: 3 };
  const summary = JSON.stringify({ ...schedule, readings: 3, code: 'BEN-1' });
  const steady = simulateWatch({
    device: 'heron',
    stock: 'lantern-gloss-150',
    printMode: 'standard',
    seed: 1,
    firstMs: 0,
    everyMs: DAY_MS,
    checks: 60,
    changes: [],
  });
  const detail = JSON.stringify({
    ...schedule,
    readings: [1, 2, 3],
    zero: [...steady[0]],
    judgedBy: null,
  });
  await many(
    sql,
    'result (id, condition_id, link, shape, shape_version, version, summary, detail, author_id, made_ms)',
    CONDITIONS,
    (i) => [i + 1, i + 1, 'watch', WATCH.shape, WATCH.version, 1, summary, detail, 1, nowMs],
  );
  const check = JSON.stringify({
    ...{ kind: 'aims', value: 1, limit: 2, name: 'x', mean: 1, corrected: false },
    ...{ tolerances: 'own', aims: 'own', code: 'BEN-1' },
  });
  const judged = JSON.stringify({
    ...{ kind: 'aims', verdict: 'conforms', metrics: [{ limit: 2, verdict: 'conforms' }] },
    header: { condition: 'x', sheet: 'BEN-1', madeMs: nowMs },
    patches: [{ device: [0, 0, 0, 0], aim: [95, 0, 0], measured: [95, 0, 1], deltaE: 1 }],
  });
  await many(
    sql,
    'result (id, condition_id, link, shape, shape_version, version, verdict, summary, detail, author_id, made_ms)',
    CHECKS,
    (i) => [
      CONDITIONS + i + 1,
      conditionOf(i),
      'conformity',
      AIM_CHECK.shape,
      AIM_CHECK.version,
      1 + (i < LONG ? i : Math.floor((i - LONG) / (CONDITIONS - 1))),
      'conforms',
      check,
      judged,
      1,
      timeOf(i),
    ],
  );
  await many(sql, 'result_source (result_id, reading_id)', CHECKS, (i) => [CONDITIONS + i + 1, i + 1]);
  await many(
    sql,
    'watch_check (condition_id, watch_id, reading_id, made_ms, mean_delta_e, largest_delta_e, verdict, moved, figures)',
    CHECKS,
    (i) => [
      conditionOf(i),
      conditionOf(i),
      i + 1,
      timeOf(i),
      0.3,
      0.9,
      'conforms',
      0,
      encodeValues(steady[i % steady.length]),
    ],
  );
  await many(
    sql,
    'watch_state (condition_id, watch_id, due_ms, expires_ms, last_ms, verdict, moved, spark)',
    CONDITIONS,
    (i) => [
      i + 1,
      i + 1,
      nowMs + DAY_MS * ((i % 9) - 2),
      nowMs + 9 * DAY_MS,
      nowMs,
      'conforms',
      0,
      '[0.2,0.3,0.25,0.3]',
    ],
  );
  await sql.change(
    "INSERT INTO condition_head (house_id, condition_id, link, result_id, author_id) SELECT 1, condition_id, 'watch', id, 1 FROM result WHERE link = 'watch'",
  );
  await sql.change(
    "INSERT INTO condition_head (house_id, condition_id, link, result_id, author_id) SELECT 1, condition_id, 'conformity', MAX(id), 1 FROM result WHERE link = 'conformity' GROUP BY condition_id",
  );
}

const BATCH = 500;

/** Inserts rows of the one house. */
async function many(
  sql: Database,
  table: string,
  count: number,
  rowOf: (i: number) => readonly (string | number | Buffer)[],
): Promise<void> {
  const into = table.replace('(', '(house_id, ');
  const row = (i: number): readonly (string | number | Buffer)[] => [1, ...rowOf(i)];
  const width = row(0).length;
  await sql.transaction(async (own) => {
    for (let from = 0; from < count; from += BATCH) {
      const size = Math.min(BATCH, count - from);
      const places = new Array(size).fill(`(${new Array(width).fill('?').join(',')})`).join(',');
      await own.change(
        `INSERT INTO ${into} VALUES ${places}`,
        Array.from({ length: size }, (_, i) => row(from + i)).flat(),
      );
    }
  });
}
