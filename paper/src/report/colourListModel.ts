import { labToHex } from '@melto/core/colour/srgb';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { TINT_SHARES, tintsOf } from '@melto/core/lists/tints';
import { deviceValues } from '@melto/core/device/deviceValues';
import { largest, mean } from '@melto/core/numerics/statistics';
import { nearestColours, reachOf, REACHED } from '@melto/core/proof/placeList';
import type { PrintedColour } from '@melto/core/proof/placeList';
import type { NamedColour } from '@melto/core/refine/namedColour';
import type { Result } from '@melto/core/result';
import { success } from '@melto/core/result';
import { triple } from './reportModel.ts';
import type { ReportModel, ReportRow } from './reportModel.ts';

/** What the report of a colour list is about, in words. */
export interface ColourListHeader {
  readonly list: string;
  readonly origin: string;
  readonly condition: string;
  readonly profile: string;
  /** Who asked for it, and on which day; where it is known. */
  readonly made?: { readonly person: string; readonly day: string };
}

const number = (name: string, width = 1) => ({ name, numeric: true, width });
const REACH_WORDS = { yes: 'reached', nearly: 'nearly', no: 'not reached' } as const;

/** What becomes of a colour list on a condition: each colour reached or not, by how much, with which device values. */
export function colourListModel(
  header: ColourListHeader,
  colours: readonly NamedColour[],
  profile: IccProfile,
): Result<Omit<ReportModel, 'logo'>> {
  const asked = Float64Array.from(colours.flatMap(({ lab }) => [...lab]));
  const found = nearestColours(profile, asked);
  if (!found.ok) return found;
  const nearest = found.value;
  const tints = tintsOf(profile, colours);
  if (!tints.ok) return tints;
  const order = [...colours.keys()].sort((a, b) => nearest[b].deltaE - nearest[a].deltaE);
  const reached = nearest.filter(({ deltaE }) => reachOf(deltaE) === 'yes').length;
  const errors = nearest.map(({ deltaE }) => deltaE);
  return success({
    title: 'Colour list',
    verdict: {
      status: reached === colours.length ? 'conforms' : 'near',
      words: `${reached} of ${colours.length} reached`,
      reason: `Reached is what comes within ${REACHED.toFixed(1)} ΔE00, by the profile, with the inks that come nearest; mean ${mean(errors).toFixed(2)}, largest ${largest(errors).toFixed(2)}.`,
    },
    facts: [
      ['List', header.list],
      ['From', header.origin],
      ['Condition', header.condition],
      ['Profile', header.profile],
      ...(header.made === undefined
        ? []
        : ([
            ['Made', header.made.day],
            ['By', header.made.person],
          ] as const)),
    ],
    notices: [],
    sections: [
      {
        kind: 'table',
        title: 'Colours, the farthest first',
        note: 'nearest above, asked in the lower third',
        columns: [
          { name: 'Colour', width: 3 },
          { name: 'Reached', width: 1.6 },
          number('ΔE00', 0.9),
          number('Asked L* a* b*', 2.4),
          number('Nearest L* a* b*', 2.4),
          number('Device', 2.2),
        ],
        rows: order.map((i) => rowOf(colours[i], nearest[i])),
      },
      {
        kind: 'table',
        title: 'Tints',
        note: 'device values of 25, 50 and 75 % spot colour tone value (ISO 20654) on this paper, with ΔE00',
        columns: [
          { name: 'Colour', width: 2.4 },
          ...TINT_SHARES.map((share) => number(`${Math.round(100 * share)} %`, 2.4)),
        ],
        rows: order.map((i) => ({
          cells: [
            colours[i].name,
            ...tints.value[i].map(({ device, deltaE }) => `${deviceValues(device)} (${deltaE.toFixed(1)})`),
          ],
        })),
      },
    ],
    statement: [
      'Predicted from the profile, D50, 2°, absolute colorimetric; a print that is read tells more. Nearest is by ΔE00 over all that the device prints within the total ink of its profile; a profile that converts a picture keeps hue instead, and may lead elsewhere.',
    ],
  });
}

function rowOf({ name, lab }: NamedColour, { printed, device, deltaE }: PrintedColour): ReportRow {
  return {
    swatch: { measured: labToHex(printed), aim: labToHex(lab) },
    cells: [
      name,
      REACH_WORDS[reachOf(deltaE)],
      deltaE.toFixed(2),
      triple(lab),
      triple(printed),
      deviceValues(device),
    ],
  };
}
