import { describe, expect, it } from 'vitest';
import { createRandom } from '../numerics/random.ts';
import type { Lab } from '../colour/lab.ts';
import { deltaE2000 } from '../colour/deltaE2000.ts';
import { EYE_OPPOSITES, EYE_WORDS, eyeWeights, seenShift, wordDirection } from './eyeWords.ts';
import type { EyeNote } from './eyeWords.ts';
import { pointOut } from './pointOut.ts';
import type { EyeCause, EyeHypothesis } from './pointOut.ts';
import { EYE_MOST_COLOURS, EYE_PAGE_COLOURS, REFERENCE_COLOURS } from './referenceColours.ts';

const dot = (a: Float64Array, b: Float64Array): number => a.reduce((sum, value, i) => sum + value * b[i], 0);

describe('words of an eye', () => {
  it('come in pairs that point apart, for vivid colours and for greys', () => {
    for (const lab of [
      [50, 60, 20],
      [60, 0.5, 0.2],
    ] as const)
      for (const word of EYE_WORDS) {
        expect(EYE_OPPOSITES[EYE_OPPOSITES[word]]).toBe(word);
        const weights = eyeWeights(lab);
        const [own, other] = [word, EYE_OPPOSITES[word]].map((one) => wordDirection(weights, [one]));
        if (own === undefined || other === undefined) throw new Error('no direction');
        expect(dot(own, other)).toBeCloseTo(-1, 9);
        expect(Math.hypot(...own)).toBeCloseTo(1, 9);
      }
  });

  it('point the way that a colour moves, and say about its ΔE00', () => {
    const lab: Lab = [50, 20, 30];
    const weights = eyeWeights(lab);
    const redder = seenShift(weights, 0, 2, 0);
    const [red, blue] = (['redder', 'bluer'] as const).map((word) => wordDirection(weights, [word]));
    expect(dot(red ?? redder, redder)).toBeGreaterThan(0.99 * Math.hypot(...redder));
    expect(dot(blue ?? redder, redder)).toBeLessThan(0.6 * Math.hypot(...redder));
    const stronger = seenShift(weights, 0, (2 / Math.hypot(20, 30)) * 20, (2 / Math.hypot(20, 30)) * 30);
    expect(dot(wordDirection(weights, ['stronger']) ?? redder, stronger)).toBeCloseTo(
      Math.hypot(...stronger),
      9,
    );
    expect(Math.hypot(...redder)).toBeCloseTo(deltaE2000(lab, [50, 22, 30]), 0);
  });

  it('that take each other back, or none, point nowhere', () => {
    expect(wordDirection(eyeWeights([50, 0, 0]), ['redder', 'greener'])).toBeUndefined();
    expect(wordDirection(eyeWeights([50, 0, 0]), [])).toBeUndefined();
  });
});

describe('the reference colours', () => {
  it('are told apart by name and by eye, and fill one page', () => {
    expect(REFERENCE_COLOURS).toHaveLength(EYE_PAGE_COLOURS);
    expect(EYE_MOST_COLOURS % EYE_PAGE_COLOURS).toBe(0);
    expect(new Set(REFERENCE_COLOURS.map(({ name }) => name)).size).toBe(EYE_PAGE_COLOURS);
    REFERENCE_COLOURS.forEach(({ lab }, i) =>
      REFERENCE_COLOURS.slice(0, i).forEach((other) => expect(deltaE2000(lab, other.lab)).toBeGreaterThan(5)),
    );
  });
});

describe('what notes point to', () => {
  const colours = REFERENCE_COLOURS.map(({ lab }) => lab);
  const shifts = (l: number, a: number, b: number) =>
    colours.map((lab) => seenShift(eyeWeights(lab), l, a, b));
  const none = colours.map(() => new Float64Array(3));
  const hypothesis = (cause: EyeCause, own: EyeHypothesis['shifts'], words = ''): EyeHypothesis => ({
    ...{ cause, words, shifts: own },
  });
  const all = [
    hypothesis('reach', none),
    hypothesis('ink', shifts(6, 0, 0), '10 % less'),
    hypothesis('ink', shifts(-6, 0, 0), '10 % more'),
    hypothesis('brightener', shifts(0, 0, 5)),
    hypothesis(
      'light',
      colours.map(() => null),
    ),
  ];
  const everywhere = (...words: EyeNote['words']): EyeNote[] =>
    colours.map((_, colour) => ({ colour, words }));
  const first = (notes: readonly EyeNote[]) => pointOut(colours, notes, all)[0];

  it.each([
    [[], 'reach'],
    [['lighter'], 'ink'],
    [['yellower'], 'brightener'],
  ] as const)('%j everywhere: %s', (words, cause) => {
    const points = pointOut(colours, everywhere(...words), all);
    expect(points[0].cause).toBe(cause);
    expect(points[0].share).toBeGreaterThan(0.9);
    expect(points.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
    expect(points.map(({ cause: own }) => own).sort()).toEqual(['brightener', 'ink', 'light', 'reach']);
  });

  it('says which way of a cause fits best', () => {
    expect(first(everywhere('darker')).words).toBe('10 % more');
    expect(first(everywhere('lighter')).words).toBe('10 % less');
  });

  it('is a light where colours move here and there without order', () => {
    const random = createRandom(8);
    const notes = colours.map((_, colour) => ({
      colour,
      words: random.below(2) === 0 ? [] : [EYE_WORDS[random.below(6)]],
    }));
    expect(first(notes).cause).toBe('light');
  });

  it('bears a slip, and is unsure of few notes', () => {
    const slip = everywhere('lighter').map((note) =>
      note.colour === 3 ? { ...note, words: ['darker'] as const } : note,
    );
    expect(first(slip).cause).toBe('ink');
    const many = first(everywhere('lighter')).share;
    expect(first(everywhere('lighter').slice(0, 2)).share).toBeLessThan(many);
  });

  it('without notes speaks for all causes alike', () =>
    pointOut(colours, [], all).forEach(({ share }) => expect(share).toBeCloseTo(0.25, 9)));
});
