import { notFound } from 'next/navigation';
import { Problem } from '@melto/services/kernel/problem';
import { readingsOf, readingView } from '@melto/services/reading/readings';
import { ReadingSurface } from '@/features/reading/ReadingSurface';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Reading' };

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ with?: string }>;
}) {
  const view = await readingView(services(), Number((await params).id)).catch((error: unknown) => {
    if (error instanceof Problem && error.type === 'not-found') notFound();
    throw error;
  });
  const others = (await readingsOf(services(), view.conditionId)).filter(
    ({ id, title, finishedMs }) => id !== view.id && title === view.title && finishedMs !== null,
  );
  const wanted = Number((await searchParams).with);
  const other = others.some(({ id }) => id === wanted) ? await readingView(services(), wanted) : undefined;
  return (
    <ReadingSurface
      view={view}
      other={other}
      others={others.map(({ id, code, mode, startedMs }) => ({ id, code, mode, startedMs }))}
    />
  );
}
