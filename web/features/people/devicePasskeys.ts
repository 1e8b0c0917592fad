import { browserSupportsWebAuthn, startAuthentication, startRegistration } from '@simplewebauthn/browser';
import type {
  PublicKeyCredentialCreationOptionsJSON,
  PublicKeyCredentialRequestOptionsJSON,
} from '@simplewebauthn/browser';
import { BEGIN_PASSKEY, BEGIN_PASSKEY_SIGN_IN, KEEP_PASSKEY, PASSKEY_SIGN_IN } from '@/endpoints/people';
import { SaidError, send } from '@/ui/api';

/** Whether this browser has passkeys for this address: over TLS or on the machine itself, and by a name. */
export function hasPasskeys(): boolean {
  const isNumber = /^[\d.]+$|^\[/.test(window.location.hostname);
  return window.isSecureContext && !isNumber && browserSupportsWebAuthn();
}

/** Has the device make a passkey, and keeps it under a name. */
export async function addPasskey(name: string): Promise<void> {
  const options = await send(BEGIN_PASSKEY, {});
  const response = await asked(() =>
    startRegistration({ optionsJSON: options as unknown as PublicKeyCredentialCreationOptionsJSON }),
  );
  await send(KEEP_PASSKEY, { body: { name, response } });
}

/** Signs in by whatever passkey of this house the device has. */
export async function comeInByPasskey(): Promise<void> {
  const options = await send(BEGIN_PASSKEY_SIGN_IN, {});
  const response = await asked(() =>
    startAuthentication({ optionsJSON: options as unknown as PublicKeyCredentialRequestOptionsJSON }),
  );
  await send(PASSKEY_SIGN_IN, { body: { response } });
}

/** What a browser says of a device that gave no answer is for programmers. */
async function asked<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    const again = (error as { readonly name?: unknown } | undefined)?.name === 'InvalidStateError';
    throw new SaidError(
      again
        ? 'This device has a passkey of yours already.'
        : 'The device gave no passkey. Nothing was changed.',
    );
  }
}
