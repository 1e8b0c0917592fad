import { aimSets } from '@melto/services/conformity/aimSets';
import { MeasureSurface } from '@/features/measure/MeasureSurface';
import { context } from '@/server/context';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Measure a colour' };

export default async function Page() {
  const sets = await aimSets(context());
  return <MeasureSurface aimSets={sets.map(({ id, name, version }) => ({ id, name, version }))} />;
}
