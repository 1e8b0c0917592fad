import { conditionChoices } from '@melto/services/ledger/conditions';
import { NewCondition } from '@/features/condition/NewCondition';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'New condition' };

export default async function Page() {
  return <NewCondition choices={await conditionChoices(services())} />;
}
