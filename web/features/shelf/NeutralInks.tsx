import type { ProfileFigures } from '@melto/core/profile/profileFigures';

const [WIDTH, HEIGHT, LEFT, BOTTOM] = [420, 170, 42, 22];
const INKS: readonly (readonly [string, string])[] = [
  ['C', '#0091c8'],
  ['M', '#c8147d'],
  ['Y', '#c9a800'],
  ['K', 'var(--text)'],
];
const LIGHTS: readonly (readonly [string, string])[] = [
  ['R', '#c03028'],
  ['G', '#2f8f3a'],
  ['B', '#2f55c0'],
];

/** Device values along the greys, a line for each channel. */
export function NeutralInks({ greys }: { greys: ProfileFigures['greys'] }) {
  const channels = greys[0]?.device.length ?? 0;
  const names = channels === 3 ? LIGHTS : INKS;
  const x = (asked: number): number => LEFT + (asked / 100) * (WIDTH - LEFT - 20);
  const y = (value: number): number => 8 + (1 - value) * (HEIGHT - BOTTOM - 8);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      style={{ width: '100%', maxWidth: 560 }}
      role="img"
      aria-label={`Device values along the greys: ${names.map(([name]) => name).join(', ')}`}
    >
      {[0, 0.5, 1].map((value) => (
        <g key={value}>
          <path d={`M${LEFT} ${y(value)}H${WIDTH - 20}`} stroke="var(--rule)" />
          <text x={LEFT - 5} y={y(value) + 4} textAnchor="end" fontSize="11" fill="var(--quiet)">
            {value === 1 ? '100 %' : 100 * value}
          </text>
        </g>
      ))}
      {[0, 25, 50, 75, 100].map((l) => (
        <text key={l} x={x(l)} y={HEIGHT - 6} textAnchor="middle" fontSize="11" fill="var(--quiet)">
          {l === 0 ? 'L* 0' : l}
        </text>
      ))}
      {names.slice(0, channels).map(([name, colour], channel) => (
        <g key={name}>
          <polyline
            points={greys.map(({ asked, device }) => `${x(asked)},${y(device[channel])}`).join(' ')}
            fill="none"
            stroke={colour}
            strokeWidth="1.8"
          />
          <text
            x={x(100 * ((channel + 1) / 5)) + 4}
            y={y(valueAt(greys, (channel + 1) / 5, channel)) - 5}
            fontSize="11"
            fill="var(--text)"
          >
            {name}
          </text>
        </g>
      ))}
    </svg>
  );
}

function valueAt(greys: ProfileFigures['greys'], share: number, channel: number): number {
  return greys[Math.round(share * (greys.length - 1))].device[channel];
}
