import { describe, expect, it } from 'vitest';
import { greyMagentaYellow } from '../balance/greyTriplet.ts';
import { greyAim, neutralDensityAim, neutralLightness } from '../balance/neutralAim.ts';
import type { Lab } from '../colour/lab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz, xyzToLab } from '../colour/xyzToLab.ts';
import { neutralDensity } from '../density/density.ts';
import { TOLERANCE_SETS } from './data/toleranceSets.ts';
import { judgeColours } from './judgeColours.ts';
import type { ColourPair, Judgement } from './judgeColours.ts';
import type { ToleranceSet } from './toleranceSet.ts';

const setOf = (id: string): ToleranceSet => {
  const found = TOLERANCE_SETS.find((set) => set.id === id);
  if (found === undefined) throw new Error(id);
  return found;
};
const failing = ({ metrics }: Judgement): string[] =>
  metrics
    .filter(({ verdict }) => verdict === 'does-not-conform')
    .map(({ group, statistic, quantity }) => `${group} ${statistic} ${quantity}`);

const PAPER: Lab = [93, 0, -4];
const PAPER_Y = labToXyz(PAPER, WHITE_D50_MEASURED)[1];
const DARK: Lab = [20, 0, 0];
const DENSITY = neutralDensity(labToXyz(DARK, WHITE_D50_MEASURED)[1], PAPER_Y);
const TONES = [0.05, 0.1, 0.2, 0.25, 0.3, 0.4, 0.5, 0.6, 0.7, 0.75, 0.8, 0.9];

/**
 * 37 patches: paper, both scales with their solids, C, M, Y and their overprints, four tertiaries. All lie on their
 * aims, but for what `change` adds; weights are 1 up to 50 %, 0.625 at 75 %.
 */
function sheet(change: Readonly<Record<string, Lab>> = {}): ColourPair[] {
  const pairs: (readonly [string, number[], Lab])[] = [
    ['paper', [0, 0, 0, 0], PAPER],
    ['K 100', [0, 0, 0, 1], DARK],
    // The grey aim keeps 0.15 of the paper's own colour at 100 %.
    ['CMY 100', [1, 1, 1, 0], [DARK[0], 0, -0.6]],
    ['C', [1, 0, 0, 0], [50, -30, -45]],
    ['M', [0, 1, 0, 0], [48, 70, -5]],
    ['Y', [0, 0, 1, 0], [85, -5, 85]],
    ['MY', [0, 1, 1, 0], [47, 65, 45]],
    ['CY', [1, 0, 1, 0], [48, -60, 25]],
    ['CM', [1, 1, 0, 0], [25, 18, -45]],
    ...TONES.map((tone) => {
      const grey = greyMagentaYellow(tone);
      return [`grey ${tone}`, [tone, grey, grey, 0], greyAim(tone, DENSITY, PAPER, PAPER_Y)] as const;
    }),
    ...TONES.map(
      (tone) =>
        [
          `K ${tone}`,
          [0, 0, 0, tone],
          [neutralLightness(neutralDensityAim('k', tone, DENSITY), PAPER_Y), 0, 0],
        ] as const,
    ),
    ...[0.1, 0.2, 0.3, 0.4].map((k) => [`t ${k}`, [0.2, 0.7, 0.3, k], [50, 30, 10]] as const),
  ].map(([name, device, lab]) => [name as string, [...(device as number[])], lab as Lab] as const);
  return pairs.map(([name, device, aim]) => {
    const add = change[name] ?? [0, 0, 0];
    return { device, aim, measured: [aim[0] + add[0], aim[1] + add[1], aim[2] + add[2]] };
  });
}

/** The size, 0 to 12, at which a growing figure is what is wanted. */
function sizeFor(wanted: number, figure: (size: number) => number): number {
  let low = 0;
  let high = 12;
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (figure(middle) < wanted) low = middle;
    else high = middle;
  }
  return high;
}

