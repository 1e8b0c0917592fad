import { acrossOfColumns } from '@melto/core/charts/placesAcross';
import { patchInkDensities } from '@melto/core/cgats/patchInkDensities';
import { evennessOf } from '@melto/core/evenness/evenness';
import { zonesFromCsv, zonesToCsv } from '@melto/core/evenness/zonesFile';
import type { ZoneCorrections } from '@melto/core/evenness/zonesFile';
import { issueText } from '@melto/core/result';
import { cmykReading, readBytes, report, writeFile } from './files.ts';
import { UsageError } from './usageError.ts';

export interface EvennessOptions {
  readonly measured: string;
  readonly measuredAs?: string;
  readonly zones?: string;
  readonly out?: string;
  readonly json?: boolean;
}

export function readZones(path: string): ZoneCorrections {
  const result = zonesFromCsv(Buffer.from(readBytes(path)).toString('utf8'));
  if (!result.ok) throw new UsageError(`${path}: ${result.issues.map(issueText).join('; ')}`);
  return result.value;
}

/** Evenness across the width and the correction of each zone. */
export function evennessCorrect(options: EvennessOptions): void {
  const { set, device, xyz } = cmykReading(options.measured, options.measuredAs);
  const densities = patchInkDensities(set);
  if (set.layout === undefined || densities === undefined)
    throw new UsageError(
      `${options.measured}: found no layout, expected PAGE, STRIP and PLACE of an evenness chart`,
    );
  const present = options.zones === undefined ? undefined : readZones(options.zones);
  let found;
  try {
    found = evennessOf(device, xyz, densities, acrossOfColumns(set.layout), present);
  } catch (error) {
    if (error instanceof RangeError) throw new UsageError(`${options.measured}: ${error.message}`);
    throw error;
  }
  if (options.out !== undefined)
    writeFile(options.out, zonesToCsv(found.inks.map(({ correction }) => correction)));
  report(options.json, { mean: found.mean, largest: found.largest, out: options.out }, [
    `across the width: mean ΔE00 ${found.mean.toFixed(2)}, largest ${found.largest.toFixed(2)}`,
    ...found.inks.map(
      ({ ink, correction }) =>
        `${ink}: density by zone ${correction.map((share) => `${share < 0 ? '−' : '+'}${Math.abs(100 * share).toFixed(1)}`).join(' ')} %`,
    ),
  ]);
}
