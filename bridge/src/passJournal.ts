import {
  appendFileSync,
  existsSync,
  fsyncSync,
  openSync,
  closeSync,
  readFileSync,
  renameSync,
  writeFileSync,
} from 'node:fs';
import type { Measured } from './protocol.ts';

/** Passes that wait at most; the oldest leave first. */
const MOST_WAITING = 1000;

/**
 * Passes that were measured and that no desk has said it kept. With a file they outlive the bridge: each line is a pass
 * or the id of one that was kept; a line that was cut short by a crash is left out.
 */
export class PassJournal {
  readonly #waiting = new Map<string, Measured>();
  readonly #file: string | undefined;

  constructor(file?: string) {
    this.#file = file;
    if (file === undefined) return;
    if (existsSync(file)) for (const line of readFileSync(file, 'utf8').split('\n')) this.#take(line);
    this.#trim();
    // Written anew without what was kept; renamed, so that it is whole or the old one.
    writeFileSync(
      `${file}.new`,
      [...this.#waiting.values()].map((pass) => `${JSON.stringify(pass)}\n`).join(''),
    );
    renameSync(`${file}.new`, file);
  }

  get waiting(): string[] {
    return [...this.#waiting.keys()];
  }

  find(id: string): Measured | undefined {
    return this.#waiting.get(id);
  }

  add(pass: Measured): void {
    this.#waiting.set(pass.id, pass);
    this.#trim();
    this.#write(pass);
  }

  kept(id: string): void {
    if (this.#waiting.delete(id)) this.#write({ kept: id });
  }

  #take(line: string): void {
    try {
      const said = JSON.parse(line) as Measured | { readonly kept: string };
      if ('kept' in said) this.#waiting.delete(said.kept);
      else this.#waiting.set(said.id, said);
    } catch {
      // Cut short by a crash: nothing was sent of it.
    }
  }

  #trim(): void {
    for (const id of this.#waiting.keys()) {
      if (this.#waiting.size <= MOST_WAITING) return;
      this.#waiting.delete(id);
    }
  }

  #write(said: unknown): void {
    if (this.#file === undefined) return;
    const handle = openSync(this.#file, 'a');
    try {
      appendFileSync(handle, `${JSON.stringify(said)}\n`);
      fsyncSync(handle);
    } finally {
      closeSync(handle);
    }
  }
}
