import { isDeepStrictEqual } from 'node:util';
import { describeLight } from '@melto/core/light/describeLight';
import type { LightFigures } from '@melto/core/light/describeLight';
import { lightOfKey, STANDARD_LIGHTS } from '@melto/core/light/standardLights';
import { issueText } from '@melto/core/result';
import { measuredIlluminant, TABLE_GRID } from '@melto/core/spectral/illuminant';
import type { Illuminant } from '@melto/core/spectral/illuminant';
import { observerWords } from '@melto/core/spectral/xyzWeights';
import type { Observer } from '@melto/core/spectral/xyzWeights';
import type { SpectralGrid } from '@melto/core/spectral/spectralGrid';
import { lockHouse } from '@melto/store/houses';
import {
  changeViewingLight,
  findViewingLight,
  insertViewingLight,
  listViewingLights,
  setLightUltraviolet,
  setViewingLightAway,
} from '@melto/store/viewingLights';
import type { ViewingLightRow } from '@melto/store/viewingLights';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { named } from '../kernel/named.ts';
import { notFound, Problem } from '../kernel/problem.ts';

/** A light of the library. */
export interface ViewingLight {
  /** What it is asked for by: `D50`, or `own-` and the number of one that the house has measured. */
  readonly key: string;
  /** Null for a standard one. */
  readonly id: number | null;
  readonly name: string;
  readonly note: string;
  /** Name of the file it was read from; empty for a standard one. */
  readonly fileName: string;
  readonly madeMs: number | null;
  readonly away: boolean;
  readonly figures: LightFigures;
  /** Share of the ultraviolet of M1 that acts in it, as the latest brightener study told; null before one. */
  readonly ultraviolet: {
    readonly share: number;
    readonly low: number;
    readonly high: number;
    readonly atMs: number;
  } | null;
  readonly grid: SpectralGrid;
  /** Largest 1. */
  readonly power: readonly number[];
}

const MOST_LIGHTS = 400;

/** Figures of standard lights never change; they take some milliseconds each. */
let standard: readonly ViewingLight[] | undefined;

/** Standard lights, then those that the house has measured by name. */
export async function viewingLights(context: Context): Promise<ViewingLight[]> {
  const own = await listViewingLights(context.database, MOST_LIGHTS);
  standard ??= STANDARD_LIGHTS.map(standardView);
  return [...standard, ...(await Promise.all(own.map((row) => ownView(context, row))))];
}

function standardView({ key, name }: (typeof STANDARD_LIGHTS)[number]): ViewingLight {
  const light = lightOfKey(key);
  if (light === undefined) throw new Error(`no standard light ${key}`);
  const most = Math.max(...light.power);
  return {
    ...{ key, id: null, name, note: '', fileName: '', madeMs: null, away: false, ultraviolet: null },
    figures: describeLight(light),
    grid: TABLE_GRID,
    power: Array.from(light.power, (value) => value / most),
  };
}

async function ownView({ cache, database }: Context, row: ViewingLightRow): Promise<ViewingLight> {
  const { id, name, note, fileName, madeMs, uvShare: share, uvLow: low, uvHigh: high, uvMs: atMs } = row;
  const measured = spectrumOf(row);
  return {
    ...{ key: `own-${id}`, id, name, note, fileName, madeMs, away: row.awayMs !== null },
    figures: await cache.keep('light', MOST_LIGHTS, database, id, () =>
      Promise.resolve(describeLight(illuminantOf(name, measured), measured)),
    ),
    ultraviolet:
      share === null || low === null || high === null || atMs === null ? null : { share, low, high, atMs },
    ...measured,
  };
}

type Spectrum = Pick<ViewingLight, 'grid' | 'power'>;

function spectrumOf({ startNm, stepNm, power }: ViewingLightRow): Spectrum {
  const values = JSON.parse(power) as number[];
  return { grid: { startNm, stepNm, count: values.length }, power: values };
}

const illuminantOf = (name: string, { grid, power }: Spectrum): Illuminant =>
  measuredIlluminant(name, grid, power);

