import { renderHook } from '@testing-library/react';
import { expect, it } from 'vitest';
import type { ShelfProfile } from '@melto/services/profile/shelf';
import { useShelfSources } from './useShelfSources';

const profile = (key: string, title: string): ShelfProfile =>
  ({ key, title, condition: null, kept: null, name: title, space: 'CMYK' }) as unknown as ShelfProfile;

it('profiles that come to the shelf change nothing of those that are in use', () => {
  const { result, rerender } = renderHook(({ shelf }) => useShelfSources(shelf), {
    initialProps: { shelf: [profile('result-1', 'Wren'), profile('result-2', 'Tern')] },
  });
  const [wren, tern] = result.current;
  rerender({
    shelf: [profile('result-3', 'Heron'), profile('result-1', 'Wren'), profile('result-2', 'Tern v2')],
  });
  expect(result.current).toHaveLength(3);
  expect(result.current[1]).toBe(wren);
  expect(result.current[2]).not.toBe(tern);
});
