'use client';

import { Canvas, useFrame, useThree } from '@react-three/fiber';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { RefObject } from 'react';
import { BufferAttribute, BufferGeometry, DoubleSide, Vector3 } from 'three';
import type { DrawnBody, DrawnOutline, DrawnPoints } from '@/workers/gamut.worker';
import { Lines, place, positionsOf, RING_DASHES, Rings } from './BodyLines';
import { WHOLE_AT } from './bodyStyle';
import type { BodyPaint, BodyStyle } from './bodyStyle';
import { Turning } from './Turning';
import { AT_REST } from './turningPace';

/** L*, a*, b* of an axis' end, and its name. */
const AXES = [
  { name: 'L* 100', at: [100, 0, 0] },
  { name: 'a* 100', at: [50, 100, 0] },
  { name: 'b* 100', at: [50, 0, 100] },
] as const;
/** Lighter than the surround, so that the body stands out of it. */
const INSIDE_GREY = 0.5;
const TURN = 0.12;

interface ShownBody {
  readonly body: DrawnBody;
  readonly style: BodyStyle;
  readonly paint: BodyPaint;
  /** ΔE00 beyond the other for each corner; undefined until it is worked out. */
  readonly beyond?: Float32Array;
}

function canDraw(): boolean {
  return document.createElement('canvas').getContext('webgl2') !== null;
}

/** Bodies on a thin cross of L*, a*, b*; turned by mouse, finger, or the arrow keys. */
export function BodyView({
  bodies,
  beside,
  points,
}: {
  bodies: readonly ShownBody[];
  /** Further bodies, as rings of dashes. */
  beside: readonly DrawnOutline[];
  /** Colours beside them; those beyond the first body are drawn larger. */
  points?: DrawnPoints;
}) {
  const [drawn] = useState(canDraw);
  const labels = useRef<HTMLDivElement>(null);
  const turn = useRef<(side: number, up: number, nearer: number) => void>(undefined);
  if (!drawn)
    return (
      <p className="notice">
        This browser draws no bodies: WebGL is switched off. The ring and the figures say the same.
      </p>
    );
  return (
    <div
      className="booth body-view"
      role="application"
      tabIndex={0}
      aria-label="Bodies of the gamuts. Arrow keys turn them, plus and minus bring them nearer."
      onKeyDown={({ key, shiftKey }) => {
        const step = shiftKey ? 3 * TURN : TURN;
        if (key === 'ArrowLeft') turn.current?.(-step, 0, 1);
        if (key === 'ArrowRight') turn.current?.(step, 0, 1);
        if (key === 'ArrowUp') turn.current?.(0, step, 1);
        if (key === 'ArrowDown') turn.current?.(0, -step, 1);
        if (key === '+' || key === '=') turn.current?.(0, 0, 0.9);
        if (key === '-') turn.current?.(0, 0, 1 / 0.9);
      }}
    >
      <Canvas
        frameloop="demand"
        dpr={AT_REST}
        gl={{ antialias: false }}
        camera={{ position: [1.6, 1.05, 2.6], fov: 33, near: 0.01, far: 50 }}
        flat
      >
        <Axes />
        {bodies.map((shown, i) => (
          <Body key={i} {...shown} />
        ))}
        {beside.map((outline, i) => (
          <Rings key={outline.name} outline={outline} dash={RING_DASHES[i] ?? [1, 0]} />
        ))}
        {points !== undefined && <Colours points={points} />}
        <Turning turn={turn} />
        <Labels target={labels} />
      </Canvas>
      <div ref={labels} aria-hidden="true">
        {AXES.map(({ name }) => (
          <span key={name} className="axis-name">
            {name}
          </span>
        ))}
      </div>
    </div>
  );
}

