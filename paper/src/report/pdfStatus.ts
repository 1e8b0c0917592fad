import { Circle, Path, Svg } from '@react-pdf/renderer';
import { createElement } from 'react';
import type { ReactElement } from 'react';
import type { StatusName } from '../statusShape.ts';

/** The shape of a status in a PDF. */
export function pdfStatus(status: StatusName, size: number): ReactElement {
  return createElement(
    Svg,
    { viewBox: '0 0 14 14', style: { width: size, height: size } },
    ...shapesOf(status),
  );
}

function shapesOf(status: StatusName): ReactElement[] {
  switch (status) {
    case 'conforms':
      return [createElement(Circle, { key: 1, cx: 7, cy: 7, r: 6, fill: '#1F5F73' })];
    case 'near':
      return [
        createElement(Circle, {
          key: 1,
          cx: 7,
          cy: 7,
          r: 5.2,
          fill: 'none',
          stroke: '#9A6B00',
          strokeWidth: 1.6,
        }),
        createElement(Path, { key: 2, d: 'M7 1.8a5.2 5.2 0 0 0 0 10.4z', fill: '#9A6B00' }),
      ];
    case 'does-not-conform':
      return [
        createElement(Path, {
          key: 1,
          d: 'M7 1.4 12.6 7 7 12.6 1.4 7z',
          fill: 'none',
          stroke: '#B3361B',
          strokeWidth: 2.2,
        }),
      ];
    case 'not-judged':
      return [
        createElement(Circle, {
          key: 1,
          cx: 7,
          cy: 7,
          r: 5.4,
          fill: 'none',
          stroke: '#5C5C5C',
          strokeWidth: 1.4,
          strokeDasharray: '1 2.2',
        }),
      ];
  }
}
