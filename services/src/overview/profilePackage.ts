import { PROFILE_PLACES, PROFILE_PLACES_NOTE } from '@melto/core/profile/profilePlaces';
import { findResult, findResultFile, listSourceResults } from '@melto/store/results';
import { zipSync } from 'fflate';
import type { Zippable } from 'fflate';
import { exportCurves } from '../calibration/curveExport.ts';
import { pictureFile, picturesOf } from '../house/pictures.ts';
import type { Context } from '../kernel/context.ts';
import { fileName } from '../kernel/download.ts';
import type { Download } from '../kernel/download.ts';
import { notFound } from '../kernel/problem.ts';
import { curvesOf } from '../ledger/inForce.ts';
import { profileSettings } from '../profile/profileSettings.ts';

const CURVE_POINTS = 256;

/**
 * A profile with all that it is printed with, under one name: its file, the curves that its chart was printed through,
 * the settings record with its pictures, and where each system keeps profiles.
 */
export async function profilePackage(context: Context, resultId: number): Promise<Download> {
  const { database } = context;
  const result = await findResult(database, resultId);
  const file = await findResultFile(database, resultId, 'profile');
  if (result?.link !== 'profile' || file === undefined) throw notFound(`profile ${resultId}`);
  const name = file.name.replace(/\.icc$/i, '');
  const [settings, pictures, sources] = await Promise.all([
    profileSettings(context, resultId),
    picturesOf(context, result.conditionId),
    listSourceResults(database, resultId),
  ]);
  const files: Zippable = {
    [`${name}.icc`]: file.content,
    [`${name}_settings.txt`]: settings.content,
    [`${name}_where_to.txt`]: new TextEncoder().encode(placesText(name)),
  };
  for (const id of sources) {
    if ((await curvesOf(context, id)) === undefined) continue;
    const curves = await exportCurves(context, id, 'csv', CURVE_POINTS, []);
    files[`${name}_curves.csv`] = curves.content;
  }
  for (const [i, picture] of pictures.entries())
    files[`${name}_settings_${i + 1}_${fileName(picture.name)}.png`] = (
      await pictureFile(context, picture.id)
    ).content;
  return {
    name: `${name}.zip`,
    mediaType: 'application/zip',
    // One day for all: the same profile gives the same package.
    content: zipSync(files, { mtime: new Date(result.madeMs), level: 6 }),
  };
}

function placesText(name: string): string {
  const wide = Math.max(...PROFILE_PLACES.map(([system]) => system.length)) + 2;
  return [
    `Where ${name}.icc goes`,
    '',
    ...PROFILE_PLACES.map(([system, place]) => `${system.padEnd(wide)}${place}`),
    '',
    PROFILE_PLACES_NOTE,
    '',
  ].join('\r\n');
}
