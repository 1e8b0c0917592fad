import { randomBytes } from 'node:crypto';
import type { CheckDetail, StoredMetric } from '@melto/core/conformity/checkDetail';
import { metricName, metricValue, verdictSentence } from '@melto/core/conformity/checkWords';
import { formatAgainstLimit } from '@melto/core/conformity/shortCheck';
import { checkReportModel, conditionsWords } from '@melto/paper/report/checkReportModel';
import { reportHtml } from '@melto/paper/report/reportHtml';
import { reportTime } from '@melto/paper/report/reportModel';
import type { ReportModel } from '@melto/paper/report/reportModel';
import { shortCheckModel } from '@melto/paper/report/shortCheckModel';
import type { SlipModel } from '@melto/paper/report/slipPdf';
import { STATUS_WORDS } from '@melto/paper/statusShape';
import { endReportLinks, findReportLink, insertReportLink, openReportLink } from '@melto/store/reportLinks';
import { findResult } from '@melto/store/results';
import type { ResultRow } from '@melto/store/results';
import { findWatchState } from '@melto/store/watches';
import type { Download } from '../charts/charts.ts';
import { DAY_MS } from '../kernel/clock.ts';
import { LOCAL_PERSON } from '../kernel/context.ts';
import type { Services } from '../kernel/context.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import type { CheckDetail as ShortCheckDetail } from './shortChecks.ts';

export type ReportFormat = 'html' | 'pdf' | 'slip';

/** A proof is judged for this long where nothing watches its condition. */
const VALID_DAYS = 30;

async function checkOf(
  services: Services,
  id: number,
): Promise<{ readonly row: ResultRow; readonly detail: CheckDetail | ShortCheckDetail }> {
  const row = await findResult(services.database, id);
  if (row === undefined || row.link !== 'conformity') throw notFound(`check ${id}`);
  return { row, detail: JSON.parse(row.detail) as CheckDetail | ShortCheckDetail };
}

/** The report of a check, or the slip for its proof. */
export async function checkReport(
  services: Services,
  resultId: number,
  format: ReportFormat,
): Promise<Download> {
  const { row, detail } = await checkOf(services, resultId);
  const name = `check-${resultId}`;
  if (format === 'slip')
    return {
      name: `${name}-slip.pdf`,
      mediaType: 'application/pdf',
      content: await services.drawPdf({ kind: 'slip', model: await slipOf(services, row, detail) }),
    };
  const model = modelOf(row, detail);
  return format === 'pdf'
    ? {
        name: `${name}.pdf`,
        mediaType: 'application/pdf',
        content: await services.drawPdf({ kind: 'report', model }),
      }
    : {
        name: `${name}.html`,
        mediaType: 'text/html; charset=utf-8',
        content: Buffer.from(reportHtml(model)),
      };
}

function modelOf(row: ResultRow, detail: CheckDetail | ShortCheckDetail): ReportModel {
  return 'kind' in detail
    ? checkReportModel(detail, row.version)
    : shortCheckModel(detail.header, detail.check, row.version);
}

async function slipOf(
  services: Services,
  row: ResultRow,
  detail: CheckDetail | ShortCheckDetail,
): Promise<SlipModel> {
  const watch = await findWatchState(services.database, row.conditionId);
  // A watch that had expired before says nothing of this proof.
  const watched = watch !== undefined && watch.expiresMs > row.madeMs ? watch.expiresMs : Infinity;
  const expires = Math.min(row.madeMs + VALID_DAYS * DAY_MS, watched);
  const day = (ms: number): string => reportTime(ms).slice(0, 10);
  const common = (sheet: string, condition: string): SlipModel['facts'] => [
    ['Proof', sheet],
    ['Condition', condition],
    ['Judged', day(row.madeMs)],
    ['Valid until', day(expires)],
  ];
  const code = `MC-${row.id}`;
  if (!('kind' in detail)) {
    const { header, check } = detail;
    return {
      status: check.verdict,
      words: `${STATUS_WORDS[check.verdict]} to ${check.limits.name}`,
      figures: check.metrics.map((line) => ({
        name: line.name,
        value: formatAgainstLimit(line.value, line.limit),
        limit: line.limit.toFixed(1),
        status: line.verdict,
      })),
      facts: [...common(header.sheet, header.condition), ['Measured', `${header.mode}, D50/2°`]],
      code,
    };
  }
  const { header } = detail;
  return {
    status: detail.verdict,
    words: verdictSentence(detail),
    // The nearest to their limits first: a label has room for a few.
    figures: [...detail.metrics].sort(byShare).map((line) => ({
      name: metricName(line),
      value: metricValue(line),
      limit: line.limit.toFixed(1),
      status: line.verdict,
    })),
    facts: [
      ...common(header.sheet, header.condition),
      ['Aims', `${header.aims.name} v${header.aims.version}`],
      ['Measured', conditionsWords(header.measured)],
    ],
    code,
  };
}

function byShare(a: StoredMetric, b: StoredMetric): number {
  return (b.value ?? Infinity) / b.limit - (a.value ?? Infinity) / a.limit;
}

/** Makes a check's report public under a code that cannot be guessed; the open link where there is one. */
export async function shareReport(services: Services, resultId: number): Promise<{ readonly code: string }> {
  await checkOf(services, resultId);
  const open = await openReportLink(services.database, resultId);
  if (open !== undefined) return { code: open.code };
  const code = randomBytes(24).toString('base64url');
  await insertReportLink(services.database, code, resultId, LOCAL_PERSON, services.now());
  return { code };
}

export async function sharedCode(services: Services, resultId: number): Promise<string | null> {
  return (await openReportLink(services.database, resultId))?.code ?? null;
}

/** Ends the public link of a check; its report is no longer shown there. */
export async function unshareReport(services: Services, resultId: number): Promise<void> {
  await endReportLinks(services.database, resultId, services.now());
}

/** The report behind a public link. */
export async function publicReport(
  services: Services,
  code: string,
  format: ReportFormat,
): Promise<Download> {
  const link = /^[A-Za-z0-9_-]{32}$/.test(code) ? await findReportLink(services.database, code) : undefined;
  if (link === undefined || link.endedMs !== null)
    throw new Problem(
      'not-found',
      'There is no report under this link.',
      'It may have been ended; ask whoever gave it to you.',
    );
  return checkReport(services, link.resultId, format);
}

/** The form that is asked for; HTML where none is named. */
export function reportFormat(asked: string | null): ReportFormat {
  if (asked === null || asked === 'html') return 'html';
  if (asked === 'pdf' || asked === 'slip') return asked;
  throw new Problem(
    'bad-input',
    `There is no form "${asked.slice(0, 20)}" of a report.`,
    'Ask for html, pdf or slip.',
    'format',
  );
}
