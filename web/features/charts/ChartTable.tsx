'use client';

import { Button } from '@mui/material';
import { Link } from '@/ui/Link';
import { needsOf } from '@melto/core/charts/chartForm';
import { pageCapacity } from '@melto/core/charts/pageGeometry';
import type { ChartState } from '@melto/services/charts/chartStates';
import { formatWhen } from '@/ui/format';
import { paperWords } from './paperWords';

/** Charts that were made, with where each stands and what is next. */
export function ChartTable({
  charts,
  nowMs,
  pixels,
  onPrint,
}: {
  charts: readonly ChartState[];
  nowMs: number;
  /** Pictures that are offered beside the PDF. */
  pixels: readonly string[];
  onPrint: (chart: ChartState) => void;
}) {
  return (
    <table className="table tight">
      <thead>
        <tr>
          <th>Chart</th>
          <th className="num">Patches</th>
          <th>Paper</th>
          <th>Made</th>
          <th>Stands</th>
          <th>Files</th>
          <th />
        </tr>
      </thead>
      <tbody>
        {charts.map((chart) => (
          <tr key={chart.id}>
            <td>{chart.title}</td>
            <td className="num">{chart.patches}</td>
            <td>{paperWords(chart.paper)}</td>
            <td>{formatWhen(chart.madeMs, nowMs)}</td>
            <td>
              <Standing chart={chart} />
            </td>
            <td>
              <ChartFiles chart={chart} pixels={pixels} />
            </td>
            <td className="num">
              <Button
                size="small"
                variant={chart === charts[0] && chart.state === 'made' ? 'contained' : 'text'}
                aria-label={`Print ${chart.title}`}
                onClick={() => onPrint(chart)}
              >
                Print
              </Button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Where a chart stands: made, on the rack with the sheet that is next, read, or thrown away. */
function Standing({ chart: { state, waiting, strips, stripsRead } }: { chart: ChartState }) {
  if (state === 'made') return <>made, not printed yet</>;
  if (state !== 'waits' || waiting === null) return <span className="quiet">{state}</span>;
  return (
    <>
      on the rack, {stripsRead} of {strips} strips read: <Link href={`/read/${waiting}`}>read {waiting}</Link>
    </>
  );
}

/** Downloads: PDF whole, pixels page by page. */
function ChartFiles({ chart, pixels }: { chart: ChartState; pixels: readonly string[] }) {
  const { patchesPerStrip, stripsPerPage } = pageCapacity(chart.paper, needsOf(chart));
  const pages = Math.ceil(Math.ceil(chart.patches / patchesPerStrip) / stripsPerPage);
  const link = (format: string, page: number, words: string) => (
    <a key={`${format} ${page}`} href={`/api/charts/${chart.id}/file?format=${format}&page=${page}`} download>
      {words}
    </a>
  );
  return (
    <span className="row" style={{ gap: 10 }}>
      {link('pdf', 1, 'PDF')}
      {pixels.map((format) =>
        Array.from({ length: pages }, (_, i) =>
          link(format, i + 1, pages === 1 ? format.toUpperCase() : `${format.toUpperCase()} ${i + 1}`),
        ),
      )}
      {link('txt', 1, 'CGATS')}
    </span>
  );
}
