import { screen } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import { MOST_DUTY_DAYS } from '@melto/core/device/calibrationDuty';
import { show } from '@/testing/show';
import { ScreenChoice } from './ScreenChoice';
import { screenDutyFrom } from './screenDuty';

const DAY = 86_400_000;

describe('what a browser keeps of its screen', () => {
  it('is taken as it was written, and else as if nothing were kept', () => {
    const of = (kept: string | null) => {
      const { days, doneMs } = screenDutyFrom(kept);
      return [days, doneMs];
    };
    expect(of(JSON.stringify({ days: 14, doneMs: 5 }))).toEqual([14, 5]);
    for (const kept of [null, '', '{', '[]', '{"days":0}', '{"days":1.5,"doneMs":"x"}', 'null'])
      expect(of(kept)).toEqual([30, null]);
    expect(of(`{"days":${MOST_DUTY_DAYS}}`)[0]).toBe(MOST_DUTY_DAYS);
    expect(of(`{"days":${MOST_DUTY_DAYS + 1}}`)[0]).toBe(30);
  });
});

describe('the screen of a proof', () => {
  afterEach(() => window.localStorage.clear());
  const shown = (wide: boolean) => {
    const chosen: string[] = [];
    return {
      chosen,
      ...show(<ScreenChoice screen="srgb" wide={wide} onScreen={(space) => chosen.push(space)} />),
    };
  };

  it('is offered in Display P3 where the screen shows it, and only there', async () => {
    const narrow = shown(false);
    await narrow.user.click(screen.getByRole('combobox', { name: 'Screen' }));
    const option = () => screen.getByRole('option', { name: /Display P3/ });
    expect(option().getAttribute('aria-disabled')).toBe('true');
    narrow.unmount();
    const wide = shown(true);
    await wide.user.click(screen.getByRole('combobox', { name: 'Screen' }));
    await wide.user.click(option());
    expect(wide.chosen).toEqual(['display-p3']);
  });

  it('is due where it was never calibrated, current once it is said, and due again after its days', async () => {
    const { user, unmount } = shown(false);
    expect(screen.getByText(/When this screen was calibrated is not told/)).toBeDefined();
    await user.click(screen.getByRole('button', { name: 'Calibrated now' }));
    expect(await screen.findByText(/^Calibrated .*, due \d/)).toBeDefined();
    unmount();
    const kept = (doneMs: number) =>
      window.localStorage.setItem('melto.screen-duty', JSON.stringify({ days: 10, doneMs }));
    kept(Date.now() - 10 * DAY + 60_000);
    const before = shown(false);
    expect(await screen.findByText(/, due \d/)).toBeDefined();
    before.unmount();
    kept(Date.now() - 10 * DAY - 1);
    shown(false);
    expect(await screen.findByText(/due since/)).toBeDefined();
  });
});
