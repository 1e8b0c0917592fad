'use client';

import { useEffect, useState } from 'react';

/** Whether this screen shows Display P3, or most of it, and this browser draws it. */
export function useWideScreen(): boolean {
  const [wide, setWide] = useState(false);
  useEffect(() => {
    const shows = window.matchMedia('(color-gamut: p3)');
    const look = (): void => setWide(shows.matches && drawsP3());
    look();
    // A window can be moved to another screen.
    shows.addEventListener('change', look);
    return () => shows.removeEventListener('change', look);
  }, []);
  return wide;
}

function drawsP3(): boolean {
  const context = document.createElement('canvas').getContext('2d', { colorSpace: 'display-p3' });
  return context?.getContextAttributes().colorSpace === 'display-p3';
}
