import { notFound } from 'next/navigation';
import { PHASES } from '@melto/core/press/runSettings';
import { canCompare, compareRuns } from '@melto/services/press/compareRuns';
import { CompareSurface } from '@/features/run/CompareSurface';
import { orNotFound } from '@/server/conditionPage';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Runs compared' };

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<{ runs?: string; phase?: string }>;
}) {
  const { runs = '', phase: asked } = await searchParams;
  const phase = PHASES.find((own) => own === asked);
  const ids = runs.split(',').map(Number);
  if (!canCompare(ids)) notFound();
  const comparison = await orNotFound(compareRuns(await pageContext(), ids, phase));
  return <CompareSurface comparison={comparison} phase={phase} />;
}
