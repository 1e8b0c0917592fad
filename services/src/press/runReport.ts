import type { AnalysisRow } from '@melto/core/press/runAnalysis';
import type { Share } from '@melto/core/press/capability';
import type { Scope } from '@melto/core/press/scopes';
import { houseDay } from '@melto/core/time/houseTime';
import { reportHtml } from '@melto/paper/report/reportHtml';
import type { ReportModel, ReportSection } from '@melto/paper/report/reportModel';
import { findHouse } from '@melto/store/houses';
import { fileName } from '../kernel/download.ts';
import type { Download } from '../kernel/download.ts';
import type { Context } from '../kernel/context.ts';
import { personName } from '../kernel/person.ts';
import { reportLogo } from '../kernel/reportLogo.ts';
import { runAnalysis } from './analysis.ts';
import type { AnalysisAsked, AnalysisView } from './analysis.ts';

const percent = ({ share }: Share): string => (100 * share).toFixed(1);
const SCOPE_WORDS: Readonly<Record<Scope, string>> = {
  run: 'this run',
  job: 'all runs of the job',
  press: 'all runs of the press on this bar',
  shift: 'the shift',
};

/** The analysis of a run as a page or PDF. */
export async function runReport(
  context: Context,
  runId: number,
  asked: AnalysisAsked & { readonly format: 'html' | 'pdf' },
): Promise<Download> {
  const view = await runAnalysis(context, runId, asked);
  const house = await findHouse(context.database);
  if (house === undefined) throw new Error(`no house ${context.database.house}`);
  const person = await personName(context);
  const model: ReportModel = {
    ...modelOf(view),
    logo: await reportLogo(context),
    facts: [
      ['House', house.name],
      ...factsOf(view, asked, house.timeZone),
      // Whoever follows a public link is nobody of the house.
      ...(person === '' ? [] : [['Reported by', person] as const]),
    ],
  };
  const name = fileName(`run ${view.run.jobNumber} ${view.run.title}`);
  return asked.format === 'pdf'
    ? {
        name: `${name}.pdf`,
        mediaType: 'application/pdf',
        content: await context.drawFile({ kind: 'report', model }),
      }
    : {
        name: `${name}.html`,
        mediaType: 'text/html; charset=utf-8',
        content: Buffer.from(reportHtml(model)),
      };
}

function factsOf(
  { run, sheets, values, runs, shift, against, otherwise, seen }: AnalysisView,
  { scope, phase }: AnalysisAsked,
  zone: string,
): [string, string][] {
  const counter = (impression: number | null): string => impression?.toLocaleString('en-GB') ?? 'none';
  return [
    ['Job', `${run.jobNumber} ${run.title}`],
    ['Customer', run.customer === '' ? 'not told' : run.customer],
    ['Side', run.side === '' ? 'not told' : run.side],
    ['Printed on', run.condition],
    ['Begun', houseDay(run.madeMs, zone)],
    ['Sheets', `${sheets} of ${SCOPE_WORDS[scope]}${phase === undefined ? '' : `, ${phase} alone`}`],
    ...(shift === null
      ? []
      : [['Shift', `${shift.words}, ${runs} ${runs === 1 ? 'run' : 'runs'}`] as [string, string]]),
    ...(against === null ? [] : [['Judged by', against.name] as [string, string]]),
    ['Colour differences', `${seen.formula}, ${seen.light}`],
    ...(otherwise === 0
      ? []
      : [
          [
            'Left out',
            `${otherwise} ${otherwise === 1 ? 'run' : 'runs'} judged by another formula or under another light`,
          ] as [string, string],
        ]),
    ['Patch values', values.toLocaleString('en-GB')],
    ['OK sheet', counter(run.okImpression)],
    ['Production from', counter(run.productionFrom)],
  ];
}

