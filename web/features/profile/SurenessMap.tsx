'use client';

import type { UncertaintyMap } from '@melto/core/characterise/uncertaintyMap';

/** ΔE00 that is drawn darkest. */
const DARKEST = 0.6;

/** Expected error by lightness and hue: the darker, the less sure. */
export function SurenessMap({ map }: { map: UncertaintyMap }) {
  const columns = map.columns.length;
  const bands = map.lightness.map((from, i) => ({ from, to: map.lightness[i + 1] ?? 100, i })).reverse();
  return (
    <div className="panel">
      <header>
        <h2>Where it is sure</h2>
        <span className="quiet">
          expected ΔE00 of the model by L* and hue, reading noise left out; mean {map.mean.toFixed(2)}
        </span>
      </header>
      <table className="sureness">
        <thead>
          <tr>
            <th scope="col">L*</th>
            {map.columns.map((column) => (
              <th key={column} scope="col">
                {column === 'grey' ? 'grey' : `${column}°`}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {bands.map(({ from, to, i }) => (
            <tr key={from}>
              <th scope="row">
                {from}–{to}
              </th>
              {map.columns.map((column, c) => {
                const value = map.deltaE[i * columns + c];
                if (value === null) return <td key={column} className="quiet" aria-label="not printed" />;
                const depth = Math.min(1, value / DARKEST);
                const level = Math.round(255 - 215 * depth);
                return (
                  <td
                    key={column}
                    style={{
                      background: `rgb(${level} ${level} ${level})`,
                      color: level > 140 ? '#1b1b1b' : '#ffffff',
                    }}
                  >
                    {value.toFixed(2)}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
