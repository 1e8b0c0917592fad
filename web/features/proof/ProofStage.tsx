'use client';

import { Button, ToggleButton, ToggleButtonGroup } from '@mui/material';
import { useRef, useState } from 'react';
import type { KeyboardEvent, PointerEvent, ReactNode } from 'react';
import { Pixels } from '@/ui/Pixels';
import type { Drawn } from '@/workers/proof.worker';

const STEP = 0.02;

/** How the picture and its print are laid. */
const VIEWS = ['divider', 'beside', 'in turn'] as const;
type View = (typeof VIEWS)[number];
const VIEW_WORDS: Readonly<Record<View, string>> = {
  divider: 'divided',
  beside: 'side by side',
  'in turn': 'in turn',
};
/** Of the window's height that the pictures take. */
const HEIGHT = '44vh';
/** Pixels between pictures that are side by side. */
const GAP = 12;

interface Place {
  readonly x: number;
  readonly y: number;
}

/** The picture as it is meant and as it prints: with a divider that can be taken anywhere, beside each other, or in turn. */
export function ProofStage({
  before,
  print,
  onPoint,
}: {
  before: Drawn;
  /** Undefined until it is worked out. */
  print: ReactNode | undefined;
  /** Where the pointer is, in pixels of the picture; undefined where it has left. */
  onPoint: (at: Place | undefined) => void;
}) {
  const [view, setView] = useState<View>('divider');
  const [split, setSplit] = useState(0.5);
  const [meant, setMeant] = useState(false);
  const stage = useRef<HTMLDivElement>(null);
  const ratio = before.width / before.height;
  const sides = view === 'beside' && print !== undefined ? 2 : 1;
  const take = ({ clientX, clientY, buttons }: PointerEvent): void => {
    const box = stage.current?.getBoundingClientRect();
    if (box === undefined) return;
    const wide = (box.width - (sides - 1) * GAP) / sides;
    const left = (clientX - box.left) % (wide + GAP);
    if (view === 'divider' && buttons === 1) setSplit(Math.min(1, Math.max(0, left / wide)));
    onPoint(
      left > wide
        ? undefined
        : { x: (left / wide) * before.width, y: ((clientY - box.top) / box.height) * before.height },
    );
  };
  const keys = ({ key }: KeyboardEvent): void => {
    const to = { ArrowLeft: split - STEP, ArrowRight: split + STEP, Home: 0, End: 1 }[key];
    if (to !== undefined) setSplit(Math.min(1, Math.max(0, to)));
  };
  const picture = <Pixels drawn={before} label="The picture as it is meant" />;
  return (
    <div className="booth proof-stage">
      <div
        ref={stage}
        className="proof-pictures"
        data-view={view}
        style={{
          width: `min(100%, ${sides * before.width}px, calc(${HEIGHT} * ${(sides * ratio).toFixed(4)}))`,
          gridTemplateColumns: `repeat(${sides}, minmax(0, 1fr))`,
          columnGap: GAP,
        }}
        onPointerDown={take}
        onPointerMove={take}
        onPointerLeave={() => onPoint(undefined)}
      >
        {picture}
        {print !== undefined && (
          <div
            className={sides === 2 ? undefined : 'proof-over'}
            style={clipOf(view, split, meant)}
            aria-hidden={view === 'in turn' && meant}
          >
            {print}
          </div>
        )}
        {print !== undefined && view === 'divider' && (
          <div
            className="proof-divider"
            role="slider"
            tabIndex={0}
            aria-label="Divider: left as it is meant, right as it prints"
            aria-valuemin={0}
            aria-valuemax={100}
            aria-valuenow={Math.round(100 * split)}
            style={{ left: `${100 * split}%` }}
            onKeyDown={keys}
          />
        )}
      </div>
      <div className="row proof-views">
        <ToggleButtonGroup
          exclusive
          size="small"
          value={view}
          aria-label="How the picture and its print are laid"
          onChange={(_, chosen: View | null) => chosen !== null && setView(chosen)}
        >
          {VIEWS.map((own) => (
            <ToggleButton key={own} value={own}>
              {VIEW_WORDS[own]}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        {view === 'in turn' && (
          <Button size="small" color="inherit" aria-pressed={meant} onClick={() => setMeant(!meant)}>
            {meant ? 'As it is meant' : 'As it prints'}: show the other
          </Button>
        )}
        {view === 'beside' && <span className="small">Left as it is meant, right as it prints</span>}
      </div>
    </div>
  );
}

/** What of the print is seen over the picture. */
function clipOf(
  view: View,
  split: number,
  meant: boolean,
): { clipPath: string } | { visibility: 'hidden' } | undefined {
  if (view === 'divider') return { clipPath: `inset(0 0 0 ${100 * split}%)` };
  return view === 'in turn' && meant ? { visibility: 'hidden' } : undefined;
}
