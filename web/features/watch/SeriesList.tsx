import type { ChartedSeries, WatchCharts } from '@melto/core/watch/watchCharts';
import { BASELINE_CHECKS } from '@melto/core/series/controlChart';
import { formatFigure, formatSigned } from '@/ui/format';
import { StatusShape } from '@/ui/StatusMark';

/** All charted quantities with their latest value, and which of them are over a control limit. */
export function SeriesList({
  charts,
  picked,
  onPick,
}: {
  charts: WatchCharts;
  picked: number;
  onPick: (series: number) => void;
}) {
  const checks = charts.series[0]?.values.length ?? 0;
  const groups = [...new Set(charts.series.map(({ series }) => series.group))];
  return (
    <div className="panel">
      <header>
        <h2>Charts</h2>
        <span className="quiet">
          {checks < BASELINE_CHECKS
            ? `limits after ${BASELINE_CHECKS - checks} more checks`
            : 'shift from the first ten checks'}
        </span>
      </header>
      <table className="table tight" style={{ border: 0 }}>
        <tbody>
          {groups.map((group) => (
            <tr key={group}>
              <td>{group}</td>
              {charts.series.map((series, index) =>
                series.series.group === group ? (
                  <td key={index} style={{ padding: '2px 4px' }}>
                    <button
                      type="button"
                      className="series"
                      aria-pressed={index === picked}
                      aria-label={`${group}, ${series.series.quantity} ${shift(series)}${isOver(series) ? ', over a control limit' : ''}`}
                      onClick={() => onPick(index)}
                    >
                      {isOver(series) && <StatusShape status="near" size={10} title="over a control limit" />}
                      <span className="quiet">{short(series.series.quantity)}</span> {shift(series)}
                    </button>
                  </td>
                ) : null,
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function isOver({ chart }: ChartedSeries): boolean {
  return (chart?.over.at(-1)?.length ?? 0) > 0;
}

function short(quantity: string): string {
  return quantity === 'tone value' ? 'tone' : quantity;
}

function shift({ values, chart }: ChartedSeries): string {
  const last = values.at(-1);
  if (last === undefined) return '';
  if (chart === undefined) return formatFigure(last, 2);
  const by = last - chart.centre;
  return formatSigned(by, 2);
}
