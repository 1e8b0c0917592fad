'use client';

import { SEARCH } from '@/endpoints/house';
import { Dialog } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useColorScheme } from '@mui/material/styles';
import { usePathname, useRouter } from 'next/navigation';
import { use, useState } from 'react';
import { NEW_CONDITION } from '@/endpoints/conditions';
import type { Endpoint } from '@/endpoints/endpoint';
import { ACTS, PEOPLE } from '@/endpoints/people';
import { useInstrumentAtHand } from '@/features/bridge/BridgeContext';
import { useReadTile } from '@/features/bridge/useReadTile';
import { ask } from '@/ui/api';
import { mayCall, OwnRole } from '@/ui/May';
import { useHere } from './useHere';

interface Act {
  readonly title: string;
  readonly detail: string;
  /** Where it leads, or what it does. */
  readonly href?: string;
  readonly act?: () => void;
  /** What it is for; undefined for whoever may look. */
  readonly calls?: Pick<Endpoint, 'who'>;
}

const ACTIONS: readonly Act[] = [
  { title: 'Floor', detail: 'all conditions', href: '/' },
  { title: 'New condition', detail: 'device, stock, mode', href: '/conditions/new', calls: NEW_CONDITION },
  { title: 'Measure a colour', detail: 'single colours into a list', href: '/measure' },
  { title: 'Soft proof', detail: 'a picture before and after its print', href: '/proof' },
  { title: 'Where should this job go?', detail: 'a colour list on every condition', href: '/where' },
  { title: 'Runs', detail: 'jobs on the press, and the next move', href: '/runs' },
  { title: 'Gamut', detail: 'two profiles beside each other', href: '/gamut' },
  {
    title: 'Profiles',
    detail: 'every one of the house, and what is wrong with any',
    href: '/library/profiles',
  },
  { title: 'Catalogue', detail: 'what each condition prints, side by side', href: '/library/catalogue' },
  { title: 'Devices', detail: 'of the library', href: '/library/devices' },
  { title: 'Stocks', detail: 'of the library', href: '/library/stocks' },
  { title: 'Ink sets', detail: 'of the library', href: '/library/inks' },
  { title: 'Lights', detail: 'that prints are seen in', href: '/library/lights' },
  { title: 'Colour lists', detail: 'of the library', href: '/library/lists' },
  { title: 'Paper trials', detail: 'one chart on many stocks', href: '/library/trials' },
  { title: 'Instruments', detail: 'of the library', href: '/library/instruments' },
  { title: 'Feeds', detail: 'sensors and folders that bring sheets', href: '/library/feeds' },
  { title: 'House', detail: 'its name, person and time zone', href: '/library/house' },
  { title: 'Archived conditions', detail: 'to be taken back', href: '/library/archived' },
  { title: 'Aim sets', detail: 'what prints are judged against', href: '/library/aims' },
  { title: 'Tolerance sets', detail: 'metrics and limits', href: '/library/tolerances' },
  { title: 'People', detail: 'who may do what', href: '/library/people', calls: PEOPLE },
  { title: 'Record of acts', detail: 'who did what when', href: '/library/acts', calls: ACTS },
];

/** Pages of the condition that one is at. */
const HERE: readonly (readonly [title: string, page: string])[] = [
  ['Settings record', 'settings'],
  ['Sheets and readings', 'sheets'],
  ['Profile', 'profile'],
  ['Conformity', 'conformity'],
  ['Eye’s check', 'eye'],
  ['Watch', 'watch'],
];

/** What is done without a page of its own, and the pages of the condition that one is at. */
function useActs(): readonly Act[] {
  const { mode, setMode } = useColorScheme();
  const instrument = useInstrumentAtHand();
  const readTile = useReadTile();
  const told = useHere();
  const inPath = /^\/conditions\/(\d+)/.exec(usePathname())?.[1];
  const here = inPath === undefined ? told : Number(inPath);
  return [
    ...(here === undefined
      ? []
      : HERE.map(([title, page]) => ({
          title,
          detail: 'of this condition',
          href: `/conditions/${here}/${page}`,
        }))),
    ...(instrument === undefined
      ? []
      : [{ title: 'Read the white tile', detail: instrument.name, act: () => void readTile(instrument) }]),
    mode === 'dark'
      ? { title: 'Light theme', detail: 'of the screen', act: () => setMode('light') }
      : { title: 'Dark theme', detail: 'of the screen', act: () => setMode('dark') },
  ];
}

