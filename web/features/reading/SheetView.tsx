'use client';

import { useMemo, useRef } from 'react';
import type { PatchView, ReadingView } from '@melto/services/reading/readingView';
import { screenOf } from '@/ui/Swatch';
import { deviceOnScreen } from './deviceWords';

export type Recolour = 'measured' | 'device' | 'difference';

const CELL_W = 26;
const CELL_H = 16;
const GAP = 4;
const NUMBER = 30;
/** ΔE00 that is shown black. */
const FULL = 3;

/** Patches as they stand on paper; arrow keys go from patch to patch. */
export function SheetView({
  process,
  strips,
  patches,
  recolour,
  differences,
  picked,
  onPick,
}: {
  process: ReadingView['process'];
  strips: readonly (readonly number[])[];
  patches: readonly PatchView[];
  recolour: Recolour;
  differences?: ReadonlyMap<number, number>;
  picked?: number;
  onPick: (row: number) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const byRow = useMemo(() => new Map(patches.map((patch) => [patch.row, patch])), [patches]);
  const widest = Math.max(...strips.map((strip) => strip.length));
  const width = NUMBER + widest * CELL_W;
  const height = strips.length * (CELL_H + GAP);
  const fill = (row: number): string => {
    const patch = byRow.get(row);
    if (patch === undefined) return 'none';
    if (recolour === 'device') return deviceOnScreen(process, patch.device);
    if (recolour === 'difference') {
      const level = Math.round(255 * (1 - Math.min(1, (differences?.get(row) ?? 0) / FULL)));
      return `rgb(${level} ${level} ${level})`;
    }
    return screenOf(patch.lab).css;
  };
  const cells = useMemo(
    () =>
      strips.map((strip, s) => (
        <g key={s}>
          <text
            x={NUMBER - 8}
            y={s * (CELL_H + GAP) + CELL_H - 3}
            fontSize="11"
            textAnchor="end"
            fill="var(--quiet)"
          >
            {s + 1}
          </text>
          {strip.map((row, place) => (
            <rect
              key={row}
              data-row={row}
              shapeRendering="crispEdges"
              x={NUMBER + place * CELL_W}
              y={s * (CELL_H + GAP)}
              width={CELL_W}
              height={CELL_H}
              fill={fill(row)}
              stroke={byRow.has(row) ? 'none' : 'var(--rule)'}
            />
          ))}
        </g>
      )),
    // oxlint-disable-next-line react/exhaustive-deps -- how a patch is filled follows from these
    [strips, byRow, recolour, differences],
  );
  let mark: { x: number; y: number } | undefined;
  strips.forEach((strip, s) => {
    const place = strip.indexOf(picked ?? -1);
    if (place >= 0) mark = { x: NUMBER + place * CELL_W, y: s * (CELL_H + GAP) };
  });
  const move = (dx: number, dy: number): void => {
    const s = strips.findIndex((strip) => strip.includes(picked ?? -1));
    const strip = strips[Math.max(0, Math.min(strips.length - 1, (s < 0 ? 0 : s) + dy))];
    const place = s < 0 ? 0 : strips[s].indexOf(picked ?? -1);
    onPick(strip[Math.max(0, Math.min(strip.length - 1, place + dx))]);
  };
  return (
    <svg
      ref={svg}
      viewBox={`-2 -2 ${width + 4} ${height + 4}`}
      style={{ width: '100%', maxHeight: '62vh', display: 'block' }}
      tabIndex={0}
      role="application"
      aria-label="Patches of the sheet; arrow keys choose one"
      onClick={(event) => {
        const row = (event.target as SVGElement).getAttribute('data-row');
        if (row !== null) onPick(Number(row));
      }}
      onKeyDown={(event) => {
        const step = (
          { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] } as Record<
            string,
            [number, number]
          >
        )[event.key];
        if (step === undefined) return;
        event.preventDefault();
        move(...step);
      }}
    >
      {cells}
      {mark !== undefined && (
        <>
          <rect
            x={mark.x}
            y={mark.y}
            width={CELL_W}
            height={CELL_H}
            fill="none"
            stroke="#fff"
            strokeWidth="4"
            pointerEvents="none"
          />
          <rect
            x={mark.x}
            y={mark.y}
            width={CELL_W}
            height={CELL_H}
            fill="none"
            stroke="#1b1b1b"
            strokeWidth="2"
            pointerEvents="none"
          />
        </>
      )}
    </svg>
  );
}
