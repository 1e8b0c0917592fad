import { profileShelf } from '@melto/services/profile/shelf';
import { ProofSurface } from '@/features/proof/ProofSurface';
import { pageContext } from '@/server/pageContext';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Soft proof' };

export default async function Page() {
  return <ProofSurface shelf={await profileShelf(await pageContext())} />;
}
