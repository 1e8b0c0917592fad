import type { SpotsOverTime } from '@melto/core/conformity/spotsOverTime';
import { formatDay } from '@/ui/format';
import { Swatch } from '@/ui/Swatch';

const WIDE = 120;
const HIGH = 22;
/** ΔE00 that a line is at least as high for: less is noise. */
const LEAST = 2;

/** Spot colours over the checks of their list: what has moved most stands first. */
export function SpotsOverTimePanel({ spots: { madeMs, colours } }: { spots: SpotsOverTime }) {
  const [first, last] = [madeMs[0], madeMs[madeMs.length - 1]];
  const most = Math.max(LEAST, ...colours.flatMap(({ deltaE }) => deltaE));
  const x = (ms: number): number => (last > first ? (WIDE * (ms - first)) / (last - first) : 0);
  return (
    <div className="panel">
      <header>
        <h2>Its spot colours over time</h2>
        <span className="quiet">
          {madeMs.length} checks from {formatDay(first)} to {formatDay(last)}
        </span>
      </header>
      <table className="table tight">
        <thead>
          <tr>
            <th />
            <th>Colour</th>
            <th>ΔE00 to its aim</th>
            <th className="num">now</th>
            <th className="num">moved since the first, ΔE00</th>
          </tr>
        </thead>
        <tbody>
          {colours.map(({ name, aim, measured, deltaE, moved }) => (
            <tr key={name}>
              <td>
                <Swatch aim={aim} measured={measured} height={22} label={name} />
              </td>
              <td>{name}</td>
              <td>
                <svg
                  width={WIDE}
                  height={HIGH}
                  viewBox={`-2 -2 ${WIDE + 4} ${HIGH + 4}`}
                  role="img"
                  aria-label={`ΔE00 of ${name}: ${deltaE.map((own) => own.toFixed(1)).join(', ')}`}
                >
                  <polyline
                    points={deltaE.map((own, i) => `${x(madeMs[i])},${HIGH - (HIGH * own) / most}`).join(' ')}
                    fill="none"
                    stroke="currentColor"
                    strokeWidth={1.4}
                  />
                  <circle
                    cx={x(last)}
                    cy={HIGH - (HIGH * (deltaE.at(-1) ?? 0)) / most}
                    r={2}
                    fill="currentColor"
                  />
                </svg>
              </td>
              <td className="num">{deltaE.at(-1)?.toFixed(1)}</td>
              <td className="num">{moved.toFixed(1)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
