import { screen } from '@testing-library/react';
import { useState } from 'react';
import { expect, it } from 'vitest';
import type { PaperName } from '@melto/core/charts/pageGeometry';
import { show } from '@/testing/show';
import { PaperField } from './PaperField';
import { paperWords } from './paperWords';

it('takes a page of one’s own as soon as both sides are right, and none until then', async () => {
  const taken: (PaperName | undefined)[] = [];
  function Field() {
    const [paper, setPaper] = useState<PaperName | undefined>('letter');
    return (
      <PaperField
        paper={paper}
        own={['610x914']}
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
  expect(screen.getAllByRole('option').map(({ textContent }) => textContent)).toEqual([
    ...['A4', 'Letter', 'A3', '610 × 914 mm', 'another size'],
  ]);
  await user.click(screen.getByRole('option', { name: 'another size' }));
  expect(taken).toEqual(['216x279']);
  const width = screen.getByLabelText<HTMLInputElement>('width, mm');
  await user.clear(width);
  expect(width.getAttribute('aria-invalid')).toBe('true');
  await user.type(width, '61');
  expect(taken.at(-1)).toBeUndefined();
  await user.type(width, '0,5');
  expect(taken.at(-1)).toBeUndefined();
  await user.type(width, '{Backspace}{Backspace}');
  expect(taken.at(-1)).toBe('610x279');
  await user.click(screen.getByRole('combobox'));
  await user.click(screen.getByRole('option', { name: '610 × 914 mm' }));
  expect(taken.at(-1)).toBe('610x914');
  expect(screen.queryByLabelText('width, mm')).toBeNull();
  expect([paperWords('a4'), paperWords('610x914')]).toEqual(['A4', '610 × 914 mm']);
});
