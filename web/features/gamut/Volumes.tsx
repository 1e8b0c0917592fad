import type { DrawnComparison } from '@/workers/gamut.worker';
import { BESIDE } from './bodyStyle';

const thousands = (volume: number): string => `${Math.round(volume / 1000).toLocaleString('en-GB')}`;

/** How large each body is, and how much of it the solid one has, too. */
export function Volumes({ comparison: { a, b, more } }: { comparison: DrawnComparison }) {
  const rows = [
    { sign: '- -', body: a },
    ...more.map((body, i) => ({ sign: BESIDE[i]?.sign ?? '', body })),
    { sign: '—', body: b },
  ];
  return (
    <table className="table tight">
      <thead>
        <tr>
          <th>Body</th>
          <th className="num">Volume, thousand ΔE*ab³</th>
          <th className="num">Shared, %</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ sign, body }, i) => (
          <tr key={i}>
            <td>
              {sign} {body.name}
              <span className="quiet small">, {body.madeBy}</span>
            </td>
            <td className="num">{thousands(body.volume)}</td>
            <td className="num">{((100 * body.shared) / body.volume).toFixed(1)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
