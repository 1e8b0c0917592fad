import { join } from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Context } from '@melto/services/kernel/context';
import { cancelJob, LostLease, workJob } from '@melto/services/kernel/jobs';
import type { JobHandler } from '@melto/services/kernel/jobs';
import { claimJob, MOST_ATTEMPTS, MOST_KILLS } from '@melto/services/kernel/jobQueue';
import type { ClaimedJob } from '@melto/services/kernel/jobQueue';
import { Problem } from '@melto/services/kernel/problem';
import { openTestServices } from '@melto/services/testing/testServices';
import type { TestServices } from '@melto/services/testing/testServices';
import { Lane } from './lane.ts';
import type { LaneTimes, WorkThread } from './lane.ts';
import type { FromWorker } from './messages.ts';
import { workThread } from './workThread.ts';

const TIMES: LaneTimes = { leaseMs: 2000, heartbeatMs: 15, idleMs: 5, backOffMs: 1000, awayMs: 5 };
const LONG = { lane: 'long' } as const;
let services: TestServices;

beforeAll(async () => {
  services = await openTestServices('melto_lane');
});
afterAll(() => services.database.close());
beforeEach(() => services.database.change('DELETE FROM job'));

async function ask(kind = 'work', input: unknown = {}, lane = 'long'): Promise<number> {
  const { id } = await services.database.change(
    "INSERT INTO job (house_id, kind, lane, input, state, available_ms, author_id, made_ms) VALUES (1, ?, ?, ?, 'queued', ?, 1, 0)",
    [kind, lane, JSON.stringify(input), services.time.ms],
  );
  return id;
}

async function job(
  id: number,
): Promise<{ state: string; error: string | null; attempts: number; words: string }> {
  const [row] = await services.database.rows<{
    state: string;
    error: string | null;
    attempts: number;
    words: string;
  }>('SELECT state, error, attempts, words FROM job WHERE id = ?', [id]);
  if (row === undefined) throw new Error('no job');
  return row;
}

/** A thread whose work is told by the test. */
function fakeThread(work: (job: ClaimedJob, say: (message: FromWorker) => void) => void): {
  readonly made: { ended: number; started: number };
  readonly make: () => WorkThread;
} {
  const made = { ended: 0, started: 0 };
  return {
    made,
    make: () => ({
      start: (claimed, say) => {
        made.started++;
        work(claimed, say);
      },
      end: async () => {
        made.ended++;
      },
    }),
  };
}

const laneOf = (make: () => WorkThread, context: Context = services): Lane =>
  new Lane(context, 'long', make, TIMES);

describe('a lane', () => {
  it('does nothing where nothing waits', async () => {
    const { make, made } = fakeThread(() => {});
    expect(await laneOf(make).workNext()).toBe(false);
    expect(made.started).toBe(0);
  });

  it('tells progress while the work goes on', async () => {
    const id = await ask();
    const seen: string[] = [];
    const { make } = fakeThread((_, say) => {
      say({ kind: 'progress', fraction: 0.5, words: 'Half' });
      setTimeout(async () => {
        seen.push((await job(id)).words);
        say({ kind: 'done' });
      }, 120);
    });
    await laneOf(make).workNext();
    expect(seen).toEqual(['Half']);
  });

  it('tries again after a failure, later each time, and gives up in words', async () => {
    const id = await ask();
    const { make } = fakeThread((_, say) => say({ kind: 'failed', error: 'it broke', refused: false }));
    const lane = laneOf(make);
    const waits: number[] = [];
    for (let tries = 1; tries < MOST_ATTEMPTS; tries++) {
      await lane.workNext();
      expect((await job(id)).state).toBe('queued');
      const [row] = await services.database.rows<{ at: number }>(
        'SELECT available_ms AS at FROM job WHERE id = ?',
        [id],
      );
      waits.push((row?.at ?? 0) - services.time.ms);
      expect(await lane.workNext()).toBe(false);
      services.time.ms += waits.at(-1) ?? 0;
    }
    expect(waits).toEqual([1000, 2000, 4000]);
    await lane.workNext();
    expect(await job(id)).toMatchObject({ state: 'failed', error: 'it broke', attempts: MOST_ATTEMPTS });
  });

  it('does not try again what was refused', async () => {
    const id = await ask();
    const { make } = fakeThread((_, say) => say({ kind: 'failed', error: 'No. Mend it.', refused: true }));
    await laneOf(make).workNext();
    expect(await job(id)).toMatchObject({ state: 'failed', attempts: 1 });
  });

  it('ends the thread of a job that is cancelled, and keeps nothing', async () => {
    const id = await ask();
    const { make, made } = fakeThread(() => void cancelJob(services, id));
    await laneOf(make).workNext();
    expect(await job(id)).toMatchObject({ state: 'cancelled' });
    expect(made.ended).toBe(1);
  });

  it('ends its thread where the heartbeat fails, and the job is taken up again when its lease is over', async () => {
    const id = await ask();
    let beats = 0;
    const away: Context = {
      ...services,
      database: {
        ...services.database,
        change: (sql, values) => {
          if (sql.startsWith('UPDATE job SET fraction') && ++beats > 1)
            return Promise.reject(new Error('the database is away'));
          return services.database.change(sql, values);
        },
      },
    };
    const { make, made } = fakeThread(() => {});
    await expect(laneOf(make, away).workNext()).rejects.toThrow('away');
    expect(made.ended).toBe(1);
    expect((await job(id)).state).toBe('running');
    const again = fakeThread((_, say) => say({ kind: 'failed', error: 'x', refused: true }));
    services.time.ms += TIMES.leaseMs;
    expect(await laneOf(again.make).workNext()).toBe(false);
    services.time.ms += 1;
    expect(await laneOf(again.make).workNext()).toBe(true);
  });

  it.each(['long', 'quick'] as const)(
    'fails a %s job in words that ended its runner too often',
    async (lane) => {
      const id = await ask('work', {}, lane);
      for (let tries = 0; tries < MOST_KILLS[lane]; tries++) {
        expect((await claimJob(services.database, `t${tries}`, services.time.ms, 1000, { lane }))?.id).toBe(
          id,
        );
        services.time.ms += 1001;
      }
      expect(await claimJob(services.database, 'last', services.time.ms, 1000, { lane })).toBeUndefined();
      const ended = await job(id);
      expect(ended.state).toBe('failed');
      expect(ended.error).toContain(`begun ${lane === 'long' ? 4 : 20} times`);
    },
  );

  it('leaves its job to the next runner when it stops', async () => {
    const id = await ask();
    const { make, made } = fakeThread(() => lane.stop());
    const lane: Lane = laneOf(make);
    await lane.run();
    expect(await job(id)).toMatchObject({ state: 'queued' });
    expect(made.ended).toBe(1);
  });

  it('waits for a database that is away', async () => {
    const troubles: unknown[] = [];
    const gone = {
      ...services,
      database: { ...services.database, transaction: () => Promise.reject(new Error('gone')) },
    };
    const lane = laneOf(fakeThread(() => {}).make, gone);
    await lane.run((error) => {
      troubles.push(error);
      if (troubles.length === 3) lane.stop();
    });
    expect(troubles).toHaveLength(3);
  });

  it('takes another thread where one is killed, and tries the job again', async () => {
    const id = await ask();
    // A bundle that is not there ends at once, as a thread does that runs out of memory.
    const file = new URL(`file://${join(import.meta.dirname, 'no-such-worker.mjs')}`);
    await laneOf(() => workThread(file, { url: 'x', simulated: true })).workNext();
    expect(await job(id)).toMatchObject({ state: 'queued', attempts: 1 });
  });
});

