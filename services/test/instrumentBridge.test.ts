import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build } from 'esbuild';
import WebSocket from 'ws';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BridgeClient } from '@melto/bridge/bridgeClient';
import type { Socket } from '@melto/bridge/bridgeClient';
import { createRandom } from '@melto/core/numerics/random';
import { SIMULATED_INSTRUMENTS } from '@melto/simulator/instruments/simulatedInstruments';
import { decodeUnder } from '@melto/simulator/instruments/underInstrument';
import { listStrips } from '@melto/store/strips';
import { createPressChart } from '../src/calibration/pressCharts.ts';
import { printChart } from '../src/charts/printChart.ts';
import { createCondition } from '../src/house/newCondition.ts';
import { createDevice, createStock } from '../src/house/ownDevices.ts';
import { domainNow } from '../src/kernel/clock.ts';
import { createChart } from '../src/profile/profilingChart.ts';
import { instrumentAgreements } from '../src/reading/agreement.ts';
import { deskState } from '../src/reading/desk.ts';
import { changeInstrument, instruments, knowInstrument, tileRead } from '../src/reading/instruments.ts';
import type { InstrumentRow } from '../src/reading/instruments.ts';
import { storePass } from '../src/reading/storePass.ts';
import type { PassInput } from '../src/reading/storePass.ts';
import { underInstrument } from '../src/reading/underInstrument.ts';
import { advanceClock } from '../src/simulated/advanceClock.ts';
import { calibrateTile } from '../src/simulated/simulatedHand.ts';
import { heronOn, HOUR, TICKS } from '../src/testing/heron.ts';
import { refusal } from '../src/testing/refusal.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';

const ROOT = join(import.meta.dirname, '../..');

let services: TestServices;
let ramps = 0;

const TOLD: Parameters<typeof knowInstrument>[1] = {
  ...{ serial: 'A-100', name: 'Lodestar', kind: 'strip', modes: ['M0', 'M1'], tileLifeMs: 7_200_000 },
  ...{ apertureMm: 4.5, filter: '', backing: 'black', simulated: false },
};

beforeAll(async () => {
  services = await openTestServices('melto_bridge');
  const condition = await heronOn(services, 'Lantern Gloss 150');
  const chart = {
    kind: 'ramps',
    paper: 'a4',
    reader: 'strip',
    steps: 21,
    copies: 2,
    order: 'scrambled',
  } as const;
  ramps = (await createPressChart(services, condition, chart)).id;
});
afterAll(() => services.database.close());

async function printed(): Promise<string> {
  const { sheets } = await printChart(services, ramps, { ticks: TICKS });
  await advanceClock(services, 3 * HOUR);
  await calibrateTile(services, sheets[0]);
  return sheets[0];
}

const pass = (instrument: number, patches: number, change: Partial<PassInput> = {}): PassInput => ({
  ...{ attempt: 'a', strip: 1, mode: 'M1', instrument, startNm: 380, stepNm: 10 },
  spectra: Array.from({ length: patches }, () => Array.from({ length: 36 }, () => 0.5)),
  ...change,
});

describe('an instrument', () => {
  it('is one by its serial number, however often and by how many desks at once it is met', async () => {
    const met = await Promise.all(Array.from({ length: 16 }, () => knowInstrument(services, TOLD)));
    expect(new Set(met.map(({ id }) => id)).size).toBe(1);
    // Another of the same make is told apart by its number.
    const twin = await knowInstrument(services, { ...TOLD, serial: 'A-101' });
    expect(twin.name).toBe('Lodestar A-101');
    expect(twin.id).not.toBe(met[0].id);
  });

  it('keeps the name that the house gave it, and what it can do as it was told last', async () => {
    const { id } = await knowInstrument(services, { ...TOLD, serial: 'A-102', name: 'Third' });
    await changeInstrument(services, id, { name: 'By the window', note: 'recertified in May' });
    const again = await knowInstrument(services, {
      ...TOLD,
      serial: 'A-102',
      name: 'Third',
      modes: ['M0', 'M1', 'M2'],
    });
    expect(again).toMatchObject({
      id,
      name: 'By the window',
      note: 'recertified in May',
      modes: ['M0', 'M1', 'M2'],
    });
    expect((await refusal(changeInstrument(services, id, { name: 'Lodestar', note: '' }))).field).toBe(
      'name',
    );
    expect((await refusal(changeInstrument(services, id, { name: '  ', note: '' }))).field).toBe('name');
    expect((await refusal(changeInstrument(services, 999, { name: 'x', note: '' }))).title).toContain('999');
    const { tileMs } = await tileRead(services, id);
    expect((await instruments(services)).find((one) => one.id === id)?.tileMs).toBe(tileMs);
  });
});

