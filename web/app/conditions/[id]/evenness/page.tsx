import { pressPage } from '@/server/pressPage';
import type { PageParams } from '@/server/pressPage';
import { EvennessSurface } from '@/features/press/EvennessSurface';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Evenness' };

export default async function Page(params: PageParams) {
  return <EvennessSurface view={await pressPage('evenness', params)} />;
}
