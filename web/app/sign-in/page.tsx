import { redirect } from 'next/navigation';
import { isUnclaimed } from '@melto/services/people/signIn';
import { SignIn } from '@/features/people/ComeIn';
import { context } from '@/server/context';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Sign in' };

export default async function Page({ searchParams }: { searchParams: Promise<{ back?: string }> }) {
  // The sample house is open at its own machine; whoever wants to be somebody in it comes in all the same.
  if (await isUnclaimed(context())) redirect('/first');
  return <SignIn back={(await searchParams).back} />;
}
