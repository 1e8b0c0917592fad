/** Pixels drawn to one of the page, a side, while nothing moves: edges are smooth by it. */
export const AT_REST = 2;
/** While bodies are turned: as many as there is time for. */
const MOST = 1;
const LEAST = 0.5;
const STEP = 0.25;
/** Time of a frame that is too slow to look at, and one that leaves time for more pixels. */
const SLOW_MS = 20;
const QUICK_MS = 12;
/** Frames before a judgement: the first of a movement also makes room for it. */
const FRAMES = 4;

/** Finds how finely bodies are drawn while they are turned, from the time that their frames take. */
export class TurningPace {
  #ratio = MOST;
  #moving = false;
  #times: number[] = [];

  /** Pixels to one of the page while something moves. */
  move(): number {
    this.#moving = true;
    return this.#ratio;
  }

  rest(): void {
    this.#moving = false;
    this.#times = [];
  }

  /** A frame was drawn, so long after the one before. */
  frame(ms: number): void {
    if (!this.#moving) return;
    this.#times.push(ms);
    if (this.#times.length < FRAMES) return;
    // The first one was waited for.
    const slowest = Math.max(...this.#times.slice(1));
    const mean = this.#times.slice(1).reduce((sum, own) => sum + own, 0) / (FRAMES - 1);
    if (mean > SLOW_MS) this.#ratio = Math.max(LEAST, this.#ratio - STEP);
    else if (slowest < QUICK_MS) this.#ratio = Math.min(MOST, this.#ratio + STEP);
    this.#times = [];
  }
}
