import { conditionChoices } from '@melto/services/house/newCondition';
import { Problem } from '@melto/services/kernel/problem';
import { conditionOf, settingsRecord } from '@melto/services/ledger/conditions';
import type { ConditionRow, SettingsPoint } from '@melto/services/ledger/conditions';
import { NewCondition } from '@/features/condition/NewCondition';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'New condition' };

/** `?from=` is a condition whose settings the new one begins with. */
export default async function Page({ searchParams }: { searchParams: Promise<{ readonly from?: string }> }) {
  const [choices, copied] = await Promise.all([
    conditionChoices(await pageContext('specialist')),
    copiedFrom(Number((await searchParams).from)),
  ]);
  return <NewCondition choices={choices} copied={copied} />;
}

async function copiedFrom(
  id: number,
): Promise<{ readonly condition: ConditionRow; readonly points: readonly SettingsPoint[] } | undefined> {
  if (!Number.isSafeInteger(id)) return undefined;
  try {
    const context = await pageContext();
    const [condition, points] = await Promise.all([conditionOf(context, id), settingsRecord(context, id)]);
    return { condition, points };
  } catch (error) {
    if (error instanceof Problem && error.type === 'not-found') return undefined;
    throw error;
  }
}
