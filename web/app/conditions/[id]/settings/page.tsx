import { conditionOf, settingsRecord } from '@melto/services/ledger/conditions';
import { SettingsRecord } from '@/features/condition/SettingsRecord';
import { context } from '@/server/context';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Settings record' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  const [condition, points] = await Promise.all([conditionOf(context(), id), settingsRecord(context(), id)]);
  return <SettingsRecord condition={condition} points={points} />;
}
