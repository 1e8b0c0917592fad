import { Problem } from '../kernel/problem.ts';

/** The problem that some work is refused with; throws where it is not refused. */
export async function refusal(work: Promise<unknown>): Promise<Problem> {
  const error = await work.then(
    () => undefined,
    (reason: unknown) => reason,
  );
  if (error instanceof Problem) return error;
  throw new Error(`no refusal: ${String(error)}`);
}
