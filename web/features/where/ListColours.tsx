'use client';

import { Fragment, useMemo, useState } from 'react';
import { deviceValues } from '@melto/core/device/deviceValues';
import { reachOf, REACHED } from '@melto/core/proof/placeList';
import type { PlacedList, PrintedColour } from '@melto/core/proof/placeList';
import type { ListedColour } from '@melto/core/refine/namedColour';
import { formatLab } from '@/ui/format';
import { MoreRows, ROWS_AT_ONCE } from '@/ui/MoreRows';
import { Swatch } from '@/ui/Swatch';

/** Each colour of a list on one condition, the farthest first; one opens in place. */
export function ListColours({
  colours,
  placed,
  nearest,
  name,
  space,
  inDepth,
}: {
  colours: readonly ListedColour[];
  placed: PlacedList;
  /** What comes nearest to each; undefined for what is not found yet. */
  nearest: readonly (PrintedColour | undefined)[];
  name: string;
  /** Channels of the device in their order, as its process is called. */
  space: string;
  /** What is said of a colour that was opened. */
  inDepth: (colour: ListedColour) => React.ReactNode;
}) {
  const [most, setMost] = useState(ROWS_AT_ONCE);
  const [opened, setOpened] = useState<number>();
  const order = useMemo(
    () => [...colours.keys()].sort((a, b) => placed.colours[b].deltaE - placed.colours[a].deltaE),
    [colours, placed],
  );
  const known = nearest.filter((one) => one !== undefined);
  const reached = known.filter(({ deltaE }) => reachOf(deltaE) === 'yes').length;
  return (
    <div className="panel">
      <header>
        <h2>{name}</h2>
        <span className="quiet" role="status">
          {known.length < colours.length
            ? `${known.length} of ${colours.length} are looked for…`
            : `${reached} of ${colours.length} can be reached, within ${REACHED} ΔE00`}
        </span>
      </header>
      <table className="table tight list-colours">
        <thead>
          <tr>
            <th>Printed above, asked below</th>
            <th>Colour</th>
            <th className="num">asked, L* a* b*</th>
            <th className="num">through the profile, ΔE00</th>
            <th className="num">device, {space}</th>
            <th>Reachable</th>
            <th className="num">nearest, ΔE00</th>
            <th className="num">its device values</th>
          </tr>
        </thead>
        <tbody>
          {order.slice(0, most).map((i) => {
            const { device, printed, deltaE } = placed.colours[i];
            const best = nearest[i];
            return (
              <Fragment key={i}>
                <tr>
                  <td>
                    <Swatch measured={printed} aim={colours[i].lab} height={24} label={colours[i].name} />
                  </td>
                  <td>
                    <button
                      type="button"
                      className="plain"
                      aria-expanded={opened === i}
                      onClick={() => setOpened(opened === i ? undefined : i)}
                    >
                      {colours[i].name}
                    </button>
                  </td>
                  <td className="num mono">{formatLab(colours[i].lab, 1)}</td>
                  <td className="num">{deltaE.toFixed(1)}</td>
                  <td className="num mono">{deviceValues(device)}</td>
                  <td>{best === undefined ? '…' : reachOf(best.deltaE)}</td>
                  <td className="num">{best?.deltaE.toFixed(1) ?? '…'}</td>
                  <td className="num mono">{best === undefined ? '…' : deviceValues(best.device)}</td>
                </tr>
                {opened === i && (
                  <tr>
                    <td colSpan={8}>{inDepth(colours[i])}</td>
                  </tr>
                )}
              </Fragment>
            );
          })}
        </tbody>
      </table>
      <MoreRows shown={most} total={order.length} onShow={setMost} />
    </div>
  );
}
