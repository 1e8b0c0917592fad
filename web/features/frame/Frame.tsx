'use client';

import { usePathname } from 'next/navigation';
import type { ReactNode } from 'react';
import { BridgeProvider } from '@/features/bridge/BridgeContext';
import { Header } from './Header';
import { Rack } from './Rack';
import { SignedOut } from './SignedOut';
import { JobsContext, useJobStream } from './useJobs';

/** Header, surface and rack, on all screens; a door has none of them. */
export function Frame({ signedIn, children }: { signedIn: boolean; children: ReactNode }) {
  const path = usePathname();
  if (!signedIn || DOORS.includes(path)) return <main className="doorstep">{children}</main>;
  return <Inside>{children}</Inside>;
}

const DOORS = ['/sign-in', '/first'];

function Inside({ children }: { children: ReactNode }) {
  const path = usePathname();
  const jobs = useJobStream();
  return (
    <JobsContext value={jobs}>
      <BridgeProvider>
        <div className="frame">
          <Header />
          <SignedOut />
          <main className="main">{children}</main>
          <Rack folded={path.startsWith('/read/') || /^\/runs\/\d/.test(path)} />
        </div>
      </BridgeProvider>
    </JobsContext>
  );
}
