'use client';

import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { Fragment } from 'react';
import type { ConditionView, SpineLink } from '@melto/services/conditionView';
import { StatusMark } from '@/ui/StatusMark';
import { formatWhen } from '@/ui/format';

const NAMES = { profile: 'Profile', conformity: 'Conformity' } as const;

/** The chain of a condition: each link as a small picture of its own data. */
export function Spine({ view }: { view: ConditionView }) {
  const path = usePathname();
  const base = `/conditions/${view.condition.id}`;
  const here = (part: string): 'page' | undefined => (path === `${base}/${part}` ? 'page' : undefined);
  return (
    <nav className="spine" aria-label="Chain of the condition">
      {view.links.map((link, i) => (
        <Fragment key={link.link}>
          {i > 0 && <div className={`join${link.state === 'stale' ? ' broken' : ''}`} />}
          <Link className="link" href={`${base}/${link.link}`} aria-current={here(link.link)}>
            <Picture link={link} />
            <span className="small">
              <strong style={{ fontSize: 15 }}>{NAMES[link.link]}</strong>
              <span className="quiet">
                {link.version === null || link.madeMs === null
                  ? 'none yet'
                  : `v${link.version} · ${link.figures ?? formatWhen(link.madeMs, view.nowMs)}`}
              </span>
              <br />
              {link.state !== 'none' && <StatusMark status={link.state} />}
            </span>
          </Link>
        </Fragment>
      ))}
      <div className="spine-foot">
        <Link href={`${base}/sheets`} aria-current={here('sheets')}>
          Sheets and readings <span className="quiet">{view.sheets}</span>
        </Link>
        <Link href={`${base}/settings`} aria-current={here('settings')}>
          Settings record <span className="quiet">{view.points} points</span>
        </Link>
      </div>
    </nav>
  );
}

function Picture({ link }: { link: SpineLink }) {
  if (link.outline !== undefined)
    return (
      <svg width="64" height="48" viewBox="-100 -100 200 200" preserveAspectRatio="xMidYMid meet" aria-hidden>
        <path d="M-100 0H100M0 -100V100" stroke="var(--rule)" strokeWidth="2" />
        <polygon
          points={link.outline.map(([a, b]) => `${a},${-b}`).join(' ')}
          fill="var(--wash)"
          stroke="var(--text)"
          strokeWidth="4"
          strokeDasharray={link.state === 'stale' ? '10 8' : undefined}
        />
      </svg>
    );
  if (link.differences !== undefined && link.limit !== undefined) {
    const top = link.limit * 1.2;
    const y = (value: number): number => 46 - (44 * Math.min(value, top)) / top;
    return (
      <svg width="64" height="48" viewBox="0 0 64 48" aria-hidden>
        <rect x="0" y={y(link.limit)} width="64" height={46 - y(link.limit)} fill="var(--wash)" />
        <path d={`M0 ${y(link.limit)}H64`} stroke="var(--text)" strokeDasharray="3 2" />
        {link.differences.map((value, i, all) => (
          <circle
            key={i}
            cx={2 + (60 * i) / Math.max(1, all.length - 1)}
            cy={y(value)}
            r="1.7"
            fill="var(--text)"
          />
        ))}
      </svg>
    );
  }
  return (
    <svg width="64" height="48" viewBox="0 0 64 48" aria-hidden>
      <rect x="0.5" y="0.5" width="63" height="47" fill="none" stroke="var(--rule)" strokeDasharray="3 3" />
    </svg>
  );
}
