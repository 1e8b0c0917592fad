'use client';

import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import { BufferAttribute, BufferGeometry } from 'three';
import { BODY_DIRECTIONS } from '@melto/core/gamut/gamutBody';
import type { DrawnBody, DrawnOutline } from '@/workers/gamut.worker';

/** Lab to the scene: L* up, a* to the right, b* to the back, one unit for a hundred. */
export const place = (l: number, a: number, b: number): [number, number, number] => [
  a / 100,
  (l - 50) / 100,
  -b / 100,
];

/** Steps between the lines that a body is drawn with. */
const LINE_AZIMUTHS = 15;
const LINE_RINGS = 9;

/** Meridians and parallels of a surface: its corners are two poles, then rings from black to white. */
export function Lines({ body }: { body: DrawnBody }) {
  const geometry = useMemo(() => {
    const { azimuths } = BODY_DIRECTIONS;
    const rings = (body.lab.length / 3 - 2) / azimuths;
    const pairs: number[] = [];
    for (let azimuth = 0; azimuth < azimuths; azimuth += LINE_AZIMUTHS) {
      pairs.push(0, 2 + azimuth);
      for (let ring = 0; ring + 1 < rings; ring++)
        pairs.push(2 + ring * azimuths + azimuth, 2 + (ring + 1) * azimuths + azimuth);
      pairs.push(2 + (rings - 1) * azimuths + azimuth, 1);
    }
    for (let ring = LINE_RINGS - 1; ring < rings; ring += LINE_RINGS)
      for (let azimuth = 0; azimuth < azimuths; azimuth++)
        pairs.push(2 + ring * azimuths + azimuth, 2 + ring * azimuths + ((azimuth + 1) % azimuths));
    const made = new BufferGeometry();
    made.setAttribute('position', new BufferAttribute(positionsOf(body), 3));
    made.setIndex(pairs);
    return made;
  }, [body]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  return (
    <lineSegments geometry={geometry}>
      <lineBasicMaterial color="#1B1B1B" transparent opacity={0.55} />
    </lineSegments>
  );
}

/** Length of a dash and of a gap, a hundredth of L* each. */
export const RING_DASHES: readonly (readonly [number, number])[] = [
  [0.01, 0.03],
  [0.06, 0.02],
];

/** Parallels of a surface and four meridians as dashes: what stands beside two bodies without hiding them. */
export function Rings({
  outline,
  dash: [dashSize, gapSize],
}: {
  outline: DrawnOutline;
  dash: readonly [number, number];
}) {
  const geometry = useMemo(() => {
    const { azimuths } = BODY_DIRECTIONS;
    const all = positionsOf(outline);
    const rings = (outline.lab.length / 3 - 2) / azimuths;
    const at: number[] = [];
    for (let ring = LINE_RINGS - 1; ring < rings; ring += LINE_RINGS)
      for (let azimuth = 0; azimuth < azimuths; azimuth++)
        at.push(2 + ring * azimuths + azimuth, 2 + ring * azimuths + ((azimuth + 1) % azimuths));
    for (let azimuth = 0; azimuth < azimuths; azimuth += azimuths / 4)
      for (let ring = 0; ring + 1 < rings; ring++)
        at.push(2 + ring * azimuths + azimuth, 2 + (ring + 1) * azimuths + azimuth);
    const made = new BufferGeometry();
    made.setAttribute(
      'position',
      new BufferAttribute(Float32Array.from(at.flatMap((i) => [...all.subarray(3 * i, 3 * i + 3)])), 3),
    );
    // Dashes run on along a line of many pieces.
    const along = new Float32Array(at.length);
    for (let i = 0; i < at.length; i += 2) {
      const goesOn = i > 0 && at[i] === at[i - 1];
      along[i] = goesOn ? along[i - 1] : 0;
      const [from, to] = [at[i], at[i + 1]].map((corner) => all.subarray(3 * corner, 3 * corner + 3));
      along[i + 1] = along[i] + Math.hypot(to[0] - from[0], to[1] - from[1], to[2] - from[2]);
    }
    made.setAttribute('lineDistance', new BufferAttribute(along, 1));
    return made;
  }, [outline]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  const invalidate = useThree((state) => state.invalidate);
  useEffect(() => invalidate(), [invalidate, geometry]);
  return (
    <lineSegments geometry={geometry}>
      <lineDashedMaterial color="#1B1B1B" dashSize={dashSize} gapSize={gapSize} />
    </lineSegments>
  );
}

export function positionsOf({ lab }: Pick<DrawnOutline, 'lab'>): Float32Array {
  const positions = new Float32Array(lab.length);
  for (let i = 0; i < lab.length; i += 3) positions.set(place(lab[i], lab[i + 1], lab[i + 2]), i);
  return positions;
}