/** A light by its key, for computing; not found where there is none. One that was put away is still there for what was made under it. */
export async function viewingLight({ database }: Context, key: string): Promise<Illuminant> {
  const known = lightOfKey(key);
  if (known !== undefined) return known;
  const id = Number(/^own-(\d{1,15})$/.exec(key)?.[1] ?? NaN);
  const row = Number.isSafeInteger(id) ? await findViewingLight(database, id) : undefined;
  if (row === undefined) throw notFound(`light ${key}`);
  return illuminantOf(row.name, spectrumOf(row));
}

/** A light and who looks, in words: `Gallery track, 10°`. */
export async function lightWords(
  context: Context,
  {
    key,
    observer,
    uv,
  }: { readonly key: string; readonly observer: Observer; readonly uv?: { readonly share: number } },
): Promise<string> {
  const { name } = await viewingLight(context, key);
  const ultraviolet = uv === undefined ? '' : `, ultraviolet ${uv.share.toFixed(2)}`;
  return `${name}, ${observerWords(observer)}${ultraviolet}`;
}

/** Takes the lights of a file into the library; one that is there already, by its spectrum, is not taken again. */
export async function takeLights(
  context: Context,
  fileName: string,
  file: Uint8Array,
): Promise<{ readonly taken: readonly { readonly id: number; readonly name: string }[] }> {
  const read = await context.readUpload({ kind: 'lights', file });
  if (!read.ok)
    throw new Problem(
      'bad-input',
      `${fileName} holds no light: ${read.issues.map(issueText).join('; ')}.`,
      'Nothing was stored. Give the spectrum of a light, as CGATS, CSV or CxF.',
    );
  const stem = fileName.replace(/\.[A-Za-z0-9]{1,5}$/, '').slice(0, 70);
  return unitOfWork(context, async ({ database }) => {
    await lockHouse(database);
    const known = await listViewingLights(database, MOST_LIGHTS);
    if (known.length + read.value.length > MOST_LIGHTS)
      throw new Problem('conflict', `The library has ${MOST_LIGHTS} lights at most.`, 'Nothing was stored.');
    const taken: { id: number; name: string }[] = [];
    for (const [i, { name: told, grid, power }] of read.value.entries()) {
      const numbered = read.value.length === 1 ? stem : `${stem} ${i + 1}`;
      const name = named(told === '' ? numbered : told.slice(0, 80), 'name', 'light');
      const same = known.find(
        ({ startNm, stepNm, power: before, awayMs }) =>
          awayMs === null &&
          startNm === grid.startNm &&
          stepNm === grid.stepNm &&
          isDeepStrictEqual(JSON.parse(before), power),
      );
      if (same !== undefined)
        throw new Problem(
          'conflict',
          `This light is in the library already, as ${same.name}.`,
          'Nothing was stored.',
        );
      const row = {
        name,
        fileName: fileName.slice(0, 160),
        startNm: grid.startNm,
        stepNm: grid.stepNm,
        power,
      };
      taken.push({ id: await insertViewingLight(database, row, context.now()), name });
    }
    return { taken };
  });
}

/** Name and note of a light; its spectrum stays. */
export async function changeLight(
  context: Context,
  id: number,
  { name, note }: { readonly name: string; readonly note: string },
): Promise<void> {
  const words = { name: named(name, 'name', 'light'), note: note.trim() };
  await unitOfWork(context, async ({ database }) => {
    if (!(await changeViewingLight(database, id, words))) throw notFound(`light ${id}`);
  });
}

/** Keeps what a brightener study told of the ultraviolet of a light, in place of what an earlier one did. */
export async function tellUltraviolet(
  context: Context,
  id: number,
  { share, low, high }: { readonly share: number; readonly low: number; readonly high: number },
): Promise<void> {
  if (!(low <= share && share <= high))
    throw new Problem('bad-input', 'The share lies outside its own range.', 'Make the study again.', 'share');
  const ms = context.now();
  await unitOfWork(context, async ({ database }) => {
    if (!(await setLightUltraviolet(database, id, { share, low, high, ms }))) throw notFound(`light ${id}`);
  });
}

/** Takes a light off the lists, or puts it back; what was made under it keeps it. */
export async function putLightAway(context: Context, id: number, away: boolean): Promise<void> {
  await unitOfWork(context, async ({ database }) => {
    if (!(await setViewingLightAway(database, id, away ? context.now() : null)))
      throw notFound(`light ${id}`);
  });
}
