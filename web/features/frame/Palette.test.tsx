import { screen, waitFor } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { fakeServer } from '@/testing/fakeServer';
import type { Sent } from '@/testing/fakeServer';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { OwnRole } from '@/ui/May';
import { Palette } from './Palette';

const FOUND = [
  { kind: 'condition', title: 'Heron / Lantern Gloss 150', detail: 'standard', href: '/conditions/1' },
  { kind: 'sheet', title: 'HRN-0004-1', detail: 'Ramps', href: '/read/HRN-0004-1' },
];
const open = (mode: 'all' | 'conditions' = 'all') => {
  const close = vi.fn();
  const server = fakeServer({
    'GET /api/search': ({ path }: Sent) => {
      const words = new URLSearchParams(path.split('?')[1]).get('q') ?? '';
      return FOUND.filter(({ title }) => title.toLowerCase().includes(words.toLowerCase()));
    },
  });
  return { ...show(<Palette mode={mode} onClose={close} />), ...server, close };
};
const chosen = (): string | undefined =>
  screen.getAllByRole('option').find((row) => row.getAttribute('aria-selected') === 'true')?.textContent ??
  undefined;

describe('search-and-do', () => {
  it('shows nothing while it is closed', () => {
    fakeServer({});
    show(<Palette mode="closed" onClose={() => {}} />);
    expect(screen.queryByRole('dialog')).toBeNull();
  });

  it('finds as one types, and goes by the arrows and Enter', async () => {
    const { user, close } = open();
    const box = screen.getByRole('combobox', { name: 'Find or do' });
    expect(document.activeElement).toBe(box);
    await screen.findByText('HRN-0004-1');
    await user.keyboard('{ArrowDown}');
    expect(chosen()).toContain('HRN-0004-1');
    await user.keyboard('{ArrowUp}{ArrowUp}');
    expect(chosen()).toContain('Heron');
    await user.type(box, 'hrn-0004');
    await waitFor(() => expect(screen.getAllByRole('option')).toHaveLength(1));
    expect(box.getAttribute('aria-activedescendant')).toBe('palette-0');
    await user.keyboard('{Enter}');
    expect(navigation.went).toEqual(['/read/HRN-0004-1']);
    expect(close).toHaveBeenCalledOnce();
  });

  it('goes nowhere that was found for other words while the answer is on its way', async () => {
    const close = vi.fn();
    fakeServer({
      'GET /api/search': ({ path }: Sent) => (path.endsWith('q=') ? FOUND : new Promise(() => {})),
    });
    const { user } = show(<Palette mode="all" onClose={close} />);
    await screen.findByText('HRN-0004-1');
    await user.type(screen.getByRole('combobox'), 'Runs');
    expect(chosen()).toContain('jobs on the press');
    await user.keyboard('{Enter}');
    expect(navigation.went).toEqual(['/runs']);
  });

  it('offers acts beside what was found', async () => {
    const { user } = open();
    await user.type(screen.getByRole('combobox'), 'tolerance');
    await waitFor(() => expect(screen.getAllByRole('option')).toHaveLength(1));
    await user.click(screen.getByRole('button', { name: /Tolerance sets/ }));
    expect(navigation.went).toEqual(['/library/tolerances']);
  });

  it.each([
    ['viewer', false, false],
    ['operator', false, false],
    ['specialist', true, false],
    ['keeper', true, true],
  ] as const)('offers a %s what the server would not refuse', async (role, makes, keeps) => {
    fakeServer({ 'GET /api/search': [] });
    show(
      <OwnRole value={role}>
        <Palette mode="all" onClose={() => {}} />
      </OwnRole>,
    );
    await screen.findByRole('button', { name: /^Lights/ });
    expect(screen.queryByRole('button', { name: /^New condition/ }) !== null).toBe(makes);
    expect(screen.queryByRole('button', { name: /^Record of acts/ }) !== null).toBe(keeps);
  });

  it('does what has no page of its own, and leads to the pages of the condition one is at', async () => {
    navigation.path = '/conditions/4/curves';
    const { user, unmount, close } = open();
    await user.type(screen.getByRole('combobox'), 'settings');
    await waitFor(() => expect(screen.getAllByRole('option')).toHaveLength(1));
    await user.keyboard('{Enter}');
    expect(navigation.went).toEqual(['/conditions/4/settings']);
    unmount();
    navigation.path = '/';
    const again = open();
    await again.user.type(screen.getByRole('combobox'), 'settings');
    expect(await screen.findByText('Nothing has this name.')).toBeTruthy();
    await again.user.clear(screen.getByRole('combobox'));
    await again.user.type(screen.getByRole('combobox'), 'dark');
    await waitFor(() => expect(screen.getAllByRole('option')).toHaveLength(1));
    await again.user.keyboard('{Enter}');
    expect(localStorage.getItem('mui-mode')).toBe('dark');
    expect(again.close).toHaveBeenCalled();
    expect(close).toHaveBeenCalled();
    localStorage.clear();
  });

  it('as the switcher of conditions offers conditions only', async () => {
    open('conditions');
    await screen.findByText('Heron / Lantern Gloss 150');
    expect(screen.getAllByRole('option')).toHaveLength(1);
  });

  it('says when nothing has the name, and Enter does nothing then', async () => {
    const { user, close } = open();
    await user.type(screen.getByRole('combobox'), 'zzz');
    expect(await screen.findByText('Nothing has this name.')).toBeTruthy();
    await user.keyboard('{Enter}{ArrowDown}');
    expect(close).not.toHaveBeenCalled();
  });
});
