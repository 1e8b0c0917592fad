import { notFound } from 'next/navigation';
import { deskState } from '@melto/services/reading/desk';
import { Problem } from '@melto/services/kernel/problem';
import { ReadingDesk } from '@/features/reading/ReadingDesk';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';

export async function generateMetadata({ params }: { params: Promise<{ code: string }> }) {
  return { title: (await params).code };
}

export default async function Page({ params }: { params: Promise<{ code: string }> }) {
  const state = await deskState(services(), (await params).code).catch((error: unknown) => {
    if (error instanceof Problem && error.type === 'not-found') notFound();
    throw error;
  });
  return <ReadingDesk key={state.code} initial={state} />;
}
