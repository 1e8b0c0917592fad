import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { GivenProfile } from '@melto/services/profile/givenProfile';
import { fakeServer, Refused } from '@/testing/fakeServer';
import { navigation } from '@/testing/navigation';
import { show } from '@/testing/show';
import { GivenProfileReport, TakeProfile } from './GivenProfile';

const FOUND: GivenProfile = {
  ...{ fileName: 'maker.icc', name: 'Maker Gloss', version: '2.1', bytes: 700_000, made: '2024-03-02' },
  ...{ ramps: [], outline: [], warnings: ['Its paper is 4.1 ΔE00 from the one measured.'], greys: [] },
  ...{
    intents: ['perceptual'],
    white: [95.1, 0.4, -2.2],
    black: [12, 0, 0],
    cast: 0.8,
    totalInk: 2.84,
    fit: null,
  },
};
const PREVIEW = 'POST /api/conditions/4/given-profiles/preview';
const TAKE = 'POST /api/conditions/4/given-profiles';

async function given(answers: Record<string, unknown>) {
  const server = fakeServer(answers);
  const shown = show(<TakeProfile conditionId={4} />);
  await shown.user.upload(screen.getByLabelText('Take one from elsewhere'), new File(['x'], 'maker.icc'));
  return { ...shown, ...server };
}

describe('a profile from elsewhere', () => {
  it('is shown with what speaks against it, and taken with its origin', async () => {
    const { user, sent } = await given({ [PREVIEW]: FOUND, [TAKE]: { id: 31 } });
    expect(await screen.findByText('Maker Gloss')).toBeTruthy();
    expect(screen.getByText('95.1 0.4 −2.2')).toBeTruthy();
    expect(screen.getByText('284 %')).toBeTruthy();
    expect(screen.getByText(/Its paper is 4.1/)).toBeTruthy();
    const take = screen.getByRole<HTMLButtonElement>('button', { name: 'Take it and put it in force' });
    expect(take.disabled).toBe(true);
    await user.type(screen.getByLabelText('Where it is from'), 'the paper seller');
    await user.click(take);
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    const { path } = sent.at(-1) ?? { path: '' };
    expect(Object.fromEntries(new URLSearchParams(path.split('?')[1]))).toEqual({
      name: 'maker.icc',
      origin: 'the paper seller',
    });
    expect(navigation.went).toEqual(['/conditions/4/profile']);
  });

  it('that cannot be used says why; nothing can be taken', async () => {
    const refusal = new Refused(400, { title: 'maker.icc is for RGB.', detail: 'Nothing was stored.' });
    const { user } = await given({ [PREVIEW]: refusal });
    const dialog = await screen.findByRole('dialog');
    expect((await within(dialog).findByRole('alert')).textContent).toBe(
      'maker.icc is for RGB. Nothing was stored.',
    );
    await user.type(screen.getByLabelText('Where it is from'), 'x');
    expect(screen.getByRole<HTMLButtonElement>('button', { name: /Take it/ }).disabled).toBe(true);
    await user.click(screen.getByRole('button', { name: 'Not now' }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  });

  it('tells among the versions where it is from and how it differs', () => {
    const { ramps, outline, warnings, name, version, bytes, ...detail } = FOUND;
    const summary = { ramps, outline, warnings, name, version, bytes, origin: 'the paper seller' };
    const difference = { count: 1, mean: 1.234, median: 1, p95: 3.456, largest: 7.89 };
    const figures = { white: [95, 0, 0], black: [10, 0, 0], cast: 0 };
    const compared = { version: 2, before: figures, after: figures, difference };
    show(<GivenProfileReport summary={summary} detail={{ ...detail, compared }} />);
    expect(screen.getByText('the paper seller')).toBeTruthy();
    expect(
      screen.getByText(/other colours than v2: mean 1.23 ΔE00, 95 % under 3.46, largest 7.9/),
    ).toBeTruthy();
  });
});
