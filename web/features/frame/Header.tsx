'use client';

import { modeName } from '@melto/core/device/modeName';
import { MOVE_CLOCK } from '@/endpoints/house';
import { CONDITION } from '@/endpoints/conditions';
import { Menu, MenuItem } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from '@/ui/Link';
import { usePathname, useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { useInstrumentAtHand } from '@/features/bridge/BridgeContext';
import { useReadTile } from '@/features/bridge/useReadTile';
import { ask, send } from '@/ui/api';
import { formatSpan } from '@/ui/format';
import { JobsMenu } from './JobsMenu';
import { Palette } from './Palette';
import { RoomLeft } from './RoomLeft';
import { PersonMenu } from './PersonMenu';
import { useHere } from './useHere';
import { useDomainNow, useHouse } from './useHouse';

const HOUR_MS = 3_600_000;

export function Header() {
  const path = usePathname();
  const [palette, setPalette] = useState<'closed' | 'all' | 'conditions'>('closed');
  useEffect(() => {
    const open = (event: KeyboardEvent): void => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        setPalette('all');
      }
    };
    window.addEventListener('keydown', open);
    return () => window.removeEventListener('keydown', open);
  }, []);
  return (
    <header className="header">
      <Link href="/" className="mark">
        Melto
      </Link>
      <Crumbs path={path} onSwitch={() => setPalette('conditions')} />
      <span className="grow" />
      <button type="button" className="find" onClick={() => setPalette('all')}>
        <span>Find or do…</span>
        <kbd className="mono">Ctrl K</kbd>
      </button>
      <RoomLeft />
      <InstrumentItem />
      <ClockItem />
      <JobsMenu />
      <PersonMenu />
      <Palette mode={palette} onClose={() => setPalette('closed')} />
    </header>
  );
}

/** Device / stock / mode: itself the switcher of conditions. */
function Crumbs({ path, onSwitch }: { path: string; onSwitch: () => void }) {
  const here = useHere();
  const inPath = /^\/conditions\/(\d+)/.exec(path)?.[1];
  const id = inPath === undefined ? here : Number(inPath);
  const { data } = useQuery({
    queryKey: ['condition', id],
    queryFn: () => ask(CONDITION, { params: { id: id ?? 0 } }),
    enabled: id !== undefined,
    staleTime: 10_000,
  });
  const row = id === undefined ? undefined : data?.condition;
  const { data: house } = useHouse();
  const sheet = /^\/read\/([^/]+)/.exec(path)?.[1];
  return (
    <nav className="crumbs" aria-label="Where you are">
      {row !== undefined && (
        <button type="button" className="plain" onClick={onSwitch} title="Switch to another condition">
          {row.device} <i>/</i> {row.stock} <i>/</i> <b>{modeName(row)}</b>
        </button>
      )}
      {row !== undefined && sheet !== undefined && <i>/</i>}
      {sheet !== undefined && <b className="mono">{sheet}</b>}
      {path === '/' && (
        <>
          <b>Floor</b> <i>/</i> <span className="quiet">{house?.name}</span>
        </>
      )}
      {path === '/conditions/new' && <b>New condition</b>}
      {path === '/measure' && <b>Measure a colour</b>}
      {path === '/gamut' && <b>Gamut</b>}
      {path === '/proof' && <b>Soft proof</b>}
      {path === '/runs' && <b>Runs</b>}
      {path.startsWith('/runs/') && (
        <>
          {row !== undefined && <i>/</i>}
          <Link href="/runs">Runs</Link>
        </>
      )}
      {path === '/where' && <b>Where should this job go?</b>}
    </nav>
  );
}

/** The instrument that was chosen last, or the first that is connected, and how old its white tile is. */
function InstrumentItem() {
  const instrument = useInstrumentAtHand();
  const readTile = useReadTile();
  const now = useDomainNow();
  if (now === undefined) return null;
  if (instrument === undefined) return <span className="headitem quiet">no instrument</span>;
  const age = instrument.tileMs === null ? undefined : now - instrument.tileMs;
  const due = age === undefined || age > instrument.info.tileLifeMs;
  return (
    <button
      type="button"
      className="plain headitem"
      onClick={() => void readTile(instrument)}
      title="Calibrate on the white tile"
    >
      <b>{instrument.name}</b>{' '}
      <span className="quiet">{due ? 'tile due' : `tile ${formatSpan(age ?? 0)} ago`}</span>
    </button>
  );
}

/** The simulated clock: only shown ahead of time where it was moved. */
function ClockItem() {
  const { data } = useHouse();
  const now = useDomainNow();
  const queries = useQueryClient();
  const router = useRouter();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const resting = data?.slips.filter(({ state }) => state === 'resting') ?? [];
  const move = async (byMs: number): Promise<void> => {
    setAnchor(null);
    await send(MOVE_CLOCK, { body: { byMs } });
    await queries.invalidateQueries();
    router.refresh();
  };
  // Real time needs no telling: only a sample house has a clock that is moved.
  if (data === undefined || now === undefined || !(data.sample || data.offsetMs > 0)) return null;
  const untilReady = Math.max(0, ...resting.map(({ restUntilMs }) => restUntilMs - now));
  return (
    <>
      <button
        type="button"
        className="plain headitem"
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        {data.offsetMs === 0 ? (
          <span className="quiet">real time</span>
        ) : (
          <b>clock +{formatSpan(data.offsetMs)}</b>
        )}
      </button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        <MenuItem disabled={untilReady === 0} onClick={() => void move(untilReady + 1000)}>
          Rest until ready{untilReady > 0 ? `, ${formatSpan(untilReady)}` : ''}
        </MenuItem>
        <MenuItem onClick={() => void move(HOUR_MS)}>One hour on</MenuItem>
        <MenuItem onClick={() => void move(7 * 24 * HOUR_MS)}>Next week</MenuItem>
      </Menu>
    </>
  );
}
