'use client';

import { useRef } from 'react';
import type { PointerEvent as ReactPointerEvent } from 'react';

export interface PlotLine {
  readonly points: readonly (readonly [number, number])[];
  readonly colour: string;
  /** With dots, or dots alone. */
  readonly dots?: boolean | 'only';
  readonly dashed?: boolean;
  readonly thin?: boolean;
}

const WIDTH = 306;
const HEIGHT = 150;
const EDGE = { left: 44, right: 16, top: 8, bottom: 34 };

/**
 * A plot over the amount of ink with its limit as a line that can be dragged, or moved by the arrow keys (Shift: ten
 * steps at once).
 */
export function LimitPlot({
  name,
  lines,
  from,
  to,
  top,
  bottom = 0,
  value,
  proposed,
  step,
  unit,
  side,
  onChange,
}: {
  name: string;
  lines: readonly PlotLine[];
  /** Range of the ink, per cent. */
  from: number;
  to: number;
  bottom?: number;
  top: number;
  value: number;
  proposed: number;
  step: number;
  unit: string;
  side: string;
  onChange: (value: number) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const x = (v: number): number => EDGE.left + ((v - from) / (to - from)) * (WIDTH - EDGE.left - EDGE.right);
  const y = (v: number): number =>
    HEIGHT - EDGE.bottom - ((v - bottom) / (top - bottom)) * (HEIGHT - EDGE.top - EDGE.bottom);
  const clamp = (v: number): number =>
    Math.min(to, Math.max(Math.max(from, 20), Math.round(v / step) * step));
  const drag = (event: ReactPointerEvent<SVGElement>): void => {
    const box = svg.current?.getBoundingClientRect();
    if (box === undefined || event.buttons === 0) return;
    const at = ((event.clientX - box.left) / box.width) * WIDTH;
    onChange(clamp(from + ((at - EDGE.left) / (WIDTH - EDGE.left - EDGE.right)) * (to - from)));
  };
  const ticks = [0, 0.25, 0.5, 0.75, 1].map((share) => from + share * (to - from));
  const sideTicks = [bottom, (bottom + top) / 2, top];
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width="100%"
      style={{ display: 'block', touchAction: 'none', cursor: 'ew-resize' }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        drag(event);
      }}
      onPointerMove={drag}
    >
      <rect
        x={x(value)}
        y={EDGE.top}
        width={Math.max(0, x(to) - x(value))}
        height={HEIGHT - EDGE.top - EDGE.bottom}
        fill="var(--wash)"
      />
      {sideTicks.map((tick) => (
        <g key={tick}>
          <path d={`M${EDGE.left} ${y(tick)}H${WIDTH - EDGE.right}`} stroke="var(--rule)" />
          <text x={EDGE.left - 6} y={y(tick) + 4} textAnchor="end" fontSize="12" fill="var(--quiet)">
            {top - bottom > 10 ? tick.toFixed(0) : tick.toFixed(1)}
          </text>
        </g>
      ))}
      {ticks.map((tick) => (
        <text key={tick} x={x(tick)} y={HEIGHT - 19} textAnchor="middle" fontSize="12" fill="var(--quiet)">
          {tick.toFixed(0)}
        </text>
      ))}
      <text x={(EDGE.left + WIDTH) / 2} y={HEIGHT - 3} textAnchor="middle" fontSize="12" fill="var(--quiet)">
        {unit}
      </text>
      <text
        transform={`translate(12 ${(HEIGHT - EDGE.bottom) / 2 + 4}) rotate(-90)`}
        textAnchor="middle"
        fontSize="12"
        fill="var(--quiet)"
      >
        {side}
      </text>
      {lines.map((line, i) => (
        <g key={i}>
          <polyline
            visibility={line.dots === 'only' ? 'hidden' : undefined}
            points={line.points.map(([px, py]) => `${x(px).toFixed(1)},${y(py).toFixed(1)}`).join(' ')}
            fill="none"
            stroke={line.colour}
            strokeWidth={line.thin === true ? 1 : 2}
            strokeDasharray={line.dashed === true ? '4 3' : undefined}
          />
          {line.dots !== undefined &&
            line.dots !== false &&
            line.points.map(([px, py]) => <circle key={px} cx={x(px)} cy={y(py)} r="2" fill={line.colour} />)}
        </g>
      ))}
      {Math.abs(proposed - value) > step / 2 && (
        <path
          d={`M${x(proposed)} ${EDGE.top}V${HEIGHT - EDGE.bottom}`}
          stroke="var(--quiet)"
          strokeDasharray="2 3"
        />
      )}
      <g
        role="slider"
        tabIndex={0}
        aria-label={`Limit of ${name}`}
        aria-valuemin={Math.max(from, 20)}
        aria-valuemax={to}
        aria-valuenow={value}
        aria-valuetext={`${value} per cent`}
        className="limit-handle"
        onKeyDown={(event) => {
          const size = event.shiftKey ? 10 * step : step;
          if (event.key === 'ArrowLeft' || event.key === 'ArrowDown') onChange(clamp(value - size));
          else if (event.key === 'ArrowRight' || event.key === 'ArrowUp') onChange(clamp(value + size));
          else return;
          event.preventDefault();
        }}
      >
        <path d={`M${x(value)} ${EDGE.top}V${HEIGHT - EDGE.bottom}`} stroke="var(--text)" strokeWidth="2" />
        <rect x={x(value) - 4} y={EDGE.top} width="8" height="14" rx="2" fill="var(--text)" />
      </g>
    </svg>
  );
}
