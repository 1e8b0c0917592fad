import { runView } from '@melto/services/press/runView';
import { RunSurface } from '@/features/run/RunSurface';
import { orNotFound } from '@/server/conditionPage';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Run' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const view = await orNotFound(runView(await pageContext(), Number(id)));
  return <RunSurface key={view.id} initial={view} />;
}