/** A run is judged by how it varies from its OK sheet; shares are told and have no limit of their own. */
function modelOf(view: AnalysisView): Omit<ReportModel, 'facts' | 'logo'> {
  const { run, variation, sheetShare, patchShare, against } = view;
  const off = variation.filter(({ kept }) => !kept).map(({ ink }) => ink);
  const verdict: ReportModel['verdict'] =
    variation.length === 0
      ? {
          status: 'not-judged',
          words: 'Not judged',
          reason:
            run.okImpression === null
              ? 'No OK sheet was marked: how the run varies from it cannot be told.'
              : 'No sheet of production was read.',
        }
      : off.length === 0
        ? {
            status: 'conforms',
            words: 'Keeps to its OK sheet',
            reason: 'All solids: 68 % of the sheets within the limit.',
          }
        : {
            status: 'does-not-conform',
            words: 'Varies from its OK sheet',
            reason: `${off.join(', ')}: fewer than 68 % of the sheets are within the limit.`,
          };
  const share =
    sheetShare === undefined || patchShare === undefined
      ? 'No sheet was read.'
      : `${percent(sheetShare)} % of the sheets are within in every patch, ${percent(patchShare)} % of the patch values (95 % interval ${(100 * patchShare.low).toFixed(1)} to ${(100 * patchShare.high).toFixed(1)}).`;
  return {
    title: `Run ${run.jobNumber}, ${run.title}`,
    verdict,
    notices: [share],
    sections: [
      ...(variation.length === 0 ? [] : [variationTable(view)]),
      sharesTable(view),
      zonesTable(view),
    ],
    statement: [
      against === null
        ? `Aims: ${run.aims}${run.okImpression === null ? '' : ', or the OK sheet from when it was locked'}. Each sheet is judged by the aims that the run had when it was read.`
        : `Aims: ${against.name}, for all sheets, whatever the run was printed to; spot inks are not judged by it.`,
      'Solids within ΔE*ab 4, yellow 5, of the OK sheet for 68 % of the sheets: ISO 12647-2, as commonly published; check against your copy. 95 % within twice that was chosen by Melto.',
      'Intervals of shares by Wilson, of capability by Bissell, both at 95 %; capability takes values to be normal.',
    ],
  };
}

function variationTable({ variation }: AnalysisView): ReportSection {
  return {
    kind: 'table',
    title: 'Solids against the OK sheet',
    note: 'ΔE*ab, mean over the zones, sheets of production',
    columns: [
      { name: 'Ink', width: 2 },
      ...['68 % within', '95 % within', 'Limit', 'Sheets'].map((name) => ({ name, numeric: true, width: 1 })),
    ],
    rows: variation.map(({ ink, at68, at95, limit, sheets, kept }) => ({
      status: kept ? 'conforms' : 'does-not-conform',
      cells: [ink, at68.toFixed(2), at95.toFixed(2), limit.toFixed(1), String(sheets)],
    })),
  };
}

function sharesTable({ rows }: AnalysisView): ReportSection {
  const interval = (share: Share): string =>
    `${(100 * share.low).toFixed(1)} to ${(100 * share.high).toFixed(1)}`;
  const cpk = ({ capability }: AnalysisRow): string =>
    capability === undefined
      ? ''
      : `${capability.cpk.toFixed(2)} (${capability.low.toFixed(2)} to ${capability.high.toFixed(2)})`;
  return {
    kind: 'table',
    title: 'Within tolerance, per cent',
    columns: [
      { name: 'Patches', width: 2 },
      { name: 'Within', numeric: true, width: 1 },
      { name: '95 % interval', numeric: true, width: 1.6 },
      ...['Mean', '95th', 'Largest', 'Limit'].map((name) => ({ name, numeric: true, width: 0.9 })),
      { name: 'Cpk', numeric: true, width: 2 },
    ],
    rows: rows.flatMap((row) =>
      row.share === undefined
        ? []
        : [
            {
              cells: [
                ...[
                  `${row.words}, ${row.quantity}`,
                  percent(row.share),
                  interval(row.share),
                  row.mean.toFixed(2),
                ],
                ...[row.at95.toFixed(2), row.largest.toFixed(2), row.limit.toFixed(1), cpk(row)],
              ],
            },
          ],
    ),
  };
}

function zonesTable({ rows, zones }: AnalysisView): ReportSection {
  return {
    kind: 'table',
    title: 'Within tolerance by ink zone, per cent',
    columns: [
      { name: 'Patches', width: 3 },
      ...Array.from({ length: zones }, (_, zone) => ({ name: String(zone + 1), numeric: true, width: 1 })),
    ],
    rows: rows
      .filter(({ share }) => share !== undefined)
      .map((row) => ({
        cells: [
          row.words,
          ...row.zones.map((share) => (share === undefined ? '' : (100 * share.share).toFixed(0))),
        ],
      })),
  };
}
