import { screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { show } from '@/testing/show';
import { ResultNote } from './ResultNote';

describe('a note on a check', () => {
  it('is added, and changed; a refusal stays in the dialog', async () => {
    let answer: unknown = new Refused(500, { title: 'The server could not answer.', detail: 'Try again.' });
    const { sent } = fakeServer({ 'PUT /api/results/7/note': () => answer });
    const { user } = show(<ResultNote id={7} note="" />);
    await user.click(screen.getByRole('button', { name: 'Add a note' }));
    const keep = screen.getByRole<HTMLButtonElement>('button', { name: 'Keep it' });
    expect(keep.disabled).toBe(true);
    await user.type(screen.getByLabelText('Note'), ' new blanket ');
    await user.click(keep);
    expect((await screen.findByRole('alert')).textContent).toBe('The server could not answer. Try again.');
    answer = {};
    await user.click(keep);
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    expect(sent.at(-1)?.body).toEqual({ note: 'new blanket' });
  });

  it('that is there is shown, and can be taken out', async () => {
    const { sent } = fakeServer({ 'PUT /api/results/7/note': {} });
    const { user } = show(<ResultNote id={7} note="new blanket" />);
    expect(screen.getByText('new blanket', { exact: false })).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Change it' }));
    await user.clear(screen.getByLabelText('Note'));
    await user.click(screen.getByRole('button', { name: 'Keep it' }));
    await waitFor(() => expect(sent[0]?.body).toEqual({ note: '' }));
  });
});
