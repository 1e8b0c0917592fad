import { inkFamilies } from '../separate/extraInks.ts';
import type { ExtraInks } from '../separate/extraInks.ts';
import type { Separation } from '../separate/separation.ts';

const CMY_OF_FOUR = [0, 0.2, 0.4, 0.6, 0.8, 1];
const K_OF_FOUR = [0, 0.25, 0.5, 0.75, 1];
const CMY_ALONE = [0, 0.25, 0.5, 0.75, 1];
const CMY_BESIDE = [0, 0.4, 1];
const EXTRA = [0.4, 1];
const K_OF_MANY = [0, 0.35, 0.7, 1];

/** Inks from which colours are looked for, by channel: C, M, Y, K alone, and with the extra inks of each sector. */
export function inkStarts({ totalInk, inkLimits, extra }: Separation): number[][] {
  const starts: number[][] = [];
  const add = (values: number[]): void => {
    if (values.reduce((sum, value) => sum + value, 0) <= totalInk + 1e-9) starts.push(values);
  };
  if (extra === undefined) {
    eachOf([CMY_OF_FOUR, CMY_OF_FOUR, CMY_OF_FOUR, K_OF_FOUR], add);
    return starts;
  }
  const count = inkLimits.length;
  const { base, black } = extra;
  const spread = (inks: readonly number[], amounts: readonly (readonly number[])[]): void =>
    eachOf(amounts, (values) => {
      const all = new Array<number>(count).fill(0);
      inks.forEach((ink, i) => (all[ink] = values[i]));
      add(all);
    });
  spread([...base, black], [CMY_ALONE, CMY_ALONE, CMY_ALONE, K_OF_MANY]);
  for (const extras of extrasOfSectors(extra))
    spread(
      [...base, black, ...extras],
      [CMY_BESIDE, CMY_BESIDE, CMY_BESIDE, K_OF_MANY, ...extras.map(() => EXTRA)],
    );
  return starts;
}

function extrasOfSectors(extra: ExtraInks): number[][] {
  return inkFamilies(extra).map((family) =>
    family.filter((ink) => ink !== extra.black && !extra.base.includes(ink)),
  );
}

/** All combinations of amounts, the last one varying fastest. */
function eachOf(amounts: readonly (readonly number[])[], visit: (values: number[]) => void): void {
  const go = (values: readonly number[]): void => {
    if (values.length === amounts.length) visit([...values]);
    else for (const value of amounts[values.length]) go([...values, value]);
  };
  go([]);
}
