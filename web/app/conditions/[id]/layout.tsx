import type { ReactNode } from 'react';
import { conditionView } from '@melto/services/overview/conditionView';
import { Spine } from '@/features/condition/Spine';
import { orNotFound } from '@/server/conditionPage';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';

export default async function Layout({
  children,
  params,
}: {
  children: ReactNode;
  params: Promise<{ id: string }>;
}) {
  const view = await orNotFound(conditionView(await pageContext(), Number((await params).id)));
  return (
    <div className="condition">
      <Spine view={view} />
      {children}
    </div>
  );
}
