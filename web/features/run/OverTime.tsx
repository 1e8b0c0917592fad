import { CartesianGrid, Line, LineChart, ReferenceLine, XAxis, YAxis } from 'recharts';
import { Figure } from '@/ui/Figure';
import type { AnalysisView } from '@melto/services/press/analysis';

/** Share of patches within over the run. */
export function OverTime({
  steps,
  productionFrom,
  okImpression,
}: {
  steps: AnalysisView['overTime'];
  productionFrom: number | null;
  okImpression: number | null;
}) {
  const points = steps
    .filter(({ share }) => Number.isFinite(share))
    .map(({ from, to, share }) => ({ at: (from + to) / 2, from, to, share: 100 * share }));
  return (
    <Figure
      title="Over the run"
      note="patches within, per cent, by impression"
      table={{
        head: ['From impression', 'To', 'Within, %'],
        rows: points.map(({ from, to, share }) => [from, to, share.toFixed(1)]),
      }}
    >
      <LineChart width={560} height={220} data={points} margin={{ top: 8, right: 16, bottom: 20, left: 4 }}>
        <CartesianGrid stroke="var(--rule)" vertical={false} />
        <XAxis
          dataKey="at"
          type="number"
          domain={['dataMin', 'dataMax']}
          stroke="var(--quiet)"
          tickFormatter={(value: number) => Math.round(value).toLocaleString('en-GB')}
          label={{ value: 'impression', position: 'insideBottom', offset: -12, fill: 'var(--quiet)' }}
        />
        <YAxis
          domain={[0, 100]}
          stroke="var(--quiet)"
          width={52}
          label={{ value: 'within, %', angle: -90, position: 'insideLeft', fill: 'var(--quiet)' }}
        />
        {okImpression !== null && (
          <ReferenceLine
            x={okImpression}
            stroke="var(--text)"
            label={{ value: 'OK sheet', fill: 'var(--text)', position: 'insideTopRight' }}
          />
        )}
        {productionFrom !== null && (
          <ReferenceLine x={productionFrom} stroke="var(--quiet)" strokeDasharray="4 3" />
        )}
        <Line
          dataKey="share"
          stroke="var(--text)"
          strokeWidth={1.5}
          dot={{ r: 2.5, fill: 'var(--text)' }}
          isAnimationActive={false}
        />
      </LineChart>
    </Figure>
  );
}
