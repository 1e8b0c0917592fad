import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { conditionView } from '@melto/services/overview/conditionView';
import { Problem } from '@melto/services/kernel/problem';
import { Spine } from '@/features/condition/Spine';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';

export default async function Layout({
  children,
  params,
}: {
  children: ReactNode;
  params: Promise<{ id: string }>;
}) {
  const { id } = await params;
  const view = await conditionView(services(), Number(id)).catch((error: unknown) => {
    if (error instanceof Problem && error.type === 'not-found') notFound();
    throw error;
  });
  return (
    <div className="condition">
      <Spine view={view} />
      {children}
    </div>
  );
}
