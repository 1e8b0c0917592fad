import { readingPage } from '@melto/services/reading/readingView';
import { ReadingSurface } from '@/features/reading/ReadingSurface';
import { pageContext } from '@/server/pageContext';
import { orNotFound } from '@/server/conditionPage';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Reading' };

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ with?: string }>;
}) {
  const [{ id }, { with: other }] = await Promise.all([params, searchParams]);
  return (
    <ReadingSurface {...await orNotFound(readingPage(await pageContext(), Number(id), Number(other)))} />
  );
}
