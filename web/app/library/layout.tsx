import type { ReactNode } from 'react';
import { LibraryNav } from '@/features/library/LibraryNav';

export default function Layout({ children }: { children: ReactNode }) {
  return (
    <div className="library">
      <LibraryNav />
      {children}
    </div>
  );
}
