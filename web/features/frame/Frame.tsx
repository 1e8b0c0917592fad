'use client';

import { usePathname } from 'next/navigation';
import type { ReactNode } from 'react';
import { BridgeProvider } from '@/features/bridge/BridgeContext';
import { Header } from './Header';
import { Rack } from './Rack';
import { JobsContext, useJobStream } from './useJobs';

/** Header, surface and rack, on all screens. */
export function Frame({ children }: { children: ReactNode }) {
  const path = usePathname();
  const jobs = useJobStream();
  return (
    <JobsContext value={jobs}>
      <BridgeProvider>
        <div className="frame">
          <Header />
          <main className="main">{children}</main>
          <Rack folded={path.startsWith('/read/')} />
        </div>
      </BridgeProvider>
    </JobsContext>
  );
}
