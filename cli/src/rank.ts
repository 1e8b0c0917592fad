import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { deviceToLab, labToDevice } from '@melto/core/icc/profileTransform';
import { summariseErrors } from '@melto/core/numerics/statistics';
import { transformed } from '@melto/core/transform/transform';
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
    const profile = readProfile(file);
    const [to, back] = [labToDevice(profile, 'absolute'), deviceToLab(profile, 'absolute')];
    if (!to.ok || !back.ok) throw new UsageError(`${file}: it does not lead from Lab to its device and back`);
    const device = transformed(to.value, asked);
    const printed = transformed(back.value, device);
    const errors = deltaE2000Rows(asked, printed);
    const worst = [...errors.keys()].sort((a, b) => errors[b] - errors[a]).slice(0, 3);
    return {
      profile: file,
      ...summariseErrors(errors),
      over3: errors.filter((error) => error > 3).length,
      ink: device.reduce((sum, value) => sum + value, 0) / colours.length,
      worst: worst.map((i) => ({ name: colours[i].name, deltaE: errors[i] })),
    };
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
