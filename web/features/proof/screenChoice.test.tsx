import { act, screen } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import { MOST_DUTY_DAYS } from '@melto/core/device/calibrationDuty';
import { show } from '@/testing/show';
import { ScreenChoice } from './ScreenChoice';
import { screenDutyFrom, useScreenProfile } from './screenDuty';

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
  const shown = (wide: boolean, monitor?: string, problem?: string) => {
    const chosen: string[] = [];
    const monitors: (string | undefined)[] = [];
    return {
      chosen,
      monitors,
      ...show(
        <ScreenChoice
          screen="srgb"
          {...{ wide, monitor, sources: [], problem }}
          onScreen={(space) => chosen.push(space)}
          onMonitor={(key) => monitors.push(key)}
          onFile={() => {}}
        />,
      ),
    };
  };

  it('goes by its own profile, with what that asks for, or by a space', async () => {
    const spaces = shown(false);
    expect(screen.queryByRole('combobox', { name: 'Profile of this screen' })).toBeNull();
    await spaces.user.click(screen.getByRole('combobox', { name: 'Screen' }));
    await spaces.user.click(screen.getByRole('option', { name: 'by its own profile' }));
    expect(spaces.monitors).toEqual(['']);
    spaces.unmount();
    const own = shown(false, '');
    expect(screen.getByRole('combobox', { name: 'Profile of this screen' })).toBeDefined();
    expect(screen.getByText(/only where neither the browser nor the system changes colours/)).toBeDefined();
    await own.user.click(screen.getByRole('combobox', { name: 'Screen' }));
    await own.user.click(screen.getByRole('option', { name: 'sRGB' }));
    expect([own.monitors, own.chosen]).toEqual([[undefined], ['srgb']]);
  });

  it('says beside the choice why a profile is none of a screen, and what is drawn then', () => {
    shown(false, 'result-3', 'Heron: found class prtr, CMYK');
    expect(screen.getByRole('alert').textContent).toContain('prtr, CMYK. The picture is drawn for sRGB.');
    // The choice is there still, to be mended.
    expect(screen.getByRole('combobox', { name: 'Profile of this screen' })).toBeDefined();
  });

  it('keeps the profile of a screen where it is there the next time', async () => {
    let choose: (key: string | undefined) => void = () => {};
    const Probe = () => {
      const [key, change] = useScreenProfile((own) => own.startsWith('kept-'));
      choose = change;
      return <p>key: {key ?? 'none'}</p>;
    };
    const once = show(<Probe />);
    act(() => choose('kept-3'));
    act(() => choose('file-own'));
    expect(screen.getByText('key: file-own')).toBeDefined();
    once.unmount();
    const again = show(<Probe />);
    expect(await screen.findByText('key: kept-3')).toBeDefined();
    act(() => choose(undefined));
    again.unmount();
    show(<Probe />);
    expect(screen.getByText('key: none')).toBeDefined();
  });

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
