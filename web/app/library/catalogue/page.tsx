import { catalogue } from '@melto/services/overview/catalogue';
import { CatalogueSurface } from '@/features/catalogue/CatalogueSurface';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Catalogue' };

export default async function Page() {
  return <CatalogueSurface rows={await catalogue(await pageContext())} />;
}
