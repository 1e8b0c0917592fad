import { labToHex } from '@melto/core/colour/srgb';
import { deltaChroma, deltaHue } from '@melto/core/conformity/colourDifferences';
import { houseMoment } from '@melto/core/time/houseTime';
import { budgetShare } from '@melto/core/conformity/errorBudget';
import { isSpot, processPatches } from '@melto/core/conformity/checkDetail';
import type { CheckDetail, CheckedPatch } from '@melto/core/conformity/checkDetail';
import {
  decidesSentences,
  metricName,
  metricValue,
  reasonSentence,
  verdictSentence,
} from '@melto/core/conformity/checkWords';
import type { MeasurementConditions } from '@melto/core/cgats/patchSet';
import { histogramOf, signed, triple } from './reportModel.ts';
import type { ReportModel, ReportRow, ReportSection } from './reportModel.ts';

const WORST = 10;
const BIN = 0.5;

/** A conformity check as a report. @param version of the check on its condition. @param zone the house's time zone. */
export function checkReportModel(detail: CheckDetail, version: number, zone: string): ReportModel {
  const { header, distribution } = detail;
  return {
    title: 'Conformity check',
    verdict: { status: detail.verdict, words: verdictSentence(detail), reason: reasonSentence(detail) },
    facts: [
      ['Condition', header.condition],
      ['Sheet', `${header.sheet}, ${header.chart}`],
      ['Printed', `${houseMoment(header.printedMs, zone)}, ${header.through}`],
      [
        'Read',
        `${houseMoment(header.readMs, zone)}, ${header.instrument}, ${conditionsWords(header.measured)}`,
      ],
      ['Judged', `${houseMoment(header.madeMs, zone)} by ${header.person}, check version ${version}`],
      ['Aims', `${header.aims.name}, version ${header.aims.version}`],
      ['Tolerances', `${header.tolerances.name}, version ${header.tolerances.version}`],
      ['Chosen', header.chosen],
    ],
    notices: noticesOf(detail),
    sections: [
      {
        kind: 'table',
        title: 'Metrics',
        columns: [
          { name: 'Metric', width: 5 },
          { name: 'Value', numeric: true, width: 1 },
          { name: 'Limit', numeric: true, width: 1 },
          { name: 'Margin', numeric: true, width: 1 },
          { name: 'Patches', numeric: true, width: 1 },
          { name: 'Worst patch', width: 3 },
        ],
        rows: detail.metrics.map((line) => ({
          status: line.verdict,
          cells: [
            metricName(line),
            metricValue(line),
            line.limit.toFixed(2),
            line.margin === null ? '–' : signed(line.margin),
            String(line.count),
            line.worst === null ? '–' : patchWords(detail.patches[line.worst]),
          ],
        })),
      },
      ...sentencesOf(detail),
      {
        kind: 'histogram',
        title: `Distribution of ΔE00 over ${distribution.count} patches`,
        histogram: histogramOf(
          processPatches(detail.patches).map(({ deltaE }) => deltaE),
          BIN,
          'ΔE00',
          [
            { at: distribution.mean, words: `mean ${distribution.mean.toFixed(2)}` },
            { at: distribution.p95, words: `95 % ${distribution.p95.toFixed(2)}` },
          ],
        ),
      },
      {
        kind: 'table',
        title: 'Figures',
        columns: ['Mean', 'Median', 'St. dev.', '90 %', '95 %', 'Mean beyond 95 %', 'Largest'].map(
          (name) => ({
            name,
            numeric: true,
            width: 1,
          }),
        ),
        rows: [
          {
            cells: [
              distribution.mean,
              distribution.median,
              distribution.standardDeviation,
              distribution.p90,
              distribution.p95,
              distribution.tail,
              distribution.largest,
            ].map((value) => value?.toFixed(2) ?? '–'),
          },
        ],
      },
      {
        kind: 'table',
        title: 'Groups',
        columns: [
          { name: 'Group', width: 3 },
          ...['Patches', 'Mean ΔE00', 'Largest ΔE00', 'Mean ΔH', 'Mean ΔCh'].map((name) => ({
            name,
            numeric: true,
            width: 1.4,
          })),
        ],
        rows: detail.groups.map((group) => ({
          cells: [
            group.group,
            String(group.count),
            group.mean.toFixed(2),
            group.largest.toFixed(2),
            group.meanDeltaH.toFixed(2),
            group.meanDeltaCh.toFixed(2),
          ],
        })),
      },
      patchTable(`The ${Math.min(WORST, detail.patches.length)} worst patches`, worstPatches(detail)),
      patchTable('All patches', detail.patches),
    ],
    statement: statementOf(detail),
  };
}

