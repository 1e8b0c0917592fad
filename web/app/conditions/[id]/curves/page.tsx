import { pressPage } from '@/server/pressPage';
import type { PageParams } from '@/server/pressPage';
import { CurvesSurface } from '@/features/press/CurvesSurface';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Curves' };

export default async function Page(params: PageParams) {
  return <CurvesSurface view={await pressPage('curves', params)} />;
}
