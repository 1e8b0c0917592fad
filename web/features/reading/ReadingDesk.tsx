'use client';

import { Link } from '@/ui/Link';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { FAULT_WORDS } from '@melto/core/faults/fault';
import type { DeskState } from '@melto/services/reading/desk';
import { useTellHere } from '@/features/frame/useHere';
import { useDomainNow } from '@/features/frame/useHouse';
import { formatSpan } from '@/ui/format';
import { useFileDrop } from '@/ui/useFileDrop';
import { StatusShape } from '@/ui/StatusMark';
import { PatchDialog } from './PatchDialog';
import { readableBy } from './readableBy';
import { useDesk } from './useDesk';
import { useBridge } from '@/features/bridge/BridgeContext';
import { DeskControls } from './DeskControls';
import { FileDesk } from './FileDesk';
import { ImportDialog } from './ImportDialog';
import { NowLine } from './NowLine';
import { SheetUnderInstrument } from './SheetUnderInstrument';

/** The place of a sheet: at an instrument, or where a file stands in for one. */
export function SheetDesk({ initial }: { initial: DeskState }) {
  const { instruments } = useBridge();
  const [atInstrument, setAtInstrument] = useState(initial.simulated);
  const readable = readableBy(initial, instruments).length > 0;
  return atInstrument ? (
    <ReadingDesk initial={initial} />
  ) : (
    <FileDesk initial={initial} onRead={readable ? () => setAtInstrument(true) : undefined} />
  );
}

/** The screen for reading a sheet, for a person who stands with the instrument in one hand. */
export function ReadingDesk({ initial }: { initial: DeskState }) {
  const desk = useDesk(initial);
  useTellHere(initial.conditionId);
  const router = useRouter();
  const now = useDomainNow() ?? initial.nowMs;
  const root = useRef<HTMLDivElement>(null);
  const [keys, setKeys] = useState(true);
  const [given, setGiven] = useState<File>();
  const [byPatch, setByPatch] = useState(false);
  const drop = useFileDrop(setGiven);
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
      target.closest('input, [role=combobox], [role=listbox], [role=dialog]') !== null
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
  return (
    <div
      ref={root}
      {...drop.zone}
      className={`desk${drop.over ? ' drop' : ''}`}
      tabIndex={0}
      aria-label={`Reading desk, sheet ${state.code}`}
      onKeyDown={onKey}
    >
      {given !== undefined && (
        <ImportDialog
          code={state.code}
          file={given}
          onTaken={() => {
            setGiven(undefined);
            void desk.refresh();
          }}
          onClose={() => setGiven(undefined)}
        />
      )}
      {byPatch && <PatchDialog state={state} onStored={desk.refresh} onClose={() => setByPatch(false)} />}
      <SheetUnderInstrument state={state} strip={strip} last={last} onChoose={desk.setStrip} now={now} />
      <div className="desk-side">
        <h1 className="desk-big">
          {complete ? 'All read' : `Strip ${strip}`}{' '}
          <span>{complete ? '' : `of ${state.strips.length}`}</span>
        </h1>
        <NowLine desk={desk} complete={complete} now={now} />
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
          {state.readBy !== null &&
            desk.instrument !== undefined &&
            desk.instrument.info.serial !== state.readBy.serial && (
              <li>
                <StatusShape status="near" />
                <span>
                  {state.readBy.name} has read this sheet. What {desk.instrument.name} reads is a reading of
                  its own; the library compares the two.
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
        <DeskControls
          {...{ desk, keys }}
          onKeys={setKeys}
          onFile={setGiven}
          onPatches={() => setByPatch(true)}
        />
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

function Done({ state }: { state: DeskState }) {
  const [next] = state.openSheets;
  return (
    <li>
      <StatusShape status="conforms" />
      <span>
        {state.judging ? (
          'All is kept; it is being judged.'
        ) : state.judgeProblem !== null ? (
          `All is kept, but it could not be judged. ${state.judgeProblem}`
        ) : state.resultId !== null ? (
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

function paceWords(times: readonly number[], left: number): string {
  if (times.length < 3 || left === 0) return '';
  const pace = (times[times.length - 1] - times[0]) / (times.length - 1);
  return `, about ${formatSpan(Math.max(60_000, pace * left))} left at ${Math.round(pace / 1000)} s a strip`;
}
