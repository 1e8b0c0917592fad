// A million patch values of a run, analysed from the database: `bash scripts/withTestDatabase.sh npx tsx bench/runAnalysis.ts`.
import { createRandom } from '@melto/core/numerics/random';
import { USUAL_SETTINGS } from '@melto/core/press/runSettings';
import { aimSets, registerPublishedAims } from '@melto/services/conformity/aimSets';
import { conditionChoices, createCondition } from '@melto/services/house/newCondition';
import { runAnalysis } from '@melto/services/press/analysis';
import { createRun, runOf } from '@melto/services/press/runs';
import { openTestServices } from '@melto/services/testing/testServices';
import { listSheetFigures } from '@melto/store/pressSheets';
import { encodeValues } from '@melto/store/valueBlock';

const services = await openTestServices('melto_run_analysis');
await registerPublishedAims(services);
const osprey = (await conditionChoices(services)).devices.find(({ name }) => name === 'Osprey');
if (osprey === undefined) throw new Error('no Osprey');
const { id: deviceId, inkSet, modes, points, stocks } = osprey;
const condition = { deviceId, inkSet, points, mode: modes[0], stockId: stocks[0].id };
const { id: conditionId } = await createCondition(services, condition);
const [{ id: aimSetId }] = await aimSets(services);
const job = { jobNumber: '1', title: 'Long', customer: '', side: '', quantity: 100_000 };
const { id } = await createRun(services, {
  ...{ conditionId, aimSetId, ...job, settings: USUAL_SETTINGS },
  ...{ inks: ['K', 'C', 'M', 'Y'], zones: 12, zoneMm: 36, patchMm: 3.6 },
});
const { plan } = await runOf(services, id);
const patches = plan.bar.patches.length;
const sheets = Math.ceil(1_000_000 / patches);
const random = createRandom(5);
for (let at = 0; at < sheets; at += 100)
  await services.database.transaction(async (sql) => {
    for (let sheet = at; sheet < Math.min(sheets, at + 100); sheet++) {
      const figures = Float64Array.from({ length: 3 * patches }, () => Math.abs(2 * random.normal()));
      await sql.change(
        "INSERT INTO press_sheet (house_id, run_id, impression, phase, measured, figures, open_patches, outside, judged, read_ms) VALUES (1, ?, ?, 'production', '', ?, 0, 0, 0, 0)",
        [id, 10 * sheet, encodeValues(figures)],
      );
    }
  });
for (let round = 0; round < 4; round++) {
  const asked = performance.now();
  const read = await listSheetFigures(services.database, [id], undefined);
  console.log(`read ${(performance.now() - asked).toFixed(0)} ms of ${read.length} sheets`);
  const begun = performance.now();
  const { values } = await runAnalysis(services, id, { scope: 'run' });
  console.log(
    `${sheets} sheets of ${patches} patches, ${values} judged values: ${(performance.now() - begun).toFixed(0)} ms`,
  );
}
await services.database.close();
