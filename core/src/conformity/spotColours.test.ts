import { CMYK } from '../device/process.ts';
import { describe, expect, it } from 'vitest';
import type { PatchSet } from '../cgats/patchSet.ts';
import { deltaE2000 } from '../colour/deltaE2000.ts';
import type { Lab } from '../colour/lab.ts';
import { WHITE_D50_MEASURED } from '../colour/whitePoints.ts';
import { labToXyz } from '../colour/xyzToLab.ts';
import { unwrap } from '../result.ts';
import { pairKey } from './aims.ts';
import { checkAgainstAims } from './checkAgainstAims.ts';
import type { AimCheck } from './checkAgainstAims.ts';
import { checkedPatches, distributionOf, groupFigures } from './checkDetail.ts';
import { TOLERANCE_SETS } from './data/toleranceSets.ts';
import type { SpotReading } from './spotColour.ts';
import type { ToleranceSet } from './toleranceSet.ts';

const PROOF = TOLERANCE_SETS.find(({ id }) => id === 'iso12647-7-proof') as ToleranceSet;
const COLOURS: readonly (readonly [readonly number[], Lab])[] = [
  [
    [0, 0, 0, 0],
    [93, 0, -3],
  ],
  [
    [1, 0, 0, 0],
    [54, -36, -49],
  ],
  [
    [0, 1, 0, 0],
    [47, 74, -3],
  ],
  [
    [0, 0, 1, 0],
    [87, -4, 92],
  ],
  [
    [0, 0, 0, 1],
    [16, 0, 0],
  ],
  [
    [0.5, 0.4, 0.4, 0],
    [60, 0, -2],
  ],
];
const xyzOf = (labs: readonly Lab[]): Float64Array =>
  Float64Array.from(labs.flatMap((lab) => [...labToXyz(lab, WHITE_D50_MEASURED)]));
const device = Float64Array.from(COLOURS.flatMap(([inks]) => [...inks]));
const aims = { conditions: {}, device, xyz: xyzOf(COLOURS.map(([, lab]) => lab)) };
const sheet = (paper: Lab = COLOURS[0][1]): PatchSet => ({
  ids: COLOURS.map((_, i) => String(i)),
  process: CMYK,
  device,
  xyz: xyzOf(COLOURS.map(([, lab], i) => (i === 0 ? paper : lab))),
  conditions: {},
  notes: [],
});
/** At L* 50 on the grey axis ΔE00 is ΔL* where both lie half of it from 50. */
const spot = (name: string, off: number): SpotReading => ({
  name,
  lab: [50 - off / 2, 0, 0],
  xyz: labToXyz([50 + off / 2, 0, 0], WHITE_D50_MEASURED),
  device: [0, 0, 0, 0.5],
});
const check = (spots: readonly SpotReading[], corrected = false, paper?: Lab): AimCheck =>
  unwrap(checkAgainstAims(sheet(paper), aims, PROOF, corrected, spots));

describe('spot colours of a check', () => {
  it('are a metric of ISO 12647-7 where there are any, and fail by 0.01 alone', () => {
    const line = (found: AimCheck) => found.metrics.find(({ group }) => group === 'spot colours');
    expect(line(check([]))).toBeUndefined();
    expect(check([]).verdict).toBe('conforms');
    const within = check([spot('Seed red', 1), spot('Tide blue', 2.49)]);
    expect(line(within)).toMatchObject({ count: 2, worst: COLOURS.length + 1, verdict: 'near' });
    expect(line(within)?.value).toBeCloseTo(2.49, 9);
    const over = check([spot('Seed red', 1), spot('Tide blue', 2.51)]);
    expect(over.verdict).toBe('does-not-conform');
    expect(over.metrics.filter(({ verdict }) => verdict === 'does-not-conform')).toEqual([line(over)]);
    expect(line(over)?.margin).toBeCloseTo(-0.01, 9);
  });

  it('do not count with the patches of the process inks', () => {
    const found = check([spot('Seed red', 9)]);
    expect(found.deltaE).toHaveLength(COLOURS.length + 1);
    expect(found.deltaE.at(-1)).toBeCloseTo(9, 9);
    for (const metric of found.metrics)
      if (metric.group !== 'spot colours' && Number.isFinite(metric.value))
        expect(metric.value).toBeLessThan(1e-9);
    const patches = checkedPatches(found, (row) => `patch ${row}`);
    expect(patches.at(-1)).toMatchObject({ name: 'Seed red', device: [], groups: ['spot colours'] });
    expect(distributionOf(patches)).toMatchObject({ count: COLOURS.length });
    // One patch scatters about nothing; what is stored of it has to be there again.
    const one = distributionOf(patches.filter(({ groups }) => groups.includes('all')).slice(0, 1));
    expect(JSON.parse(JSON.stringify(one))).toEqual(one);
    expect(one).toMatchObject({ count: 1, standardDeviation: null });
    expect(distributionOf(patches).largest).toBeLessThan(1e-9);
    expect(groupFigures(patches).at(-1)).toMatchObject({ group: 'spot colours', count: 1 });
  });

  it('follow the paper only where that is chosen, then by the same rule', () => {
    const paper: Lab = [90, 1, -1];
    const red: Lab = [48, 60, 30];
    const reading = { ...spot('Seed red', 0), lab: red, xyz: labToXyz(red, WHITE_D50_MEASURED) };
    const kept = check([reading], true, paper);
    expect(kept.pairs.at(-1)).toMatchObject({ aim: red, uncorrected: red });
    expect(kept.spotsMoved).toBe(false);
    // A patch of the process inks with the same aim moves alike.
    const own = {
      ...aims,
      device: Float64Array.from([...device, 0.1, 0.9, 0.9, 0]),
      xyz: xyzOf([...COLOURS.map(([, lab]) => lab), red]),
    };
    const read = sheet(paper);
    const both = unwrap(
      checkAgainstAims(
        {
          ...read,
          ids: [...read.ids, 'red'],
          device: own.device,
          xyz: Float64Array.from([...(read.xyz ?? []), ...reading.xyz]),
        },
        own,
        PROOF,
        true,
        [reading],
        true,
      ),
    );
    expect(both.spotsMoved).toBe(true);
    const [process, mixed] = both.pairs.slice(-2);
    expect(mixed.uncorrected).toEqual(red);
    expect(deltaE2000(process.aim, mixed.aim)).toBeLessThan(1e-9);
    expect(deltaE2000(process.aim, red)).toBeGreaterThan(0.1);
  });

  it('are told apart by name, patches by their device values', () => {
    const keys = check([spot('Seed red', 0), spot('Tide blue', 0)]).pairs.map(pairKey);
    expect(new Set(keys).size).toBe(COLOURS.length + 2);
  });
});
