'use client';

import { Link } from '@/ui/Link';
import { inkCost } from '@melto/core/stock/inkCosts';
import type { InkCosts } from '@melto/core/stock/inkCosts';
import type { PlacedJob } from '@melto/core/proof/placedJob';
import type { ShelfProfile } from '@melto/services/profile/shelf';
import { MARKED_COUNTS } from './rankPlaces';
import type { RankedPlace } from './rankPlaces';

export interface Place {
  readonly profile: ShelfProfile;
  readonly standing: 'go' | 'mark' | 'stop';
  /** Why it is not *go*, in words. */
  readonly reasons: readonly string[];
  /** Of its inks; empty where nobody has told them. */
  readonly costs: InkCosts;
}

const STANDING = { go: 'good', mark: 'look first', stop: 'stopped' } as const;

/** The conditions in the order in which a job comes out on them. */
export function PlaceTable<Placed extends PlacedJob>({
  ranked,
  over3,
  how,
  chosen,
  onChoose,
}: {
  ranked: readonly (RankedPlace & Place & { readonly placed: Placed })[];
  /** How much of it is over 3 ΔE00, in words. */
  over3: (placed: Placed) => string;
  /** How colours are taken there, in words. */
  how: string;
  chosen: string | undefined;
  onChoose: (key: string) => void;
}) {
  const costed = ranked.some(({ costs, placed }) => inkCost(placed.amounts, costs) !== undefined);
  return (
    <div className="panel">
      <table className="table tight">
        <thead>
          <tr>
            <th className="num">#</th>
            <th>Condition</th>
            <th className="num">ΔE00 mean</th>
            <th className="num">95 %</th>
            <th className="num">largest</th>
            <th className="num">over 3</th>
            <th className="num">ink, %</th>
            {costed && <th className="num">ink a m²</th>}
            <th>Its state</th>
          </tr>
        </thead>
        <tbody>
          {ranked.map(({ key, profile, standing, reasons, costs, placed }, i) => (
            <tr key={key} aria-selected={key === chosen}>
              <td className="num">{i + 1}</td>
              <td>
                <button type="button" className="plain" onClick={() => onChoose(key)}>
                  <b>{placeName(profile)}</b>
                </button>
              </td>
              <td className="num">{placed.mean.toFixed(2)}</td>
              <td className="num">{placed.p95.toFixed(2)}</td>
              <td className="num">{placed.largest.toFixed(1)}</td>
              <td className="num">{over3(placed)}</td>
              <td className="num">{inkWords(placed)}</td>
              {costed && <td className="num">{inkCost(placed.amounts, costs)?.toFixed(3) ?? '–'}</td>}
              <td>
                {profile.condition === null ? (
                  STANDING[standing]
                ) : (
                  <Link href={`/conditions/${profile.condition.id}`} title={reasons.join(' ')}>
                    {STANDING[standing]}
                  </Link>
                )}{' '}
                <span className="quiet small">{reasons[0]}</span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="quiet small">
        By what the profiles in force say, {how}, the nearest first. A condition to look at first counts as{' '}
        {MARKED_COUNTS} ΔE00 farther; stopped ones come last.
        {costed &&
          ' Ink a m² is what the inks of a square metre of these colours cost, by the prices of the library.'}
      </p>
    </div>
  );
}

/** Light is no ink. */
const inkWords = ({ amounts, ink }: PlacedJob): string =>
  amounts.length === 3 ? '–' : String(Math.round(100 * ink));

export const placeName = ({ name, condition }: ShelfProfile): string =>
  condition === null ? name : `${condition.device} / ${condition.stock} / ${condition.mode}`;
