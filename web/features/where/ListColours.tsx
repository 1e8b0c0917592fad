'use client';

import { formatLab } from '@/ui/format';
import { Button } from '@mui/material';
import { useMemo, useState } from 'react';
import type { PlacedList } from '@melto/core/proof/placeList';
import type { NamedColour } from '@melto/core/refine/namedColour';
import { deviceValues } from '@/ui/deviceValues';
import { Swatch } from '@/ui/Swatch';

const PAGE = 100;
/** ΔE00 up to which nobody sees a difference, and up to which one sees it only side by side. */
const REACHED = 1;
const NEARLY = 3;

/** Each colour of a list on one condition, the farthest first. */
export function ListColours({
  colours,
  placed,
  name,
}: {
  colours: readonly NamedColour[];
  placed: PlacedList;
  name: string;
}) {
  const [most, setMost] = useState(PAGE);
  const order = useMemo(
    () => [...colours.keys()].sort((a, b) => placed.colours[b].deltaE - placed.colours[a].deltaE),
    [colours, placed],
  );
  const reached = placed.colours.filter(({ deltaE }) => deltaE <= REACHED).length;
  return (
    <div className="panel">
      <header>
        <h2>{name}</h2>
        <span className="quiet">
          {reached} of {colours.length} come out as asked, within {REACHED} ΔE00
        </span>
      </header>
      <table className="table tight list-colours">
        <thead>
          <tr>
            <th>Nearest above, asked below</th>
            <th>Colour</th>
            <th className="num">ΔE00</th>
            <th>Reached</th>
            <th className="num">asked, L* a* b*</th>
            <th className="num">nearest, L* a* b*</th>
            <th className="num">device</th>
          </tr>
        </thead>
        <tbody>
          {order.slice(0, most).map((i) => {
            const { device, printed, deltaE } = placed.colours[i];
            return (
              <tr key={i}>
                <td>
                  <Swatch measured={printed} aim={colours[i].lab} height={24} label={colours[i].name} />
                </td>
                <td>{colours[i].name}</td>
                <td className="num">{deltaE.toFixed(1)}</td>
                <td>{deltaE <= REACHED ? 'yes' : deltaE <= NEARLY ? 'nearly' : 'no'}</td>
                <td className="num mono">{formatLab(colours[i].lab, 1)}</td>
                <td className="num mono">{formatLab(printed, 1)}</td>
                <td className="num mono">{deviceValues(device)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {order.length > most && (
        <Button size="small" onClick={() => setMost(most + PAGE)}>
          {Math.min(PAGE, order.length - most)} more of {order.length - most}
        </Button>
      )}
    </div>
  );
}
