import { describe, expect, it } from 'vitest';
import { OutcomeUnknown } from '@melto/store/database';
import { fileResponse, jsonResponse, problemResponse } from './respond';

describe('a file that is shown in place', () => {
  const report = { name: 'check 7.html', mediaType: 'text/html', content: new TextEncoder().encode('<p>') };

  it('runs and loads nothing, and shows the pictures that it holds itself, such as the house’s logo', () => {
    const { headers } = fileResponse(report, true);
    const rules = new Map(
      (headers.get('content-security-policy') ?? '').split('; ').map((rule) => {
        const [name, ...sources] = rule.split(' ');
        return [name, sources.join(' ')] as const;
      }),
    );
    expect(rules.get('default-src')).toBe("'none'");
    expect(rules.get('img-src')).toBe('data:');
    expect(rules.has('script-src')).toBe(false);
    expect(rules.has('sandbox')).toBe(true);
    expect(rules.get('frame-ancestors')).toBe("'none'");
    expect(headers.get('x-content-type-options')).toBe('nosniff');
  });

  it('has a plain name, and is saved where it is not to be shown', () => {
    expect(fileResponse(report, true).headers.get('content-disposition')).toBe(
      'inline; filename="check_7.html"',
    );
    expect(fileResponse(report).headers.get('content-disposition')).toContain('attachment');
  });
});

describe('an answer as JSON', () => {
  it('keeps null apart from nothing', async () => {
    expect(await jsonResponse(null).text()).toBe('null');
    expect(await jsonResponse(undefined).text()).toBe('{}');
    expect(await jsonResponse([]).text()).toBe('[]');
  });
});

describe('a database that fails', () => {
  const told = async (error: unknown): Promise<[number, string]> => {
    const answer = problemResponse(error);
    return [answer.status, ((await answer.json()) as { detail: string }).detail];
  };

  it('is said to have changed nothing where it did not answer, and not where it was lost at the end', async () => {
    const lost = Object.assign(new Error('gone'), { code: 'ECONNREFUSED' });
    expect(await told(lost)).toEqual([503, expect.stringContaining('Nothing was changed')]);
    expect(await told(new OutcomeUnknown(lost))).toEqual([503, expect.stringContaining('not known')]);
    expect((await told(new Error('ours')))[0]).toBe(500);
  });
});
