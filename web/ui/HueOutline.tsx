import type { Lab } from '@melto/core/colour/lab';
import { screenOf } from './Swatch';

export interface Outline {
  /** Solids and overprints around the gamut, in the order of their hues. */
  readonly corners: readonly Lab[];
  readonly kind: 'thick' | 'thin';
  /** Names beside the corners. */
  readonly names?: readonly string[];
}

const HALF = 100;
const STROKES = {
  thick: { stroke: 'var(--text)', strokeWidth: 1.6 },
  thin: { stroke: 'var(--quiet)', strokeWidth: 1, strokeDasharray: '4 3' },
} as const;

/** Outlines of solids and overprints in a*b*, to one scale: 100 from the middle to each side. */
export function HueOutline({
  outlines,
  label,
  size,
}: {
  outlines: readonly Outline[];
  label: string;
  size: number;
}) {
  return (
    <svg
      viewBox={`${-HALF - 4} ${-HALF - 4} ${2 * HALF + 8} ${2 * HALF + 8}`}
      width={size}
      height={size}
      role="img"
      aria-label={label}
    >
      <path d={`M${-HALF} 0H${HALF}M0 ${-HALF}V${HALF}`} stroke="var(--rule)" strokeWidth="1" />
      <text x={HALF} y="12" textAnchor="end" fontSize="9" fill="var(--quiet)">
        a* {HALF}
      </text>
      <text x="10" y={-HALF + 7} fontSize="9" fill="var(--quiet)">
        b* {HALF}
      </text>
      {outlines.map(({ corners, kind }, i) => (
        <polygon
          key={i}
          points={corners.map(([, a, b]) => `${a},${-b}`).join(' ')}
          fill="none"
          {...STROKES[kind]}
        />
      ))}
      {outlines.flatMap(({ corners, names }, i) =>
        (names ?? []).map((name, corner) => {
          const [, a, b] = corners[corner];
          const length = Math.hypot(a, b) || 1;
          return (
            <g key={`${i} ${name}`}>
              <circle
                cx={a}
                cy={-b}
                r="3.4"
                fill={screenOf(corners[corner]).css}
                stroke="var(--text)"
                strokeWidth="0.8"
              />
              <text
                x={a + (9 * a) / length}
                y={-b - (9 * b) / length + 3}
                textAnchor={a > 12 ? 'start' : a < -12 ? 'end' : 'middle'}
                fontSize="9"
                fill="var(--text)"
              >
                {name}
              </text>
            </g>
          );
        }),
      )}
    </svg>
  );
}

/** Area of an outline in a*b*, square units. */
export function outlineArea(corners: readonly Lab[]): number {
  return Math.abs(
    corners.reduce((sum, [, a, b], i) => {
      const next = corners[(i + 1) % corners.length];
      return sum + (a * next[2] - next[1] * b) / 2;
    }, 0),
  );
}
