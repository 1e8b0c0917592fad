import { placeList } from '@melto/core/proof/placeList';
import { colourListFrom, report } from './files.ts';
import { readProfile } from './profileInspect.ts';
import { UsageError } from './usageError.ts';

export interface RankOptions {
  readonly colours: string;
  readonly profiles: readonly string[];
  readonly json?: boolean;
}

/** On which of some devices the colours of a list come out nearest, absolute colorimetric, the best first. */
export function rank({ colours: path, profiles, json }: RankOptions): void {
  const colours = colourListFrom(path);
  if (colours.length === 0) throw new UsageError(`${path}: found no colours`);
  const asked = Float64Array.from(colours.flatMap(({ lab }) => [...lab]));
  const ranked = profiles.map((file) => {
    const placed = placeList(readProfile(file), asked);
    if (!placed.ok) throw new UsageError(`${file}: it does not lead from Lab to its device and back`);
    const { colours: own, ...figures } = placed.value;
    const worst = own
      .map(({ deltaE }, i) => ({ name: colours[i].name, deltaE }))
      .sort((a, b) => b.deltaE - a.deltaE)
      .slice(0, 3);
    return { profile: file, ...figures, worst };
  });
  ranked.sort((a, b) => a.mean - b.mean);
  report(
    json,
    { ranked },
    ranked.map(
      ({ profile, mean, p95, largest, over3, worst }, i) =>
        `${i + 1}. ${profile}: ΔE00 mean ${mean.toFixed(2)}, 95 % ${p95.toFixed(2)}, largest ${largest.toFixed(2)}; ${over3} of ${colours.length} over 3; worst ${worst.map(({ name, deltaE }) => `${name} ${deltaE.toFixed(1)}`).join(', ')}`,
    ),
  );
}
