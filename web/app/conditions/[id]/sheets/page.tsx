import { domainNow } from '@melto/services/kernel/clock';
import { sheetsOf } from '@melto/services/charts/printing';
import { readingsOf } from '@melto/services/reading/readings';
import { SheetsSurface } from '@/features/condition/SheetsSurface';
import { services } from '@/server/services';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Sheets and readings' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  const [sheets, readings, nowMs] = await Promise.all([
    sheetsOf(services(), id),
    readingsOf(services(), id),
    domainNow(services()),
  ]);
  return <SheetsSurface sheets={sheets} readings={readings} nowMs={nowMs} />;
}
