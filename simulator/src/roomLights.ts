/** A light that an ambient measurement of a simulated place gives: 340 to 780 nm at 5 nm. */
export interface RoomLight {
  readonly name: string;
  readonly note: string;
  readonly startNm: number;
  readonly stepNm: number;
  readonly power: readonly number[];
  /** Share of the ultraviolet of M1 that acts in it: glass and lamps differ in what the spectrum shows little of. */
  readonly ultraviolet: number;
}

const START_NM = 340;
const STEP_NM = 5;
const BANDS = 89;

/** A bump of emission: its place, width (standard deviation) and height. */
type Bump = readonly [nm: number, width: number, height: number];

function light(
  name: string,
  note: string,
  bumps: readonly Bump[],
  ultraviolet: number,
  floor: (nm: number) => number = () => 0,
): RoomLight {
  const power = Array.from({ length: BANDS }, (_, i) => {
    const nm = START_NM + i * STEP_NM;
    const sum = bumps.reduce(
      (all, [at, width, height]) => all + height * Math.exp(-0.5 * ((nm - at) / width) ** 2),
      floor(nm),
    );
    return Math.round(sum * 1e5) / 1e5;
  });
  return { name, note, ultraviolet, startNm: START_NM, stepNm: STEP_NM, power };
}

/**
 * Places of the sample world: a gallery with warm lamps that have no ultraviolet, a shop window that has much of it, and
 * the proofing booth of the house.
 */
export const ROOM_LIGHTS: readonly RoomLight[] = [
  light(
    'Gallery track',
    'Warm lamps of blue diode and phosphor, on the hanging wall; no ultraviolet',
    [
      [452, 10, 0.28],
      [530, 36, 0.23],
      [612, 50, 0.44],
      [640, 30, 0.2],
    ],
    0.05,
  ),
  light(
    'Shop window, noon',
    'Daylight through one pane, measured behind the glass',
    [
      [460, 90, 0.62],
      [600, 150, 0.55],
    ],
    0.85,
    (nm) => 0.4 / (1 + Math.exp(-(nm - 362) / 9)),
  ),
  light(
    'Proofing booth',
    'Tubes of daylight colour, changed in spring',
    [
      [365, 6, 0.07],
      [436, 5, 0.37],
      [478, 36, 0.3],
      [545, 40, 0.16],
      [546, 5, 0.57],
      [612, 36, 0.26],
      [650, 30, 0.26],
    ],
    0.4,
    () => 0.06,
  ),
];
