import { PHASES } from '@melto/core/press/runSettings';
import { runAnalysis } from '@melto/services/press/analysis';
import { SCOPES } from '@melto/core/press/scopes';
import { AnalysisSurface } from '@/features/run/AnalysisSurface';
import { orNotFound } from '@/server/conditionPage';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Analysis of a run' };

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ scope?: string; phase?: string }>;
}) {
  const [{ id }, query] = await Promise.all([params, searchParams]);
  const scope = SCOPES.find((each) => each === query.scope) ?? 'run';
  const phase = PHASES.find((each) => each === query.phase);
  const view = await orNotFound(runAnalysis(await pageContext(), Number(id), { scope, phase }));
  return <AnalysisSurface key={`${scope} ${phase ?? ''}`} view={view} scope={scope} phase={phase} />;
}
