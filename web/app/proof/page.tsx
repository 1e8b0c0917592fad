import { profileShelf } from '@melto/services/profile/shelf';
import { ProofSurface } from '@/features/proof/ProofSurface';
import { context } from '@/server/context';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Soft proof' };

export default async function Page() {
  return <ProofSurface shelf={await profileShelf(context())} />;
}
