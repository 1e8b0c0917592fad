import { screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { FileOnFloor } from './FileOnFloor';

const FILE = new File(['x'], 'house.txt');
const FOUND = {
  ...{ code: 'its device', questions: [], told: {}, unused: [], damaged: [], notes: [], process: 'RGB' },
  modes: [
    {
      ...{ mode: 'M1', by: 'device values as asked', patches: 1, ofPatches: 1, strips: 1, ofStrips: 1 },
      ...{ repeated: 0, foreign: 0, doubtful: [], pages: [[['#808080']]] },
    },
  ],
};
const device = (id: number, name: string, process: string, own = true) => ({
  ...{ id, name, process, own, kind: '', inkSet: 'pigment', modes: ['fine', 'fast'], stocks: [] },
});
const CHOICES = {
  inkSets: ['pigment'],
  devices: [device(1, 'Avocet', 'RGB'), device(2, 'Godwit', 'CMYK'), device(3, 'Wren', 'RGB', false)],
  stocks: [{ id: 5, name: 'Barn Owl Rag', finish: 'matt', restMinutes: 30 }],
  points: [],
};

function drop(found: unknown = FOUND, choices: unknown = CHOICES) {
  const server = fakeServer({
    'GET /api/conditions/choices': choices,
    'POST /api/measured-files/preview': found,
    'POST /api/measured-files': { conditionId: 31, readingId: 8 },
  });
  return { ...show(<FileOnFloor file={FILE} onClose={() => {}} />), ...server };
}
const take = (): HTMLButtonElement =>
  screen.getByRole<HTMLButtonElement>('button', { name: /Take the reading/ });
const asked = (path: string | undefined): Record<string, string> =>
  Object.fromEntries(new URLSearchParams(path?.split('?')[1]));

describe('a file that is dropped on the floor', () => {
  it('goes to devices of its process and of the house’s own, once it is said how it was printed', async () => {
    const { user, sent } = drop();
    await user.click(await screen.findByRole('combobox', { name: 'Device' }));
    expect(screen.getAllByRole('option').map(({ textContent }) => textContent)).toEqual([
      'Avocet',
      'a new one, takes RGB',
    ]);
    await user.click(screen.getByRole('option', { name: 'Avocet' }));
    await user.click(screen.getByRole('checkbox'));
    await user.click(screen.getByRole('combobox', { name: 'Stock' }));
    await user.click(screen.getByRole('option', { name: 'Barn Owl Rag' }));
    expect(take().disabled).toBe(true);
    await user.click(screen.getByRole('combobox', { name: 'Print mode' }));
    await user.click(screen.getByRole('option', { name: 'fast' }));
    await user.click(screen.getByRole('checkbox'));
    expect(take().disabled).toBe(true);
    await user.click(screen.getByRole('checkbox'));
    await user.click(take());
    await waitFor(() => expect(navigation.went).toContain('/conditions/31/profile'));
    expect(asked(sent.at(-1)?.path)).toEqual({
      ...{ name: 'house.txt', asRecorded: 'yes', printMode: 'fast', deviceId: '1', stockId: '5' },
    });
  });

  it('asks nothing before it is known what can be chosen', async () => {
    let arrive: (choices: unknown) => void = () => {};
    drop(FOUND, () => new Promise((resolve) => (arrive = resolve)));
    expect(await screen.findByText(/all 1 patch/)).toBeTruthy();
    expect(screen.queryByLabelText(/Its name/)).toBeNull();
    arrive(CHOICES);
    expect(await screen.findByRole('combobox', { name: 'Device' })).toBeTruthy();
    expect(screen.queryByLabelText(/Its name/)).toBeNull();
  });

  it('takes no device, mode or stock for granted, though there is one of each only', async () => {
    const one = { ...device(1, 'Avocet', 'RGB'), modes: ['fine'] };
    const { user } = drop(FOUND, { ...CHOICES, devices: [one] });
    await screen.findByRole('combobox', { name: 'Device' });
    await user.click(screen.getByRole('checkbox'));
    expect(take().disabled).toBe(true);
    await user.click(screen.getByRole('combobox', { name: 'Stock' }));
    await user.click(screen.getByRole('option', { name: 'Barn Owl Rag' }));
    expect(take().disabled).toBe(true);
    await user.click(screen.getByRole('combobox', { name: 'Device' }));
    await user.click(screen.getByRole('option', { name: 'Avocet' }));
    // A device of one mode prints in that.
    expect(take().disabled).toBe(false);
  });

  it('asks for names where device and stock are new, and of what kind', async () => {
    const { user, sent } = drop({ ...FOUND, process: 'CMYK' }, { ...CHOICES, devices: [], stocks: [] });
    await screen.findByRole('combobox', { name: 'Device' });
    await user.click(screen.getByRole('checkbox'));
    const [name, stock] = screen.getAllByLabelText(/Its name/);
    await user.type(name, 'Ruff');
    await user.type(screen.getByLabelText('Ink set'), 'toner');
    await user.type(screen.getByLabelText(/Print mode/), 'coated');
    expect(take().disabled).toBe(true);
    await user.type(stock, 'Tern Silk');
    const rest = screen.getByLabelText('Rests, min');
    await user.type(rest, 'x');
    expect(take().disabled).toBe(true);
    await user.clear(rest);
    await user.type(rest, '5');
    await user.click(screen.getByRole('combobox', { name: 'Kind' }));
    await user.click(screen.getByRole('option', { name: /press/ }));
    expect(take().disabled).toBe(true);
    await user.click(screen.getByRole('combobox', { name: 'Surface' }));
    await user.click(screen.getByRole('option', { name: 'semi-matt' }));
    await user.click(take());
    await waitFor(() => expect(asked(sent.at(-1)?.path)['printMode']).toBe('coated'));
    expect(asked(sent.at(-1)?.path)).toMatchObject({
      ...{ device: 'Ruff', kind: 'press', inkSet: 'toner', stock: 'Tern Silk', finish: 'semi-matt' },
      restMinutes: '5',
    });
  });

  it('is refused in the words of the server, with nothing to choose', async () => {
    drop(new Refused(400, { title: 'The file has no device values.', detail: 'Give another.' }));
    expect((await screen.findByRole('alert')).textContent).toContain('no device values');
    expect(screen.queryByRole('combobox', { name: 'Device' })).toBeNull();
    expect(take().disabled).toBe(true);
  });
});
