'use client';

import { Link } from '@/ui/Link';
import { usePathname } from 'next/navigation';
import { useHouse } from '@/features/frame/useHouse';

const PAGES = [
  { href: '/library/catalogue', name: 'Catalogue' },
  { href: '/library/devices', name: 'Devices' },
  { href: '/library/stocks', name: 'Stocks' },
  { href: '/library/trials', name: 'Paper trials' },
  { href: '/library/inks', name: 'Ink sets' },
  { href: '/library/profiles', name: 'Profiles' },
  { href: '/library/instruments', name: 'Instruments' },
  { href: '/library/feeds', name: 'Feeds' },
  { href: '/library/lights', name: 'Lights' },
  { href: '/library/lists', name: 'Colour lists' },
  { href: '/library/aims', name: 'Aim sets' },
  { href: '/library/tolerances', name: 'Tolerance sets' },
  { href: '/library/archived', name: 'Archived conditions' },
  { href: '/library/house', name: 'House' },
] as const;
const KEEPERS_PAGES = [
  { href: '/library/people', name: 'People' },
  { href: '/library/acts', name: 'Record of acts' },
] as const;

/** What all conditions share. */
export function LibraryNav() {
  const path = usePathname();
  const { data } = useHouse();
  const pages = data?.role === 'keeper' ? [...PAGES, ...KEEPERS_PAGES] : PAGES;
  return (
    <nav className="library-nav" aria-label="Library">
      {pages.map(({ href, name }) => (
        <Link key={href} href={href} aria-current={path === href ? 'page' : undefined}>
          {name}
        </Link>
      ))}
    </nav>
  );
}
