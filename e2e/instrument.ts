import { randomUUID } from 'node:crypto';
import { expect } from '@playwright/test';
import type { APIRequestContext } from '@playwright/test';
import WebSocket from 'ws';
import { BridgeClient } from '@melto/bridge/bridgeClient';
import type { Socket } from '@melto/bridge/bridgeClient';

interface House {
  readonly bridge: string;
  readonly offsetMs: number;
}

export async function post<T>(request: APIRequestContext, path: string, data: unknown): Promise<T> {
  const response = await request.post(path, { data, headers: { 'idempotency-key': randomUUID() } });
  expect(response.ok(), await response.text()).toBe(true);
  return (await response.json()) as T;
}

export const get = async <T>(request: APIRequestContext, path: string): Promise<T> =>
  (await (await request.get(path)).json()) as T;

/** The simulated strip reader, known to the house; its id. */
async function stripReader(request: APIRequestContext): Promise<number> {
  const { id } = await post<{ id: number }>(request, '/api/instruments', {
    ...{ serial: 'strip-reader-2', name: 'Strip reader 2', kind: 'strip', modes: ['M0', 'M1', 'M2'] },
    ...{ tileLifeMs: 7_200_000, simulated: true },
  });
  return id;
}

/** Reads the white tile of the simulated strip reader. */
export async function readTile(request: APIRequestContext): Promise<void> {
  await post(request, `/api/instruments/${await stripReader(request)}/tile`, {});
}

/** Reads the first `count` strips of a sheet, as a program at the bridge does it. */
export async function readStrips(
  request: APIRequestContext,
  sheet: string,
  { count = Infinity, mode = 'M1' }: { readonly count?: number; readonly mode?: 'M1' | 'M2' } = {},
): Promise<void> {
  const { bridge, offsetMs } = await get<House>(request, '/api/house');
  const instrument = await stripReader(request);
  const { strips } = await get<{ strips: { strip: number; expected: string[] }[] }>(
    request,
    `/api/sheets/${sheet}`,
  );
  const client = new BridgeClient(() => new WebSocket(bridge) as unknown as Socket, 'end to end');
  for (const { strip, expected } of strips.slice(0, count)) {
    const { under } = await get<{ under: string }>(
      request,
      `/api/sheets/${sheet}/under?strip=${strip}&instrument=${instrument}`,
    );
    const attempt = randomUUID();
    const outcome = await client.read({
      ...{ id: attempt, instrument: 'strip-reader-2', mode, patches: expected.length, strip, under },
      at: Date.now() + offsetMs,
    });
    if (!outcome.ok) throw new Error(`strip ${strip}: ${outcome.reason}`);
    const { startNm, stepNm, spectra } = outcome.measured;
    await post(request, `/api/sheets/${sheet}/passes`, {
      ...{ attempt, strip, mode, instrument, startNm, stepNm, spectra },
    });
    client.kept(attempt);
  }
  client.close();
}
