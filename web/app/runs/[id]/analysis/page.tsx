import { PHASES } from '@melto/core/press/runSettings';
import { aimSets } from '@melto/services/conformity/aimSets';
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
  searchParams: Promise<{ scope?: string; phase?: string; at?: string; aims?: string }>;
}) {
  const [{ id }, query] = await Promise.all([params, searchParams]);
  const scope = SCOPES.find((each) => each === query.scope) ?? 'run';
  const phase = PHASES.find((each) => each === query.phase);
  const number = (text: string | undefined): number | undefined =>
    /^\d{1,15}$/.test(text ?? '') ? Number(text) : undefined;
  const [at, aims] = [number(query.at), number(query.aims)];
  const context = await pageContext();
  const view = await orNotFound(runAnalysis(context, Number(id), analysisAsked({ scope, phase, at, aims })));
  return (
    <AnalysisSurface
      key={`${scope} ${phase ?? ''} ${at ?? ''} ${aims ?? ''}`}
      view={view}
      scope={scope}
      phase={phase}
      aimSets={(await aimSets(context)).map((set) => ({ id: set.id, name: set.name }))}
    />
  );
}
