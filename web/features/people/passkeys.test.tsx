import { screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { fakeServer } from '@/testing/fakeServer';
import { show } from '@/testing/show';
import { SignIn } from './ComeIn';
import { hasPasskeys } from './devicePasskeys';
import { PasskeysDialog } from './PasskeysDialog';

const bytes = (...values: number[]): ArrayBuffer => Uint8Array.from(values).buffer;
/** What a browser gives of a device. */
const device = (response: object) => ({
  ...{ id: 'AQI', rawId: bytes(1, 2), type: 'public-key', authenticatorAttachment: 'platform' },
  getClientExtensionResults: () => ({}),
  response,
});
const made = device({
  attestationObject: bytes(3),
  clientDataJSON: bytes(4),
  getTransports: () => ['internal'],
});
const proved = device({ authenticatorData: bytes(5), clientDataJSON: bytes(6), signature: bytes(7) });
const [create, get] = [vi.fn(), vi.fn()];
const OPTIONS = {
  ...{ challenge: 'YWJj', rpId: 'melto.example', rp: { id: 'melto.example', name: 'Melto' } },
  ...{ user: { id: 'MQ', name: 'Tom', displayName: 'Tom' }, pubKeyCredParams: [], excludeCredentials: [] },
};

const assign = vi.fn();
const own = window.location;
const at = (hostname: string, secure = true): void => {
  vi.stubGlobal('location', { hostname, assign });
  vi.stubGlobal('isSecureContext', secure);
};
beforeEach(() => {
  at('melto.example');
  vi.stubGlobal('PublicKeyCredential', function PublicKeyCredential() {});
  Object.defineProperty(navigator, 'credentials', { value: { create, get }, configurable: true });
});
afterEach(() => {
  vi.stubGlobal('location', own);
  assign.mockReset();
  create.mockReset();
  get.mockReset();
  vi.stubGlobal('PublicKeyCredential', undefined);
});

describe('the door', () => {
  it('opens to what the device proves', async () => {
    const { sent } = fakeServer({
      'POST /api/session/passkey/options': OPTIONS,
      'POST /api/session/passkey': {},
    });
    get.mockResolvedValue(proved);
    const { user } = show(<SignIn back="/conditions/3" />);
    await user.click(await screen.findByRole('button', { name: 'Sign in by a passkey' }));
    await waitFor(() => expect(assign).toHaveBeenCalledWith('/conditions/3'));
    const asked = get.mock.calls[0][0] as { publicKey: { challenge: ArrayBuffer; rpId: string } };
    expect(asked.publicKey.rpId).toBe('melto.example');
    expect([...new Uint8Array(asked.publicKey.challenge)]).toEqual([97, 98, 99]);
    expect(sent.at(-1)?.body).toMatchObject({ response: { id: 'AQI', response: { signature: 'Bw' } } });
  });

  it('says in words that the device gave nothing, and lets try again', async () => {
    fakeServer({ 'POST /api/session/passkey/options': OPTIONS });
    get.mockRejectedValue(new DOMException('timed out', 'NotAllowedError'));
    const { user } = show(<SignIn />);
    const act = await screen.findByRole('button', { name: 'Sign in by a passkey' });
    await user.click(act);
    expect(await screen.findByText(/The device gave no passkey/)).toBeTruthy();
    expect(act).toHaveProperty('disabled', false);
    expect(assign).not.toHaveBeenCalled();
  });

  it('has no such button where a browser has no passkeys: by a number, or not over TLS', () => {
    expect(hasPasskeys()).toBe(true);
    for (const [host, secure] of [
      ['127.0.0.1', true],
      ['[::1]', true],
      ['melto.example', false],
    ] as const) {
      at(host, secure);
      expect(hasPasskeys()).toBe(false);
    }
    show(<SignIn />);
    expect(screen.queryByRole('button', { name: 'Sign in by a passkey' })).toBeNull();
  });
});

describe('one’s own passkeys', () => {
  it('are listed, added under a name, and taken away', async () => {
    const { sent } = fakeServer({
      'GET /api/passkeys': [{ id: 4, name: 'Tablet', madeMs: 0, usedMs: null }],
      'POST /api/passkeys/options': OPTIONS,
      'POST /api/passkeys': {},
      'POST /api/passkeys/4/removed': {},
    });
    create.mockResolvedValue(made);
    const { user } = show(<PasskeysDialog onClose={() => {}} />);
    expect(await screen.findByText('Tablet')).toBeTruthy();
    const act = screen.getByRole('button', { name: 'Add one of this device' });
    expect(act).toHaveProperty('disabled', true);
    await user.type(screen.getByLabelText('Name of this device'), ' Desk machine {Enter}');
    await waitFor(() =>
      expect(
        sent.find(({ method, path }) => method === 'POST' && path === '/api/passkeys')?.body,
      ).toMatchObject({
        name: 'Desk machine',
        response: { id: 'AQI', response: { attestationObject: 'Aw' } },
      }),
    );
    await user.click(screen.getByRole('button', { name: 'Take Tablet away' }));
    await waitFor(() => expect(sent.some(({ path }) => path === '/api/passkeys/4/removed')).toBe(true));
  });

  it('are not made twice by one device, which is said', async () => {
    fakeServer({ 'GET /api/passkeys': [], 'POST /api/passkeys/options': OPTIONS });
    create.mockRejectedValue(new DOMException('known', 'InvalidStateError'));
    const { user } = show(<PasskeysDialog onClose={() => {}} />);
    await user.type(screen.getByLabelText('Name of this device'), 'Tablet{Enter}');
    expect(await screen.findByText('This device has a passkey of yours already.')).toBeTruthy();
  });
});
