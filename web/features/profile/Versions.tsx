'use client';

import { PUT_IN_FORCE } from '@/endpoints/calibration';
import { useRouter } from 'next/navigation';
import type { ReactNode } from 'react';
import type { VersionView } from '@melto/services/ledger/versions';
import { send } from '@/ui/api';
import { formatWhen } from '@/ui/format';
import { StatusShape } from '@/ui/StatusMark';
import { May } from '@/ui/May';
import type { Status } from '@/ui/StatusMark';

/** The history of a link as a thin time line. */
export function Versions({
  versions,
  shown,
  nowMs,
  path,
  standsBeside = false,
  children,
}: {
  versions: readonly VersionView[];
  shown?: VersionView;
  nowMs: number;
  path: string;
  /** The version shown is none that comes in force. */
  standsBeside?: boolean;
  children?: ReactNode;
}) {
  const router = useRouter();
  const state = (version: VersionView): Status => {
    if (version.verdict === 'does-not-conform') return version.verdict;
    if (!version.inForce && version.verdict === null) return 'none';
    return version.stale !== null ? 'stale' : ((version.verdict as Status | null) ?? 'current');
  };
  return (
    <div className="versions">
      <span className="quiet">Versions</span>
      {versions.slice(-7).map((version) => (
        <button
          key={version.id}
          type="button"
          aria-pressed={version.id === shown?.id}
          onClick={() => router.replace(`${path}?version=${version.id}`)}
        >
          <StatusShape status={state(version)} size={12} />
          {version.borrowedFrom === null ? '' : 'borrowed '}v{version.version}{' '}
          <span className="quiet">{formatWhen(version.madeMs, nowMs)}</span>
        </button>
      ))}
      {shown !== undefined && !shown.inForce && !standsBeside && (
        <May act={PUT_IN_FORCE}>
          <button
            type="button"
            onClick={() => {
              void send(PUT_IN_FORCE, { params: { id: shown.id } }).then(() => {
                router.replace(path);
                router.refresh();
              });
            }}
          >
            <u>put v{shown.version} in force</u>
          </button>
        </May>
      )}
      <span className="end">{children}</span>
    </div>
  );
}
