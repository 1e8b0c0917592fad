'use client';

import { wrap } from 'comlink';
import type { Remote } from 'comlink';
import { useEffect, useState } from 'react';

/** What a worker offers, for as long as the surface is open; undefined before it is there. */
export function useRemoteWorker<Api>(start: () => Worker): Remote<Api> | undefined {
  const [remote, setRemote] = useState<{ readonly api: Remote<Api> }>();
  useEffect(() => {
    const worker = start();
    setRemote({ api: wrap<Api>(worker) });
    return () => {
      setRemote(undefined);
      worker.terminate();
    };
  }, [start]);
  return remote?.api;
}