describe('G7 tolerance sets', () => {
  const ids = ['g7-greyscale', 'g7-targeted', 'g7-colour-space'];
  it.each(ids)('%s conforms where all lies on its aims', (id) => {
    const judged = judgeColours(sheet(), setOf(id));
    expect(judged.verdict).toBe('conforms');
    for (const { value } of judged.metrics) expect(value).toBeLessThan(1e-6);
  });

  it('weighs by tone: 3.01 at 40 % fails by 0.01, 4.8 at 75 % is 3.00', () => {
    const over = judgeColours(sheet({ 'grey 0.4': [3.01, 0, 0] }), setOf('g7-greyscale'));
    expect(failing(over)).toEqual(['grey scale largest wΔL']);
    expect(over.metrics[1].margin).toBeCloseTo(-0.01, 9);
    // Thirteen steps: the mean is 3.01/13.
    expect(over.metrics[0].value).toBeCloseTo(3.01 / 13, 9);
    const dark = judgeColours(sheet({ 'grey 0.75': [4.8, 0, 0] }), setOf('g7-greyscale'));
    expect(dark.metrics[1].value).toBeCloseTo(3, 9);
    expect(failing(dark)).toEqual([]);
  });

  it('fails by 0.01 in the colour of the greys, or the black scale, alone', () => {
    const grey = judgeColours(sheet({ 'grey 0.3': [0, 3.01, 0] }), setOf('g7-greyscale'));
    expect(failing(grey)).toEqual(['grey scale largest wΔCh']);
    const black = judgeColours(sheet({ 'K 0.2': [-3.01, 0, 0] }), setOf('g7-targeted'));
    // As the aim set has it too, a difference of one dark step is not in the targeted metrics.
    expect(failing(black)).toEqual(['black scale largest wΔL']);
  });

  it('fails by the mean alone where all steps are a little off', () => {
    // Twelve of thirteen steps; one weight at a time, so that each adds 1.51·13/12 at most.
    const change = Object.fromEntries(
      TONES.map((tone) => {
        const weight = tone <= 0.5 ? 1 : 1 - 1.5 * (tone - 0.5);
        return [`grey ${tone}`, [0, (1.51 * 13) / 12 / weight, 0] as const];
      }),
    );
    const judged = judgeColours(sheet(change), setOf('g7-greyscale'));
    expect(failing(judged)).toEqual(['grey scale mean wΔCh']);
    expect(judged.metrics[2].margin).toBeCloseTo(-0.01, 9);
  });

  it.each([
    ['g7-targeted', 'CM', 4.21, 'overprints largest ΔE00'],
    ['g7-targeted', 'M', 3.51, 'chromatic solids largest ΔE00'],
    ['g7-colour-space', 'CM', 4.21, 'overprints largest ΔE00'],
  ] as const)('%s fails by 0.01 in %s alone', (id, patch, wanted, name) => {
    // Lightness is turned until the ΔE00 of the patch is what is wanted.
    const size = (dl: number): number => {
      const pairs = sheet({ [patch]: [dl, 0, 0] });
      return Math.max(...judgeColours(pairs, setOf(id)).deltaE);
    };
    const judged = judgeColours(sheet({ [patch]: [sizeFor(wanted, size), 0, 0] }), setOf(id));
    expect(failing(judged)).toEqual([name]);
    expect(judged.metrics.find((line) => line.verdict === 'does-not-conform')?.margin).toBeCloseTo(-0.01, 9);
  });

  it('G7 colour space fails by 0.01 in its mean, and in its 95th percentile, alone', () => {
    const set = setOf('g7-colour-space');
    const valueOf = (judged: Judgement, statistic: string): number =>
      judged.metrics.find(({ group, statistic: own }) => group === 'all' && own === statistic)?.value ?? NaN;
    // Of 37 patches four tertiaries are off alike: the 95th percentile, at 34.2 of 0…36, is theirs; 4·3.01/37 the mean.
    const few = (size: number): Judgement =>
      judgeColours(sheet(Object.fromEntries([0.1, 0.2, 0.3, 0.4].map((k) => [`t ${k}`, [size, 0, 0]]))), set);
    const tail = few(sizeFor(3.01, (size) => valueOf(few(size), '95th percentile')));
    expect(failing(tail)).toEqual(['all 95th percentile ΔE00']);
    expect(valueOf(tail, 'mean')).toBeCloseTo((4 * 3.01) / 37, 9);
    // Greys and the colour of the black scale are off a little, so that the mean is over and nothing else.
    const many = (size: number): Judgement =>
      judgeColours(
        sheet({
          ...Object.fromEntries(TONES.map((tone) => [`grey ${tone}`, [0, 0.8, 0]])),
          ...Object.fromEntries(TONES.map((tone) => [`K ${tone}`, [0, size, 0]])),
          ...Object.fromEntries([0.1, 0.2, 0.3, 0.4].map((k) => [`t ${k}`, [2.4, 0, 0]])),
        }),
        set,
      );
    const mean = many(sizeFor(1.51, (size) => valueOf(many(size), 'mean')));
    expect(failing(mean)).toEqual(['all mean ΔE00']);
    expect(mean.metrics.find(({ verdict }) => verdict === 'does-not-conform')?.margin).toBeCloseTo(-0.01, 9);
  });

  it('is not judged without the darkest steps', () => {
    const pairs = sheet().filter(({ device }) => device[3] !== 1);
    expect(judgeColours(pairs, setOf('g7-greyscale')).verdict).toBe('not-judged');
  });
});

/** Tints of one ink whose Murray-Davies tone value, in X, Y or Z, is given. */
const SOLIDS: readonly Lab[] = [
  [55, -37, -50],
  [48, 74, -3],
  [89, -5, 93],
  [16, 0, 0],
];
function tint(ink: number, tone: number): Lab {
  const paper = labToXyz(PAPER, WHITE_D50_MEASURED);
  const solid = labToXyz(SOLIDS[ink], WHITE_D50_MEASURED);
  const at = (axis: number): number => paper[axis] + (tone / 100) * (solid[axis] - paper[axis]);
  return xyzToLab([at(0), at(1), at(2)], WHITE_D50_MEASURED);
}

