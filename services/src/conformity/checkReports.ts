import type { CheckDetail, StoredMetric } from '@melto/core/conformity/checkDetail';
import { checkEndsMs } from '@melto/core/conformity/checkValidity';
import { metricName, metricValue, verdictSentence } from '@melto/core/conformity/checkWords';
import { formatAgainstLimit } from '@melto/core/judgement/metric';
import type { Verdict } from '@melto/core/judgement/verdict';
import { houseDay } from '@melto/core/time/houseTime';
import { checkReportModel, conditionsWords } from '@melto/paper/report/checkReportModel';
import { reportHtml } from '@melto/paper/report/reportHtml';
import type { ReportModel } from '@melto/paper/report/reportModel';
import { shortCheckModel } from '@melto/paper/report/shortCheckModel';
import type { SlipModel } from '@melto/paper/report/slipPdf';
import { STATUS_WORDS } from '@melto/paper/statusShape';
import { findHouse } from '@melto/store/houses';
import { findResult, lockResult } from '@melto/store/results';
import type { ResultRow } from '@melto/store/results';
import { withdrawnOf } from '@melto/store/readings';
import { findWatchState } from '@melto/store/watches';
import { publicLink } from '../kernel/publicLink.ts';
import { reportLogo } from '../kernel/reportLogo.ts';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import type { Download } from '../kernel/download.ts';
import { notFound, Problem } from '../kernel/problem.ts';
import { AIM_CHECK } from '../ledger/kinds/aimCheckKind.ts';
import { SHORT_CHECK } from '../ledger/kinds/shortCheckKind.ts';
import type { ShortCheckDetail } from '../ledger/kinds/shortCheckKind.ts';
import { storedOf } from '../ledger/resultKind.ts';

export type ReportFormat = 'html' | 'pdf' | 'slip';

/** A check with all it holds: against aims, or a short one. */
type StoredCheck =
  | { readonly form: 'aims'; readonly row: ResultRow; readonly detail: CheckDetail }
  | { readonly form: 'short'; readonly row: ResultRow; readonly detail: ShortCheckDetail };

async function checkOf({ database }: Context, id: number): Promise<StoredCheck> {
  const row = await findResult(database, id);
  if (row?.shape === AIM_CHECK.shape)
    return { form: 'aims', row, detail: storedOf(AIM_CHECK, row, row.detail).detail };
  if (row?.shape === SHORT_CHECK.shape)
    return { form: 'short', row, detail: storedOf(SHORT_CHECK, row, row.detail).detail };
  throw notFound(`check ${id}`);
}

/** The report of a check, or the slip for its proof. */
export async function checkReport(
  context: Context,
  resultId: number,
  format: ReportFormat,
): Promise<Download> {
  const check = await checkOf(context, resultId);
  const house = await findHouse(context.database);
  if (house === undefined) throw new Error(`no house ${context.database.house}`);
  const zone = house.timeZone;
  const withdrawnMs = await withdrawnOf(context.database, resultId);
  const withdrawn = withdrawnMs === null ? undefined : houseDay(withdrawnMs, zone);
  const name = `check-${resultId}`;
  // A withdrawn reading leaves nothing that looks like a verdict on the print.
  const off = { status: 'not-judged', words: 'Reading withdrawn' } as const;
  if (format === 'slip') {
    const slip = await slipOf(context, check, zone, withdrawn);
    const model = withdrawn === undefined ? slip : { ...slip, ...off };
    return {
      name: `${name}-slip.pdf`,
      mediaType: 'application/pdf',
      content: await context.drawFile({ kind: 'slip', model }),
    };
  }
  const { facts, ...rest } = modelOf(check, zone);
  const { note } = check.row;
  const noted = note === '' ? [] : [['Note', note] as const];
  const logo = await reportLogo(context);
  const said = withdrawn === undefined ? undefined : withdrawnWords(withdrawn);
  const model: ReportModel = {
    ...rest,
    ...(said === undefined ? {} : { verdict: { ...off, reason: said }, notices: [said, ...rest.notices] }),
    ...{ logo, facts: [['House', house.name], ...facts, ...noted] },
  };
  return format === 'pdf'
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

function modelOf(check: StoredCheck, zone: string): ReportModel {
  const { version } = check.row;
  return check.form === 'aims'
    ? checkReportModel(check.detail, version, zone)
    : shortCheckModel(check.detail.header, check.detail.check, version, zone);
}

const withdrawnWords = (day: string): string =>
  `Its reading was withdrawn on ${day}: what stands here is no word on the print.`;

async function slipOf(
  context: Context,
  stored: StoredCheck,
  zone: string,
  /** Day its reading was withdrawn. */
  withdrawn: string | undefined,
): Promise<SlipModel> {
  const { row } = stored;
  const watch = await findWatchState(context.database, row.conditionId);
  // A watch that had expired before says nothing of this proof.
  const watched = watch !== undefined && watch.expiresMs > row.madeMs ? watch.expiresMs : Infinity;
  const expires = Math.min(checkEndsMs(row), watched);
  const day = (ms: number): string => houseDay(ms, zone);
  const common = (verdict: Verdict, sheet: string, condition: string): SlipModel['facts'] => [
    ['Proof', sheet],
    ['Condition', condition],
    ['Judged', day(row.madeMs)],
    ...(withdrawn === undefined ? [] : ([['Not valid', `reading withdrawn ${withdrawn}`]] as const)),
    ...(withdrawn === undefined && (verdict === 'conforms' || verdict === 'near')
      ? ([['Valid until', day(expires)]] as const)
      : []),
  ];
  const code = `MC-${row.id}`;
  if (stored.form === 'short') {
    const { header, check } = stored.detail;
    return {
      status: check.verdict,
      words: `${STATUS_WORDS[check.verdict]} to ${check.limits.name}`,
      figures: check.metrics.map((line) => ({
        name: line.name,
        value: formatAgainstLimit(line.value, line.limit),
        limit: line.limit.toFixed(1),
        status: line.verdict,
      })),
      facts: [
        ...common(check.verdict, header.sheet, header.condition),
        ['Measured', `${header.mode}, D50/2°`],
      ],
      code,
    };
  }
  const { detail } = stored;
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
      ...common(detail.verdict, header.sheet, header.condition),
      ['Aims', `${header.aims.name} v${header.aims.version}`],
      ...(header.chosen === 'after the reading'
        ? ([['Aims and tolerances', 'chosen after the reading']] as const)
        : []),
      ['Measured', conditionsWords(header.measured)],
    ],
    code,
  };
}

function byShare(a: StoredMetric, b: StoredMetric): number {
  return (b.value ?? Infinity) / b.limit - (a.value ?? Infinity) / a.limit;
}

/** Makes a check's report public under a code that cannot be guessed; the open link where there is one. */
export async function shareReport(context: Context, resultId: number): Promise<{ readonly code: string }> {
  await checkOf(context, resultId);
  return unitOfWork(context, async (inner) => {
    await lockResult(inner.database, resultId);
    return publicLink(inner, { resultId });
  });
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
