import type { ReactNode } from 'react';
import { conditionView } from '@melto/services/overview/conditionView';
import { Spine } from '@/features/condition/Spine';
import { orNotFound } from '@/server/conditionPage';
import { context } from '@/server/context';

export const dynamic = 'force-dynamic';

export default async function Layout({
  children,
  params,
}: {
  children: ReactNode;
  params: Promise<{ id: string }>;
}) {
  const view = await orNotFound(conditionView(context(), Number((await params).id)));
  return (
    <div className="condition">
      <Spine view={view} />
      {children}
    </div>
  );
}
