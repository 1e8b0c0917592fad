import { basename } from 'node:path';
import { deviceValues } from '@melto/core/device/deviceValues';
import { recipesOf } from '@melto/core/lists/recipes';
import { TINT_SHARES, tintsOf } from '@melto/core/lists/tints';
import { nearestColours, reachOf } from '@melto/core/proof/placeList';
import type { PrintedColour } from '@melto/core/proof/placeList';
import { colourListReport } from '@melto/paper/report/colourListReport';
import { colourListFrom, readBytes, report, writeFile } from './files.ts';
import { readProfile } from './profileInspect.ts';
import { UsageError } from './usageError.ts';

export interface ColoursOptions {
  readonly profile: string;
  readonly recipes?: boolean;
  readonly report?: string;
  readonly json?: boolean;
}

/** What becomes of a colour list on a device: each colour reached or not, its device values, its tints, other recipes. */
export async function colours(path: string, options: ColoursOptions): Promise<void> {
  const list = colourListFrom(path);
  const profile = readProfile(options.profile);
  const found = nearestColours(profile, Float64Array.from(list.flatMap(({ lab }) => [...lab])));
  const tints = tintsOf(profile, list);
  if (!found.ok || !tints.ok)
    throw new UsageError(`${options.profile}: it does not lead from Lab to its device and back`);
  const told = list.map(({ name, lab }, i) => ({
    name,
    asked: lab,
    reached: reachOf(found.value[i].deltaE),
    ...found.value[i],
    tints: tints.value[i].map((tint, at) => ({ share: TINT_SHARES[at], ...tint })),
    ...(options.recipes === true ? { recipes: recipesFor(options.profile, profile, lab) } : {}),
  }));
  if (options.report !== undefined) await writeReport(options.report, path, options.profile, list);
  report(
    options.json,
    { colours: told },
    told.flatMap(({ name, reached, deltaE, device, recipes = [] }) => [
      `${name}: ${reached}, ΔE00 ${deltaE.toFixed(2)}, ${deviceValues(device)}`,
      ...recipes.map((recipe) => `  or ${deviceValues(recipe.device)}, ΔE00 ${recipe.deltaE.toFixed(2)}`),
    ]),
  );
}

function recipesFor(
  path: string,
  profile: ReturnType<typeof readProfile>,
  lab: PrintedColour['printed'],
): readonly PrintedColour[] {
  const recipes = recipesOf(profile, lab);
  if (!recipes.ok)
    throw new UsageError(`${path}: recipes are for C, M, Y and K, found ${recipes.issues[0].found}`);
  return recipes.value;
}

async function writeReport(
  out: string,
  path: string,
  profile: string,
  list: ReturnType<typeof colourListFrom>,
): Promise<void> {
  const format = /\.pdf$/i.test(out) ? 'pdf' : /\.html?$/i.test(out) ? 'html' : undefined;
  if (format === undefined)
    throw new UsageError(`--report: found ${out}, expected a name that ends in .pdf or .html`);
  const content = await colourListReport({
    header: {
      list: basename(path),
      origin: `From ${basename(path)}`,
      condition: basename(profile),
      profile: basename(profile),
    },
    colours: list.map(({ name, lab }) => ({ name, lab })),
    profile: readBytes(profile),
    format,
  });
  writeFile(out, content);
}
