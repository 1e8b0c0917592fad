import { createRandom } from '../numerics/random.ts';

/** Pictures that Melto draws itself, in sRGB. */
export const SAMPLE_PICTURES = ['Seed catalogue', 'Tide at night', 'Gallery wall'] as const;
export type SamplePicture = (typeof SAMPLE_PICTURES)[number];

type Colour = readonly [number, number, number];
/** Signal 0..1 at a place, both axes 0..1. */
type Paint = (x: number, y: number) => Colour;

const PAINTS: Readonly<Record<SamplePicture, () => Paint>> = {
  'Seed catalogue': flowers,
  'Tide at night': night,
  'Gallery wall': gallery,
};

/** Draws a picture; row-major pixel × 3, 8 bits. */
export function samplePicture(name: SamplePicture, width: number, height: number): Uint8Array {
  const paint = PAINTS[name]();
  const out = new Uint8Array(3 * width * height);
  for (let row = 0; row < height; row++)
    for (let column = 0; column < width; column++) {
      const colour = paint((column + 0.5) / width, (row + 0.5) / height);
      for (let c = 0; c < 3; c++)
        out[3 * (row * width + column) + c] = Math.round(255 * Math.min(1, Math.max(0, colour[c])));
    }
  return out;
}

const mix = (a: Colour, b: Colour, share: number): Colour => [
  a[0] + share * (b[0] - a[0]),
  a[1] + share * (b[1] - a[1]),
  a[2] + share * (b[2] - a[2]),
];
const clamp = (value: number): number => Math.min(1, Math.max(0, value));

/** Saturated: flowers of every hue over leaves. */
function flowers(): Paint {
  const random = createRandom(12);
  const PETALS: readonly Colour[] = [
    [0.93, 0.08, 0.2],
    [1, 0.55, 0.02],
    [1, 0.87, 0.05],
    [0.85, 0.1, 0.62],
    [0.42, 0.16, 0.8],
    [0.12, 0.25, 0.92],
    [0.05, 0.75, 0.85],
    [1, 0.97, 0.94],
  ];
  const heads = Array.from({ length: 34 }, (_, i) => ({
    x: random.uniform(),
    y: random.uniform(),
    radius: 0.045 + 0.07 * random.uniform(),
    petals: 5 + (i % 4),
    turn: 6.28 * random.uniform(),
    colour: PETALS[i % PETALS.length],
  }));
  return (x, y) => {
    const leaf = 0.5 + 0.5 * Math.sin(34 * x + 9 * Math.sin(11 * y)) * Math.cos(23 * y - 6 * x);
    let colour = mix([0.03, 0.16, 0.05], [0.36, 0.66, 0.12], leaf);
    for (const head of heads) {
      const [dx, dy] = [(x - head.x) * 1.5, y - head.y];
      const distance = Math.hypot(dx, dy);
      const angle = Math.atan2(dy, dx) * head.petals + head.turn;
      const edge = head.radius * (0.72 + 0.28 * Math.cos(angle));
      if (distance > edge) continue;
      const depth = distance / edge;
      colour =
        depth < 0.24
          ? mix([0.99, 0.8, 0.1], [0.5, 0.25, 0.03], 3 * depth)
          : mix(mix(head.colour, [1, 1, 1], 0.35), head.colour, clamp(1.4 * depth - 0.2));
    }
    return colour;
  };
}

/** Dark: a moon over water. */
function night(): Paint {
  return (x, y) => {
    const horizon = 0.46;
    const glow = Math.exp(-12 * Math.hypot((x - 0.68) * 1.5, y - 0.2));
    const moon = Math.hypot((x - 0.68) * 1.5, y - 0.2) < 0.055;
    if (moon) return [0.95, 0.94, 0.86];
    if (y < horizon) return mix([0.015, 0.02, 0.06], [0.3, 0.33, 0.42], clamp(0.9 * glow + 0.25 * y * y));
    const depth = (y - horizon) / (1 - horizon);
    const wave = Math.sin(140 * depth ** 0.6 + 8 * Math.sin(9 * x + 20 * depth)) * 0.5 + 0.5;
    const path = Math.exp(-((x - 0.68) ** 2) / (0.004 + 0.03 * depth)) * wave;
    const water = mix([0.012, 0.03, 0.06], [0.05, 0.1, 0.13], wave * depth);
    return mix(water, [0.85, 0.85, 0.76], clamp(0.8 * path));
  };
}

/** Neutral: greys in frames on a wall, a few quiet tints. */
function gallery(): Paint {
  const FRAMES = [
    { from: 0.06, to: 0.3, tint: [0.86, 0.72, 0.62] },
    { from: 0.36, to: 0.64, tint: [0.5, 0.5, 0.5] },
    { from: 0.7, to: 0.94, tint: [0.62, 0.66, 0.7] },
  ] as const;
  return (x, y) => {
    const wall = 0.82 - 0.14 * y - 0.1 * (x - 0.4) ** 2;
    const grey: Colour = [wall, wall * 0.995, wall * 0.985];
    if (y > 0.84) return mix([0.36, 0.33, 0.3], [0.5, 0.47, 0.43], 0.5 + 0.5 * Math.sin(90 * x + 3 * y));
    const frame = FRAMES.find(({ from, to }) => x > from && x < to);
    if (frame === undefined || y < 0.16 || y > 0.7) return grey;
    const [u, v] = [(x - frame.from) / (frame.to - frame.from), (y - 0.16) / 0.54];
    const edge = Math.min(u, 1 - u, v, 1 - v);
    if (edge < 0.035) return [0.12, 0.115, 0.11];
    if (edge < 0.13) return [0.95, 0.945, 0.93];
    const light = clamp(1.35 - 1.6 * Math.hypot(u - 0.42, v - 0.4));
    return mix([0.04, 0.04, 0.045], frame.tint, light);
  };
}
