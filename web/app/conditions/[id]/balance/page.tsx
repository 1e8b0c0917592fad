import { pressPage } from '@/server/pressPage';
import type { PageParams } from '@/server/pressPage';
import { BalanceSurface } from '@/features/press/BalanceSurface';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Balance' };

export default async function Page(params: PageParams) {
  return <BalanceSurface view={await pressPage('balance', params)} />;
}
