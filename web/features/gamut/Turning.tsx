'use client';

import { useFrame, useThree } from '@react-three/fiber';
import { useEffect, useRef } from 'react';
import type { RefObject } from 'react';
import type { Camera } from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import { AT_REST, TurningPace } from './turningPace';

const RESTS_MS = 200;

/** Turns the camera about the middle of the bodies. */
export function Turning({
  turn,
}: {
  turn: RefObject<((side: number, up: number, nearer: number) => void) | undefined>;
}) {
  const camera = useThree((state) => state.camera);
  const element = useThree((state) => state.gl.domElement);
  const invalidate = useThree((state) => state.invalidate);
  const setDpr = useThree((state) => state.setDpr);
  const pace = useRef(new TurningPace());
  useFrame((_, seconds) => pace.current.frame(1000 * seconds));
  useEffect(() => {
    let rest: ReturnType<typeof setTimeout> | undefined;
    const moving = (): void => {
      setDpr(pace.current.move());
      clearTimeout(rest);
      rest = setTimeout(() => {
        pace.current.rest();
        setDpr(AT_REST);
        invalidate();
      }, RESTS_MS);
      invalidate();
    };
    const controls = new OrbitControls(camera, element);
    controls.enablePan = false;
    controls.enableDamping = false;
    controls.minDistance = 1;
    controls.maxDistance = 8;
    controls.addEventListener('change', moving);
    turn.current = (side, up, nearer) => {
      moveCamera(camera, side, up, nearer);
      controls.update();
      moving();
    };
    return () => {
      turn.current = undefined;
      clearTimeout(rest);
      controls.dispose();
    };
  }, [camera, element, invalidate, setDpr, turn]);
  return null;
}

function moveCamera(camera: Camera, side: number, up: number, nearer: number): void {
  const { x, y, z } = camera.position;
  const radius = Math.min(8, Math.max(1, Math.hypot(x, y, z) * nearer));
  const turned = Math.atan2(x, z) + side;
  const height = Math.min(1.5, Math.max(-1.5, Math.atan2(y, Math.hypot(x, z)) + up));
  camera.position.set(
    radius * Math.cos(height) * Math.sin(turned),
    radius * Math.sin(height),
    radius * Math.cos(height) * Math.cos(turned),
  );
  camera.lookAt(0, 0, 0);
}
