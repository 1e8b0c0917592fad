import type { Lab } from '@melto/core/colour/lab';
import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import type { EyeNote, EyeWord } from '@melto/core/eye/eyeWords';
import type { Random } from '@melto/core/numerics/random';

/** How an eye's idea of a colour scatters, in L*, a* and b*. */
const SCATTER = 0.5;
/** Differences that pass unnoticed lie around this, ΔE00, from one look to the next. */
const UNNOTICED = 1.3;
const UNNOTICED_SPREAD = 0.35;
/** What is said beside the largest: a difference of this share of it. */
const SAID_TOO = 0.6;

/** What a simulated eye says of a print beside its reference. It knows nothing of how its words are made sense of. */
export function simulatedNote(colour: number, reference: Lab, print: Lab, random: Random): EyeNote {
  const seen: Lab = [
    print[0] + SCATTER * random.normal(),
    print[1] + SCATTER * random.normal(),
    print[2] + SCATTER * random.normal(),
  ];
  if (deltaE2000(reference, seen) < UNNOTICED + UNNOTICED_SPREAD * random.normal())
    return { colour, words: [] };
  const [dl, da, db] = seen.map((value, axis) => value - reference[axis]);
  const chroma = Math.hypot(reference[1], reference[2]);
  const dc = Math.hypot(seen[1], seen[2]) - chroma;
  // Of a vivid colour one rather says that it is duller, where it is little else.
  const along = chroma > 15 && Math.abs(dc) > 0.85 * Math.hypot(da, db) && random.uniform() < 0.6;
  const parts: { readonly size: number; readonly word: EyeWord }[] = [
    { size: 1.2 * Math.abs(dl), word: dl > 0 ? 'lighter' : 'darker' },
    ...(along
      ? [
          {
            size: Math.abs(dc) / (1 + 0.02 * chroma),
            word: dc > 0 ? ('stronger' as const) : ('duller' as const),
          },
        ]
      : [
          {
            size: Math.abs(da) / (1 + 0.02 * chroma),
            word: da > 0 ? ('redder' as const) : ('greener' as const),
          },
          {
            size: Math.abs(db) / (1 + 0.02 * chroma),
            word: db > 0 ? ('yellower' as const) : ('bluer' as const),
          },
        ]),
  ];
  const most = Math.max(...parts.map(({ size }) => size));
  return { colour, words: parts.filter(({ size }) => size >= SAID_TOO * most).map(({ word }) => word) };
}
