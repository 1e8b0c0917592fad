// How long the floor, a condition, a search and a check take in a big house, and in one of a tenth of it:
// `CONDITIONS=10000 SHEETS=1000000 scripts/withTestDatabase.sh npx tsx bench/bigHouse.ts`.
import { createPressChart } from '@melto/services/calibration/pressCharts';
import { proposeLimits } from '@melto/services/calibration/limits';
import { makeCurves } from '@melto/services/calibration/curves';
import { pressView } from '@melto/services/calibration/pressView';
import { printChart } from '@melto/services/charts/printChart';
import { conditionView } from '@melto/services/overview/conditionView';
import { house } from '@melto/services/house/house';
import { judgeReadingOf } from '@melto/services/conformity/checks';
import { floor } from '@melto/services/overview/floor';
import { conformitySurface } from '@melto/services/overview/proofSurfaces';
import { search } from '@melto/services/overview/search';
import { advanceClock } from '@melto/services/simulated/advanceClock';
import { byDeviceValues, heronOn, HOUR, readWedge, TICKS } from '@melto/services/testing/heron';
import { readSheets } from '@melto/services/testing/readSheets';
import { listConditionNames } from '@melto/store/conditions';
import { listReachedMarks } from '@melto/store/reached';
import { listHeadMarks, listHeadSources } from '@melto/store/results';
import { listWatchStates } from '@melto/store/watches';
import { openTestServices } from '@melto/services/testing/testServices';

/** What the floor asks the database for. */
const PARTS_ASKED = {
  listConditionNames,
  listHeadMarks,
  listHeadSources,
  listReachedMarks,
  listWatchStates,
} as const;
const CONDITIONS = Number(process.env['CONDITIONS'] ?? 5000);
/** Sheets that were read long ago, each of one strip. */
const SHEETS = Number(process.env['SHEETS'] ?? 0);
const SHEETS_AT_ONCE = 50_000;
/** Numbers of the rows that are copied begin here. */
const COPIES_FROM = 10_000_000;
const CHECKS = 300;

const services = await openTestServices('melto_big');
const { database } = services;
const own = await heronOn(services, 'Lantern Gloss 150');
const ramps = {
  kind: 'ramps',
  paper: 'a4',
  reader: 'strip',
  steps: 21,
  copies: 1,
  order: 'scrambled',
} as const;
const { sheets } = await printChart(services, (await createPressChart(services, own, ramps)).id, {
  ticks: TICKS,
});
await advanceClock(services, 3 * HOUR);
const { readingId } = await readSheets(services, sheets);
await proposeLimits(services, own, readingId);
await makeCurves(services, own, { readingId, measure: 'sctv' });
const judgedBy = await byDeviceValues(services);
await readWedge(services, own, 'proof', judgedBy);

