import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { Remote } from 'comlink';
import { useState } from 'react';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { NO_EDIT } from '@melto/core/proof/pictureEdit';
import type { ProofChoice } from '@melto/core/proof/softProof';
import { show } from '@/testing/show';
import type { Drawn, ProofPoint, ProofWorker, RankedProof } from '@/workers/proof.worker';
import { CopyChoices } from './CopyChoices';
import { LostColours } from './LostColours';
import { ProofChoices } from './ProofChoices';
import { ProofFoot } from './ProofFoot';
import { ProofStage } from './ProofStage';
import { RankedProofs } from './RankedProofs';
import { given } from './useProof';
import { WriteProof } from './WriteProof';

const saved = vi.hoisted(() => [] as string[]);
vi.mock('@/ui/save', async (load) => ({
  ...(await load<object>()),
  save: (name: string) => saved.push(name),
}));

// There is nothing to draw on here; what is drawn is seen end to end.
beforeAll(() => {
  HTMLCanvasElement.prototype.getContext = () => null;
});

const DRAWN: Drawn = {
  width: 400,
  height: 200,
  rgba: new Uint8ClampedArray(320_000),
  screen: 'srgb' as const,
};
const POINT: ProofPoint = {
  ...{ source: [1, 0.5, 0], device: [0, 0.5, 1, 0.25], deltaE: 4.25 },
  ...{ asked: [70, 40, 70], compared: [66, 38, 60], printed: [64.6, 37, 58] },
};

describe('the stage of a proof', () => {
  it('has a divider that keys and the pointer move, and says where the pointer is', async () => {
    const points: unknown[] = [];
    const { user, container } = show(
      <ProofStage before={DRAWN} print={<p>the print</p>} onPoint={(at) => points.push(at)} />,
    );
    const divider = screen.getByRole('slider');
    expect(divider.getAttribute('aria-valuenow')).toBe('50');
    divider.focus();
    await user.keyboard('{ArrowRight}');
    expect(divider.getAttribute('aria-valuenow')).toBe('52');
    await user.keyboard('{Home}{ArrowLeft}');
    expect(divider.getAttribute('aria-valuenow')).toBe('0');
    const pictures = container.querySelector('.proof-pictures') as HTMLElement;
    pictures.getBoundingClientRect = () => ({ left: 100, top: 50, width: 800, height: 400 }) as DOMRect;
    // Here are no events of pointers with a place.
    const point = (type: string, buttons: number): boolean =>
      fireEvent(pictures, new MouseEvent(type, { bubbles: true, clientX: 300, clientY: 150, buttons }));
    point('pointermove', 0);
    expect(points.at(-1)).toEqual({ x: 100, y: 50 });
    // Only pointing moves nothing.
    expect(divider.getAttribute('aria-valuenow')).toBe('0');
    point('pointerdown', 1);
    expect(divider.getAttribute('aria-valuenow')).toBe('25');
    fireEvent.pointerLeave(pictures);
    expect(points.at(-1)).toBeUndefined();
  });

  it('lays both side by side, and says of either where the pointer is in the picture', async () => {
    const points: unknown[] = [];
    const { user, container } = show(
      <ProofStage before={DRAWN} print={<p>the print</p>} onPoint={(at) => points.push(at)} />,
    );
    await user.click(screen.getByRole('button', { name: 'side by side' }));
    expect(screen.queryByRole('slider')).toBeNull();
    const pictures = container.querySelector('.proof-pictures') as HTMLElement;
    pictures.getBoundingClientRect = () => ({ left: 0, top: 0, width: 812, height: 200 }) as DOMRect;
    for (const clientX of [100, 406, 512])
      fireEvent(pictures, new MouseEvent('pointermove', { bubbles: true, clientX, clientY: 50 }));
    expect(points).toEqual([
      { x: 100, y: 50 },
      // Between the two there is nothing.
      undefined,
      { x: 100, y: 50 },
    ]);
  });

  it('shows both in turn, by a press or a key', async () => {
    const { user } = show(<ProofStage before={DRAWN} print={<p>the print</p>} onPoint={() => {}} />);
    const printShown = (): boolean =>
      screen.getByText('the print').parentElement?.style.visibility !== 'hidden';
    await user.click(screen.getByRole('button', { name: 'in turn' }));
    expect(printShown()).toBe(true);
    const other = screen.getByRole('button', { name: 'As it prints: show the other' });
    await user.click(other);
    expect(printShown()).toBe(false);
    expect(other.textContent).toContain('As it is meant');
    await user.keyboard(' ');
    expect(printShown()).toBe(true);
  });

  it('shows the picture alone until its print is worked out', () => {
    show(<ProofStage before={DRAWN} print={undefined} onPoint={() => {}} />);
    expect(screen.queryByRole('slider')).toBeNull();
    expect(screen.getByRole('img', { name: 'The picture as it is meant' })).toBeTruthy();
  });
});