/** Search-and-do: any condition, sheet code, reading, profile or action. */
export function Palette({ mode, onClose }: { mode: 'closed' | 'all' | 'conditions'; onClose: () => void }) {
  return (
    <Dialog
      open={mode !== 'closed'}
      onClose={onClose}
      fullWidth
      maxWidth="sm"
      aria-label="Find or do"
      sx={{ '& .MuiDialog-container': { alignItems: 'flex-start' } }}
    >
      {mode !== 'closed' && <PaletteBody conditionsOnly={mode === 'conditions'} onClose={onClose} />}
    </Dialog>
  );
}

function PaletteBody({ conditionsOnly, onClose }: { conditionsOnly: boolean; onClose: () => void }) {
  const router = useRouter();
  const [text, setText] = useState('');
  const [at, setAt] = useState(0);
  const { data, isPlaceholderData } = useQuery({
    queryKey: ['search', text],
    queryFn: () => ask(SEARCH, { query: { q: text } }),
    placeholderData: (before) => before,
  });
  const words = text.toLowerCase();
  const acts = useActs();
  const role = use(OwnRole);
  const actions = conditionsOnly
    ? []
    : [...acts, ...ACTIONS]
        .filter(({ title }) => title.toLowerCase().includes(words))
        .filter(({ calls }) => calls === undefined || mayCall(role, calls))
        .map((action) => ({ ...action, kind: 'action' }));
  // What was found for other words stays while the answer is on its way, as far as it fits: Enter goes nowhere else.
  const fits = ({ title, detail }: Act): boolean => `${title} ${detail}`.toLowerCase().includes(words);
  const found = (data ?? [])
    .filter(({ kind }) => !conditionsOnly || kind === 'condition')
    .filter((row) => !isPlaceholderData || fits(row));
  const rows: readonly (Act & { readonly kind: string })[] = [...found, ...actions];
  const go = ({ href, act }: Act): void => {
    onClose();
    if (act !== undefined) act();
    else if (href !== undefined) router.push(href);
  };
  const chosen = Math.min(at, rows.length - 1);
  return (
    <div style={{ padding: 12, display: 'grid', gap: 8 }}>
      <input
        autoFocus
        value={text}
        placeholder={
          conditionsOnly ? 'Condition: device, stock or mode' : 'Condition, sheet code, profile, action'
        }
        aria-label="Find or do"
        role="combobox"
        aria-expanded
        aria-controls="palette-rows"
        aria-activedescendant={rows[chosen] === undefined ? undefined : `palette-${chosen}`}
        onChange={(event) => {
          setText(event.target.value);
          setAt(0);
        }}
        onKeyDown={(event) => {
          if (event.key === 'ArrowDown') setAt(Math.min(rows.length - 1, chosen + 1));
          else if (event.key === 'ArrowUp') setAt(Math.max(0, chosen - 1));
          else if (event.key === 'Enter' && rows[chosen] !== undefined) go(rows[chosen]);
          else return;
          event.preventDefault();
        }}
        style={{
          font: 'inherit',
          fontSize: 20,
          padding: '6px 8px',
          border: '1px solid var(--rule)',
          background: 'var(--page)',
          color: 'var(--text)',
        }}
      />
      <ul id="palette-rows" role="listbox" style={{ maxHeight: 420, overflow: 'auto' }}>
        {rows.map((row, i) => (
          <li
            key={`${row.kind} ${row.href ?? ''} ${row.title}`}
            id={`palette-${i}`}
            role="option"
            aria-selected={i === chosen}
          >
            <button
              type="button"
              tabIndex={-1}
              className="plain row"
              style={{ width: '100%', padding: '6px 8px', background: i === chosen ? 'var(--wash)' : 'none' }}
              onClick={() => go(row)}
            >
              <b>{row.title}</b>
              <span className="quiet grow">{row.detail}</span>
              <span className="quiet small">{row.kind}</span>
            </button>
          </li>
        ))}
        {rows.length === 0 && (
          <li className="quiet" style={{ padding: 8 }}>
            Nothing has this name.
          </li>
        )}
      </ul>
    </div>
  );
}
