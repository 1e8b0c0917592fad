'use client';

import { CartesianGrid, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { deltaE2000 } from '@melto/core/colour/deltaE2000';
import type { Lab } from '@melto/core/colour/lab';
import { labToLch } from '@melto/core/colour/labToLch';
import { densities } from '@melto/core/density/density';
import type { PatchView, ReadingView } from '@melto/services/reading/readingView';
import { houseDensity } from '@/ui/densityStatus';
import { formatLab } from '@/ui/format';
import { Swatch } from '@/ui/Swatch';
import { deviceWords } from './deviceWords';

const TICK = { fontSize: 12, fill: 'var(--quiet)' };

/** One patch: colour, spectrum, Lab, LCh, densities; beside another reading's where one is compared. */
export function PatchInspector({
  process,
  patch,
  grid,
  other,
}: {
  process: ReadingView['process'];
  patch: PatchView;
  grid: ReadingView['grid'];
  other?: PatchView;
}) {
  const lch = labToLch(patch.lab as unknown as Lab);
  const density =
    grid === null || patch.spectrum === null ? undefined : densities(grid, patch.spectrum, houseDensity());
  return (
    <div className="panel">
      <header>
        <h2>Patch {patch.id}</h2>
        <span className="quiet">
          {patch.role}, {deviceWords(process, patch.device)}
        </span>
      </header>
      <Swatch measured={patch.lab} aim={other?.lab} height={52} />
      {grid !== null && patch.spectrum !== null && (
        <Spectrum grid={grid} spectrum={patch.spectrum} other={other?.spectrum ?? undefined} />
      )}
      <dl className="facts">
        <dt>L* a* b*</dt>
        <dd>{formatLab(patch.lab)}</dd>
        <dt>L* C* h</dt>
        <dd>
          {lch[0].toFixed(2)} {lch[1].toFixed(2)} {lch[2].toFixed(1)}°
        </dd>
        <dt>X Y Z</dt>
        <dd>{formatLab(patch.xyz)}</dd>
        {density !== undefined && (
          <>
            <dt>Density, status {houseDensity()}</dt>
            <dd title="The filters' products are unchecked against a copy of ISO 5-3">
              r {density.red.toFixed(2)} g {density.green.toFixed(2)} b {density.blue.toFixed(2)} v{' '}
              {density.visual.toFixed(2)}
            </dd>
          </>
        )}
        {other !== undefined && (
          <>
            <dt>ΔE00</dt>
            <dd>{deltaE2000(patch.lab as unknown as Lab, other.lab as unknown as Lab).toFixed(2)}</dd>
          </>
        )}
      </dl>
    </div>
  );
}

function Spectrum({
  grid,
  spectrum,
  other,
}: {
  grid: NonNullable<ReadingView['grid']>;
  spectrum: readonly number[];
  other?: readonly number[];
}) {
  const data = spectrum.map((r, i) => ({ nm: grid.startNm + i * grid.stepNm, r, o: other?.[i] }));
  const end = grid.startNm + (grid.count - 1) * grid.stepNm;
  const top = Math.max(0.2, Math.ceil(10 * Math.max(...spectrum, ...(other ?? []))) / 10);
  return (
    <ResponsiveContainer width="100%" height={150}>
      <LineChart data={data} margin={{ top: 12, right: 8, bottom: 14, left: -4 }} accessibilityLayer>
        <CartesianGrid stroke="var(--rule)" vertical={false} />
        <XAxis
          dataKey="nm"
          type="number"
          domain={[grid.startNm, end]}
          ticks={[400, 500, 600, 700]}
          tick={TICK}
          tickLine={false}
          stroke="var(--rule)"
          label={{ value: 'nm', position: 'insideBottom', offset: -8, fontSize: 12, fill: 'var(--quiet)' }}
        />
        <YAxis
          domain={[0, top]}
          tick={TICK}
          tickLine={false}
          axisLine={false}
          width={44}
          tickFormatter={(value: number) => value.toFixed(2)}
        />
        <Line
          dataKey="r"
          name="reflectance factor"
          stroke="var(--text)"
          strokeWidth={1.6}
          dot={false}
          isAnimationActive={false}
        />
        {other !== undefined && (
          <Line
            dataKey="o"
            name="other reading"
            stroke="var(--quiet)"
            strokeWidth={1}
            dot={false}
            isAnimationActive={false}
          />
        )}
      </LineChart>
    </ResponsiveContainer>
  );
}
