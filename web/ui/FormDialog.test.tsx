import { screen, waitFor } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { show } from '@/testing/show';
import { ApiProblem } from './api';
import { FormDialog } from './FormDialog';
import { isWhole, numberOf } from './numberOf';

const button = (name: string): HTMLButtonElement => screen.getByRole<HTMLButtonElement>('button', { name });

describe('a dialog with a form', () => {
  it('is named by its title and cannot be sent while it is not ready', async () => {
    const submit = vi.fn();
    const { user } = show(
      <FormDialog title="Judge a reading" act="Judge" ready={false} onSubmit={submit} onClose={() => {}}>
        <input aria-label="name" />
      </FormDialog>,
    );
    expect(screen.getByRole('dialog', { name: 'Judge a reading' })).toBeTruthy();
    expect(button('Judge').disabled).toBe(true);
    await user.type(screen.getByLabelText('name'), 'x{Enter}');
    expect(submit).not.toHaveBeenCalled();
  });

  it('sends once however often it is asked, and says what was refused until it is sent again', async () => {
    let answer: ((error?: Error) => void) | undefined;
    const submit = vi.fn(
      () =>
        new Promise<void>((resolve, reject) => {
          answer = (error) => (error === undefined ? resolve() : reject(error));
        }),
    );
    const { user } = show(
      <FormDialog title="Print" act="Print" onSubmit={submit} onClose={() => {}}>
        <input aria-label="name" />
      </FormDialog>,
    );
    await user.type(screen.getByLabelText('name'), '{Enter}{Enter}');
    expect(submit).toHaveBeenCalledTimes(1);
    expect(button('Print').disabled).toBe(true);
    answer?.(new ApiProblem(409, 'Not ticked: dry.', 'Tick each point.'));
    expect((await screen.findByRole('alert')).textContent).toBe('Not ticked: dry. Tick each point.');
    await user.click(button('Print'));
    expect(submit).toHaveBeenCalledTimes(2);
    expect(screen.queryByRole('alert')).toBeNull();
    answer?.();
    await waitFor(() => expect(button('Print').disabled).toBe(false));
  });

  it('closes by its button and by Escape', async () => {
    const close = vi.fn();
    const { user } = show(
      <FormDialog title="x" act="Do" onSubmit={() => {}} onClose={close}>
        <input aria-label="name" />
      </FormDialog>,
    );
    await user.click(button('Not now'));
    await user.type(screen.getByLabelText('name'), '{Escape}');
    expect(close).toHaveBeenCalledTimes(2);
  });
});

describe('numbers as people type them', () => {
  it.each([
    ['1.5', 1.5],
    ['1,5', 1.5],
    [' 2 ', 2],
    ['−3', -3],
    ['', NaN],
    ['  ', NaN],
    ['1,5,2', NaN],
    ['twelve', NaN],
    ['1e2', 100],
  ])('%j is %d', (text, value) => expect(numberOf(text)).toBe(value));

  it('are whole and within bounds, or not', () => {
    expect(isWhole('5', 5, 64)).toBe(true);
    expect(isWhole('64', 5, 64)).toBe(true);
    for (const text of ['4', '65', '5.5', '', 'x']) expect(isWhole(text, 5, 64)).toBe(false);
  });
});
