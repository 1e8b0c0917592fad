import { createHash, createSign, generateKeyPairSync, randomBytes } from 'node:crypto';
import { isoCBOR } from '@simplewebauthn/server/helpers';

const PRESENT = 1;
const VERIFIED = 4;
const NEW = 0x40;
const sha256 = (bytes: Uint8Array | string): Buffer => createHash('sha256').update(bytes).digest();

/** A device with one passkey (ES256), as an authenticator makes and proves it (WebAuthn, 6.1 and 6.5). */
export class TestDevice {
  readonly #id = randomBytes(16);
  readonly #keys = generateKeyPairSync('ec', { namedCurve: 'P-256' });
  counter = 0;

  /** @param verified whether it has looked at a finger or asked for a code. */
  constructor(private readonly verified = true) {}

  get id(): string {
    return this.#id.toString('base64url');
  }

  make(challenge: string, origin: string, host: string): Record<string, unknown> {
    const { x = '', y = '' } = this.#keys.publicKey.export({ format: 'jwk' });
    const cose = isoCBOR.encode(
      new Map<number, number | Uint8Array>([
        ...([
          [1, 2],
          [3, -7],
          [-1, 1],
        ] as const),
        [-2, new Uint8Array(Buffer.from(x, 'base64url'))],
        [-3, new Uint8Array(Buffer.from(y, 'base64url'))],
      ]),
    );
    const length = Buffer.alloc(2);
    length.writeUInt16BE(this.#id.length);
    const authData = Buffer.concat([this.#head(host, NEW), Buffer.alloc(16), length, this.#id, cose]);
    const attestation = isoCBOR.encode(
      new Map<string, unknown>([
        ['fmt', 'none'],
        ['attStmt', new Map()],
        ['authData', new Uint8Array(authData)],
      ]) as never,
    );
    return this.#answer({
      clientDataJSON: told('webauthn.create', challenge, origin).toString('base64url'),
      attestationObject: Buffer.from(attestation).toString('base64url'),
      transports: ['internal'],
    });
  }

  prove(challenge: string, origin: string, host: string): Record<string, unknown> {
    this.counter++;
    const client = told('webauthn.get', challenge, origin);
    const authData = this.#head(host, 0);
    const signed = createSign('sha256').update(Buffer.concat([authData, sha256(client)]));
    return this.#answer({
      clientDataJSON: client.toString('base64url'),
      authenticatorData: authData.toString('base64url'),
      signature: signed.sign(this.#keys.privateKey).toString('base64url'),
    });
  }

  #head(host: string, more: number): Buffer {
    const counter = Buffer.alloc(4);
    counter.writeUInt32BE(this.counter);
    return Buffer.concat([sha256(host), Buffer.of(PRESENT | (this.verified ? VERIFIED : 0) | more), counter]);
  }

  #answer(response: Record<string, unknown>): Record<string, unknown> {
    return { id: this.id, rawId: this.id, type: 'public-key', clientExtensionResults: {}, response };
  }
}

const told = (type: string, challenge: string, origin: string): Buffer =>
  Buffer.from(JSON.stringify({ type, challenge, origin, crossOrigin: false }));
