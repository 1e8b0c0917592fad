'use client';

import { Link } from '@/ui/Link';
import { usePathname } from 'next/navigation';
import { Fragment } from 'react';
import type { ConditionView, SpineLink, SpinePicture } from '@melto/services/overview/conditionView';
import { StatusMark } from '@/ui/StatusMark';
import { formatWhen } from '@/ui/format';

const NAMES = {
  evenness: 'Evenness',
  limits: 'Limits',
  curves: 'Curves',
  balance: 'Balance',
  profile: 'Profile',
  conformity: 'Conformity',
  watch: 'Watch',
} as const;

/** The chain of a condition: each link as a small picture of its own data. */
export function Spine({ view }: { view: ConditionView }) {
  const path = usePathname();
  const base = `/conditions/${view.condition.id}`;
  const here = (part: string): 'page' | undefined => (path === `${base}/${part}` ? 'page' : undefined);
  return (
    <nav className="spine" aria-label="Chain of the condition">
      {view.evenness !== null && (
        <div className="spine-head">
          <Link href={`${base}/evenness`} aria-current={here('evenness')}>
            Evenness{' '}
            <span className="quiet">
              {view.evenness.version === null ? 'not corrected' : `v${view.evenness.version}`}
            </span>
          </Link>
        </div>
      )}
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
              {link.state !== 'none' && (
                <StatusMark
                  status={link.state}
                  word={
                    link.borrowed && link.state === 'current'
                      ? 'borrowed'
                      : link.state === 'near'
                        ? link.word
                        : undefined
                  }
                />
              )}
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

const FRAME = { width: 64, height: 48, 'aria-hidden': true } as const;

function Picture({ link }: { link: SpineLink }) {
  const dashed = link.state === 'stale';
  if (link.picture === undefined)
    return (
      <svg viewBox="0 0 64 48" {...FRAME}>
        <rect x="0.5" y="0.5" width="63" height="47" fill="none" stroke="var(--rule)" strokeDasharray="3 3" />
      </svg>
    );
  return <Drawing picture={link.picture} dashed={dashed} />;
}

function Drawing({ picture, dashed }: { picture: SpinePicture; dashed: boolean }) {
  switch (picture.kind) {
    case 'bars': {
      const pitch = 64 / picture.limits.length;
      return (
        <svg viewBox="0 0 64 48" {...FRAME}>
          {picture.limits.map((limit, i) => (
            <g key={i}>
              <rect x={(i + 0.125) * pitch} y="2" width={0.75 * pitch} height="44" fill="var(--wash)" />
              <rect
                x={(i + 0.125) * pitch}
                y={46 - 44 * limit}
                width={0.75 * pitch}
                height={44 * limit}
                fill={i === 3 ? 'var(--text)' : picture.colours[i]}
              />
            </g>
          ))}
        </svg>
      );
    }
    case 'curves':
      return (
        <svg viewBox="0 0 64 48" {...FRAME}>
          <path d="M2 46 62 2" stroke="var(--rule)" />
          {picture.curves.map((curve, i) => (
            <polyline
              key={i}
              points={curve.map((v, k) => `${2 + (60 * k) / (curve.length - 1)},${46 - 44 * v}`).join(' ')}
              fill="none"
              stroke={i === 3 ? 'var(--text)' : (picture.colours[i] ?? 'var(--text)')}
              strokeWidth="1.6"
              strokeDasharray={dashed ? '4 3' : undefined}
            />
          ))}
        </svg>
      );
    case 'track':
      return (
        <svg viewBox="-4 -3 8 6" preserveAspectRatio="xMidYMid meet" {...FRAME}>
          <circle r="1.5" fill="var(--wash)" />
          <path d="M-4 0H4M0 -3V3" stroke="var(--rule)" strokeWidth="0.08" />
          <polyline
            points={picture.greys.map(([a, b]) => `${a},${-b}`).join(' ')}
            fill="none"
            stroke="var(--text)"
            strokeWidth="0.2"
            strokeDasharray={dashed ? '0.5 0.4' : undefined}
          />
        </svg>
      );
    case 'outline':
      return (
        <svg viewBox="-100 -100 200 200" preserveAspectRatio="xMidYMid meet" {...FRAME}>
          <path d="M-100 0H100M0 -100V100" stroke="var(--rule)" strokeWidth="2" />
          <polygon
            points={picture.points.map(([a, b]) => `${a},${-b}`).join(' ')}
            fill="var(--wash)"
            stroke="var(--text)"
            strokeWidth="4"
            strokeDasharray={dashed ? '10 8' : undefined}
          />
        </svg>
      );
    case 'spark': {
      const { values, limit } = picture;
      const top = Math.max(limit, ...values) * 1.15;
      const y = (value: number): number => 46 - (44 * value) / top;
      const x = (i: number): number => 2 + (58 * i) / Math.max(1, values.length - 1);
      return (
        <svg viewBox="0 0 64 48" {...FRAME}>
          <rect x="0" y={y(limit)} width="64" height={46 - y(limit)} fill="var(--wash)" />
          <path d={`M0 ${y(limit)}H64`} stroke="var(--text)" strokeDasharray="3 2" />
          <polyline
            points={values.map((value, i) => `${x(i)},${y(value)}`).join(' ')}
            fill="none"
            stroke="var(--text)"
            strokeWidth="1.6"
            strokeDasharray={dashed ? '4 3' : undefined}
          />
          <circle cx={x(values.length - 1)} cy={y(values.at(-1) ?? 0)} r="2.2" fill="var(--text)" />
        </svg>
      );
    }
    case 'dots': {
      const { limit, differences } = picture;
      const top = limit * 1.2;
      const y = (value: number): number => 46 - (44 * Math.min(value, top)) / top;
      return (
        <svg viewBox="0 0 64 48" {...FRAME}>
          <rect x="0" y={y(limit)} width="64" height={46 - y(limit)} fill="var(--wash)" />
          <path d={`M0 ${y(limit)}H64`} stroke="var(--text)" strokeDasharray="3 2" />
          {differences.map((value, i, all) => (
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
  }
}
