import { screen } from '@testing-library/react';
import { useState } from 'react';
import { expect, it } from 'vitest';
import type { PaperName } from '@melto/core/charts/pageGeometry';
import { show } from '@/testing/show';
import { PaperField, paperWords } from './PaperField';

it('takes a page of one’s own as soon as both sides are right, and keeps the one before until then', async () => {
  const taken: PaperName[] = [];
  function Field() {
    const [paper, setPaper] = useState<PaperName>('letter');
    return (
      <PaperField
        paper={paper}
        onPaper={(next) => {
          taken.push(next);
          setPaper(next);
        }}
      />
    );
  }
  const { user } = show(<Field />);
  expect(screen.queryByLabelText('width, mm')).toBeNull();
  await user.click(screen.getByRole('combobox'));
  await user.click(screen.getByRole('option', { name: 'own size' }));
  expect(taken).toEqual(['216x279']);
  const width = screen.getByLabelText<HTMLInputElement>('width, mm');
  await user.clear(width);
  expect(width.getAttribute('aria-invalid')).toBe('true');
  await user.type(width, '61');
  expect(taken.at(-1)).toBe('216x279');
  await user.type(width, '0');
  expect(taken.at(-1)).toBe('610x279');
  await user.click(screen.getByRole('combobox'));
  await user.click(screen.getByRole('option', { name: 'A3' }));
  expect(taken.at(-1)).toBe('a3');
  expect([paperWords('a4'), paperWords('610x914')]).toEqual(['A4', '610 × 914 mm']);
});
