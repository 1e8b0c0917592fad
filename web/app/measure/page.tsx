import { aimSets } from '@melto/services/conformity/aimSets';
import { MeasureSurface } from '@/features/measure/MeasureSurface';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Measure a colour' };

export default async function Page() {
  const sets = await aimSets(await pageContext());
  return <MeasureSurface aimSets={sets.map(({ id, name, version }) => ({ id, name, version }))} />;
}