describe('ISO 12647-2', () => {
  const midtone = (percent: number): boolean => percent === 50;
  /**
   * Paper, solids, and seven tints of each ink; the aim gains 14 % at 50 %, the print so much more at some tints, and its
   * paper is off by so much.
   */
  const print = (
    more: readonly number[],
    where: (percent: number) => boolean = () => true,
    off: Lab = [0, 0, 0],
  ): ColourPair[] => [
    {
      ...{ device: [0, 0, 0, 0], aim: PAPER },
      measured: [PAPER[0] + off[0], PAPER[1] + off[1], PAPER[2] + off[2]],
    },
    ...[0, 1, 2, 3].flatMap((ink) =>
      [10, 25, 40, 50, 60, 75, 90, 100].map((percent): ColourPair => {
        const device = [0, 0, 0, 0];
        device[ink] = percent / 100;
        const share = (4 * percent * (100 - percent)) / 10_000;
        const aim = percent + 14 * share;
        return {
          device,
          aim: tint(ink, aim),
          measured: tint(ink, where(percent) ? aim + more[ink] * share : aim),
        };
      }),
    ),
  ];

  it('takes tone values and the spread of midtones as worked out by hand', () => {
    const judged = judgeColours(print([1, -2, 2.5, 3], midtone), setOf('iso12647-2-production'));
    const [tone, spread] = ['midtones', 'chromatic midtones']
      .map((group) => judged.metrics.filter((line) => line.group === group && line.quantity === 'ΔTV'))
      .flat();
    expect(tone).toMatchObject({ count: 4 });
    expect(tone.value).toBeCloseTo(3, 9);
    expect(spread).toMatchObject({ count: 3 });
    expect(spread.value).toBeCloseTo(4.5, 9);
    expect(judged.verdict).toBe('near');
  });

  it.each([
    [[4.01, 1, 1, 0], 'midtones largest ΔTV'],
    [[0, 0, 0, -4.01], 'midtones largest ΔTV'],
    [[2.51, -2.5, 0, 0], 'chromatic midtones spread ΔTV'],
  ] as const)('fails by 0.01 for %j in %s alone', (more, name) => {
    const judged = judgeColours(print([...more], midtone), setOf('iso12647-2-production'));
    expect(failing(judged)).toEqual([name]);
    expect(judged.metrics.find((line) => line.verdict === 'does-not-conform')?.margin).toBeCloseTo(-0.01, 6);
  });

  // 4 · 0.25 · 0.75 of what is asked at 50 %.
  const AT_QUARTER = 0.75;

  it.each([
    [2.99, 25, []],
    [3.01, 25, ['quarter tones largest ΔTV']],
    [-3.01, 25, ['quarter tones largest ΔTV']],
    [2.99, 75, []],
    [3.01, 75, ['three-quarter tones largest ΔTV']],
  ] as const)('lets tones of the ends be off by 3: %d at %d %%', (off, percent, failed) => {
    const pairs = print([off / AT_QUARTER, 0, 0, 0], (own) => own === percent);
    expect(failing(judgeColours(pairs, setOf('iso12647-2-production')))).toEqual(failed);
  });

  it.each([
    [[2.99, 1.99, -1.99], []],
    [[-3.01, 0, 0], ['substrate largest ΔL']],
    [[0, 2.01, 0], ['substrate largest Δa']],
    [[0, 0, -2.01], ['substrate largest Δb']],
  ] as const)('lets paper be off by 3 in L*, by 2 in a* and b*: %j', (off, failed) => {
    const judged = judgeColours(print([0, 0, 0, 0], midtone, [...off]), setOf('iso12647-2-production'));
    // Tone values go by the sheet's own paper, and move with it.
    expect(failing(judged).filter((name) => name.startsWith('substrate'))).toEqual(failed);
  });

  it('judges solids by ΔE00 in its other set, and leaves out tints that a wedge has not', () => {
    const moved = (size: number): ColourPair[] =>
      print([0, 0, 0, 0]).map((pair) =>
        pair.device[2] === 1 && pair.device[0] === 0
          ? { ...pair, measured: [pair.aim[0] - size, pair.aim[1], pair.aim[2]] }
          : pair,
      );
    const set = setOf('iso12647-2-production-00');
    // Yellow at L* 89: 5.4 darker is more than 3.5 in ΔE00, and more than 5 in ΔE*ab.
    expect(failing(judgeColours(moved(4.9), set))).toEqual([]);
    expect(failing(judgeColours(moved(5.6), set))).toEqual(['chromatic solids largest ΔE00']);
    expect(failing(judgeColours(moved(4.99), setOf('iso12647-2-production')))).toEqual([]);
    expect(failing(judgeColours(moved(5.01), setOf('iso12647-2-production')))).toEqual([
      'solids largest ΔE*ab',
    ]);
    const few = print([0, 0, 0, 0]).filter(({ device }) => Math.max(...Array.from(device)) !== 0.25);
    const judged = judgeColours(few, set);
    expect(judged.metrics.some(({ group }) => group === 'quarter tones')).toBe(false);
    expect(judged.metrics.some(({ group }) => group === 'three-quarter tones')).toBe(true);
  });
});
