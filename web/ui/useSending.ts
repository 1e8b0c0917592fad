import { useState } from 'react';
import { problemWords } from './api';

/** Sends one change at a time and keeps what went wrong, in words, until the next one. */
export function useSending(): {
  readonly sending: boolean;
  readonly problem: string | undefined;
  readonly setProblem: (words: string | undefined) => void;
  readonly run: (work: () => Promise<unknown>) => Promise<void>;
} {
  const [sending, setSending] = useState(false);
  const [problem, setProblem] = useState<string>();
  const run = async (work: () => Promise<unknown>): Promise<void> => {
    if (sending) return;
    setSending(true);
    setProblem(undefined);
    try {
      await work();
    } catch (error) {
      setProblem(problemWords(error));
    }
    setSending(false);
  };
  return { sending, problem, setProblem, run };
}
