import { conditionChoices } from '@melto/services/house/newCondition';
import { NewCondition } from '@/features/condition/NewCondition';
import { context } from '@/server/context';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'New condition' };

export default async function Page() {
  return <NewCondition choices={await conditionChoices(context())} />;
}
