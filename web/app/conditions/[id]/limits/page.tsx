import { pressPage } from '@/server/pressPage';
import type { PageParams } from '@/server/pressPage';
import { LimitsSurface } from '@/features/press/LimitsSurface';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Limits' };

export default async function Page(params: PageParams) {
  return <LimitsSurface view={await pressPage('limits', params)} />;
}
