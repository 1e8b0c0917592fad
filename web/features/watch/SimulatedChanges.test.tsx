import { screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { SimulatedChanges } from './SimulatedChanges';

const DAY = Date.UTC(2026, 2, 14, 9);

describe('what happens at a simulated device', () => {
  it('is chosen with its ink, where it is of an ink', async () => {
    const { sent } = fakeServer({ 'PUT /api/conditions/4/simulated-changes': {} });
    const { user } = show(<SimulatedChanges conditionId={4} changes={[]} />);
    await user.click(screen.getByText('Simulated device'));
    await user.click(screen.getByRole('combobox', { name: 'Ink' }));
    await user.click(screen.getByRole('option', { name: 'black' }));
    await user.click(screen.getByRole('button', { name: 'Let it happen now' }));
    await waitFor(() => expect(navigation.refreshed).toBe(1));
    expect(sent[0].body).toEqual({ kind: 'ink-lot', ink: 3 });
    await user.click(screen.getByRole('combobox', { name: 'What happens' }));
    await user.click(screen.getByRole('option', { name: 'a new lot of stock' }));
    expect(screen.queryByRole('combobox', { name: 'Ink' })).toBeNull();
    expect(screen.queryByRole('button', { name: 'Put it right' })).toBeNull();
  });

  it('is told in words while it lasts, and put right', async () => {
    const { sent } = fakeServer({ 'PUT /api/conditions/4/simulated-changes': {} });
    const { user } = show(
      <SimulatedChanges
        conditionId={4}
        changes={[
          { kind: 'zone', ink: 1, fromMs: DAY },
          { kind: 'instrument', ink: 0, fromMs: DAY },
        ]}
      />,
    );
    expect(
      screen.getByText(
        'one third of the width gets less of an ink (magenta) since 14 Mar; the instrument reads otherwise since 14 Mar',
      ),
    ).toBeTruthy();
    await user.click(screen.getByText('Simulated device'));
    await user.click(screen.getByRole('button', { name: 'Put it right' }));
    await waitFor(() => expect(sent.map(({ body }) => body)).toEqual([{}]));
  });

  it('says why it cannot', async () => {
    fakeServer({
      'PUT /api/conditions/4/simulated-changes': new Refused(409, {
        title: 'This device is real.',
        detail: 'Nothing can happen to it.',
      }),
    });
    const { user } = show(<SimulatedChanges conditionId={4} changes={[]} />);
    await user.click(screen.getByText('Simulated device'));
    await user.click(screen.getByRole('button', { name: 'Let it happen now' }));
    expect(await screen.findByText('This device is real. Nothing can happen to it.')).toBeTruthy();
    expect(navigation.refreshed).toBe(0);
  });
});
