import { PHASES } from '@melto/core/press/runSettings';
import { runAnalysis } from '@melto/services/press/analysis';
import { SCOPES } from '@melto/core/press/scopes';
import { AnalysisSurface } from '@/features/run/AnalysisSurface';
import { analysisAsked } from '@/server/analysisAsked';
import { orNotFound } from '@/server/conditionPage';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Analysis of a run' };

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ scope?: string; phase?: string; at?: string }>;
}) {
  const [{ id }, query] = await Promise.all([params, searchParams]);
  const scope = SCOPES.find((each) => each === query.scope) ?? 'run';
  const phase = PHASES.find((each) => each === query.phase);
  const at = /^\d{1,15}$/.test(query.at ?? '') ? Number(query.at) : undefined;
  const view = await orNotFound(
    runAnalysis(await pageContext(), Number(id), analysisAsked({ scope, phase, at })),
  );
  return (
    <AnalysisSurface key={`${scope} ${phase ?? ''} ${at ?? ''}`} view={view} scope={scope} phase={phase} />
  );
}
