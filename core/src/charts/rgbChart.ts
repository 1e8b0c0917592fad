import { createRandom } from '../numerics/random.ts';
import { farthestPoints } from './farthestPoint.ts';

export const RGB_CHART_PATCHES = { least: 100, most: 3000 } as const;

/** What the patches of a chart are for; a patch has the role it was made for first. */
export type PatchRole = 'paper' | 'primary' | 'grey' | 'ramp' | 'dark' | 'light' | 'interior' | 'repeat';

export interface ChartPatches {
  /** Row-major patch × channel, 0..1, whole 8-bit levels for RGB. */
  readonly device: Float64Array;
  readonly roles: readonly PatchRole[];
}

/**
 * Device values of an RGB profiling chart: papers, corners of the cube, a grey axis and six ramps that are denser
 * towards black, dark and light regions, a space-filling interior with a share on the faces, and repeats.
 * All values are distinct 8-bit levels, repeats and papers excepted.
 * @param patches 100 to 3,000.
 */
export function makeRgbChart(patches: number, seed: number): ChartPatches {
  if (!Number.isInteger(patches) || patches < RGB_CHART_PATCHES.least || patches > RGB_CHART_PATCHES.most)
    throw new RangeError(
      `${patches} patches, expected ${RGB_CHART_PATCHES.least} to ${RGB_CHART_PATCHES.most}`,
    );
  const collector = new PatchCollector(patches);
  const papers = Math.max(6, Math.min(24, Math.round(patches * 0.014)));
  for (let i = 0; i < papers; i++) collector.addAlways([255, 255, 255], 'paper');
  for (let corner = 0; corner < 7; corner++)
    collector.add(
      [0, 1, 2].map((axis) => ((corner >> axis) & 1 ? 255 : 0)),
      'primary',
    );
  const repeats = Math.max(4, Math.round(patches * 0.03));
  const greys = Math.round(patches * 0.055);
  for (let i = 1; i < greys; i++) {
    const level = Math.round(255 * Math.pow(i / greys, 1.35));
    collector.add([level, level, level], 'grey');
  }
  const rampSteps = Math.max(2, Math.round((patches * 0.075) / 6));
  for (let corner = 1; corner < 7; corner++)
    for (let step = 1; step <= rampSteps; step++) {
      const share = step / (rampSteps + 1);
      // From white to the corner for light tints, from the corner to black for every second step.
      const toBlack = step % 2 === 0;
      collector.add(
        [0, 1, 2].map((axis) => {
          const top = (corner >> axis) & 1;
          return Math.round(255 * (toBlack ? top * share : 1 - (1 - top) * share));
        }),
        'ramp',
      );
    }
  const random = createRandom(seed);
  const region = (count: number, role: PatchRole, draw: () => number[]): void => {
    const candidates = Math.max(600, count * 6);
    const rows = new Float64Array(candidates * 3);
    for (let i = 0; i < candidates; i++)
      rows.set(
        draw().map((v) => Math.round(v * 255) / 255),
        i * 3,
      );
    let added = 0;
    for (const index of farthestPoints(rows, collector.rows(), 3, count * 2)) {
      if (added >= count) break;
      if (
        collector.add(
          [0, 1, 2].map((axis) => Math.round(rows[index * 3 + axis] * 255)),
          role,
        )
      )
        added++;
    }
  };
  region(Math.round(patches * 0.07), 'dark', () => {
    const base = 0.3 * random.uniform();
    return [0, 1, 2].map(() => clip(base + 0.1 * (random.uniform() - 0.5)));
  });
  region(Math.round(patches * 0.06), 'light', () => [0, 1, 2].map(() => 1 - 0.25 * random.uniform() ** 1.5));
  region(patches - collector.count - repeats, 'interior', () =>
    [0, 1, 2].map(() => {
      const snap = random.uniform();
      return snap < 0.12 ? 0 : snap < 0.22 ? 1 : random.uniform() ** 1.1;
    }),
  );
  while (collector.count < patches) collector.repeatOne(random.below(collector.count));
  return collector.patches();
}

class PatchCollector {
  readonly #levels: number[][] = [];
  readonly #roles: PatchRole[] = [];
  readonly #seen = new Set<string>();

  constructor(private readonly most: number) {}

  get count(): number {
    return this.#levels.length;
  }

  addAlways(levels: number[], role: PatchRole): void {
    if (this.count >= this.most) return;
    this.#seen.add(levels.join());
    this.#levels.push(levels);
    this.#roles.push(role);
  }

  add(levels: number[], role: PatchRole): boolean {
    if (this.#seen.has(levels.join()) || this.count >= this.most) return false;
    this.addAlways(levels, role);
    return true;
  }

  /** Repeats a patch that is no paper and was not repeated yet. */
  repeatOne(index: number): void {
    const key = `repeat ${this.#levels[index].join()}`;
    if (this.#roles[index] === 'paper' || this.#roles[index] === 'repeat' || this.#seen.has(key)) return;
    this.#seen.add(key);
    this.#levels.push(this.#levels[index]);
    this.#roles.push('repeat');
  }

  rows(): Float64Array {
    return Float64Array.from(this.#levels.flat(), (level) => level / 255);
  }

  patches(): ChartPatches {
    return { device: this.rows(), roles: this.#roles };
  }
}

function clip(value: number): number {
  return Math.min(1, Math.max(0, value));
}
