'use client';

import { metamerism } from '@melto/core/light/metamerism';
import type { SpectrumOn } from '@melto/core/light/metamerism';
import { DAYLIGHT } from '@melto/core/light/chartInLights';
import { useComparedLights } from '@/features/light/useComparedLights';

/** How a pair that matches in D50 holds together in other lights: its metamerism. */
export function PairInLights({ one, other }: { one: SpectrumOn; other: SpectrumOn }) {
  const lights = useComparedLights();
  if (lights.length === 0) return null;
  const told = lights.map(({ name, seen: { light, observer } }) => ({
    name,
    ...metamerism(other, one, DAYLIGHT.light, light, observer),
  }));
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