describe('a pass', () => {
  let code = '';
  let patches = 0;
  let reader: InstrumentRow;
  beforeAll(async () => {
    code = await printed();
    patches = (await deskState(services, code)).strips[0].expected.length;
    reader = await knowInstrument(services, { ...TOLD, serial: 'A-200', name: 'Reader of passes' });
  });
  const refused = (change: Partial<PassInput>): ReturnType<typeof refusal> =>
    refusal(storePass(services, code, pass(reader.id, patches, change)));

  it('is refused where it does not fit the strip, the instrument or the colours', async () => {
    const rows = pass(reader.id, patches).spectra;
    expect((await refused({ spectra: rows.slice(1) })).title).toContain(`gave ${patches - 1} patches`);
    expect((await refused({ spectra: [...rows.slice(1), rows[0].slice(1)] })).field).toBe('spectra');
    expect((await refused({ mode: 'M2' })).field).toBe('mode');
    expect((await refused({ strip: 99 })).field).toBe('strip');
    expect((await refused({ instrument: 999 })).title).toContain('instrument 999');
    const bands = (count: number): number[][] => rows.map(() => Array.from({ length: count }, () => 0.5));
    // 400 to 700 nm in steps of 20 nm is the least.
    for (const [startNm, stepNm, count] of [
      [401, 10, 35],
      [400, 10, 30],
      [380, 21, 20],
    ])
      expect((await refused({ startNm, stepNm, spectra: bands(count) })).title).toContain(
        'not enough for colours',
      );
    expect((await deskState(services, code)).readingId).toBeNull();
  });

  it('of the least range is taken, and is a strip of another place where its colours say so', async () => {
    const grey = pass(reader.id, patches, { startNm: 400, stepNm: 20 });
    const answer = await storePass(services, code, {
      ...grey,
      spectra: grey.spectra.map(() => Array.from({ length: 16 }, () => 0.5)),
    });
    // Grey throughout is no strip of ramps: it is taken as it lies, or told apart, but never refused for its range.
    expect(answer.ok || answer.reason === 'other-strip').toBe(true);
  });

  it('of a simulated instrument is told what lies under it, as the sheet was printed', async () => {
    const { under } = await underInstrument(services, code, { strip: 2, instrument: reader.id });
    expect(decodeUnder(under)).toMatchObject({ patches: { strip: 2, page: 1 } });
    expect(decodeUnder(under).tileMs).toBeUndefined();
    const { tileMs } = await tileRead(services, reader.id);
    const again = await underInstrument(services, code, { strip: 2, instrument: reader.id });
    expect(decodeUnder(again.under).tileMs).toBe(tileMs);
    expect((await refusal(underInstrument(services, code, { strip: 2, instrument: 999 }))).title).toContain(
      '999',
    );
    // One patch alone, for a single colour.
    const one = await underInstrument(services, code, { strip: 2, patch: 3, instrument: reader.id });
    expect(decodeUnder(one.under).patches.device).toEqual(decodeUnder(under).patches.device.slice(8, 12));
    const beyond = decodeUnder(under).patches.device.length / 4 + 1;
    const none = underInstrument(services, code, { strip: 2, patch: beyond, instrument: reader.id });
    expect((await refusal(none)).field).toBe('patch');
    expect((await refusal(underInstrument(services, code, { strip: 0, instrument: reader.id }))).field).toBe(
      'strip',
    );
  });
});

