'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { createContext, useContext, useEffect, useRef, useState } from 'react';
import type { JobRow } from '@melto/services/kernel/jobs';

const CHANNEL = 'melto-jobs';

/** The jobs of the page's one stream. */
export const JobsContext = createContext<readonly JobRow[]>([]);

/** Background work, live. */
export function useJobs(): readonly JobRow[] {
  return useContext(JobsContext);
}

/**
 * Called once, by the frame. One page of the browser holds the stream of server-sent events and tells the others; when
 * it closes, the next one takes the stream over. A job that ends refreshes what is shown.
 */
export function useJobStream(): readonly JobRow[] {
  const [jobs, setJobs] = useState<readonly JobRow[]>([]);
  const router = useRouter();
  const queries = useQueryClient();
  const states = useRef(new Map<number, string>());
  useEffect(() => {
    const channel = new BroadcastChannel(CHANNEL);
    const take = (text: string): void => {
      const next = JSON.parse(text) as JobRow[];
      const ended = next.some(
        (job) => job.finishedMs !== null && (states.current.get(job.id) ?? 'ended') !== 'ended',
      );
      states.current = new Map(next.map((job) => [job.id, job.finishedMs === null ? 'open' : 'ended']));
      setJobs(next);
      if (ended) {
        router.refresh();
        void queries.invalidateQueries();
      }
    };
    channel.onmessage = (event: MessageEvent<string>) => take(event.data);
    const leave = new AbortController();
    let source: EventSource | undefined;
    const listen = (): void => {
      source = new EventSource('/api/jobs/stream');
      source.onmessage = (event: MessageEvent<string>) => {
        take(event.data);
        channel.postMessage(event.data);
      };
    };
    // Over plain HTTP from another machine browsers have no locks: there each page holds a stream of its own.
    if (navigator.locks === undefined) listen();
    else
      void navigator.locks
        .request(CHANNEL, { signal: leave.signal }, () => {
          listen();
          return new Promise<void>((resolve) => leave.signal.addEventListener('abort', () => resolve()));
        })
        .catch(() => undefined); // left before the stream was ours
    return () => {
      leave.abort();
      source?.close();
      channel.close();
    };
  }, [router, queries]);
  return jobs;
}