function noticesOf({ header, otherwise, withoutAim }: CheckDetail): string[] {
  return [
    ...(header.early ? ['The sheet was read before its rest was over.'] : []),
    ...(otherwise.length > 0
      ? [`Measured otherwise than the aims: ${otherwise.join('; ')}. Such a reading never conforms outright.`]
      : []),
    ...(withoutAim > 0 ? [`${withoutAim} patches have no aim and were not judged.`] : []),
    ...header.tolerances.notJudged,
    ...(header.tolerances.doubts ?? []),
  ];
}

function sentencesOf(detail: CheckDetail): ReportSection[] {
  const decides = decidesSentences(detail);
  const { budget } = detail;
  const out: ReportSection[] = [];
  if (decides.length > 0) out.push({ kind: 'sentences', title: 'What decides it', sentences: decides });
  if (budget !== null)
    out.push({
      kind: 'table',
      title: `Where the mean of ${budget.total.toFixed(2)} ΔE00 comes from`,
      columns: [
        { name: 'Source', width: 2 },
        { name: 'Alone, ΔE00', numeric: true, width: 1 },
        { name: 'Share of squares', numeric: true, width: 1 },
        { name: 'Known from', width: 4 },
      ],
      rows: budget.parts.map((part) => ({
        cells: [
          part.source,
          part.size.toFixed(2),
          `${Math.round(100 * budgetShare(part, budget))} %`,
          part.from,
        ],
      })),
    });
  return out;
}

function worstPatches({ patches }: CheckDetail): CheckedPatch[] {
  return [...patches].sort((a, b) => b.deltaE - a.deltaE).slice(0, WORST);
}

function patchTable(title: string, patches: readonly CheckedPatch[]): ReportSection {
  return {
    kind: 'table',
    title,
    note: 'measured above, the aim in the lower third',
    columns: [
      { name: 'Patch', width: 2.2 },
      { name: 'C M Y K, %', width: 1.8 },
      { name: 'Aim L* a* b*', numeric: true, width: 2.3 },
      { name: 'Measured L* a* b*', numeric: true, width: 2.3 },
      { name: 'ΔE00', numeric: true, width: 0.8 },
      { name: 'ΔL*', numeric: true, width: 0.8 },
      { name: 'ΔC*', numeric: true, width: 0.8 },
      { name: 'ΔH', numeric: true, width: 0.8 },
    ],
    rows: patches.map((patch): ReportRow => ({
      swatch: { measured: labToHex(patch.measured), aim: labToHex(patch.aim) },
      cells: [
        patch.name,
        inks(patch),
        triple(patch.aim),
        triple(patch.measured),
        patch.deltaE.toFixed(2),
        signed(patch.measured[0] - patch.aim[0]),
        signed(deltaChroma(patch.aim, patch.measured)),
        signed(deltaHue(patch.aim, patch.measured)),
      ],
    })),
  };
}

function inks({ device }: CheckedPatch): string {
  return isSpot({ device }) ? 'spot' : device.map((value) => value.toFixed(0)).join(' ');
}

function patchWords(patch: CheckedPatch): string {
  return isSpot(patch) ? patch.name : `${patch.name} (${inks(patch)})`;
}

export function conditionsWords(conditions: MeasurementConditions): string {
  const { mode, illuminant, observer, backing, filter } = conditions;
  return [
    mode ?? 'mode not told',
    illuminant === undefined ? undefined : `${illuminant}/${observer ?? '2'}°`,
    backing === undefined ? undefined : `${backing} backing`,
    filter === undefined || filter === 'none' ? undefined : filter,
  ]
    .filter((word) => word !== undefined)
    .join(', ');
}

function statementOf(detail: CheckDetail): string[] {
  const { header, substrateCorrected, spotsMoved, patches } = detail;
  const completed = patches.filter(({ origin }) => origin === 'completed').length;
  const interpolated = patches.filter(({ origin }) => origin === 'interpolated').length;
  return [
    `The aims are ${header.aims.name}, version ${header.aims.version}: ${header.aims.origin}. They were measured in ${conditionsWords(header.aims.conditions)}.`,
    ...(completed > 0
      ? [`The aims of ${completed} patches were completed from published solids and tone values.`]
      : []),
    ...(interpolated > 0
      ? [`The aims of ${interpolated} patches were interpolated from their neighbours in the aim set.`]
      : []),
    ...(substrateCorrected
      ? [
          `The aims were corrected for the substrate that was read, by the tristimulus linear correction${spotsMoved === true ? ', those of spot colours as well' : spotsMoved === false && patches.some(isSpot) ? '; those of spot colours were not' : ''}.`,
        ]
      : []),
    `The tolerances are ${header.tolerances.name}, version ${header.tolerances.version}: ${header.tolerances.source}.`,
    'Repeated patches were averaged as reflectance. Percentiles are interpolated linearly between order statistics. Unrounded values were judged; one that equals its limit is within.',
  ];
}
