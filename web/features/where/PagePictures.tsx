'use client';

import { colourName } from '@melto/core/gamut/gamutWords';
import type { PlacedPictures } from '@melto/core/proof/placePictures';
import { Swatch } from '@/ui/Swatch';

/** What each picture of a page comes to on one condition, the farthest first. */
export function PagePictures({ placed, name }: { placed: PlacedPictures; name: string }) {
  const order = [...placed.pictures].sort((a, b) => b.mean - a.mean);
  return (
    <div className="panel">
      <header>
        <h2>{name}</h2>
        <span className="quiet">each picture, the farthest first</span>
      </header>
      <table className="table tight list-colours">
        <thead>
          <tr>
            <th>Picture</th>
            <th className="num">ΔE00 mean</th>
            <th className="num">95 %</th>
            <th className="num">largest</th>
            <th className="num">of its area over 3</th>
            <th className="num">ink, %</th>
            <th>Lost most: printed above, asked below</th>
          </tr>
        </thead>
        <tbody>
          {order.map((picture, i) => {
            const worst = picture.lost[0];
            return (
              <tr key={i}>
                <td>{picture.name}</td>
                <td className="num">{picture.mean.toFixed(2)}</td>
                <td className="num">{picture.p95.toFixed(2)}</td>
                <td className="num">{picture.largest.toFixed(1)}</td>
                <td className="num">{areaWords(picture.over3)}</td>
                <td className="num">{placed.amounts.length === 3 ? '–' : Math.round(100 * picture.ink)}</td>
                <td>
                  {worst === undefined ? (
                    <span className="quiet">nothing over 1 ΔE00</span>
                  ) : (
                    <span className="row">
                      <span style={{ width: 40 }}>
                        <Swatch measured={worst.printed} aim={worst.asked} height={24} />
                      </span>
                      {colourName(worst.asked)} {worst.deltaE.toFixed(1)}
                    </span>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="quiet small">
        Relative to the whites of picture and paper, black brought to the print’s black: as the soft proof
        begins.
      </p>
    </div>
  );
}

/** A share of an area, in whole per cent, and less than one said so. */
export const areaWords = (share: number): string =>
  share > 0 && share < 0.005 ? 'under 1 %' : `${Math.round(100 * share)} %`;
