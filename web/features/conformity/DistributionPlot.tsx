'use client';

import { processPatches } from '@melto/core/conformity/checkDetail';
import type { CheckDetail } from '@melto/core/conformity/checkDetail';
import { Figure } from '@/ui/Figure';

const WIDTH = 440;
const HEIGHT = 112;
const FLOOR = 88;

/** All ΔE00 as dots over the mean and the 95th percentile; the band ends at the limit of the mean. */
export function DistributionPlot({ detail }: { detail: CheckDetail }) {
  const { distribution, metrics } = detail;
  const patches = processPatches(detail.patches);
  const limit = metrics.find(
    ({ group, statistic, quantity }) => group === 'all' && statistic === 'mean' && quantity === 'ΔE00',
  )?.limit;
  const top = Math.max(2, Math.ceil(Math.max(distribution.largest, limit ?? 0) * 1.05));
  const x = (value: number): number => 6 + (value / top) * (WIDTH - 12);
  const step = top > 12 ? Math.ceil(top / 8) : top > 6 ? 2 : 1;
  const marks = [
    { value: distribution.mean, words: `mean ${distribution.mean.toFixed(2)}`, y: 12 },
    { value: distribution.p95, words: `95 % ${distribution.p95.toFixed(2)}`, y: 24 },
  ];
  return (
    <Figure
      title={`ΔE00 of ${patches.length} patches`}
      note={limit === undefined ? undefined : 'band: limit of the mean'}
      table={{
        head: ['patch', 'ΔE00'],
        rows: [...patches]
          .sort((a, b) => b.deltaE - a.deltaE)
          .map(({ name, deltaE }) => [name, deltaE.toFixed(2)]),
      }}
      figures={
        <p className="figures" style={{ gridTemplateColumns: 'repeat(5, auto)' }}>
          <span>
            median <b>{distribution.median.toFixed(2)}</b>
          </span>
          <span>
            st. dev. <b>{distribution.standardDeviation?.toFixed(2) ?? '–'}</b>
          </span>
          <span>
            90 % <b>{distribution.p90.toFixed(2)}</b>
          </span>
          <span>
            tail <b>{distribution.tail.toFixed(2)}</b>
          </span>
          <span>
            largest <b>{distribution.largest.toFixed(2)}</b>
          </span>
        </p>
      }
    >
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width="100%" role="img" aria-label="Distribution of ΔE00">
        {limit !== undefined && (
          <rect x={x(0)} y={30} width={x(limit) - x(0)} height={FLOOR - 30} fill="var(--wash)" />
        )}
        {Array.from({ length: Math.floor(top / step) + 1 }, (_, i) => (
          <text key={i} x={x(i * step)} y={HEIGHT - 8} fontSize="12" fill="var(--quiet)" textAnchor="middle">
            {i * step}
          </text>
        ))}
        <path d={`M${x(0)} ${FLOOR}H${WIDTH}`} stroke="var(--rule)" />
        {patches.map(({ deltaE }, i) => (
          <circle
            key={i}
            cx={x(deltaE)}
            // Spread by the golden ratio, so that dots of like values stand apart.
            cy={36 + ((i * 0.618) % 1) * (FLOOR - 42)}
            r="2.2"
            fill="var(--text)"
            fillOpacity="0.75"
          />
        ))}
        {marks.map(({ value, words, y }) => (
          <g key={words}>
            <path d={`M${x(value)} ${y - 6}V${FLOOR}`} stroke="var(--text)" />
            <text
              x={x(value) + (x(value) > WIDTH - 90 ? -5 : 5)}
              y={y + 2}
              fontSize="12"
              fill="var(--text)"
              textAnchor={x(value) > WIDTH - 90 ? 'end' : 'start'}
            >
              {words}
            </text>
          </g>
        ))}
      </svg>
    </Figure>
  );
}
