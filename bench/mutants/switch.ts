// The switch that woven sources ask, and the note of which mutants a test file came by.
import { mkdirSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { afterAll, expect, inject } from 'vitest';

declare module 'vitest' {
  interface ProvidedContext {
    mutantOn: number;
    mutantNotes: string;
  }
}

const on = inject('mutantOn');
const met = new Set<number>();
Object.assign(globalThis, {
  __mutants: {
    isOn(id: number): boolean {
      if (on === 0) met.add(id);
      return id === on;
    },
  },
});

afterAll(() => {
  if (on !== 0) return;
  const path = expect.getState().testPath ?? '';
  const folder = inject('mutantNotes');
  mkdirSync(folder, { recursive: true });
  writeFileSync(
    join(folder, `${basename(path)}-${String(Date.now())}.json`),
    JSON.stringify({ path, met: [...met] }),
  );
});
