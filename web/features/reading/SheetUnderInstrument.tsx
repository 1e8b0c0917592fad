'use client';

import { useRef } from 'react';
import type { DeskState } from '@melto/services/reading/desk';
import { RestRing } from '@/features/frame/Rack';
import { formatClock, formatSpan } from '@/ui/format';
import { StatusShape } from '@/ui/StatusMark';
import type { LastPass } from './useDesk';

/** The sheet as it lies under the instrument: read strips in their measured colours, the others dimmed. */
export function SheetUnderInstrument({
  state,
  strip,
  last,
  onChoose,
  now,
}: {
  state: DeskState;
  strip: number;
  last?: LastPass;
  onChoose: (strip: number) => void;
  now: number;
}) {
  const left = state.restUntilMs - now;
  const list = useRef<HTMLDivElement>(null);
  return (
    <section className="desk-sheet" aria-label="The sheet">
      <p className="row small">
        <span className="mono">
          <b>{state.code}</b>
        </span>
        <span className="quiet grow">
          {state.title}, page {state.page} of {state.pages} · {state.conditionName} · printed{' '}
          {formatClock(state.printedMs)}
        </span>
        {left > 0 ? (
          <span className="row" style={{ gap: 6 }}>
            <RestRing share={Math.min(1, Math.max(0, 1 - left / (state.restUntilMs - state.printedMs)))} />
            <b>rests {formatSpan(left)} more</b>
          </span>
        ) : (
          <span className="quiet">rested</span>
        )}
      </p>
      <div className="strips" ref={list}>
        {state.strips.map((row) => {
          const current = row.strip === strip;
          return (
            <button
              key={row.strip}
              type="button"
              className="strip"
              tabIndex={-1}
              aria-current={current}
              aria-label={`Strip ${row.strip}, ${row.partly !== null ? 'partly read' : row.measured === null ? 'not read' : 'read'}`}
              onClick={() => onChoose(row.strip)}
            >
              <span data-arrow aria-hidden>
                {current ? '→' : ''}
              </span>
              <span className="n">{row.strip}</span>
              <span className="cells" style={state.strips.length === 1 ? { height: 64 } : undefined}>
                {(row.measured ?? row.expected).map((hex, i) => (
                  <i key={i} style={{ background: row.partly?.[i] ?? hex }} />
                ))}
              </span>
              <span>
                {state.marked.includes(row.strip) ? (
                  <StatusShape status="due" title="marked for later" />
                ) : row.measured !== null ? (
                  <StatusShape
                    status={row.reversed ? 'near' : 'conforms'}
                    title={row.reversed ? 'read backwards, turned' : 'read'}
                  />
                ) : row.partly !== null ? (
                  <StatusShape status="due" title="patches are missing" />
                ) : null}
              </span>
            </button>
          );
        })}
      </div>
      {last?.kind === 'read' && (
        <div>
          <p className="quiet small">Strip {last.strip} as read, expected in the lower third</p>
          <div className="last">
            {last.measured.map((hex, i) => (
              <div key={i} style={{ background: hex }}>
                <i style={{ background: last.expected[i] }} />
              </div>
            ))}
          </div>
        </div>
      )}
    </section>
  );
}
