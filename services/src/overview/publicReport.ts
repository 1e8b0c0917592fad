import { behindLink } from '../kernel/publicLink.ts';
import type { Context } from '../kernel/context.ts';
import type { Download } from '../kernel/download.ts';
import { Problem } from '../kernel/problem.ts';
import { checkReport } from '../conformity/checkReports.ts';
import type { ReportFormat } from '../conformity/checkReports.ts';
import { runReport } from '../press/runReport.ts';
import { sharedAnalysis } from '../press/sharedRun.ts';

/** The report behind a public link: of a check, or of a run as it stands now. */
export async function publicReport(context: Context, code: string, format: ReportFormat): Promise<Download> {
  const { link, inHouse } = await behindLink(context, code);
  if (link.resultId !== null) return checkReport(inHouse, link.resultId, format);
  if (link.runId === null) throw new Error(`report link of nothing, ${code.slice(0, 4)}…`);
  if (format === 'slip')
    throw new Problem('bad-input', 'A run has no slip.', 'Ask for html or pdf.', 'format');
  return runReport(inHouse, link.runId, { ...sharedAnalysis(link.asked ?? ''), format });
}
