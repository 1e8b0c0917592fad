import { labToHex } from '@melto/core/colour/srgb';
import { houseMoment } from '@melto/core/time/houseTime';
import { formatAgainstLimit } from '@melto/core/judgement/metric';
import type { ShortCheckResult } from '@melto/core/conformity/shortCheck';
import { STATUS_WORDS } from '../statusShape.ts';
import { signed, triple } from './reportModel.ts';
import type { ReportModel } from './reportModel.ts';

/** What, where, who, when, with which instrument. */
export interface ReportHeader {
  readonly condition: string;
  readonly sheet: string;
  readonly profile: string;
  readonly instrument: string;
  readonly mode: string;
  readonly person: string;
  readonly madeMs: number;
  readonly printedMs: number;
  readonly early: boolean;
}

const number = (name: string, width = 1) => ({ name, numeric: true, width });

/** A short check as a report. @param zone the house's time zone. */
export function shortCheckModel(
  header: ReportHeader,
  check: ShortCheckResult,
  version: number,
  zone: string,
): ReportModel {
  const { reached, repeats, limits } = check;
  const worst = [...check.patches].sort(
    (a, b) => Number(b.inGamut) - Number(a.inGamut) || b.reached - a.reached,
  );
  return {
    title: 'Short check',
    verdict: {
      status: check.verdict,
      words: `${STATUS_WORDS[check.verdict]}${check.tight ? ', tight' : ''}`,
      reason: `Judged by ${limits.name}: mean ΔE00 up to ${limits.mean.toFixed(1)}, largest up to ${limits.largest.toFixed(1)}, of the colours that the device can reach (${Math.round(check.inGamutShare * 100)} % of the check).`,
    },
    facts: [
      ['Condition', header.condition],
      ['Sheet', header.sheet],
      ['Profile', header.profile],
      ['Printed', houseMoment(header.printedMs, zone)],
      ['Judged', houseMoment(header.madeMs, zone)],
      ['By', header.person],
      ['Instrument', `${header.instrument}, ${header.mode}, D50/2°`],
      ['Check', `version ${version}`],
    ],
    notices: header.early ? ['The sheet was read before its rest was over.'] : [],
    sections: [
      {
        kind: 'table',
        title: 'Metrics',
        columns: [{ name: 'Metric', width: 4 }, number('Value'), number('Limit'), number('Margin')],
        rows: check.metrics.map((line) => ({
          status: line.verdict,
          cells: [
            line.name,
            formatAgainstLimit(line.value, line.limit),
            line.limit.toFixed(2),
            signed(line.margin),
          ],
        })),
      },
      {
        kind: 'table',
        title: 'Two figures, not to be confused',
        columns: [
          { name: 'Figure', width: 6 },
          number('Patches'),
          number('Mean'),
          number('95 % under'),
          number('Largest'),
        ],
        rows: [
          ['reached: measured against the colour asked for, scaled to this paper', reached] as const,
          [
            'repeats: measured against what the profile predicts for the same device values',
            repeats,
          ] as const,
        ].map(([name, figures]) => ({
          cells: [
            name,
            String(figures.count),
            figures.mean.toFixed(2),
            figures.p95.toFixed(2),
            figures.largest.toFixed(2),
          ],
        })),
      },
      {
        kind: 'table',
        title: 'All colours, worst first',
        note: 'measured above, asked in the lower third',
        columns: [
          { name: 'Colour', width: 3 },
          number('Asked L* a* b*', 2.2),
          number('Measured L* a* b*', 2.2),
          number('Reached ΔE00'),
          number('Repeats ΔE00'),
        ],
        rows: worst.map((patch) => ({
          swatch: { measured: labToHex(patch.measured), aim: labToHex(patch.asked) },
          cells: [
            patch.inGamut ? patch.name : `${patch.name}, out of gamut, not judged`,
            triple(patch.asked),
            triple(patch.measured),
            patch.reached.toFixed(2),
            patch.repeats.toFixed(2),
          ],
        })),
      },
    ],
    statement: [
      "The aims are colours of Melto's short check, defined in Lab (D50), relative to the paper. Percentiles are interpolated between order statistics. Unrounded values are judged.",
    ],
  };
}
