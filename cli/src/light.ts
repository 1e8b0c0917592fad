import { readFileSync } from 'node:fs';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import type { SeenIn } from '@melto/core/light/colourUnder';
import { describeLight } from '@melto/core/light/describeLight';
import { lightOfKey, STANDARD_LIGHTS } from '@melto/core/light/standardLights';
import { brightenerPair } from '@melto/core/light/ultraviolet';
import type { BrightenerPair } from '@melto/core/light/ultraviolet';
import { issueText } from '@melto/core/result';
import { measuredIlluminant } from '@melto/core/spectral/illuminant';
import type { Illuminant } from '@melto/core/spectral/illuminant';
import type { SpectralGrid } from '@melto/core/spectral/spectralGrid';
import { readEmissions } from '@melto/paper/measured/readEmissions';
import { oneOf, readMeasuredFile, report } from './files.ts';
import type { measuredAs } from './files.ts';
import { UsageError } from './usageError.ts';

interface NamedLight {
  readonly light: Illuminant;
  /** As it was measured; a standard one has none. */
  readonly own?: { readonly grid: SpectralGrid; readonly power: readonly number[] };
}

/** What lights are like: standard ones by their names, measured ones by their files. */
export function describeLights(names: readonly string[], options: { readonly json?: boolean }): void {
  const lights = names.flatMap(lightsOf).map(({ light, own }) => ({
    ...{ name: light.name, ...describeLight(light, own) },
  }));
  report(
    options.json,
    { lights },
    lights.map(({ name, temperature, rendering, xy, fromDaylight, fromD50, uvShare }) =>
      [
        name,
        `x ${xy[0].toFixed(4)} y ${xy[1].toFixed(4)}`,
        temperature === null
          ? 'no white'
          : `${temperature.kelvin.toFixed(0)} K, Duv ${temperature.duv.toFixed(4)}`,
        rendering === null
          ? 'too far from white for Ra'
          : `Ra ${rendering.general.toFixed(1)} (R1 to R14: ${rendering.special.map((index) => index.toFixed(0)).join(' ')})`,
        `from daylight ${fromDaylight.toFixed(4)}, from D50 ${fromD50.toFixed(4)} in u', v'`,
        uvShare === null
          ? 'ultraviolet not shown'
          : `ultraviolet ${(100 * uvShare).toFixed(1)} % of the visible`,
      ].join('; '),
    ),
  );
}

/** The one light of a name or a file. */
export function lightNamed(name: string): Illuminant {
  const lights = lightsOf(name);
  if (lights.length > 1)
    throw new UsageError(
      `${name}: found ${lights.length} lights, expected one: ${lights.map(({ light }) => light.name).join(', ')}`,
    );
  return lights[0].light;
}

/** The light and the observer that options name. */
export function seenIn({ light, observer }: { readonly light: string; readonly observer: string }): SeenIn {
  const degrees = oneOf(observer, '--observer', ['2', '10']);
  return { light: lightNamed(light), observer: degrees === '2' ? '2deg' : '10deg' };
}

/** A reading with ultraviolet laid on one of the same sheet without. */
export function pairedWith(
  withUv: PatchSet,
  path: string,
  told: ReturnType<typeof measuredAs>,
): BrightenerPair {
  const pair = brightenerPair(withUv, readMeasuredFile(path, told));
  if (!pair.ok) throw new UsageError(`${path}: ${pair.issues.map(issueText).join('; ')}`);
  return pair.value;
}

function lightsOf(name: string): NamedLight[] {
  const standard = lightOfKey(name);
  if (standard !== undefined) return [{ light: standard }];
  let bytes: Uint8Array;
  try {
    bytes = readFileSync(name);
  } catch {
    throw new UsageError(
      `${name}: is neither a standard light (${STANDARD_LIGHTS.map(({ key }) => key).join(', ')}) nor a file that can be read`,
    );
  }
  const read = readEmissions(bytes);
  if (!read.ok) throw new UsageError(`${name}: ${read.issues.map(issueText).join('; ')}`);
  const stem = name.replace(/^.*\/|\.[A-Za-z0-9]{1,5}$/g, '');
  return read.value.map(({ name: told, grid, power }) => ({
    light: measuredIlluminant(told === '' ? stem : told, grid, power),
    own: { grid, power },
  }));
}
