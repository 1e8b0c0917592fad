import { redirect } from 'next/navigation';
import { conditionOf } from '@melto/services/ledger/conditions';
import { linksOf } from '@melto/services/ledger/links';
import { services } from '@/server/services';

/** A condition opens at the first link of its chain. */
export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const condition = await conditionOf(services(), Number((await params).id));
  redirect(`/conditions/${condition.id}/${linksOf(condition.space)[0]}`);
}
