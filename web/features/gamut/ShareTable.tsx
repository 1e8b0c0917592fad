import { SHARE_BANDS, SHARE_SECTORS } from '@melto/core/gamut/gamutBody';
import { hueName } from '@melto/core/gamut/gamutWords';
import { labToHex } from '@melto/core/colour/srgb';
import type { DrawnComparison, DrawnReach } from '@/workers/gamut.worker';

/** Below this share of the larger body a cell says nothing. */
const LEAST = 0.0005;

/** How many per cent more or less of each hue and lightness the second prints than the first. */
export function ShareTable({
  comparison: { a, b },
  shares,
}: {
  comparison: DrawnComparison;
  shares: DrawnReach['shares'];
}) {
  const larger = Math.max(a.volume, b.volume);
  return (
    <table className="table tight shares">
      <caption className="visually-hidden">
        Volume of {b.name} beside {a.name} by hue and lightness, per cent
      </caption>
      <thead>
        <tr>
          <th>Hue</th>
          {SHARE_BANDS.map(([from, to]) => (
            <th key={from} className="num">
              L* {from}–{to}
            </th>
          ))}
          <th className="num">all</th>
        </tr>
      </thead>
      <tbody>
        {SHARE_SECTORS.map((hue, sector) => {
          const [x, y] = [Math.cos((hue * Math.PI) / 180), Math.sin((hue * Math.PI) / 180)];
          const own = SHARE_BANDS.map((_, band) => shares[sector * SHARE_BANDS.length + band]);
          const sum = (of: 'a' | 'b'): number => own.reduce((total, share) => total + share[of], 0);
          return (
            <tr key={hue}>
              <th scope="row">
                <i className="hue-dot" style={{ background: labToHex([60, 45 * x, 45 * y]) }} />{' '}
                {hueName(x, y)}
              </th>
              {own.map((share, band) => (
                <td key={band} className="num">
                  {words(share.a, share.b, larger)}
                </td>
              ))}
              <td className="num">
                <b>{words(sum('a'), sum('b'), larger)}</b>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function words(a: number, b: number, larger: number): string {
  if (Math.max(a, b) < LEAST * larger) return '–';
  if (a < LEAST * larger) return 'only it';
  if (b < LEAST * larger) return 'none';
  const more = 100 * (b / a - 1);
  const rounded = Math.round(more);
  return rounded === 0 ? '0' : `${rounded > 0 ? '+' : '−'}${Math.abs(rounded)}`;
}
