import { domainNow } from '@melto/services/kernel/clock';
import { sheetsOf } from '@melto/services/charts/rack';
import { readingsOf } from '@melto/services/reading/readingView';
import { SheetsSurface } from '@/features/condition/SheetsSurface';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Sheets and readings' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  const context = await pageContext();
  const [sheets, readings, nowMs] = await Promise.all([
    sheetsOf(context, id),
    readingsOf(context, id),
    domainNow(context),
  ]);
  return <SheetsSurface conditionId={id} sheets={sheets} readings={readings} nowMs={nowMs} />;
}