it('a sheet of a real device is read by real instruments only, in a house that has simulated ones too', async () => {
  const inkSet = 'pigment';
  const { id: deviceId } = await createDevice(services, {
    ...{ name: 'Avocet', kind: 'rgb-driver', inkSet, modes: ['fine'] },
  });
  const { id: stockId } = await createStock(services, {
    name: 'Barn Owl Rag',
    finish: 'matt',
    restMinutes: 0,
  });
  const points = [{ label: 'Colour management off', value: 'off', tickAtPrint: true }];
  const { id } = await createCondition(services, { deviceId, stockId, inkSet, mode: 'fine', points });
  const chart = await createChart(services, id, { patches: 100, paper: 'a4' });
  const { sheets } = await printChart(services, chart.id, { ticks: ['Colour management off'] });
  const state = await deskState(services, sheets[0]);
  expect(state.simulated).toBe(false);
  await calibrateTile(services);
  const [hand] = (await instruments(services)).filter(({ simulated }) => simulated);
  const real = await knowInstrument(services, { ...TOLD, serial: 'A-400', name: 'Real' });
  const patches = state.strips[0].expected.length;
  expect((await refusal(storePass(services, sheets[0], pass(hand.id, patches)))).title).toContain(
    'printed at a real device',
  );
  expect(
    (await refusal(underInstrument(services, sheets[0], { strip: 1, instrument: hand.id }))).title,
  ).toContain('printed at a real device');
  const answer = await storePass(services, sheets[0], pass(real.id, patches));
  expect(answer.ok || answer.reason === 'other-strip').toBe(true);
});

describe('two instruments on one sheet', () => {
  it('make two readings, agree in figures, and never mix strips', async () => {
    const code = await printed();
    const { strips } = await deskState(services, code);
    const steady = SIMULATED_INSTRUMENTS[0];
    const pair = (serial: string): Promise<InstrumentRow> =>
      knowInstrument(services, { ...TOLD, serial, name: `Pair ${serial}` });
    // One after the other: the earlier one is the first of the two.
    const first = await pair('A-300');
    const second = await pair('A-301');
    const at = await domainNow(services);
    const read = async (instrument: InstrumentRow, strip: number, share: number): Promise<void> => {
      const { under } = await underInstrument(services, code, { strip, instrument: instrument.id });
      const asked = { ...decodeUnder(under), mode: 'M1', attempt: 'same', timeMs: at, tileMs: at } as const;
      const came = steady.readStrip(asked);
      if (!came.ok) throw new Error(came.failure);
      const rows = Array.from({ length: came.spectra.length / 36 }, (_, patch) =>
        Array.from(came.spectra.subarray(36 * patch, 36 * patch + 36), (value) => share * value),
      );
      const answer = await storePass(services, code, {
        ...pass(instrument.id, rows.length, { strip, attempt: `${instrument.serial} ${strip}` }),
        spectra: rows,
      });
      expect(answer.ok).toBe(true);
    };
    await read(first, 1, 1);
    await read(second, 1, 0.98);
    expect((await deskState(services, code)).readBy?.serial).toBe('A-301');
    const mine = async (): Promise<Awaited<ReturnType<typeof instrumentAgreements>>> =>
      (await instrumentAgreements(services)).filter(({ ids }) => ids.includes(first.id));
    expect(await mine()).toEqual([]);
    for (const { strip } of strips.slice(1)) {
      await read(first, strip, 1);
      await read(second, strip, 0.98);
    }
    const [agreement, ...others] = await mine();
    expect(others).toEqual([]);
    expect(agreement).toMatchObject({
      ...{ instruments: ['Pair A-300', 'Pair A-301'], mode: 'M1', ids: [first.id, second.id] },
      patches: strips.reduce((sum, { expected }) => sum + expected.length, 0),
    });
    // Two per cent less light is about 0.8 L* less on paper and nothing on black.
    expect(agreement.shift[0]).toBeLessThan(-0.3);
    expect(agreement.shift[0]).toBeGreaterThan(-0.8);
    expect(agreement.largest).toBeLessThan(0.8);
    expect(agreement.mean).toBeGreaterThan(0.2);
    expect(agreement.mean).toBeLessThan(agreement.p95);
  });
});

