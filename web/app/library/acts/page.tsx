import { ActsSurface } from '@/features/people/ActsSurface';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Record of acts' };

export default async function Page() {
  await pageContext('keeper');
  return <ActsSurface />;
}
