/** A growing big-endian byte buffer. */
export class ByteWriter {
  #bytes = new Uint8Array(1024);
  #view = new DataView(this.#bytes.buffer);
  length = 0;

  #room(count: number): number {
    const at = this.length;
    const needed = at + count;
    if (needed > this.#bytes.length) {
      const grown = new Uint8Array(Math.max(needed, this.#bytes.length * 2));
      grown.set(this.#bytes);
      this.#bytes = grown;
      this.#view = new DataView(grown.buffer);
    }
    this.length = needed;
    return at;
  }

  u8(value: number): void {
    const at = this.#room(1);
    this.#view.setUint8(at, value);
  }
  u16(value: number): void {
    const at = this.#room(2);
    this.#view.setUint16(at, value);
  }
  u32(value: number): void {
    const at = this.#room(4);
    this.#view.setUint32(at, value);
  }
  s15Fixed16(value: number): void {
    const at = this.#room(4);
    this.#view.setInt32(at, Math.round(value * 65536));
  }
  /** Four characters, padded with spaces. */
  signature(text: string): void {
    this.ascii(text.padEnd(4), 4);
  }
  /** Latin-1, cut or padded with NUL to `count` bytes. */
  ascii(text: string, count: number): void {
    const at = this.#room(count);
    for (let i = 0; i < count; i++) this.#bytes[at + i] = i < text.length ? latin1(text.charCodeAt(i)) : 0;
  }
  utf16(text: string): void {
    for (let i = 0; i < text.length; i++) this.u16(text.charCodeAt(i));
  }
  raw(values: Uint8Array): void {
    const at = this.#room(values.length);
    this.#bytes.set(values, at);
  }
  u16Array(values: ArrayLike<number>): void {
    const at = this.#room(values.length * 2);
    for (let i = 0; i < values.length; i++) this.#view.setUint16(at + 2 * i, values[i]);
  }
  align(): void {
    while (this.length % 4 !== 0) this.u8(0);
  }
  setU32(position: number, value: number): void {
    this.#view.setUint32(position, value);
  }
  toBytes(): Uint8Array {
    return this.#bytes.slice(0, this.length);
  }
}

function latin1(code: number): number {
  return code < 256 ? code : 0x3f;
}