describe('the line under a proof', () => {
  it('goes from the picture through the inks to the print', () => {
    const { container, rerender } = show(<ProofFoot point={POINT} />);
    expect(container.textContent).toContain('picture 255 128 0');
    expect(container.textContent).toContain('device C0 M50 Y100 K25');
    expect(container.textContent).toContain('print 65 37 58');
    expect(container.textContent).toContain('ΔE00 4.3');
    expect(container.textContent).toContain('ink 175 %');
    rerender(<ProofFoot point={{ ...POINT, device: [0.2, 0.4, 1] }} />);
    expect(container.textContent).toContain('device 51 102 255');
    expect(container.textContent).not.toContain('ink');
    rerender(<ProofFoot point={undefined} />);
    expect(container.textContent).toMatch(/Point at the picture/);
  });
});

describe('the choices of a proof', () => {
  it('have no black point in the absolute intent, and no ink of a device that takes light', async () => {
    const [chosen, shown] = [vi.fn(), vi.fn()];
    const choice = { intent: 'relative', blackPoint: true, paperWhite: true, inkBlack: true } as const;
    const props = { choice, overlay: 'none', onChoice: chosen, onOverlay: shown, inked: true } as const;
    const { user, rerender } = show(<ProofChoices {...props} />);
    await user.click(screen.getByRole('checkbox', { name: 'White of the paper' }));
    expect(chosen).toHaveBeenLastCalledWith({ ...choice, paperWhite: false });
    await user.click(screen.getByRole('button', { name: 'ink' }));
    expect(shown).toHaveBeenLastCalledWith('ink');
    rerender(<ProofChoices {...props} choice={{ ...choice, intent: 'absolute' }} inked={false} />);
    const black = screen.getByRole<HTMLInputElement>('checkbox', { name: 'Black point compensation' });
    expect([black.checked, black.disabled]).toEqual([false, true]);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'ink' }).disabled).toBe(true);
  });
});

describe('conditions by how near they come', () => {
  const ranked = (key: string, mean: number): RankedProof => ({
    ...{ key, width: 1, height: 1, rgba: new Uint8ClampedArray(4), screen: 'srgb' as const },
    predicted: { mean, p95: 2 * mean, largest: 9, over3: 0.25, ink: 1, lost: [] },
  });
  const sources = ['wren', 'heron'].map((key) => ({
    ...{ key, label: `${key} / rag`, group: 'Conditions' },
    bytes: () => Promise.resolve(new Uint8Array(0)),
  }));

  it('stand in their order, whatever order they came in, and are chosen by a press', async () => {
    const choose = vi.fn();
    const { user } = show(
      <RankedProofs
        ranked={[ranked('wren', 4.2), ranked('heron', 2.1)]}
        sources={sources}
        chosen="wren"
        onChoose={choose}
      />,
    );
    const buttons = screen.getAllByRole('button');
    expect(buttons.map(({ textContent }) => textContent?.slice(0, 5))).toEqual(['heron', 'wren ']);
    expect(buttons[0]?.textContent).toContain('ΔE00 2.1 mean, 4.2 95 %; 25 % over 3');
    expect(buttons.map((button) => button.getAttribute('aria-pressed'))).toEqual(['false', 'true']);
    await user.click(buttons[0] as HTMLElement);
    expect(choose).toHaveBeenCalledWith('heron');
  });
});

describe('colours that are lost', () => {
  it('are named with their share, and said to be none where there are none', () => {
    const { container, rerender } = show(
      <LostColours lost={[{ asked: [45, 20, -60], printed: [45, 10, -40], deltaE: 7.44, share: 0.021 }]} />,
    );
    expect(container.textContent).toContain('blue 7.4 ΔE00, 2 % of it');
    rerender(<LostColours lost={[]} />);
    expect(container.textContent).toBe('All of its colours come out within 1 ΔE00.');
    rerender(<LostColours lost={undefined} />);
    expect(container.textContent).toBe('');
  });
});