function Body({ body, style, paint, beyond }: ShownBody) {
  const geometry = useMemo(() => {
    const made = new BufferGeometry();
    made.setAttribute('position', new BufferAttribute(positionsOf(body), 3));
    // The scene looks at b* from the other side: triangles turn about.
    const corners = body.corners.slice();
    for (let t = 0; t < corners.length; t += 3)
      [corners[t + 1], corners[t + 2]] = [corners[t + 2], corners[t + 1]];
    made.setIndex(new BufferAttribute(corners, 1));
    made.computeVertexNormals();
    return made;
  }, [body]);
  useEffect(() => {
    const colours = body.colours.slice();
    if (paint === 'beyond')
      beyond?.forEach((deltaE, i) => {
        const whole = Math.min(1, deltaE / WHOLE_AT);
        for (let c = 0; c < 3; c++)
          colours[3 * i + c] = whole * colours[3 * i + c] + (1 - whole) * INSIDE_GREY;
      });
    geometry.setAttribute('color', new BufferAttribute(colours, 3));
  }, [geometry, body, paint, beyond]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  const invalidate = useThree((state) => state.invalidate);
  useEffect(() => invalidate(), [invalidate, geometry, style, paint, beyond]);
  if (style === 'lines') return <Lines body={body} />;
  return (
    <mesh geometry={geometry} renderOrder={style === 'clear' ? 1 : 0}>
      <meshBasicMaterial
        vertexColors
        side={DoubleSide}
        transparent={style === 'clear'}
        opacity={style === 'clear' ? 0.45 : 1}
        depthWrite={style !== 'clear'}
      />
    </mesh>
  );
}

const INSIDE_SIZE = 3;
const BEYOND_SIZE = 6;

/** The colours of a list in their places: they are drawn over the bodies, so that none is hidden. */
function Colours({ points }: { points: DrawnPoints }) {
  const invalidate = useThree((state) => state.invalidate);
  const clouds = useMemo(
    () =>
      [false, true].map((beyond) => {
        const own = [...points.beyondB.keys()].filter((i) => points.beyondB[i] > 1 === beyond);
        const made = new BufferGeometry();
        const rows = (from: Float32Array): Float32Array =>
          Float32Array.from(own.flatMap((i) => [...from.subarray(3 * i, 3 * i + 3)]));
        made.setAttribute('position', new BufferAttribute(positionsOf({ lab: rows(points.lab) }), 3));
        made.setAttribute('color', new BufferAttribute(rows(points.colours), 3));
        return { beyond, geometry: made };
      }),
    [points],
  );
  useEffect(() => {
    invalidate();
    return () => clouds.forEach(({ geometry }) => geometry.dispose());
  }, [clouds, invalidate]);
  return clouds.map(({ beyond, geometry }) => (
    <points key={String(beyond)} geometry={geometry} renderOrder={2}>
      <pointsMaterial
        vertexColors
        size={beyond ? BEYOND_SIZE : INSIDE_SIZE}
        sizeAttenuation={false}
        depthTest={false}
        transparent
      />
    </points>
  ));
}

const LINES = [
  [place(0, 0, 0), place(100, 0, 0)],
  [place(50, -100, 0), place(50, 100, 0)],
  [place(50, 0, -100), place(50, 0, 100)],
] as const;

function Axes() {
  const geometry = useMemo(() => {
    const made = new BufferGeometry();
    made.setAttribute('position', new BufferAttribute(Float32Array.from(LINES.flat(2)), 3));
    return made;
  }, []);
  return (
    <lineSegments geometry={geometry}>
      <lineBasicMaterial color="#1B1B1B" />
    </lineSegments>
  );
}

/** Keeps the names of the axes at their ends. */
function Labels({ target }: { target: RefObject<HTMLDivElement | null> }) {
  const point = useMemo(() => new Vector3(), []);
  useFrame(({ camera, size }) => {
    AXES.forEach(({ at: [l, a, b] }, i) => {
      const name = target.current?.children[i] as HTMLElement | undefined;
      if (name === undefined) return;
      point.set(...place(l, a, b)).project(camera);
      name.style.transform = `translate(${((point.x + 1) / 2) * size.width + 6}px, ${((1 - point.y) / 2) * size.height - 8}px)`;
    });
  });
  return null;
}
