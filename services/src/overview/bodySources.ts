import { CMYK, RGB } from '@melto/core/device/process';
import { listReadingsOfProcess } from '@melto/store/readings';
import { aimSets } from '../conformity/aimSets.ts';
import type { Context } from '../kernel/context.ts';

/** What the body of a gamut can be made from beside a profile. */
export interface BodySource {
  /** Tells it from all others: `reading-12`, `aims-3`. */
  readonly key: string;
  readonly label: string;
  readonly group: 'Readings' | 'Aim sets';
  /** Address of its device values and colours. */
  readonly file: string;
}

const MOST_READINGS = 60;

/** Readings of profiling charts, the newest first, and the aim sets of the house. */
export async function bodySources(context: Context): Promise<BodySource[]> {
  const [sets, ...read] = await Promise.all([
    aimSets(context),
    ...[CMYK, RGB].map((process) =>
      listReadingsOfProcess(context.database, process.name, MOST_READINGS, {
        unconverted: true,
        purpose: 'profile',
      }),
    ),
  ]);
  const readings = read
    .flat()
    .sort((a, b) => b.id - a.id)
    .slice(0, MOST_READINGS);
  return [
    ...readings.map(({ id, code, title, condition }): BodySource => ({
      key: `reading-${id}`,
      label: `${condition}, ${title} ${code}`,
      group: 'Readings',
      file: `/api/readings/${id}/file`,
    })),
    ...sets.map(({ id, name, version }): BodySource => ({
      key: `aims-${id}`,
      label: version > 1 ? `${name}, v${version}` : name,
      group: 'Aim sets',
      file: `/api/aim-sets/${id}/file`,
    })),
  ];
}