describe('the work of a job', () => {
  const handlers = new Map<string, JobHandler>([
    ['work', async (context) => async () => void (await context.database.rows('SELECT 1'))],
    [
      'keeps',
      async () => async (inner) => {
        await inner.database.change(
          "INSERT INTO setting (house_id, name, value) VALUES (1, 'job-kept', 'x')",
        );
        return undefined;
      },
    ],
  ]);
  const kept = async (): Promise<number> =>
    (await services.database.rows("SELECT 1 FROM setting WHERE name = 'job-kept'")).length;

  it('is done for the house and person that asked', async () => {
    await ask('who');
    const claimed = await claimJob(services.database, 't', services.time.ms, 1000, LONG);
    if (claimed === undefined) throw new Error('no job');
    const acted: unknown[] = [];
    const who = new Map<string, JobHandler>([
      [
        'who',
        async ({ database }) => {
          acted.push([database.house, database.person]);
          return async () => undefined;
        },
      ],
    ]);
    await workJob(services, who, { ...claimed, house: 7, person: 9 }, () => {});
    expect(acted).toEqual([[7, 9]]);
  });

  it('keeps nothing without its lease, and nothing once it was cancelled', async () => {
    const id = await ask('keeps');
    const claimed = await claimJob(services.database, 't', services.time.ms, 1000, LONG);
    if (claimed === undefined) throw new Error('no job');
    await expect(
      workJob(services, handlers, { ...claimed, token: 'another' }, () => {}),
    ).rejects.toBeInstanceOf(LostLease);
    await cancelJob(services, id);
    await expect(workJob(services, handlers, claimed, () => {})).rejects.toBeInstanceOf(LostLease);
    expect(await kept()).toBe(0);
  });

  it('that ended before the cancel says that it was too late', async () => {
    const id = await ask('keeps');
    const claimed = await claimJob(services.database, 't', services.time.ms, 1000, LONG);
    if (claimed === undefined) throw new Error('no job');
    await workJob(services, handlers, claimed, () => {});
    expect(await kept()).toBe(1);
    const late = await cancelJob(services, id).catch((error: unknown) => error);
    expect(late).toBeInstanceOf(Problem);
    expect(late).toMatchObject({ type: 'conflict', detail: 'Its result is stored.' });
    expect((late as Problem).title).toContain('too late');
  });

  it('of an unknown kind is refused', async () => {
    await ask('nonsense');
    const claimed = await claimJob(services.database, 't', services.time.ms, 1000, LONG);
    if (claimed === undefined) throw new Error('no job');
    await expect(workJob(services, handlers, claimed, () => {})).rejects.toThrow('no job of kind nonsense');
  });
});
