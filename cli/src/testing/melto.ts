import { vi } from 'vitest';
import { melto as run } from '../melto.ts';

export interface Said {
  readonly status: number | null;
  readonly out: string;
  readonly err: string;
}

/** The command line in this process: as it is, without a start of its own. */
export async function melto(...args: string[]): Promise<Said> {
  const said = { out: '', err: '' };
  const keep = (stream: 'out' | 'err') => (text: unknown) => {
    said[stream] += String(text);
    return true;
  };
  const spies = [
    vi.spyOn(process.stdout, 'write').mockImplementation(keep('out')),
    vi.spyOn(process.stderr, 'write').mockImplementation(keep('err')),
  ];
  try {
    return { status: await run(args), ...said };
  } finally {
    for (const spy of spies) spy.mockRestore();
  }
}
