'use client';

import { Button, MenuItem, TextField } from '@mui/material';
import { Link } from '@/ui/Link';
import { useRouter, useSearchParams } from 'next/navigation';
import { useMemo } from 'react';
import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import type { Lab } from '@melto/core/colour/lab';
import { FAULT_WORDS } from '@melto/core/faults/fault';
import { summariseErrors } from '@melto/core/numerics/statistics';
import type { ReadingView } from '@melto/services/reading/readingView';
import { BrightenerPanel } from '@/features/light/BrightenerPanel';
import { SeenInPanel } from '@/features/light/SeenInPanel';
import { useTellHere } from '@/features/frame/useHere';
import { ErrorFigures } from '@/ui/ErrorFigures';
import { formatLab, formatMoment } from '@/ui/format';
import { StatusShape } from '@/ui/StatusMark';
import { PatchInspector } from './PatchInspector';
import { PatchRanking } from './PatchRanking';
import { PatchTable } from './PatchTable';
import { SheetView } from './SheetView';
import type { Recolour } from './SheetView';

interface OtherReading {
  readonly id: number;
  readonly code: string;
  readonly mode: string;
  readonly startedMs: number;
}

export function ReadingSurface({
  view,
  other,
  others,
}: {
  view: ReadingView;
  other?: ReadingView;
  others: readonly OtherReading[];
}) {
  useTellHere(view.conditionId);
  const router = useRouter();
  const query = useSearchParams();
  const picked = Number(query.get('patch') ?? view.patches[0]?.row ?? 0);
  const asked = query.get('colour');
  const recolour: Recolour =
    asked === 'device' ? 'device' : asked === 'difference' && other !== undefined ? 'difference' : 'measured';
  const asTable = query.get('as') === 'table';
  const page = Math.min(view.pages.length, Math.max(1, Number(query.get('page') ?? 1)));
  const set = (changes: Record<string, string | undefined>): void => {
    const next = new URLSearchParams(query);
    for (const [name, value] of Object.entries(changes))
      if (value === undefined) next.delete(name);
      else next.set(name, value);
    router.replace(`/readings/${view.id}?${next.toString()}`, { scroll: false });
  };
  const differences = useMemo(() => compare(view, other), [view, other]);
  const summary = differences === undefined ? undefined : summariseErrors([...differences.values()]);
  const patch = view.patches.find(({ row }) => row === picked) ?? view.patches[0];
  return (
    <div className="surface" style={{ height: '100%' }}>
      <div className="surface-head">
        <h1 className="mono">{view.code}</h1>
        <p>
          {view.title}, {view.mode}, {view.instrument ?? 'from a file'}, {formatMoment(view.startedMs)}
          {view.finishedMs === null && <b> in progress</b>}
        </p>
        <TextField
          select
          label="Compare with"
          value={other?.id ?? ''}
          disabled={others.length === 0}
          onChange={(event) =>
            set({
              with: event.target.value === '' ? undefined : String(event.target.value),
              colour: event.target.value === '' ? undefined : 'difference',
            })
          }
          sx={{ width: 230 }}
        >
          <MenuItem value="">{others.length === 0 ? 'no other reading of this chart' : 'nothing'}</MenuItem>
          {others.map((row) => (
            <MenuItem key={row.id} value={row.id}>
              {row.code}, {row.mode}
            </MenuItem>
          ))}
        </TextField>
        <Button component="a" href={`/api/readings/${view.id}/file`} download>
          CGATS
        </Button>
        <Button component={Link} href={`/conditions/${view.conditionId}/${view.serves}`} variant="contained">
          To {SERVES[view.serves]}
        </Button>
      </div>
      {view.faults.map((fault) => (
        <div key={fault.kind} className={`notice${fault.kind === 'strip-backwards' ? '' : ' bad'} row`}>
          <StatusShape status={fault.kind === 'strip-backwards' ? 'near' : 'does-not-conform'} />
          <span>
            <b>{FAULT_WORDS[fault.kind].says}</b> {FAULT_WORDS[fault.kind].todo}
            {fault.strips.length > 0 && ` Strips ${fault.strips.join(', ')}.`}{' '}
            <span className="quiet">
              confidence {Math.round(fault.confidence * 100)} %
              {Object.entries(fault.figures)
                .map(
                  ([name, value]) =>
                    `, ${FIGURE_WORDS[name] ?? name} ${Number.isInteger(value) ? value : value.toFixed(2)}`,
                )
                .join('')}
            </span>
          </span>
        </div>
      ))}
      <div className="two" style={{ gridTemplateColumns: 'minmax(0,1fr) 360px', alignItems: 'start' }}>
        <div className="panel">
          <header>
            <h2>Sheet</h2>
            <span className="quiet">
              {view.patches.length} patches;{' '}
              {recolour === 'measured'
                ? 'measured colours'
                : recolour === 'device'
                  ? 'device values as if on a screen'
                  : 'ΔE00 to the other reading, black is 3 or more'}
            </span>
            <span className="row small">
              <button
                type="button"
                className="plain"
                aria-pressed={asTable}
                onClick={() => set({ as: asTable ? undefined : 'table' })}
              >
                {asTable ? 'as sheet' : 'as table'}
              </button>
              {!asTable && (
                <>
                  {(['measured', 'device', ...(other === undefined ? [] : ['difference'])] as Recolour[]).map(
                    (name) => (
                      <button
                        key={name}
                        type="button"
                        className="plain"
                        aria-pressed={recolour === name}
                        onClick={() => set({ colour: name === 'measured' ? undefined : name })}
                        style={{ fontWeight: recolour === name ? 700 : 400 }}
                      >
                        {name}
                      </button>
                    ),
                  )}
                  {view.pages.length > 1 &&
                    view.pages.map((_, i) => (
                      <button
                        key={i}
                        type="button"
                        className="plain"
                        aria-pressed={page === i + 1}
                        onClick={() => set({ page: String(i + 1) })}
                        style={{ fontWeight: page === i + 1 ? 700 : 400 }}
                      >
                        page {i + 1}
                      </button>
                    ))}
                </>
              )}
            </span>
          </header>
          {asTable ? (
            <PatchTable
              view={view}
              differences={differences}
              picked={patch?.row}
              onPick={(row) => set({ patch: String(row) })}
            />
          ) : (
            <SheetView
              process={view.process}
              strips={view.pages[page - 1]}
              patches={view.patches}
              recolour={recolour}
              differences={differences}
              picked={patch?.row}
              onPick={(row) => set({ patch: String(row) })}
            />
          )}
        </div>
        <div style={{ display: 'grid', gap: 12 }}>
          <div className="panel">
            <dl className="facts">
              <dt>Dmax</dt>
              <dd>
                <b>{view.dmax.toFixed(2)}</b>{' '}
                <span className="quiet">absolute, from Y of the darkest patch</span>
              </dd>
              <dt>Paper white</dt>
              <dd>{view.paper === null ? 'no bare patch' : formatLab(view.paper)}</dd>
              <dt>Repeatability</dt>
              <dd>
                {view.repeatability === null ? (
                  'no repeats'
                ) : (
                  <>
                    <b>{view.repeatability.mean.toFixed(2)}</b>{' '}
                    <span className="quiet">
                      mean, largest {view.repeatability.largest.toFixed(2)} ΔE00 of repeats
                    </span>
                  </>
                )}
              </dd>
            </dl>
          </div>
          {patch !== undefined && (
            <PatchInspector
              process={view.process}
              patch={patch}
              grid={view.grid}
              other={other?.patches.find(({ row }) => row === patch.row)}
            />
          )}
          {view.grid !== null && (
            <>
              <BrightenerPanel
                readingId={view.id}
                conditionId={view.conditionId}
                onPick={(row) => set({ patch: String(row) })}
              />
              <SeenInPanel readingId={view.id} onPick={(row) => set({ patch: String(row) })} />
            </>
          )}
          {differences !== undefined && summary !== undefined && (
            <div className="panel">
              <header>
                <h2>Differences</h2>
                <span className="quiet">ΔE00 to {other?.code}</span>
              </header>
              <ErrorFigures {...summary} />
              <PatchRanking
                patches={[...differences]
                  .sort((a, b) => b[1] - a[1])
                  .slice(0, 8)
                  .map(([row, value]) => ({ row, value }))}
                onPick={(row) => set({ patch: String(row) })}
              />
            </div>
          )}
        </div>
      </div>
    </div>
  );
}

/** Where a reading is used, in words. */
const SERVES: Readonly<Record<ReadingView['serves'], string>> = {
  limits: 'the limits',
  curves: 'the curves',
  balance: 'the balance',
  evenness: 'the evenness',
  profile: 'the profile',
  conformity: 'the check',
  watch: 'the watch',
};

const FIGURE_WORDS: Readonly<Record<string, string>> = {
  residual: 'rest beside a conversion',
  greyCast: 'cast of the greys',
  dmax: 'Dmax',
  usual: 'usual',
  contamination: 'other inks in the ramps',
  departure: 'tone off what is expected, %',
  even: 'tone off an even scale, %',
  minutes: 'minutes too early',
};

/** ΔE00 per chart row of patches that both readings have. */
function compare(view: ReadingView, other: ReadingView | undefined): Map<number, number> | undefined {
  if (other === undefined) return undefined;
  const theirs = new Map(other.patches.map((patch) => [patch.row, patch.lab]));
  return new Map(
    view.patches.flatMap((patch) => {
      const lab = theirs.get(patch.row);
      return lab === undefined
        ? []
        : [[patch.row, deltaE2000(patch.lab as unknown as Lab, lab as unknown as Lab)] as const];
    }),
  );
}
