import { inkModelLab } from '../characterise/inkModel.ts';
import type { FittedInks } from '../characterise/inkModel.ts';

/** An ink that takes its colour back towards the paper's as more of it is printed. */
export interface TurningInk {
  readonly ink: number;
  /** Where it is farthest from the paper, 0..1: the most that is worth printing. */
  readonly limit: number;
  /** How much nearer to the paper its solid is than that, ΔE*ab. */
  readonly fall: number;
}

const STEPS = 100;
/** Less than this is the model's own waviness. */
const LEAST_FALL = 0.35;
/** A turn in the last steps is left to the inverse. */
const LATEST = 0.97;
/** No limit is proposed below this. */
const LEAST_LIMIT = 0.5;

/** The inks whose ramp turns back before its solid, by the model of a device. */
export function turningInks(model: FittedInks): TurningInk[] {
  const { inks } = model;
  const device = new Float64Array(inks * (STEPS + 1));
  const lab = new Float64Array(3 * (STEPS + 1));
  const found: TurningInk[] = [];
  for (let ink = 0; ink < inks; ink++) {
    device.fill(0);
    for (let step = 0; step <= STEPS; step++) device[inks * step + ink] = step / STEPS;
    inkModelLab(model, device, lab);
    const apart = Array.from({ length: STEPS + 1 }, (_, step) =>
      Math.hypot(lab[3 * step] - lab[0], lab[3 * step + 1] - lab[1], lab[3 * step + 2] - lab[2]),
    );
    const farthest = apart.indexOf(Math.max(...apart));
    const fall = apart[farthest] - apart[STEPS];
    const limit = farthest / STEPS;
    if (fall >= LEAST_FALL && limit <= LATEST) found.push({ ink, limit: Math.max(LEAST_LIMIT, limit), fall });
  }
  return found;
}

/** Limits of all inks with those of turning ones brought down to where they turn. */
export function limitsWithTurns(limits: readonly number[], turning: readonly TurningInk[]): number[] {
  return limits.map((own, ink) => Math.min(own, turning.find((turn) => turn.ink === ink)?.limit ?? 1));
}
