import { labToLch } from '@melto/core/colour/labToLch';
import type { Lab } from '@melto/core/colour/lab';
import { formatFigure } from './format';

const NAMES = ['L*', 'a*', 'b*', 'C*', 'h, °'];

/** Heads of the columns of `LabCells`. */
export function LabHeads() {
  return NAMES.map((name) => (
    <th key={name} className="num">
      {name}
    </th>
  ));
}

/** A colour as a table tells it: L*, a*, b*, chroma and hue. */
export function LabCells({ lab }: { lab: Lab }) {
  const [, chroma, hue] = labToLch(lab);
  return (
    <>
      {[...lab, chroma].map((value, i) => (
        <td key={i} className="num">
          {formatFigure(value, 2)}
        </td>
      ))}
      <td className="num">{hue.toFixed(1)}</td>
    </>
  );
}
