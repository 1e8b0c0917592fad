import type { Coming } from '@melto/services/people/signIn';
import { addressOf } from './caller';

/** What somebody comes in by, with what the request tells of itself. */
export const coming = (body: Pick<Coming, 'name' | 'passphrase'>, headers: Headers): Coming => ({
  ...body,
  agent: headers.get('user-agent') ?? '',
  origin: { keyId: null, origin: addressOf(headers) },
});
