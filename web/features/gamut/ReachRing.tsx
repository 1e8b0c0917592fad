'use client';

import { Slider } from '@mui/material';
import { useCallback, useState } from 'react';
import type { Remote } from 'comlink';
import { labToHex } from '@melto/core/colour/srgb';
import type { DrawnComparison, GamutWorker } from '@/workers/gamut.worker';
import { BESIDE } from './bodyStyle';
import { useCut } from './useCut';

const HALF = 130;
const RINGS = [50, 100] as const;
/** Radius of the colours round the ring, and the chroma that they are drawn with. */
const HUES_AT = 122;
const HUE_STEPS = 72;
const HUE_CHROMA = 40;

/** Hue round the circle, chroma of both bodies at one lightness as a line, the difference filled. */
export function ReachRing({
  worker,
  comparison,
}: {
  worker: Remote<GamutWorker>;
  comparison: DrawnComparison;
}) {
  const [lightness, setLightness] = useState(60);
  const ask = useCallback((l: number) => worker.slice(l), [worker]);
  const slice = useCut(ask, lightness, comparison);
  const points = (chroma: Float64Array): string =>
    Array.from(chroma, (own, i) => {
      const hue = (2 * Math.PI * i) / chroma.length;
      return `${(own * Math.cos(hue)).toFixed(1)},${(-own * Math.sin(hue)).toFixed(1)}`;
    }).join(' ');
  return (
    <div className="reach-ring">
      <svg
        viewBox={`${-HALF} ${-HALF} ${2 * HALF} ${2 * HALF}`}
        role="img"
        aria-label={`Chroma of both by hue at L* ${lightness}: ${comparison.a.name} dashed, ${comparison.b.name} drawn through`}
      >
        {Array.from({ length: HUE_STEPS }, (_, i) => {
          const hue = (2 * Math.PI * i) / HUE_STEPS;
          const [a, b] = [Math.cos(hue), Math.sin(hue)];
          return (
            <circle
              key={i}
              cx={HUES_AT * a}
              cy={-HUES_AT * b}
              r={3.6}
              fill={labToHex([lightness, HUE_CHROMA * a, HUE_CHROMA * b])}
            />
          );
        })}
        {RINGS.map((chroma) => (
          <g key={chroma}>
            <circle r={chroma} fill="none" stroke="var(--rule)" />
            <text x={3} y={-chroma - 2} fontSize="9" fill="var(--quiet)">
              C* {chroma}
            </text>
          </g>
        ))}
        <path d={`M${-HALF + 14} 0H${HALF - 14}M0 ${-HALF + 14}V${HALF - 14}`} stroke="var(--rule)" />
        {slice !== undefined && (
          <>
            <path
              d={`M${points(slice.a).replaceAll(' ', 'L')}ZM${points(slice.b).replaceAll(' ', 'L')}Z`}
              fill="var(--text)"
              fillOpacity={0.16}
              fillRule="evenodd"
            />
            <polygon
              points={points(slice.a)}
              fill="none"
              stroke="var(--text)"
              strokeWidth={1.2}
              strokeDasharray="4 3"
            />
            {slice.more.map((chroma, i) => (
              <polygon
                key={i}
                points={points(chroma)}
                fill="none"
                stroke="var(--text)"
                strokeWidth={1.2}
                strokeDasharray={BESIDE[i]?.dashes}
              />
            ))}
            <polygon points={points(slice.b)} fill="none" stroke="var(--text)" strokeWidth={1.8} />
          </>
        )}
      </svg>
      <div className="reach-lightness">
        <Slider
          orientation="vertical"
          size="small"
          min={5}
          max={95}
          step={1}
          value={lightness}
          onChange={(_, value) => setLightness(value)}
          aria-label="Lightness of the cut"
          getAriaValueText={(value) => `L* ${value}`}
        />
        <span className="small">L* {lightness}</span>
      </div>
    </div>
  );
}
