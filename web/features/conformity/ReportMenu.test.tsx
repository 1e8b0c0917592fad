import { screen, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { show } from '@/testing/show';
import { ReportMenu } from './ReportMenu';

const CODE = 'abcdefghijklmnopqrstuvwxyz012345';
const open = async (sharedCode: string | null, answer: unknown = { code: CODE }) => {
  const server = fakeServer({ 'PUT /api/results/7/link': answer });
  const shown = show(<ReportMenu resultId={7} sharedCode={sharedCode} />);
  await shown.user.click(screen.getByRole('button', { name: 'Report' }));
  return { ...shown, ...server };
};

describe('the report of a check', () => {
  afterEach(() => vi.restoreAllMocks());

  it.each([
    ['Report as a page', 'html'],
    ['Report as PDF', 'pdf'],
    ['Slip for the proof, 100 × 60 mm', 'slip'],
  ])('is opened as “%s”', async (name, format) => {
    const opened = vi.spyOn(window, 'open').mockReturnValue(null);
    const { user } = await open(null);
    await user.click(screen.getByRole('menuitem', { name }));
    expect(opened).toHaveBeenCalledWith(`/api/results/7/report?format=${format}`, '_blank', 'noopener');
  });

  it('gets a public link, which lies on the clipboard then', async () => {
    const { user, sent } = await open(null);
    expect(screen.queryByRole('menuitem', { name: 'End the public link' })).toBeNull();
    await user.click(screen.getByRole('menuitem', { name: 'Make a public link' }));
    const url = `${location.origin}/shared/${CODE}`;
    expect(await screen.findByText(`Copied: ${url}`)).toBeTruthy();
    expect(await navigator.clipboard.readText()).toBe(url);
    expect(sent[0].body).toEqual({ shared: true });
  });

  it('does not claim to have copied what the browser did not take', async () => {
    const { user } = await open(CODE);
    vi.spyOn(navigator.clipboard, 'writeText').mockRejectedValue(new Error('not allowed'));
    await user.click(screen.getByRole('menuitem', { name: 'Copy the public link' }));
    expect(await screen.findByText(/^Public link: http/)).toBeTruthy();
  });

  it('ends the link, and says when it cannot', async () => {
    const { user, unmount } = await open(CODE, {});
    await user.click(screen.getByRole('menuitem', { name: 'End the public link' }));
    expect(await screen.findByText('The link shows nothing any more.')).toBeTruthy();
    unmount();
    const again = await open(
      CODE,
      new Refused(404, { title: 'There is no check 7.', detail: 'Look again.' }),
    );
    await again.user.click(screen.getByRole('menuitem', { name: 'End the public link' }));
    await waitFor(() => expect(screen.getByText('There is no check 7. Look again.')).toBeTruthy());
  });
});
