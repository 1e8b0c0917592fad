import type { Issue } from '../result.ts';

/** Thrown inside the ICC reader only; `readIcc` turns it into a failure. */
export class IccDamage extends Error {
  constructor(readonly issue: Issue) {
    super(issue.code);
  }
}

/** A big-endian cursor over a span of bytes; each read checks its bounds and names its field. */
export class ByteReader {
  #view: DataView;
  position = 0;

  /** @param base offset of the span in the file, for messages. */
  constructor(
    readonly bytes: Uint8Array,
    readonly path: string,
    readonly base = 0,
  ) {
    this.#view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  }

  get remaining(): number {
    return this.bytes.length - this.position;
  }

  #need(count: number, field: string): number {
    const at = this.position;
    if (count > this.bytes.length - at)
      throw new IccDamage({
        code: 'icc.truncated',
        path: `${this.path} ${field}`,
        offset: this.base + at,
        expected: `${count} bytes`,
        found: `${Math.max(0, this.bytes.length - at)}`,
      });
    this.position += count;
    return at;
  }

  u8(field: string): number {
    return this.#view.getUint8(this.#need(1, field));
  }
  u16(field: string): number {
    return this.#view.getUint16(this.#need(2, field));
  }
  u32(field: string): number {
    return this.#view.getUint32(this.#need(4, field));
  }
  s15Fixed16(field: string): number {
    return this.#view.getInt32(this.#need(4, field)) / 65536;
  }
  u16Fixed16(field: string): number {
    return this.#view.getUint32(this.#need(4, field)) / 65536;
  }
  signature(field: string): string {
    const at = this.#need(4, field);
    return String.fromCharCode(...this.bytes.subarray(at, at + 4));
  }
  u8Array(count: number, field: string): Uint8Array {
    const at = this.#need(count, field);
    return this.bytes.slice(at, at + count);
  }
  u16Array(count: number, field: string): Uint16Array {
    const at = this.#need(count * 2, field);
    const out = new Uint16Array(count);
    for (let i = 0; i < count; i++) out[i] = this.#view.getUint16(at + 2 * i);
    return out;
  }
  /** Bytes as Latin-1 up to the first NUL. */
  ascii(count: number, field: string): string {
    const at = this.#need(count, field);
    let text = '';
    for (let i = at; i < at + count && this.bytes[i] !== 0; i++) text += String.fromCharCode(this.bytes[i]);
    return text;
  }
  utf16(byteCount: number, field: string): string {
    const units = this.u16Array(Math.floor(byteCount / 2), field);
    let text = '';
    for (const unit of units) text += String.fromCharCode(unit);
    return text;
  }
  skip(count: number, field: string): void {
    this.#need(count, field);
  }
  seek(position: number, field: string): void {
    if (position < 0 || position > this.bytes.length)
      this.fail('icc.bad-offset', field, `an offset up to ${this.bytes.length}`, `${position}`);
    this.position = position;
  }
  fail(code: string, field: string, expected: string, found: string): never {
    throw new IccDamage({
      code,
      path: `${this.path} ${field}`,
      offset: this.base + this.position,
      expected,
      found,
    });
  }
}