describe('a bridge that is killed', () => {
  let bridge: ChildProcess | undefined;
  const folder = mkdtempSync(join(tmpdir(), 'melto-bridge-'));
  const PORT = 3479;
  const program = join(ROOT, 'var/cache/test/instruments.mjs');
  // As one file, so that it is back in no time.
  beforeAll(() =>
    build({
      ...{ entryPoints: [join(ROOT, 'bridge/src/simulated/main.ts')], outfile: program, bundle: true },
      ...{ platform: 'node', format: 'esm', external: ['ws'], logLevel: 'warning' },
    }),
  );
  const start = (): void => {
    bridge = spawn(process.execPath, [program], {
      env: {
        ...process.env,
        MELTO_BRIDGE_PORT: String(PORT),
        MELTO_BRIDGE_JOURNAL: join(folder, 'passes.jsonl'),
        MELTO_BRIDGE_PACE_MS: '60',
      },
      stdio: 'ignore',
    });
  };
  const kill = async (): Promise<void> => {
    const ended = new Promise((resolve) => bridge?.once('exit', resolve));
    bridge?.kill('SIGKILL');
    await ended;
  };
  afterAll(kill);

  it('eight times in a sheet loses no strip and doubles none', async () => {
    const code = await printed();
    const reader = await knowInstrument(services, {
      ...{ serial: 'strip-reader-2', name: 'Strip reader 2', kind: 'strip', modes: ['M0', 'M1', 'M2'] },
      ...{ tileLifeMs: 7_200_000, apertureMm: null, filter: '', backing: '', simulated: true },
    });
    start();
    const client = new BridgeClient(() => new WebSocket(`ws://127.0.0.1:${PORT}`) as unknown as Socket);
    const random = createRandom(7);
    const KILLS = 8;
    let kills = 0;
    let over = false;
    const hunter = (async () => {
      while (!over && kills < KILLS) {
        // In the middle of passes, between them, before the desk has said what it kept.
        await new Promise((resolve) => setTimeout(resolve, 20 + random.below(120)));
        if (client.view.phase !== 'connected') continue;
        await kill();
        kills++;
        start();
      }
    })();
    const { strips } = await deskState(services, code);
    const at = await domainNow(services);
    const attempts = new Map<number, string[]>();
    const readAll = async (round: number): Promise<void> => {
      for (const { strip, expected } of strips) {
        const id = `${round} ${strip}`;
        const { under } = await underInstrument(services, code, { strip, instrument: reader.id });
        const outcome = await client.read({
          ...{ id, instrument: reader.serial, mode: 'M1', patches: expected.length, at, strip, under },
        });
        if (!outcome.ok) throw new Error(`strip ${strip}: ${outcome.reason}`);
        const { startNm, stepNm, spectra } = outcome.measured;
        const kept = await storePass(services, code, {
          ...{ attempt: id, strip, mode: 'M1', instrument: reader.id, startNm, stepNm, spectra },
        });
        expect(kept.ok).toBe(true);
        client.kept(id);
        attempts.set(strip, [...(attempts.get(strip) ?? []), id]);
      }
    };
    // The sheet again and again, until the bridge was killed so often in it.
    for (let round = 1; kills < KILLS; round++) await readAll(round);
    over = true;
    await hunter;
    client.close();
    const { readingId } = await deskState(services, code);
    const stored = await services.database.rows<{ strip: number; attempt: string }>(
      'SELECT strip, attempt FROM strip_reading WHERE reading_id = ? ORDER BY id',
      [readingId],
    );
    expect(kills).toBe(KILLS);
    expect(stored.map(({ strip, attempt }) => `${strip}: ${attempt}`).sort()).toEqual(
      [...attempts].flatMap(([strip, ids]) => ids.map((id) => `${strip}: ${id}`)).sort(),
    );
    // What it measured in the last round is what a steady hand measures without any of this.
    for (const { strip, attempt, values } of await listStrips(services.database, readingId ?? 0)) {
      const { under } = await underInstrument(services, code, { strip, instrument: reader.id });
      const steady = SIMULATED_INSTRUMENTS[0].readStrip({
        ...decodeUnder(under),
        mode: 'M1',
        attempt,
        timeMs: at,
      });
      expect(steady.ok && [...steady.spectra].map(Math.fround)).toEqual([...values]);
    }
  });
});
