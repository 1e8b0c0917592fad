import { redirect } from 'next/navigation';
import { conditionOf } from '@melto/services/ledger/conditions';
import { linksOf } from '@melto/services/ledger/links';
import { pageContext } from '@/server/pageContext';
import { orNotFound } from '@/server/conditionPage';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const condition = await orNotFound(conditionOf(await pageContext(), Number((await params).id)));
  redirect(`/conditions/${condition.id}/${linksOf(condition.process)[0] ?? 'sheets'}`);
}