describe('a copy of the picture', () => {
  const CHOICE = { intent: 'relative', blackPoint: true, paperWhite: true, inkBlack: true } as const;

  it('is changed by sliders and brought back to the original', async () => {
    const told: ProofChoice[] = [];
    const Held = () => {
      const [choice, setChoice] = useState<ProofChoice>(CHOICE);
      return (
        <CopyChoices
          choice={choice}
          onChoice={(next) => {
            told.push(next);
            setChoice(next);
          }}
        />
      );
    };
    const { user } = show(<Held />);
    await user.click(screen.getByText('A copy that is changed'));
    const back = screen.getByRole('button', { name: 'Back to the original' });
    expect(back).toHaveProperty('disabled', true);
    screen.getByRole('slider', { name: 'Exposure' }).focus();
    await user.keyboard('{ArrowLeft}{ArrowLeft}');
    expect(screen.getByText('−0.2')).toBeTruthy();
    screen.getByRole('slider', { name: 'Saturation' }).focus();
    await user.keyboard('{ArrowRight}');
    expect(screen.getByText('+5')).toBeTruthy();
    await user.click(screen.getByRole('checkbox', { name: 'Bring into gamut' }));
    expect(told.at(-1)).toMatchObject({ intoGamut: true, edit: { exposure: -0.2, saturation: 0.05 } });
    await user.click(back);
    expect(told.at(-1)).toEqual({ ...CHOICE, edit: NO_EDIT, intoGamut: false });
    expect(back).toHaveProperty('disabled', true);
  });

  it('is brought into gamut by the relative colorimetric intent only', async () => {
    show(<CopyChoices choice={{ ...CHOICE, intent: 'perceptual', intoGamut: true }} onChoice={() => {}} />);
    const check = screen.getByRole('checkbox', { name: 'Bring into gamut', hidden: true });
    expect(check).toHaveProperty('disabled', true);
    expect(check).toHaveProperty('checked', false);
  });
});

describe('a written proof', () => {
  const device = {
    key: 'result-1',
    label: 'Heron / Lantern',
    group: '',
    bytes: () => Promise.resolve(new Uint8Array(1)),
  };
  const picture = { name: 'Tide at night', width: 1200, height: 744 };
  const choice: ProofChoice = { intent: 'relative', blackPoint: true, paperWhite: true, inkBlack: true };

  it('is named by picture and device, and carries what was asked; a refusal is said', async () => {
    const write = vi
      .fn()
      .mockResolvedValueOnce(new Uint8Array(3))
      .mockResolvedValueOnce('It cannot be written.');
    const take = vi.fn();
    const worker = { write, take } as unknown as Remote<ProofWorker>;
    const { user } = show(
      <WriteProof seenBy={undefined} {...{ worker, device, picture, choice }} screen={device} />,
    );
    await user.click(screen.getByRole('button', { name: 'Write a TIFF' }));
    await user.click(screen.getByRole('menuitem', { name: /values for the device/ }));
    await waitFor(() => expect(saved).toEqual(['Tide_at_night_Heron_Lantern.tif']));
    expect(write.mock.lastCall?.slice(1, 3)).toEqual(['Tide at night', 'device']);
    await user.click(await screen.findByRole('button', { name: 'Write a TIFF' }));
    await user.click(screen.getByRole('menuitem', { name: /the copy/ }));
    expect((await screen.findByRole('alert')).textContent).toBe('It cannot be written.');
    expect(saved).toHaveLength(1);
    // The profile has come once, and is known from then on.
    expect(take.mock.calls).toEqual([[{ key: 'result-1', name: 'Heron / Lantern' }, new Uint8Array(1)]]);
  });

  it('asks again for a profile that could not be fetched', async () => {
    const take = vi.fn();
    const worker = { take } as unknown as Remote<ProofWorker>;
    const bytes = vi.fn().mockRejectedValueOnce(new Error('away')).mockResolvedValueOnce(new Uint8Array(2));
    await expect(given(worker, { ...device, bytes })).rejects.toThrow('away');
    expect(take).not.toHaveBeenCalled();
    await Promise.all([given(worker, { ...device, bytes }), given(worker, { ...device, bytes })]);
    expect(take).toHaveBeenCalledTimes(1);
  });

  it('for a screen is offered only where the profile of sRGB is there', async () => {
    const worker = { write: vi.fn() } as unknown as Remote<ProofWorker>;
    const { user } = show(
      <WriteProof seenBy={undefined} {...{ worker, device, picture, choice }} screen={undefined} />,
    );
    await user.click(screen.getByRole('button', { name: 'Write a TIFF' }));
    expect(screen.getAllByRole('menuitem')).toHaveLength(2);
  });
});
