import { redirect } from 'next/navigation';
import { isUnclaimed } from '@melto/services/people/signIn';
import { FirstPerson } from '@/features/people/ComeIn';
import { context } from '@/server/context';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'First person' };

export default async function Page() {
  if (!(await isUnclaimed(context()))) redirect('/sign-in');
  return <FirstPerson />;
}
