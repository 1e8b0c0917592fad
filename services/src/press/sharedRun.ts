import { PHASES } from '@melto/core/press/runSettings';
import { SCOPES } from '@melto/core/press/scopes';
import type { ReportOf } from '@melto/store/reportLinks';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { endPublicLink, publicCode, publicLink } from '../kernel/publicLink.ts';
import { runAnalysis } from './analysis.ts';
import type { AnalysisAsked } from './analysis.ts';
import { runOf } from './runs.ts';

/** Which analysis of a run a link shows, as one text. */
export const sharedKey = ({ scope, phase, atMs, aimSetId }: AnalysisAsked): string =>
  [scope, phase ?? '', atMs ?? '', aimSetId ?? ''].join(' ');

/** The analysis that such a text asks for. */
export function sharedAnalysis(key: string): AnalysisAsked {
  const [scope, phase, at, aims] = key.split(' ');
  const number = (text: string | undefined): number | undefined =>
    text === undefined || text === '' ? undefined : Number(text);
  const [atMs, aimSetId] = [number(at), number(aims)];
  return {
    scope: SCOPES.find((own) => own === scope) ?? 'run',
    phase: PHASES.find((own) => own === phase),
    ...(atMs === undefined ? {} : { atMs }),
    ...(aimSetId === undefined ? {} : { aimSetId }),
  };
}

/** What the link of an analysis is kept under: of a shift the one that is looked at, whatever is read later. */
async function linkOf(context: Context, runId: number, asked: AnalysisAsked): Promise<ReportOf> {
  const { shift } = asked.scope === 'shift' ? await runAnalysis(context, runId, asked) : { shift: null };
  const kept = shift === null ? { ...asked, atMs: undefined } : { ...asked, atMs: shift.fromMs };
  return { runId, asked: sharedKey(kept) };
}

/** Makes an analysis public under a code that cannot be guessed; it shows the run as it stands when it is opened. */
export async function shareRun(
  context: Context,
  runId: number,
  asked: AnalysisAsked,
): Promise<{ readonly code: string }> {
  const link = await linkOf(context, runId, asked);
  return unitOfWork(context, async (inner) => {
    await runOf(inner, runId, true);
    return publicLink(inner, link);
  });
}

/** The code of an analysis that is public; null otherwise. */
export async function sharedRunCode(
  context: Context,
  runId: number,
  asked: AnalysisAsked,
): Promise<string | null> {
  await runOf(context, runId);
  return publicCode(context, await linkOf(context, runId, asked));
}

/** Ends the public link of an analysis. */
export async function endSharedRun(context: Context, runId: number, asked: AnalysisAsked): Promise<void> {
  await runOf(context, runId);
  await endPublicLink(context, await linkOf(context, runId, asked));
}
