import type { ReportedModel } from '@melto/core/characterise/fitReport';
import { deltaE2000Of, deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzToLab } from '@melto/core/colour/xyzToLab';
import { labToDevice } from '@melto/core/icc/profileTransform';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { channelCount } from '@melto/core/device/process';
import { mean } from '@melto/core/numerics/statistics';
import { RESERVED_NAMES } from '@melto/core/refine/refinementPatches';
import { unwrap } from '@melto/core/result';
import type { RefinementFigures } from '../ledger/kinds/profileKind.ts';
import type { LoadedReading } from '../reading/loadReading.ts';

/** A wanted colour with what was read of it. */
export interface WantedColour {
  readonly name: string;
  readonly asked: readonly [number, number, number];
  readonly measured: readonly [number, number, number];
}

/** Colours that the charts of added readings asked for, with the mean of their readings. */
export function wantedColours(added: readonly LoadedReading[]): WantedColour[] {
  return added.flatMap(({ rows, chart, xyz }) => {
    const { lab, names } = chart.set;
    if (lab === undefined || names === undefined) return [];
    const groups = new Map<string, number[]>();
    rows.forEach((row, i) => {
      if (!RESERVED_NAMES.has(names[row])) groups.set(names[row], [...(groups.get(names[row]) ?? []), i]);
    });
    return [...groups].map(([name, places]) => {
      const at = 3 * rows[places[0]];
      const [x, y, z] = [0, 1, 2].map((axis) => mean(places.map((place) => xyz[3 * place + axis])));
      return {
        name,
        asked: [lab[at], lab[at + 1], lab[at + 2]] as const,
        measured: xyzToLab([x, y, z], WHITE_D50_MEASURED),
      };
    });
  });
}

export function refinementFigures(
  first: LoadedReading,
  added: readonly LoadedReading[],
  wanted: readonly WantedColour[],
  before: ReportedModel,
  after: ReportedModel,
  profile: IccProfile,
): RefinementFigures {
  const asked = Float64Array.from(wanted.flatMap((colour) => colour.asked));
  const device = new Float64Array(wanted.length * after.patches.channels);
  const printed = new Float64Array(asked.length);
  unwrap(labToDevice(profile, 'absolute')).apply(asked, device);
  after.lab(device, printed);
  const errors = deltaE2000Rows(asked, printed);
  const own = new Set(before.patches.sources.map((_, i) => keyOf(before, i)));
  const kept = [...after.crossValidation.errors].filter((_, i) => own.has(keyOf(after, i)));
  return {
    sheets: added.map(({ print }) => print.code),
    addedPatches: added.reduce((sum, { rows }) => sum + rows.length, 0),
    agreement: agreement(first, added),
    wanted: wanted.map(({ name, asked: lab, measured }, i) => ({
      name,
      asked: lab,
      before: deltaE2000Of(...lab, ...measured),
      after: errors[i],
    })),
    elsewhere: { before: before.crossValidation.summary.mean, after: mean(kept) },
  };
}

function keyOf({ patches: { device, channels } }: ReportedModel, row: number): string {
  return device.subarray(row * channels, (row + 1) * channels).join();
}

/** Papers, overprints and corners of the light stand on every sheet. */
const TIES: ReadonlySet<string> = new Set(['paper', 'overprint', 'primary']);

/** How far do they agree? */
function agreement(first: LoadedReading, added: readonly LoadedReading[]): number | null {
  const channels = channelCount(first.condition.process);
  const ties = (loaded: LoadedReading): Map<string, number[]> => {
    const out = new Map<string, number[]>();
    loaded.rows.forEach((row, i) => {
      const name = loaded.chart.set.names?.[row];
      if (!TIES.has(name ?? '')) return;
      const key = loaded.set.device?.subarray(channels * i, channels * (i + 1)).join() ?? '';
      out.set(key, [...(out.get(key) ?? []), i]);
    });
    return out;
  };
  const meanLab = ({ xyz }: LoadedReading, places: readonly number[]): readonly [number, number, number] => {
    const [x, y, z] = [0, 1, 2].map((axis) => mean(places.map((place) => xyz[3 * place + axis])));
    return xyzToLab([x, y, z], WHITE_D50_MEASURED);
  };
  const own = ties(first);
  const differences = added.flatMap((other) =>
    [...ties(other)].flatMap(([key, places]) => {
      const here = own.get(key);
      return here === undefined ? [] : [deltaE2000Of(...meanLab(first, here), ...meanLab(other, places))];
    }),
  );
  return differences.length === 0 ? null : mean(differences);
}
