import { screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { show } from '@/testing/show';
import { HueOutline, outlineArea } from './HueOutline';
import { STATUS_WORD, StatusMark, StatusShape } from './StatusMark';
import type { Status } from './StatusMark';
import { Swatch } from './Swatch';

describe('a status', () => {
  it('has another shape for each state that a reader must tell apart, in black and white too', () => {
    const states: Status[] = ['conforms', 'near', 'does-not-conform', 'stale', 'due', 'none'];
    const drawn = states.map((status) => {
      const { container, unmount } = show(<StatusShape status={status} />);
      const shape = container.querySelector('svg')?.innerHTML.replace(/var\(--[a-z]+\)/g, 'tone');
      unmount();
      return shape;
    });
    expect(new Set(drawn).size).toBe(states.length);
  });

  it('stands beside its word, and its shape is not read out twice', () => {
    show(<StatusMark status="near" />);
    expect(screen.getByText(STATUS_WORD.near)).toBeTruthy();
    expect(screen.queryByRole('img')).toBeNull();
    show(<StatusShape status="due" title="watch is due" />);
    expect(screen.getByRole('img', { name: 'watch is due' })).toBeTruthy();
  });
});

describe('a swatch', () => {
  it('shows the measured colour with the aim in its lower third', () => {
    const { container } = show(<Swatch measured={[50, 0, 0]} aim={[70, 0, 0]} label="grey" />);
    const swatch = screen.getByRole('img', { name: 'grey' });
    // L* 50 and 70 on the grey axis are sRGB 119 and 171.
    expect(swatch.style.background).toBe('rgb(119, 119, 119)');
    expect(container.querySelector('i')?.style.background).toBe('rgb(171, 171, 171)');
    expect(screen.queryByTitle(/outside/)).toBeNull();
  });

  it.each([
    ['measured', [55, -80, -60], [50, 0, 0]],
    ['aim', [50, 0, 0], [90, -5, 110]],
  ] as const)('is marked where the %s colour is outside the screen', (_, measured, aim) => {
    show(<Swatch measured={measured} aim={aim} />);
    expect(screen.getByTitle(/outside the screen/)).toBeTruthy();
  });
});

describe('an outline in a*b*', () => {
  it('has the area of its corners, whichever way round', () => {
    const square = [
      [50, 10, 10],
      [50, -10, 10],
      [50, -10, -10],
      [50, 10, -10],
    ] as const;
    expect(outlineArea(square)).toBe(400);
    expect(outlineArea([...square].reverse())).toBe(400);
  });

  it('draws b* upwards and names its corners', () => {
    const { container } = show(
      <HueOutline
        size={100}
        label="solids"
        outlines={[
          {
            kind: 'thick',
            corners: [
              [50, 60, 40],
              [50, -30, -50],
            ],
            names: ['M', 'C'],
          },
        ]}
      />,
    );
    expect(container.querySelector('polygon')?.getAttribute('points')).toBe('60,-40 -30,50');
    expect(screen.getByText('M')).toBeTruthy();
    expect(screen.getByRole('img', { name: 'solids' })).toBeTruthy();
  });
});