// Copies of what was made: the same rows, on conditions of other modes, and the check again and again.
await database.change(
  `INSERT INTO printing_condition (house_id, device_id, stock_id, ink_set, mode, author_id, made_ms)
   SELECT c.house_id, c.device_id, c.stock_id, c.ink_set, CONCAT('mode ', n.seq), c.author_id, c.made_ms
   FROM seq_1_to_${CONDITIONS - 1} n JOIN printing_condition c ON c.id = ?`,
  [own],
);
await database.change(
  `INSERT INTO result (house_id, condition_id, link, shape, shape_version, version, verdict, summary, detail, author_id, made_ms)
   SELECT r.house_id, c.id, r.link, r.shape, r.shape_version, r.version, r.verdict, r.summary, r.detail, r.author_id, r.made_ms
   FROM result r JOIN printing_condition c ON c.id <> ? WHERE r.condition_id = ?`,
  [own, own],
);
await database.change(
  `INSERT INTO result (house_id, condition_id, link, shape, shape_version, version, verdict, summary, detail, author_id, made_ms)
   SELECT r.house_id, r.condition_id, r.link, r.shape, r.shape_version, r.version + n.seq, r.verdict, r.summary, r.detail, r.author_id, r.made_ms + n.seq
   FROM seq_1_to_${CHECKS - 1} n JOIN result r ON r.condition_id = ? AND r.link = 'conformity'`,
  [own],
);
await database.change(
  `INSERT INTO condition_head (house_id, condition_id, link, result_id, author_id)
   SELECT r.house_id, r.condition_id, r.link, r.id, r.author_id FROM result r WHERE r.condition_id <> ?`,
  [own],
);
// Curves are made from limits: what is stale is worked out along these.
await database.change(
  `INSERT INTO result_source (house_id, result_id, source_result_id)
   SELECT c.house_id, c.id, l.id FROM result c JOIN result l ON l.condition_id = c.condition_id AND l.link = 'limits'
   WHERE c.link = 'curves' AND c.condition_id <> ?`,
  [own],
);
/** Copies a row again and again, `n.seq` from 1 on, with some columns of their own. */
async function copies(table: string, id: number, own: Readonly<Record<string, string>>): Promise<void> {
  const columns = (
    await database.rows<{ name: string }>(
      'SELECT COLUMN_NAME AS name FROM information_schema.COLUMNS WHERE TABLE_SCHEMA = DATABASE() AND TABLE_NAME = ?',
      [table],
    )
  ).map(({ name }) => name);
  for (let from = 1; from <= SHEETS; from += SHEETS_AT_ONCE)
    await database.change(
      `INSERT INTO ${table} (${columns.join(', ')}) SELECT ${columns.map((name) => own[name] ?? `r.${name}`).join(', ')}
       FROM seq_${from}_to_${Math.min(SHEETS, from + SHEETS_AT_ONCE - 1)} n JOIN ${table} r ON r.id = ?`,
      [id],
    );
}
if (SHEETS > 0) {
  const [row] = await database.rows<{
    strip: number;
    reading: number;
    print: number;
    sheet: number;
    first: number;
  }>(
    `SELECT s.id AS strip, r.id AS reading, r.print_id AS print, h.id AS sheet, (SELECT MIN(id) FROM printing_condition WHERE id > ?) AS first
     FROM strip_reading s JOIN reading r ON r.id = s.reading_id JOIN sheet h ON h.print_id = r.print_id ORDER BY s.id DESC LIMIT 1`,
    [own],
  );
  const number = `${COPIES_FROM} + n.seq`;
  const from = performance.now();
  await copies('print', row.print, {
    ...{
      id: number,
      code: "CONCAT('BIG-', n.seq)",
      condition_id: `${row.first} + n.seq % ${CONDITIONS - 1}`,
    },
  });
  await copies('sheet', row.sheet, { id: number, print_id: number, code: "CONCAT('BIG-', n.seq, '-1')" });
  await copies('reading', row.reading, { id: number, print_id: number });
  await copies('strip_reading', row.strip, { id: number, reading_id: number });
  const [{ values }] = await database.rows<{ values: number }>(
    `SELECT LENGTH(patch_values) / ${Float32Array.BYTES_PER_ELEMENT} AS \`values\` FROM strip_reading WHERE id = ?`,
    [row.strip],
  );
  const [{ bytes }] = await database.rows<{ bytes: number }>(
    'SELECT SUM(DATA_LENGTH + INDEX_LENGTH) AS bytes FROM information_schema.TABLES WHERE TABLE_SCHEMA = DATABASE()',
  );
  process.stdout.write(
    `${SHEETS} sheets of ${Number(values)} patch values in ${Math.round((performance.now() - from) / 1000)} s, ${(Number(bytes) / 1e9).toFixed(1)} GB\n`,
  );
}
await database.rows('ANALYZE TABLE print, sheet, reading, strip_reading');
await database.rows('ANALYZE TABLE result, printing_condition, condition_head, result_source');

async function timed(name: string, mostMs: number, work: () => Promise<unknown>): Promise<void> {
  await work();
  const times: number[] = [];
  for (let i = 0; i < 9; i++) {
    const from = performance.now();
    await work();
    times.push(performance.now() - from);
  }
  const [middle = NaN] = times.sort((a, b) => a - b).slice(4);
  const most = times.at(-1) ?? NaN;
  process.stdout.write(
    `${name.padEnd(28)} median ${middle.toFixed(0).padStart(5)} ms, longest ${most.toFixed(0).padStart(5)} ms, wanted ${mostMs}\n`,
  );
}

await timed('floor', 300, () => floor(services));
await timed('floor by device', 300, () => floor(services, { order: 'device' }));
for (let k=0;k<15;k++) await floor(services); process.exit(0);
await timed('limits', 200, () => pressView(services, own, 'limits'));
await timed('conformity, 300 checks', 200, () => conformitySurface(services, own, 0));
await timed('search', 150, () => search(services, 'mode 499'));
await timed('search for a sheet', 150, () => search(services, SHEETS > 0 ? `BIG-${SHEETS - 7}` : 'HRN'));
await timed('rack and house', 100, () => house(services));
const judged = await readWedge(services, own, 'proof', judgedBy);
await timed('a check judged', 500, () => judgeReadingOf(services, own, judged.readingId, judgedBy));
for (const [name, ask] of Object.entries(PARTS_ASKED)) await timed(`  ${name}`, 100, () => ask(database));
const { counts } = await floor(services);
process.stdout.write(`${counts.conditions} conditions\n`);
await database.close();
