import type { RenderingIntent } from '../icc/profileTransform.ts';
import { deviceToLab, labToDevice } from '../icc/profileTransform.ts';
import type { IccProfile } from '../icc/iccTypes.ts';
import { srgbToLab } from '../colour/srgb.ts';
import { createRandom } from '../numerics/random.ts';
import type { Random } from '../numerics/random.ts';
import { unwrap } from '../result.ts';

/** Steps of a path are about this long, ΔE*ab. */
const STEP = 2;

export interface PathSmoothness {
  /** Largest bend of each path: how far, ΔE*ab, a printed step differs from the one before it. */
  readonly bends: Float64Array;
  readonly ends: readonly (readonly [from: readonly number[], to: readonly number[]])[];
}

/**
 * Sends straight paths in Lab through a profile and back: from random colours of a screen, every other one from its
 * saturated edge, to greys and to other colours. A smooth profile bends them gently; a contour shows as a jump.
 */
export function pathSmoothness(
  profile: IccProfile,
  intent: RenderingIntent,
  paths = 200,
  seed = 1,
): PathSmoothness {
  const toDevice = unwrap(labToDevice(profile, intent));
  const toLab = unwrap(deviceToLab(profile, 'relative'));
  const random = createRandom(seed);
  const bends = new Float64Array(paths);
  const ends = Array.from({ length: paths }, (_, path) => {
    const from = screenColour(random, path % 2 === 0);
    const to = path % 4 < 2 ? [20 + 70 * random.uniform(), 0, 0] : screenColour(random, false);
    return [from, to] as const;
  });
  ends.forEach(([from, to], path) => {
    const length = Math.hypot(to[0] - from[0], to[1] - from[1], to[2] - from[2]);
    const steps = Math.max(4, Math.round(length / STEP));
    const asked = Float64Array.from({ length: 3 * (steps + 1) }, (_, i) => {
      const t = Math.floor(i / 3) / steps;
      return from[i % 3] + t * (to[i % 3] - from[i % 3]);
    });
    const device = new Float64Array((steps + 1) * toDevice.outputs);
    const printed = new Float64Array(asked.length);
    toDevice.apply(asked, device);
    toLab.apply(device, printed);
    for (let i = 3; i + 3 < printed.length; i += 3) {
      const bend = [0, 1, 2].map((o) => printed[i + 3 + o] - 2 * printed[i + o] + printed[i - 3 + o]);
      bends[path] = Math.max(bends[path], Math.hypot(...bend));
    }
  });
  return { bends, ends };
}

function screenColour(random: Random, saturated: boolean): number[] {
  const rgb = [random.uniform(), random.uniform(), random.uniform()];
  if (saturated) {
    rgb[random.below(3)] = 0;
    rgb[random.below(3)] = 1;
  }
  return [...srgbToLab(rgb)];
}
