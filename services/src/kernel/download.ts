/** A file that is handed out. */
export interface Download {
  readonly name: string;
  readonly mediaType: string;
  readonly content: Uint8Array;
}

/** A name that every system takes: letters, figures and hyphens. */
export function fileName(words: string): string {
  return words.replace(/[^A-Za-z0-9]+/g, '_').replace(/^_+|_+$/g, '');
}
