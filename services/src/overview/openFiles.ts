import { csvText } from '@melto/core/text/csvText';
import { listArchivedConditions, listConditions } from '@melto/store/conditions';
import type { ConditionRow } from '@melto/store/conditions';
import { listKeptProfiles } from '@melto/store/keptProfiles';
import { listCompleteReadings } from '@melto/store/readings';
import { findResultFile, listResultsAfter } from '@melto/store/results';
import type { WholeResultRow } from '@melto/store/results';
import { exportCurves } from '../calibration/curveExport.ts';
import { aimSetFile } from '../conformity/aimSetDetail.ts';
import { aimSets } from '../conformity/aimSets.ts';
import { checkReport } from '../conformity/checkReports.ts';
import { toleranceSets } from '../conformity/toleranceSets.ts';
import { libraryInkSets } from '../house/inkSets.ts';
import { libraryDevices, libraryStocks } from '../house/library.ts';
import { pictureFile, picturesOf } from '../house/pictures.ts';
import type { Context } from '../kernel/context.ts';
import { fileName } from '../kernel/download.ts';
import { conditionName, settingsRecord } from '../ledger/conditions.ts';
import { curvesOf } from '../ledger/inForce.ts';
import { AIM_CHECK } from '../ledger/kinds/aimCheckKind.ts';
import { SHORT_CHECK } from '../ledger/kinds/shortCheckKind.ts';
import { colourListFile, colourLists } from '../lists/colourLists.ts';
import { viewingLights } from '../light/viewingLights.ts';
import { actsFile } from '../people/acts.ts';
import { people } from '../people/people.ts';
import { runFiles } from '../press/runFiles.ts';
import { keptProfileFile } from '../profile/keptProfiles.ts';
import { readingFile } from '../reading/readingView.ts';

/** A file of the folder that a house leaves with. */
export interface OpenFile {
  /** Folders and name, parted by `/`. */
  readonly path: string;
  readonly content: Uint8Array;
}

const MANY = 1_000_000;
const BLOCK = 20;
const CURVE_POINTS = 256;

/**
 * All that a house has found out, as files that any program reads: readings and aims as CGATS, profiles as ICC, curves as
 * CSV, reports as PDF, everything else as JSON. Passphrases, keys and sessions are not among them.
 */
export async function* openFiles(context: Context): AsyncGenerator<OpenFile> {
  yield text('README.txt', README);
  yield* libraryFiles(context);
  const { database } = context;
  const conditions = [
    ...(await listConditions(database, { limit: MANY })).rows,
    ...(await listArchivedConditions(database, MANY)),
  ];
  const folders = new Map(conditions.map((row) => [row.id, folderOf(row)]));
  for (const condition of conditions) yield* conditionFiles(context, condition, folderOf(condition));
  for (let after = 0; ;) {
    const rows = await listResultsAfter(database, after, BLOCK);
    for (const row of rows) yield* resultFiles(context, row, folders.get(row.conditionId) ?? 'deleted');
    if (rows.length < BLOCK) break;
    after = rows[rows.length - 1].id;
  }
  for await (const { path, content } of runFiles(context)) yield text(path, content);
}

/** Two conditions may have one name; their numbers differ. */
const folderOf = (condition: ConditionRow): string =>
  `conditions/${fileName(conditionName(condition))}_${condition.id}`;

async function* libraryFiles(context: Context): AsyncGenerator<OpenFile> {
  yield json('library/devices.json', await libraryDevices(context));
  yield json('library/stocks.json', await libraryStocks(context));
  yield json('library/ink-sets.json', await libraryInkSets(context));
  yield json('library/tolerance-sets.json', await toleranceSets(context));
  for (const { id, name, version } of await aimSets(context)) {
    const { content } = await aimSetFile(context, id);
    yield { path: `library/aim-sets/${fileName(name)}_v${version}_${id}.txt`, content };
  }
  for (const { id, name, grid, power } of (await viewingLights(context)).filter(
    (light) => light.id !== null,
  )) {
    const rows = power.map((value, i) => [grid.startNm + i * grid.stepNm, value]);
    yield text(`library/lights/${fileName(name)}_${id ?? ''}.csv`, csvText([['nm', name], ...rows]));
  }
  for (const { id, name, version } of await colourLists(context)) {
    const { content } = await colourListFile(context, id);
    yield { path: `library/colour-lists/${fileName(name)}_v${version}_${id}.txt`, content };
  }
  for (const { id, name } of await listKeptProfiles(context.database, MANY)) {
    const { content } = await keptProfileFile(context, id);
    yield { path: `library/profiles/${fileName(name)}_${id}.icc`, content };
  }
  const known = await people(context);
  yield json(
    'people.json',
    known.map(({ name, role, away }) => ({ name, role, away })),
  );
  yield { path: 'acts.csv', content: (await actsFile(context)).content };
}

async function* conditionFiles(
  context: Context,
  condition: ConditionRow,
  folder: string,
): AsyncGenerator<OpenFile> {
  yield json(`${folder}/condition.json`, {
    ...condition,
    settings: await settingsRecord(context, condition.id),
  });
  for (const { id, name } of await picturesOf(context, condition.id))
    yield {
      path: `${folder}/pictures/${fileName(name)}_${id}.png`,
      content: (await pictureFile(context, id)).content,
    };
  for (const { id, code, mode } of await listCompleteReadings(context.database, condition.id, {
    limit: MANY,
  })) {
    const { content } = await readingFile(context, id);
    yield { path: `${folder}/readings/${fileName(code)}_${mode}_${id}.txt`, content };
  }
}

async function* resultFiles(context: Context, row: WholeResultRow, folder: string): AsyncGenerator<OpenFile> {
  const stem = `${folder}/results/${row.shape}_v${row.version}_${row.id}`;
  const { summary, detail, ...rest } = row;
  yield json(`${stem}.json`, {
    ...rest,
    summary: JSON.parse(summary) as unknown,
    detail: JSON.parse(detail) as unknown,
  });
  const profile = await findResultFile(context.database, row.id, 'profile');
  if (profile !== undefined)
    yield { path: `${stem}_${fileName(profile.name.replace(/\.icc$/i, ''))}.icc`, content: profile.content };
  if ((await curvesOf(context, row.id)) !== undefined)
    yield {
      path: `${stem}.csv`,
      content: (await exportCurves(context, row.id, 'csv', CURVE_POINTS, [])).content,
    };
  if (row.shape === AIM_CHECK.shape || row.shape === SHORT_CHECK.shape)
    yield { path: `${stem}.pdf`, content: (await checkReport(context, row.id, 'pdf')).content };
}

const text = (path: string, content: string): OpenFile => ({
  path,
  content: new TextEncoder().encode(content),
});
const json = (path: string, value: unknown): OpenFile => text(path, `${JSON.stringify(value, null, 2)}\n`);

const README = `What this house has found out, as files that any program reads.

conditions/    for each printing condition: condition.json with its settings record, pictures of dialogs,
               readings (CGATS, complete ones that were not withdrawn), results (JSON; profiles also as ICC,
               curves as CSV, checks as PDF)
library/       devices, stocks, ink sets, tolerance sets (JSON), aim sets (CGATS), lights (CSV), profiles from outside
runs/          for each run on the press: run.json (inks, bar, aims, settings, moves), its sheets (CSV)
people.json    names and what they may do
acts.csv       the record of acts
checksums.txt  SHA-256 of every file

Names end in the number that the house knows the object by. Times are milliseconds since 1970, UTC.
`;
