'use client';

import { useRef, useState } from 'react';
import type { PointerEvent } from 'react';
import { Pixels } from '@/ui/Pixels';
import type { Drawn } from '@/workers/proof.worker';

const STEP = 0.02;

/** The picture as it is meant and as it prints, with a divider that can be taken anywhere on it. */
export function ProofStage({
  before,
  after,
  onPoint,
}: {
  before: Drawn;
  after: Drawn | undefined;
  /** Where the pointer is, in pixels of the picture; undefined where it has left. */
  onPoint: (at: { readonly x: number; readonly y: number } | undefined) => void;
}) {
  const [split, setSplit] = useState(0.5);
  const stage = useRef<HTMLDivElement>(null);
  const place = ({ clientX, clientY }: PointerEvent): { x: number; y: number } => {
    const box = stage.current?.getBoundingClientRect();
    if (box === undefined) return { x: 0, y: 0 };
    return { x: (clientX - box.left) / box.width, y: (clientY - box.top) / box.height };
  };
  const take = (event: PointerEvent): void => {
    const { x, y } = place(event);
    if (event.buttons === 1) setSplit(Math.min(1, Math.max(0, x)));
    onPoint({ x: x * before.width, y: y * before.height });
  };
  const percent = Math.round(100 * split);
  return (
    <div className="booth proof-stage">
      <div
        ref={stage}
        className="proof-pictures"
        style={{
          aspectRatio: `${before.width} / ${before.height}`,
          width: `min(100%, ${before.width}px, calc(44vh * ${(before.width / before.height).toFixed(4)}))`,
        }}
        onPointerDown={take}
        onPointerMove={take}
        onPointerLeave={() => onPoint(undefined)}
      >
        <Pixels drawn={before} label="The picture as it is meant" />
        {after !== undefined && (
          <>
            <div style={{ clipPath: `inset(0 0 0 ${100 * split}%)` }} className="proof-over">
              <Pixels drawn={after} label="The picture as it prints" />
            </div>
            <div
              className="proof-divider"
              role="slider"
              tabIndex={0}
              aria-label="Divider: left as it is meant, right as it prints"
              aria-valuemin={0}
              aria-valuemax={100}
              aria-valuenow={percent}
              style={{ left: `${100 * split}%` }}
              onKeyDown={({ key }) => {
                const to = { ArrowLeft: split - STEP, ArrowRight: split + STEP, Home: 0, End: 1 }[key];
                if (to !== undefined) setSplit(Math.min(1, Math.max(0, to)));
              }}
            />
          </>
        )}
      </div>
    </div>
  );
}
