import type { ReadMessage } from '@melto/bridge/protocol';
import type { Measured } from '@melto/bridge/protocol';

/** A pass that was asked for and is not stored yet: a page that is loaded again goes on with it. */
export interface KeptPass {
  readonly code: string;
  readonly strip: number;
  /** Id of the instrument in the house. */
  readonly instrument: number;
  readonly request: Omit<ReadMessage, 'type'>;
  /** Passes of this strip that it is averaged with, and whether more follow. */
  readonly averageWith: readonly string[];
  readonly more: boolean;
  /** What was measured; undefined while the instrument has not answered. */
  readonly measured?: Pick<Measured, 'startNm' | 'stepNm' | 'spectra'>;
}

const keyOf = (code: string): string => `melto-pass-${code}`;

/** Keeps the pass of a sheet in this tab until it is stored; undefined forgets it. */
export function keepPass(code: string, pass: KeptPass | undefined): void {
  try {
    if (pass === undefined) sessionStorage.removeItem(keyOf(code));
    else sessionStorage.setItem(keyOf(code), JSON.stringify(pass));
  } catch {
    // Without storage it is kept as long as the page is.
  }
}

export function keptPass(code: string): KeptPass | undefined {
  try {
    const text = sessionStorage.getItem(keyOf(code));
    return text === null ? undefined : (JSON.parse(text) as KeptPass);
  } catch {
    return undefined;
  }
}
