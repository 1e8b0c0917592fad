'use client';

import { usePathname } from 'next/navigation';
import type { ReactNode } from 'react';
import { Header } from './Header';
import { Rack } from './Rack';

/** Header, surface and rack, on all screens. */
export function Frame({ children }: { children: ReactNode }) {
  const path = usePathname();
  return (
    <div className="frame">
      <Header />
      <main className="main">{children}</main>
      <Rack folded={path.startsWith('/read/')} />
    </div>
  );
}
