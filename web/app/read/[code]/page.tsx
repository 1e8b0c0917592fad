import { deskState } from '@melto/services/reading/desk';
import { SheetDesk } from '@/features/reading/ReadingDesk';
import { orNotFound } from '@/server/conditionPage';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';

export async function generateMetadata({ params }: { params: Promise<{ code: string }> }) {
  return { title: (await params).code };
}

export default async function Page({ params }: { params: Promise<{ code: string }> }) {
  const state = await orNotFound(deskState(await pageContext(), (await params).code));
  return <SheetDesk key={state.code} initial={state} />;
}
