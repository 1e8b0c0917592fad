import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { Problem } from '@melto/services/kernel/problem';
import { readThread } from './threads';

let folder = '';
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'melto-threads-'));
});
afterAll(() => rmSync(folder, { recursive: true }));

/** A reader that does what a file makes it do. */
function reader(does: string, ms = 700) {
  const file = join(folder, `${does.length}.mjs`);
  writeFileSync(file, `export function readUpload(task) { ${does} }`);
  return readThread(file, { ms, megabytes: 64 });
}
const task = { kind: 'measurement', file: 'x', answers: {} } as const;

it('a file that takes too long, or too much, is refused, and the next one is read', async () => {
  const does = `if (task.file === 'long') for (;;);
     if (task.file === 'much') { const all = []; for (;;) all.push(new Array(1e5).fill(Math.random())); }
     if (task.file === 'broken') throw new Error('a mistake');
     return { ok: true, value: task.file };`;
  const read = reader(does);
  // On a machine that is busy with other tests it takes a while to be too much.
  const patient = reader(does, 120_000);
  const of = (file: string) => read({ ...task, file });
  expect(await of('plain')).toEqual({ ok: true, value: 'plain' });
  const long = of('long');
  await expect(long).rejects.toThrow(Problem);
  await expect(long).rejects.toThrow('longer than 0.7 s');
  await expect(patient({ ...task, file: 'much' })).rejects.toThrow('more than 64 MB');
  const broken = of('broken');
  await expect(broken).rejects.toThrow('a mistake');
  await expect(broken).rejects.not.toBeInstanceOf(Problem);
  expect(await of('plain')).toEqual({ ok: true, value: 'plain' });
});
