import { instrumentAgreements } from '@melto/services/reading/agreement';
import { instruments } from '@melto/services/reading/instruments';
import { InstrumentsSurface } from '@/features/library/InstrumentsSurface';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Instruments' };

export default async function Page() {
  const context = await pageContext();
  const [known, agreements] = await Promise.all([instruments(context), instrumentAgreements(context)]);
  return <InstrumentsSurface instruments={known} agreements={agreements} />;
}
