// How long the floor, a condition and its limits take in a big house: `scripts/withTestDatabase.sh npx tsx bench/bigHouse.ts`.
import { createPressChart } from '@melto/services/calibration/pressCharts';
import { proposeLimits } from '@melto/services/calibration/limits';
import { makeCurves } from '@melto/services/calibration/curves';
import { pressView } from '@melto/services/calibration/pressView';
import { printChart } from '@melto/services/charts/printChart';
import { conditionView } from '@melto/services/overview/conditionView';
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
const CONDITIONS = 5000;
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
await timed('condition', 200, () => conditionView(services, own));
await timed('limits', 200, () => pressView(services, own, 'limits'));
await timed('conformity, 300 checks', 200, () => conformitySurface(services, own, 0));
await timed('search', 300, () => search(services, 'mode 499'));
for (const [name, ask] of Object.entries(PARTS_ASKED)) await timed(`  ${name}`, 100, () => ask(database));
const { counts } = await floor(services);
process.stdout.write(`${counts.conditions} conditions\n`);
await database.close();
