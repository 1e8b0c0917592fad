'use client';

import { FormControlLabel, MenuItem, Switch, TextField } from '@mui/material';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import type { HandMovement, MeasurementMode } from '@melto/core/device/instrument';
import { FAULT_WORDS } from '@melto/core/faults/fault';
import type { DeskState } from '@melto/services/desk';
import { RestRing } from '@/features/frame/Rack';
import { useTellHere } from '@/features/frame/useHere';
import { useDomainNow } from '@/features/frame/useHouse';
import { formatClock, formatSpan } from '@/ui/format';
import { StatusShape } from '@/ui/StatusMark';
import { useDesk } from './useDesk';
import type { LastPass } from './useDesk';

const HANDS: readonly (readonly [HandMovement, string])[] = [
  ['steady', 'steady'],
  ['too-fast', 'too fast'],
  ['off-row', 'off the row'],
  ['started-late', 'started late'],
  ['backwards', 'backwards'],
  ['other-strip', 'the next strip'],
];
const MOST_FILE = 16_000_000;

/** The screen for reading a sheet, for a person who stands with the instrument in one hand. */
export function ReadingDesk({ initial }: { initial: DeskState }) {
  const desk = useDesk(initial);
  useTellHere(initial.conditionId);
  const router = useRouter();
  const now = useDomainNow() ?? initial.nowMs;
  const root = useRef<HTMLDivElement>(null);
  const [keys, setKeys] = useState(true);
  const [dropping, setDropping] = useState(false);
  useEffect(() => root.current?.focus(), []);
  const { state, strip, last } = desk;
  const read = state.strips.filter(({ measured }) => measured !== null).length;
  const complete = read === state.strips.length;
  // Strips that came in while this desk was open and that it did not read itself.
  const known = useRef(
    new Set(initial.strips.filter(({ measured }) => measured !== null).map((row) => row.strip)),
  );
  const elsewhere = state.strips
    .filter((row) => row.measured !== null && !known.current.has(row.strip) && !desk.own.has(row.strip))
    .map((row) => row.strip);
  const leave = (): void => router.push(`/conditions/${state.conditionId}/sheets`);
  const onKey = (event: React.KeyboardEvent): void => {
    const target = event.target as HTMLElement;
    if (
      !keys ||
      event.ctrlKey ||
      event.metaKey ||
      event.altKey ||
      target.closest('input, [role=combobox], [role=listbox]') !== null
    )
      return;
    const act: Record<string, () => void> = {
      ' ': () => void desk.pass(),
      Enter: () => void desk.pass(),
      r: () => {
        if (last !== undefined) desk.setStrip(last.strip);
      },
      ArrowUp: () => desk.setStrip(strip - 1),
      ArrowDown: () => desk.setStrip(strip + 1),
      m: () => void desk.mark(),
      t: () => void desk.calibrate(),
      Escape: leave,
    };
    const name = event.key.length === 1 ? event.key.toLowerCase() : event.key;
    // A focused button or link keeps its own Space and Enter.
    if (
      (name === ' ' || name === 'Enter') &&
      target.closest('button, a') !== null &&
      target.closest('.strip') === null
    )
      return;
    if (act[name] === undefined) return;
    event.preventDefault();
    act[name]();
  };
  const drop = async (file: File | undefined): Promise<void> => {
    setDropping(false);
    if (file === undefined) return;
    await desk.importFile(file.size > MOST_FILE ? '' : await file.text());
  };
  return (
    <div
      ref={root}
      className={`desk${dropping ? ' drop' : ''}`}
      tabIndex={0}
      aria-label={`Reading desk, sheet ${state.code}`}
      onKeyDown={onKey}
      onDragOver={(event) => {
        event.preventDefault();
        setDropping(true);
      }}
      onDragLeave={() => setDropping(false)}
      onDrop={(event) => {
        event.preventDefault();
        void drop(event.dataTransfer.files[0]);
      }}
    >
      <SheetUnderInstrument state={state} strip={strip} last={last} onChoose={desk.setStrip} now={now} />
      <div className="desk-side">
        <h1 className="desk-big">
          {complete ? 'All read' : `Strip ${strip}`}{' '}
          <span>{complete ? '' : `of ${state.strips.length}`}</span>
        </h1>
        <NowLine state={state} strip={strip} last={last} complete={complete} busy={desk.busy} now={now} />
        <div>
          <div
            className="progress"
            role="progressbar"
            aria-label="Strips read"
            aria-valuenow={read}
            aria-valuemin={0}
            aria-valuemax={state.strips.length}
          >
            <i style={{ width: `${(100 * read) / state.strips.length}%` }} />
          </div>
          <p className="quiet" style={{ marginTop: 6 }}>
            strips {read} of {state.strips.length}
            {paceWords(desk.times, state.strips.length - read)}
          </p>
        </div>
        <ul className="desk-list" aria-label="What was found">
          {complete && <Done state={state} />}
          {state.faults.map((fault) => (
            <li key={fault.kind}>
              <StatusShape status={fault.kind === 'strip-backwards' ? 'near' : 'does-not-conform'} />
              <span>
                <b>{FAULT_WORDS[fault.kind].says}</b> {FAULT_WORDS[fault.kind].todo}
              </span>
            </li>
          ))}
          {state.faults.length === 0 && read > 0 && (
            <li>
              <StatusShape status="conforms" />
              <span>No fault found so far: raw values, right side, strips in order.</span>
            </li>
          )}
          {last?.kind === 'read' && last.spread !== null && (
            <li>
              <StatusShape status="conforms" />
              <span>
                Strip {last.strip}: {last.pass} passes averaged, spread {last.spread.toFixed(2)} ΔE00.
              </span>
            </li>
          )}
          {elsewhere.length > 0 && (
            <li>
              <StatusShape status="near" />
              <span>
                Another desk has read strips {elsewhere.join(', ')} of this sheet; it goes on from there.
              </span>
            </li>
          )}
          {state.marked.map((number) => (
            <li key={number}>
              <StatusShape status="due" />
              <span>
                Strip {number} is marked for later.{' '}
                <button type="button" className="plain" onClick={() => desk.setStrip(number)}>
                  <u>Go there</u>
                </button>
              </span>
            </li>
          ))}
        </ul>
        <div className="row" style={{ flexWrap: 'wrap' }}>
          <TextField
            select
            label="Mode"
            value={desk.mode}
            onChange={(event) => desk.setMode(event.target.value as MeasurementMode)}
            sx={{ width: 90 }}
            disabled={state.readingId !== null}
          >
            {state.instrument.modes.map((name) => (
              <MenuItem key={name} value={name}>
                {name}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            label="Passes"
            value={desk.passes}
            onChange={(event) => desk.setPasses(Number(event.target.value))}
            sx={{ width: 84 }}
          >
            {[1, 2, 3, 5].map((count) => (
              <MenuItem key={count} value={count}>
                {count}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            label="Simulated hand"
            value={desk.hand}
            onChange={(event) => desk.setHand(event.target.value as HandMovement)}
            sx={{ width: 150 }}
          >
            {HANDS.map(([value, words]) => (
              <MenuItem key={value} value={value}>
                {words}
              </MenuItem>
            ))}
          </TextField>
          <label className="plain small">
            <u>Import a file instead</u>
            <input
              type="file"
              accept=".txt,.cgats,text/plain"
              className="visually-hidden"
              onChange={(event) => void drop(event.target.files?.[0])}
            />
          </label>
          <FormControlLabel
            sx={{ ml: 0 }}
            control={<Switch size="small" checked={keys} onChange={(_, on) => setKeys(on)} />}
            label={<span className="small">keys act</span>}
          />
        </div>
        <div className="keys">
          <KeyButton name="Space" onPress={() => void desk.pass()} words="start pass" />
          <KeyButton
            name="R"
            onPress={() => last !== undefined && desk.setStrip(last.strip)}
            words="last strip again"
          />
          <KeyButton name="↑ ↓" onPress={() => desk.setStrip(strip + 1)} words="other strip" />
          <KeyButton
            name="M"
            onPress={() => void desk.mark()}
            words={state.marked.includes(strip) ? 'remove the mark' : 'mark for later'}
          />
          <KeyButton name="T" onPress={() => void desk.calibrate()} words="white tile" />
          <KeyButton name="Esc" onPress={leave} words="leave, all is kept" />
        </div>
      </div>
    </div>
  );
}

function KeyButton({ name, words, onPress }: { name: string; words: string; onPress: () => void }) {
  return (
    <>
      <button type="button" onClick={onPress} aria-label={words}>
        {name}
      </button>
      <span>{words}</span>
    </>
  );
}

/** One line that says what to do now. */
function NowLine({
  state,
  strip,
  last,
  complete,
  busy,
  now,
}: {
  state: DeskState;
  strip: number;
  last?: LastPass;
  complete: boolean;
  busy: boolean;
  now: number;
}) {
  const tileDue =
    state.instrument.tileMs === null || now - state.instrument.tileMs > state.instrument.tileLifeMs;
  const failed = last?.kind === 'failed';
  const words = failed
    ? last.words
    : busy
      ? 'Reading…'
      : complete
        ? 'The sheet is complete.'
        : tileDue
          ? 'White tile due: press T.'
          : last?.kind === 'read' && last.reversed
            ? `Strip ${last.strip} was read backwards and turned. On to strip ${strip}.`
            : last?.kind === 'read' && last.pass < last.passes
              ? `Pass ${last.pass} of ${last.passes} is kept. The same strip again.`
              : 'Start on white, move right to white.';
  return (
    <p className={`desk-now${failed ? ' bad' : ''}`} role="status" aria-live="assertive">
      {words}
    </p>
  );
}

function Done({ state }: { state: DeskState }) {
  const [next] = state.openSheets;
  return (
    <li>
      <StatusShape status="conforms" />
      <span>
        {state.resultId !== null ? (
          <Link href={`/conditions/${state.conditionId}/conformity?version=${state.resultId}`}>
            See the verdict
          </Link>
        ) : state.readingId !== null ? (
          <Link href={`/readings/${state.readingId}`}>Look at the reading</Link>
        ) : null}
        {next !== undefined && (
          <>
            , or go on with <Link href={`/read/${next}`}>{next}</Link>
          </>
        )}
      </span>
    </li>
  );
}

/** The sheet as it lies under the instrument: read strips in their measured colours, the others dimmed. */
function SheetUnderInstrument({
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
              aria-label={`Strip ${row.strip}, ${row.measured === null ? 'not read' : 'read'}`}
              onClick={() => onChoose(row.strip)}
            >
              <span data-arrow aria-hidden>
                {current ? '→' : ''}
              </span>
              <span className="n">{row.strip}</span>
              <span className="cells" style={state.strips.length === 1 ? { height: 64 } : undefined}>
                {(row.measured ?? row.expected).map((hex, i) => (
                  <i key={i} style={{ background: hex }} />
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

function paceWords(times: readonly number[], left: number): string {
  if (times.length < 3 || left === 0) return '';
  const pace = (times[times.length - 1] - times[0]) / (times.length - 1);
  return `, about ${formatSpan(Math.max(60_000, pace * left))} left at ${Math.round(pace / 1000)} s a strip`;
}
