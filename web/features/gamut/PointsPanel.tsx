'use client';

import { formatLab } from '@/ui/format';
import { Swatch } from '@/ui/Swatch';
import type { DrawnComparison, DrawnPoints } from '@/workers/gamut.worker';
import type { LaidList } from './usePoints';

const MOST_NAMED = 12;

/** The colours of a list that lie beyond a body, the farthest first. */
export function PointsPanel({
  list,
  points,
  comparison,
}: {
  list: LaidList;
  points: DrawnPoints;
  comparison: DrawnComparison;
}) {
  const total = list.colours.length;
  const outside = (beyond: Float32Array): number => beyond.filter((deltaE) => deltaE > 1).length;
  const order = [...points.beyondB.keys()]
    .filter((i) => points.beyondA[i] > 1 || points.beyondB[i] > 1)
    .sort((i, j) => points.beyondB[j] - points.beyondB[i] || points.beyondA[j] - points.beyondA[i])
    .slice(0, MOST_NAMED);
  return (
    <div className="panel gamut-shares">
      <header>
        <h2>{list.name}</h2>
        <span className="quiet">
          over 1 ΔE00 out of reach: {outside(points.beyondA)} of {total} for {comparison.a.name},{' '}
          {outside(points.beyondB)} for {comparison.b.name}
        </span>
      </header>
      {order.length > 0 && (
        <table className="table tight list-colours">
          <thead>
            <tr>
              <th />
              <th>Colour</th>
              <th className="num">L* a* b*</th>
              <th className="num">beyond {comparison.a.name}, ΔE00</th>
              <th className="num">beyond {comparison.b.name}, ΔE00</th>
            </tr>
          </thead>
          <tbody>
            {order.map((i) => (
              <tr key={i}>
                <td>
                  <Swatch measured={list.colours[i].lab} height={20} label={list.colours[i].name} />
                </td>
                <td>{list.colours[i].name}</td>
                <td className="num mono">{formatLab(list.colours[i].lab, 1)}</td>
                <td className="num">{beyondWords(points.beyondA[i])}</td>
                <td className="num">{beyondWords(points.beyondB[i])}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

const beyondWords = (deltaE: number): string => (deltaE > 0 ? deltaE.toFixed(1) : 'inside');
