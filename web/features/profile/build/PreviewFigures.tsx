'use client';

import { Slider } from '@mui/material';
import { useMemo } from 'react';
import { CartesianGrid, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { labToScreen } from '@melto/core/colour/srgb';
import { LEAF } from '@melto/core/separate/separationPreview';
import type { SeparationPreview } from '@melto/core/separate/separationPreview';
import { hundredAxis, TICK } from '@/ui/axes';
import { Figure } from '@/ui/Figure';
import { screenOf } from '@/ui/Swatch';

/** Inks along the greys, each in its own printed colour. */
export function GreysFigure({
  names,
  preview,
  solids,
}: {
  /** Of the inks. */
  names: readonly string[];
  preview: SeparationPreview;
  solids: Float64Array;
}) {
  const { asked, inks } = preview.greys;
  const data = Array.from(asked, (lightness, i) => ({
    asked: lightness,
    ...Object.fromEntries(names.map((ink, c) => [ink, 100 * inks[names.length * i + c]])),
    total: 100 * names.reduce((sum, _, c) => sum + inks[names.length * i + c], 0),
  }));
  return (
    <Figure
      title="Inks along the greys"
      note="%"
      table={{
        head: ['L* asked', ...names.map((ink) => `${ink} %`), 'total %'],
        rows: data.map((row) => [
          row.asked.toFixed(1),
          ...names.map((ink) => Number((row as Record<string, number>)[ink]).toFixed(1)),
          row.total.toFixed(1),
        ]),
      }}
      figures={
        <p className="figures">
          <span>
            black L* <b>{preview.blackLightness.toFixed(1)}</b>
          </span>
          <span>
            its ink <b>{data[0].total.toFixed(0)} %</b>
          </span>
        </p>
      }
    >
      <ResponsiveContainer width="100%" height={190}>
        <LineChart data={data} margin={{ top: 8, right: 12, bottom: 16, left: -16 }} accessibilityLayer>
          <CartesianGrid stroke="var(--rule)" vertical={false} />
          <XAxis {...hundredAxis('asked', 'L* asked')} />
          <YAxis
            domain={[0, 100]}
            ticks={[0, 50, 100]}
            tick={TICK}
            tickLine={false}
            axisLine={false}
            width={48}
          />
          {names.map((ink, c) => (
            <Line
              key={ink}
              dataKey={ink}
              stroke={ink === 'K' ? 'var(--text)' : screenOf(solids.subarray(3 * c, 3 * c + 3) as never).css}
              strokeWidth={2}
              dot={false}
              isAnimationActive={false}
            />
          ))}
        </LineChart>
      </ResponsiveContainer>
    </Figure>
  );
}

/** Side of a leaf on the screen, and what lies between the two. */
const SIDE = 156;
const GAP = 20;

/** A leaf as a picture, a pixel for each of its colours, empty where nothing prints. */
function leafImage(inGamut: Uint8Array, colourAt: (i: number) => readonly number[]): string {
  const canvas = document.createElement('canvas');
  canvas.width = LEAF.chroma;
  canvas.height = LEAF.lightness;
  const context = canvas.getContext('2d');
  if (context === null) return '';
  const image = context.createImageData(LEAF.chroma, LEAF.lightness);
  inGamut.forEach((inside, i) => {
    if (inside === 1) image.data.set([...colourAt(i), 255], 4 * i);
  });
  context.putImageData(image, 0, 0);
  return canvas.toDataURL();
}

/** Colours of one hue as they print, and the black in them; what is out of gamut stays empty. */
export function LeafFigure({
  names,
  preview,
  hueDeg,
  onHue,
}: {
  /** Of the inks. */
  names: readonly string[];
  preview: SeparationPreview;
  hueDeg: number;
  onHue: (hueDeg: number) => void;
}) {
  const { lab, inks, inGamut } = preview.leaf;
  const count = names.length;
  const blackInk = names.indexOf('K');
  const printed = useMemo(
    () => leafImage(inGamut, (i) => labToScreen([lab[3 * i], lab[3 * i + 1], lab[3 * i + 2]]).rgb),
    [lab, inGamut],
  );
  const black = useMemo(
    () =>
      leafImage(inGamut, (i) => {
        const level = Math.round(255 * (1 - inks[count * i + blackInk]));
        return [level, level, level];
      }),
    [inks, inGamut, count, blackInk],
  );
  return (
    <Figure
      title={`Hue ${hueDeg}°`}
      table={{
        head: ['L*', 'a*', 'b*', ...names.map((ink) => `${ink} %`)],
        rows: Array.from(inGamut.keys())
          .filter((i) => inGamut[i] === 1)
          .map((i) => [
            ...[0, 1, 2].map((c) => lab[3 * i + c].toFixed(1)),
            ...names.map((_, c) => (100 * inks[count * i + c]).toFixed(1)),
          ]),
      }}
      figures={
        <div className="row small">
          <span>Hue</span>
          <Slider
            size="small"
            aria-label="Hue of the leaf, degrees"
            value={hueDeg}
            min={0}
            max={350}
            step={10}
            onChange={(_, next) => onHue(next as number)}
            sx={{ color: 'var(--text)', flex: 1, mx: '8px' }}
          />
        </div>
      }
    >
      <svg
        viewBox={`0 -2 ${2 * SIDE + GAP} ${SIDE + 22}`}
        width="100%"
        height={190}
        role="img"
        aria-label={`leaf of hue ${hueDeg} degrees: printed colours, and the black in them`}
      >
        {[printed, black].map((href, i) => (
          <g key={i} transform={`translate(${i * (SIDE + GAP)})`}>
            <image href={href} width={SIDE} height={SIDE} preserveAspectRatio="none" />
            <rect width={SIDE} height={SIDE} fill="none" stroke="var(--rule)" />
            <text y={SIDE + 15} fontSize="12" fill="var(--quiet)">
              {i === 0 ? `printed, C* 0 to ${LEAF.most}` : 'its black'}
            </text>
          </g>
        ))}
      </svg>
    </Figure>
  );
}

/** Ink that a picture takes with this separation. */
export function PictureFigure({
  names,
  preview,
  name,
}: {
  names: readonly string[];
  preview: SeparationPreview;
  name: string;
}) {
  const { mean, most } = preview.picture;
  const total = mean.reduce((sum, value) => sum + value, 0);
  return (
    <p className="row grow" style={{ flexWrap: 'wrap', gap: '4px 14px' }}>
      <span className="quiet">Mean ink of {name}:</span>
      {names.map((ink, c) => (
        <span key={ink}>
          {ink} <b>{(100 * mean[c]).toFixed(1)} %</b>
        </span>
      ))}
      <span>
        total <b>{(100 * total).toFixed(1)} %</b>
      </span>
      <span>
        most <b>{(100 * most).toFixed(0)} %</b>
      </span>
    </p>
  );
}
