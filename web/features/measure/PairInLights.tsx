'use client';

import { metamerism } from '@melto/core/light/metamerism';
import type { SpectrumOn } from '@melto/core/light/metamerism';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { illuminantOf } from '@/features/light/illuminantOf';
import { shortName, useLights } from '@/features/light/useLights';

/** Standard lights that a pair is looked at in, beside those of the house. */
const STANDARD = ['D65', 'A', 'F11'];

/** How a pair that matches in D50 holds together in other lights: its metamerism. */
export function PairInLights({ one, other }: { one: SpectrumOn; other: SpectrumOn }) {
  const shown = useLights().filter(({ id, key }) => id !== null || STANDARD.includes(key));
  if (shown.length === 0) return null;
  const told = shown.map((light) => {
    const { test, index } = metamerism(other, one, tableIlluminant('D50'), illuminantOf(light), '2deg');
    return { name: shortName(light), test, index };
  });
  return (
    <table className="table tight small" aria-label="The pair in other lights">
      <thead>
        <tr>
          <th>In</th>
          <th className="num">ΔE00</th>
          <th className="num" title="once the difference in D50 is taken out (CIE 15)">
            metamerism
          </th>
        </tr>
      </thead>
      <tbody>
        {told.map(({ name, test, index }) => (
          <tr key={name}>
            <td>{name}</td>
            <td className="num">{test.toFixed(2)}</td>
            <td className="num">{index.toFixed(2)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
