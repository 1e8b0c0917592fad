'use client';

import { usePathname } from 'next/navigation';
import { ApiProblem } from '@/ui/api';
import { useHouse } from './useHouse';

/** A session that ended while a page was open: what was typed or read stays here until one is back. */
export function SignedOut() {
  const { error } = useHouse();
  const path = usePathname();
  if (!(error instanceof ApiProblem) || error.status !== 401) return null;
  return (
    <p className="notice signed-out" role="alert">
      You are signed out here.{' '}
      <a href={`/sign-in?back=${encodeURIComponent(path)}`} target="_blank" rel="noreferrer">
        Sign in
      </a>{' '}
      in another tab, and go on in this one: nothing that stands here is lost.
    </p>
  );
}
