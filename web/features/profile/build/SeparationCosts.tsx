'use client';

import { Slider } from '@mui/material';
import { useEffect, useState } from 'react';
import { BLACK_FOR, separationOf } from '@melto/core/separate/separation';
import type { BlackAmount, Separation } from '@melto/core/separate/separation';
import type { SeparationCost } from '@melto/core/separate/separationCost';
import type { PreviewState } from './useSeparationPreview';

const AMOUNTS = Object.keys(BLACK_FOR) as readonly BlackAmount[];
/** How much each ink varies from print to print, % of itself, until something else is said. */
const USUAL_VARIATION = 3;
const WAIT_MS = 250;

/** Another amount of black under the limits of a separation. */
export function withBlack(
  black: BlackAmount,
  { totalInk, inkLimits, pureBlack, replace, pairLimits }: Separation,
): Separation {
  return {
    ...{ ...separationOf(black, totalInk), inkLimits, pureBlack },
    ...(replace === undefined ? {} : { replace }),
    ...(pairLimits === undefined ? {} : { pairLimits }),
  };
}

/** Ink of the pictures and steadiness of the greys, for each amount of black and as it is set now, side by side. */
export function SeparationCosts({
  names,
  costs,
  pictures,
  separation,
  black,
  onBlack,
}: Pick<PreviewState, 'costs' | 'pictures'> & {
  /** Of the inks. */
  names: readonly string[];
  separation: Separation;
  black: BlackAmount;
  onBlack: (black: BlackAmount) => void;
}) {
  const [variation, setVariation] = useState(USUAL_VARIATION);
  const [found, setFound] = useState<readonly SeparationCost[]>();
  const wish = JSON.stringify([separation, ...AMOUNTS.map((amount) => withBlack(amount, separation))]);
  useEffect(() => {
    let left = false;
    // After the sliders have come to rest: the preview goes first.
    const timer = setTimeout(() => {
      costs(JSON.parse(wish) as Separation[], variation / 100)?.then(
        (next) => {
          if (!left) setFound(next);
        },
        () => {
          if (!left) setFound(undefined);
        },
      );
    }, WAIT_MS);
    return () => {
      left = true;
      clearTimeout(timer);
    };
    // oxlint-disable-next-line react/exhaustive-deps -- the worker's way in is another function at each turn
  }, [wish, variation, pictures]);
  if (found === undefined) return null;
  const [own, ...others] = found;
  const total = ({ ink }: SeparationCost): number => ink.reduce((sum, value) => sum + value, 0);
  return (
    <div className="panel build-wide">
      <header>
        <h2>What each black costs</h2>
        <span className="row" style={{ gap: 12 }}>
          <span className="quiet">each ink varies by {variation} %</span>
          <Slider
            size="small"
            min={1}
            max={10}
            value={variation}
            onChange={(_, value) => setVariation(value)}
            aria-label="How much each ink varies, %"
            sx={{ width: 120 }}
          />
        </span>
      </header>
      <div style={{ overflowX: 'auto' }} tabIndex={names.length > 4 ? 0 : undefined}>
        <table className="table tight">
          <thead>
            <tr>
              <th>Black for</th>
              {names.map((ink) => (
                <th key={ink} className="num">
                  {ink} %
                </th>
              ))}
              <th className="num">ink, %</th>
              <th className="num">to as set</th>
              <th className="num">most, %</th>
              <th className="num">greys move, ΔE00</th>
              <th className="num">95 %</th>
            </tr>
          </thead>
          <tbody>
            {[
              { name: 'as set now', cost: own },
              ...AMOUNTS.map((name, i) => ({ name, cost: others[i] })),
            ].map(({ name, cost }) => {
              const amount = AMOUNTS.find((word) => word === name);
              return (
                <tr key={name} aria-selected={amount === black}>
                  <td>
                    {amount === undefined ? (
                      name
                    ) : (
                      <button type="button" className="plain" onClick={() => onBlack(amount)}>
                        {BLACK_FOR[amount]}
                      </button>
                    )}
                  </td>
                  {cost.ink.map((value, c) => (
                    <td key={names[c]} className="num">
                      {(100 * value).toFixed(1)}
                    </td>
                  ))}
                  <td className="num">
                    <b>{(100 * total(cost)).toFixed(1)}</b>
                  </td>
                  <td className="num">{difference(total(cost) / total(own) - 1)}</td>
                  <td className="num">{(100 * cost.most).toFixed(0)}</td>
                  <td className="num">{cost.greys.mean.toFixed(2)}</td>
                  <td className="num">{cost.greys.p95.toFixed(2)}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <p className="quiet small">
        Ink over the area of the pictures above; greys from the darkest neutral to L* 95, printed with inks
        that are each a little more or less than they should be.
      </p>
    </div>
  );
}

/** A share as a signed per cent. */
function difference(share: number): string {
  const percent = 100 * share;
  return Math.abs(percent) < 0.05 ? '–' : `${percent > 0 ? '+' : '−'}${Math.abs(percent).toFixed(1)} %`;
}
