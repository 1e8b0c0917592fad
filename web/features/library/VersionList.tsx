'use client';

import { Link } from '@/ui/Link';
import { formatDay } from '@/ui/format';

/** Versions of a set of the library as links, the latest first. */
export function VersionList({
  versions,
  shownId,
  path,
}: {
  versions: readonly {
    readonly id: number;
    readonly version: number;
    readonly author: string;
    readonly madeMs: number;
  }[];
  shownId: number;
  path: string;
}) {
  if (versions.length < 2) return null;
  return (
    <nav className="row" aria-label="Versions" style={{ gap: 12, flexWrap: 'wrap' }}>
      <span className="quiet">Versions</span>
      {versions.map(({ id, version, author, madeMs }, index) => (
        <Link
          key={id}
          href={index === 0 ? path : `${path}&version=${id}`}
          aria-current={id === shownId ? 'true' : undefined}
          className="version-link"
        >
          v{version}{' '}
          <span className="quiet">
            {formatDay(madeMs)}, {author}
          </span>
        </Link>
      ))}
    </nav>
  );
}
