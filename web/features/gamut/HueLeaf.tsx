'use client';

import { Slider } from '@mui/material';
import { useCallback, useState } from 'react';
import type { Remote } from 'comlink';
import { labToHex } from '@melto/core/colour/srgb';
import { hueName } from '@melto/core/gamut/gamutWords';
import type { DrawnComparison, GamutWorker, HueCut } from '@/workers/gamut.worker';
import { BESIDE } from './bodyStyle';
import { useCut } from './useCut';

const HALF = 125;
const SWATCH = 6;
const CHROMA = 45;

/** Lightness upwards, chroma of a hue to the right and of its opposite to the left: both bodies cut along a hue. */
export function HueLeaf({
  worker,
  comparison,
}: {
  worker: Remote<GamutWorker>;
  comparison: DrawnComparison;
}) {
  const [hue, setHue] = useState(30);
  const ask = useCallback((degrees: number) => worker.hue(degrees), [worker]);
  const cuts = useCut(ask, hue, comparison);
  const [a, b] = [Math.cos((hue * Math.PI) / 180), Math.sin((hue * Math.PI) / 180)];
  const words = `${hueName(a, b)} to the right, ${hueName(-a, -b)} to the left`;
  return (
    <div>
      <svg
        viewBox={`${-HALF} -6 ${2 * HALF} 118`}
        role="img"
        aria-label={`Both cut at hue ${hue}°: ${comparison.a.name} dashed, ${comparison.b.name} drawn through`}
        className="hue-leaf"
      >
        {[0, 25, 50, 75, 100].map((l) => (
          <g key={l}>
            <path d={`M${-HALF + 12} ${100 - l}H${HALF - 12}`} stroke="var(--rule)" strokeWidth={0.6} />
            <text x={-HALF + 14} y={99 - l} fontSize="7" fill="var(--quiet)">
              {l === 0 ? 'L* 0' : l}
            </text>
          </g>
        ))}
        <path d="M0 0V100" stroke="var(--rule)" />
        {[-100, -50, 50, 100].map((chroma) => (
          <text key={chroma} x={chroma} y={110} fontSize="7" textAnchor="middle" fill="var(--quiet)">
            C* {Math.abs(chroma)}
          </text>
        ))}
        {Array.from({ length: 11 }, (_, i) => {
          const l = 5 + 9 * i;
          return [1, -1].map((side) => (
            <circle
              key={`${i} ${side}`}
              cx={side * (HALF - SWATCH)}
              cy={100 - l}
              r={3}
              fill={labToHex([l, side * CHROMA * a, side * CHROMA * b])}
            />
          ));
        })}
        {cuts !== undefined && (
          <>
            <path
              d={outline(cuts.a)}
              fill="none"
              stroke="var(--text)"
              strokeWidth={1.1}
              strokeDasharray="4 3"
            />
            {cuts.more.map((cut, i) => (
              <path
                key={i}
                d={outline(cut)}
                fill="none"
                stroke="var(--text)"
                strokeWidth={1.1}
                strokeDasharray={BESIDE[i]?.dashes}
              />
            ))}
            <path d={outline(cuts.b)} fill="none" stroke="var(--text)" strokeWidth={1.7} />
          </>
        )}
      </svg>
      <div className="row">
        <Slider
          size="small"
          min={0}
          max={179}
          step={1}
          value={hue}
          onChange={(_, value) => setHue(value)}
          aria-label="Hue of the cut"
          getAriaValueText={(value) => `${value}°`}
        />
        <span className="small">{hue}°</span>
      </div>
      <p className="quiet small">{words}</p>
    </div>
  );
}

/** Up along the hue, and down along its opposite. */
function outline({ near, far }: HueCut): string {
  const points = [
    ...near.map(([l, chroma]) => [chroma, l] as const),
    ...[...far].reverse().map(([l, chroma]) => [-chroma, l] as const),
  ];
  return `M${points.map(([x, l]) => `${x.toFixed(1)} ${(100 - l).toFixed(1)}`).join('L')}Z`;
}
