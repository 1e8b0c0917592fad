import { channelCount } from '@melto/core/device/process';
import type { HandMovement, Instrument } from '@melto/core/device/instrument';
import { spectraRows } from '@melto/core/spectral/spectraRows';
import { SIMULATED_INSTRUMENTS } from '@melto/simulator/instruments/simulatedInstruments';
import { decodeUnder } from '@melto/simulator/instruments/underInstrument';
import { decodePrintState } from '@melto/simulator/printState';
import { CATALOGUE } from '@melto/simulator/catalogue';
import type { ReadMessage } from '../protocol.ts';
import type { BridgeInstrument, Failure, PassEars, Passed } from '../serveBridge.ts';

const MOVEMENTS: readonly HandMovement[] = [
  'steady',
  'too-fast',
  'off-row',
  'started-late',
  'backwards',
  'other-strip',
];

/**
 * The simulated instruments behind a bridge. Each pass is a function of its message alone, whatever this process lived
 * through. @param paceMs time from arming to the pass, as a person's hand takes it; 0 reads at once when asked.
 */
export function simulatedBridgeInstruments(paceMs = 0): BridgeInstrument[] {
  return SIMULATED_INSTRUMENTS.map((instrument) => ({
    info: {
      serial: instrument.id,
      name: instrument.name,
      kind: instrument.kind,
      modes: [...instrument.modes],
      begins: paceMs > 0 ? 'at-instrument' : 'when-asked',
      tileLifeMs: instrument.tileLifeMs,
      simulated: true,
      ...(instrument.kind === 'sheet' ? {} : { movements: [...MOVEMENTS] }),
    },
    // Its tile is remembered by the house, and lies under it with the next pass.
    calibrate: async () => undefined,
    read: (request, ears) => readUnder(instrument, request, ears, paceMs),
  }));
}

async function readUnder(
  instrument: Instrument,
  request: ReadMessage,
  { armed, progress, signal }: PassEars,
  paceMs: number,
): Promise<Passed | Failure> {
  if (request.under === undefined)
    return {
      reason: 'nothing-under',
      words: `${instrument.name} is simulated: it reads what a simulated device printed.`,
    };
  const under = decodeUnder(request.under);
  const found = patchesOf(under);
  if (found !== request.patches) return { reason: 'patch-count', found };
  if (paceMs > 0) {
    armed();
    await paused(paceMs, signal);
    if (signal.aborted) return { reason: 'cancelled' };
  }
  const outcome = instrument.readStrip({
    ...under,
    mode: request.mode,
    attempt: request.id,
    timeMs: request.at,
    hand: request.movement as HandMovement | undefined,
  });
  if (!outcome.ok) return { reason: outcome.failure };
  const { count, startNm, stepNm } = outcome.grid;
  const spectra = spectraRows(outcome.spectra, count);
  if (instrument.kind === 'spot') for (let done = 1; done <= found; done++) progress(done);
  return { startNm, stepNm, spectra };
}

/** Patches that lie under it, by the channels of the device that printed them. */
function patchesOf({ printState, patches }: ReturnType<typeof decodeUnder>): number {
  const { device } = decodePrintState(printState);
  const entry = CATALOGUE.find(({ id }) => id === device);
  if (entry === undefined) throw new RangeError(`no simulated device ${device}`);
  return patches.device.length / channelCount(entry.process);
}

function paused(ms: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve) => {
    const timer = setTimeout(resolve, ms);
    signal.addEventListener('abort', () => {
      clearTimeout(timer);
      resolve();
    });
  });
}
