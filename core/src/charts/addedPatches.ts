import type { Uncertainty, UncertainPoint } from '../characterise/uncertainty.ts';
import type { Random } from '../numerics/random.ts';
import { chooseTelling } from './chooseTelling.ts';
import { eightBit } from './namedPatches.ts';

const CANDIDATES_PER_PATCH = 3;
const CANDIDATES_LEAST = 800;
const REFERENCES = 500;
const DRAWING = 0.3;

/**
 * Device values whose reading would tell most, given what is read already.
 * @param totalInk limit of the sum, 1 = 100 %.
 * @param planned rows that will be read besides.
 * @param families channels that may print together, all of them where none are told.
 * @returns rows of 8-bit levels, most telling first.
 */
export function chooseAddedPatches(
  uncertainty: Uncertainty,
  inks: number,
  count: number,
  totalInk: number,
  random: Random,
  planned: readonly (readonly number[])[] = [],
  onProgress: (fraction: number) => void = () => {},
  families: readonly (readonly number[])[] = [Array.from({ length: inks }, (_, ink) => ink)],
): number[][] {
  const draw = (value: () => number, most: number, from: number): UncertainPoint[] => {
    const out: UncertainPoint[] = [];
    while (out.length < most) {
      const family = families.length === 1 ? families[0] : families[random.below(families.length)];
      const own = new Array<number>(inks).fill(0);
      for (const ink of family) own[ink] = value();
      if (own.reduce((a, b) => a + b, 0) > totalInk + 1e-9) continue;
      out.push(uncertainty.at(own));
      if (out.length % 64 === 0) onProgress(from + (0.5 * DRAWING * out.length) / most);
    }
    return out;
  };
  const references = draw(() => random.uniform(), REFERENCES, 0);
  const candidates = draw(
    () => eightBit(withFaces(random)),
    Math.max(CANDIDATES_LEAST, count * CANDIDATES_PER_PATCH),
    DRAWING / 2,
  );
  const all = [...planned.map((device) => uncertainty.at(device)), ...candidates];
  return chooseTelling(uncertainty, all, references, count, [...planned.keys()], (fraction) =>
    onProgress(DRAWING + (1 - DRAWING) * fraction),
  ).map((index) => [...all[index].device]);
}

/** Uniform, with a share on the faces of the device's cube. */
function withFaces(random: Random): number {
  const snap = random.uniform();
  if (snap < 0.18) return 0;
  return snap < 0.25 ? 1 : random.uniform();
}
