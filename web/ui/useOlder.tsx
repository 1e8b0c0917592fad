import { Button } from '@mui/material';
import type { Static, TObject, TSchema } from '@sinclair/typebox';
import { useState } from 'react';
import type { ReactNode } from 'react';
import type { Endpoint } from '@/endpoints/endpoint';
import { ask, problemWords } from './api';

interface Paged<T> {
  readonly rows: readonly T[];
  readonly next: number | null;
}

/** A list that begins with the page that came with its surface, and a button for what is older. */
export function useOlder<T, P extends TObject, Q extends TObject, A extends TSchema>(
  first: Paged<T>,
  endpoint: Endpoint<P, Q, undefined, A>,
  params: Static<P>,
  /** What the list is narrowed to. */
  find = '',
): { readonly rows: readonly T[]; readonly older: ReactNode } {
  const [pages, setPages] = useState<readonly Paged<T>[]>([]);
  const [problem, setProblem] = useState<string>();
  const { next } = pages.at(-1) ?? first;
  const more = async (): Promise<void> => {
    setProblem(undefined);
    try {
      const query = { after: next, ...(find === '' ? {} : { find }) } as unknown as Static<Q>;
      const page = (await ask(endpoint, { params, query } as never)) as Paged<T>;
      setPages((before) => [...before, page]);
    } catch (error) {
      setProblem(problemWords(error));
    }
  };
  return {
    rows: [...first.rows, ...pages.flatMap(({ rows }) => rows)],
    older:
      next === null ? null : (
        <div className="row">
          <Button size="small" onClick={() => void more()}>
            Show older
          </Button>
          {problem !== undefined && (
            <p className="error" role="alert">
              {problem}
            </p>
          )}
        </div>
      ),
  };
}
