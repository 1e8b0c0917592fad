import { conditionRecord } from '@melto/services/house/conditionRecord';
import { SettingsRecord } from '@/features/condition/SettingsRecord';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Settings record' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  return <SettingsRecord {...await conditionRecord(await pageContext(), id)} />;
}
