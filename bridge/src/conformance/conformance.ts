import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import { MOST_BYTES, PROTOCOL } from '../protocol.ts';
import type { InstrumentInfo, Measured, ReadMessage } from '../protocol.ts';
import { RawDesk } from './rawDesk.ts';

export interface ConformanceOptions {
  readonly address: string;
  /** Patches of the strip that is read. */
  readonly patches: number;
  /** What lies under a simulated instrument. */
  readonly under?: string;
  /** Tells the person at the instrument what to do. */
  readonly tell?: (words: string) => void;
  /** How long a pass may take, a person's hand included. */
  readonly patienceMs?: number;
}

export interface Finding {
  readonly name: string;
  /** What is wrong; undefined where it conforms. */
  readonly wrong: string | undefined;
}

interface Subject extends Required<Omit<ConformanceOptions, 'under'>> {
  readonly instrument: InstrumentInfo;
  readonly read: (change?: Partial<ReadMessage>) => ReadMessage;
}

type Check = (subject: Subject) => Promise<void>;

/**
 * Whether what listens at an address is an instrument bridge: each rule of docs/instrument-bridge.md that can be seen from
 * outside, in turn, with the first instrument that it offers.
 */
export async function conformance(options: ConformanceOptions): Promise<readonly Finding[]> {
  const findings: Finding[] = [];
  const note = async (name: string, work: () => Promise<void>): Promise<void> => {
    try {
      await work();
      findings.push({ name, wrong: undefined });
    } catch (error) {
      findings.push({ name, wrong: error instanceof Error ? error.message : String(error) });
    }
  };
  let instrument: InstrumentInfo | undefined;
  await note('answers hello with its protocol, its instruments and what waits', async () => {
    const { desk, hello } = await RawDesk.greeted(options.address);
    desk.close();
    require(hello.protocol === PROTOCOL, `it speaks protocol ${hello.protocol}`);
    require(hello.instruments.length > 0, 'it offers no instrument');
    const serials = new Set(hello.instruments.map(({ serial }) => serial));
    require(serials.size === hello.instruments.length, 'two instruments have one serial number');
    [instrument] = hello.instruments;
  });
  if (instrument === undefined) return findings;
  const offered = instrument;
  const subject: Subject = {
    ...{ tell: () => undefined, patienceMs: 60_000, ...options, instrument: offered },
    read: (change = {}) => ({
      ...{ type: 'read', id: randomUUID(), instrument: offered.serial, mode: offered.modes[0] },
      ...{ patches: options.patches, at: Date.now(), page: 1, strip: 1 },
      ...(options.under === undefined ? {} : { under: options.under }),
      ...change,
    }),
  };
  for (const [name, check] of Object.entries(CHECKS)) await note(name, () => check(subject));
  return findings;
}

const CHECKS: Readonly<Record<string, Check>> = {
  'refuses another protocol in words and ends the line': async ({ address }) => {
    const desk = await RawDesk.open(address);
    desk.say({ type: 'hello', protocol: PROTOCOL + 1, desk: 'conformance' });
    await desk.hears(['error']);
    await desk.ends();
  },
  'does nothing before hello': async ({ address, instrument }) => {
    const desk = await RawDesk.open(address);
    desk.say({ type: 'calibrate', id: randomUUID(), instrument: instrument.serial, at: Date.now() });
    await desk.hears(['error']);
    desk.close();
  },
  'answers what is no message in words, and goes on': async ({ address }) => {
    const { desk } = await RawDesk.greeted(address);
    const unfit = ['{', '[]', 'null', '{"type":"dance"}', '{"type":"read","id":7}', Buffer.from([0, 255, 1])];
    for (const data of unfit) {
      desk.sayRaw(data);
      await desk.hears(['error']);
    }
    desk.say({ type: 'hello', protocol: PROTOCOL, desk: 'conformance' });
    await desk.hears(['hello']);
    desk.close();
  },
  'ends a line that sends too much, and no other': async ({ address }) => {
    const { desk } = await RawDesk.greeted(address);
    const { desk: other } = await RawDesk.greeted(address);
    desk.sayRaw('x'.repeat(MOST_BYTES + 1));
    await desk.ends();
    other.say({ type: 'hello', protocol: PROTOCOL, desk: 'conformance' });
    await other.hears(['hello']);
    other.close();
  },
  'refuses pages of other sites': async ({ address }) => {
    for (const origin of ['https://elsewhere.example', 'http://127.0.0.1.elsewhere.example', 'null']) {
      const desk = await RawDesk.open(address, origin).catch(() => undefined);
      desk?.close();
      require(desk === undefined, `it let a page of ${origin} in`);
    }
  },
  'takes pages of this machine': async ({ address }) => {
    const desk = await RawDesk.open(address, 'http://127.0.0.1:3400');
    desk.close();
  },
  'reads the white tile': async ({ address, instrument, tell, patienceMs }) => {
    const { desk } = await RawDesk.greeted(address);
    tell(`Put ${instrument.name} on its white tile.`);
    const id = randomUUID();
    desk.say({ type: 'calibrate', id, instrument: instrument.serial, at: Date.now() });
    const answer = await desk.hears(['calibrated', 'failed'], id, patienceMs);
    desk.close();
    require(answer.type === 'calibrated', `it failed: ${JSON.stringify(answer)}`);
  },
  'names the reason where there is no such instrument or mode': async ({ address, instrument, read }) => {
    const { desk } = await RawDesk.greeted(address);
    const request = read({ instrument: 'no such serial number' });
    desk.say(request);
    const none = await desk.hears(['failed'], request.id);
    require(none.reason === 'no-instrument', `it said ${none.reason} for an instrument that is not there`);
    const id = randomUUID();
    desk.say({ type: 'calibrate', id, instrument: 'no such serial number', at: Date.now() });
    require((await desk.hears(['failed'], id)).reason ===
      'no-instrument', 'a tile of no instrument was read');
    const missing = (['M0', 'M1', 'M2', 'M3'] as const).find((mode) => !instrument.modes.includes(mode));
    if (missing !== undefined) {
      const other = read({ mode: missing });
      desk.say(other);
      const answer = await desk.hears(['failed', 'measured'], other.id);
      require(answer.type === 'failed' &&
        answer.reason === 'no-mode', `it measured in ${missing}, which it has not`);
    }
    desk.close();
  },
  'reads a strip, and gives the same pass for the same id': async (subject) => {
    const { address, read } = subject;
    const { desk } = await RawDesk.greeted(address);
    const request = read();
    const first = await measured(subject, desk, request);
    desk.say(request);
    const again = await desk.hears(['measured', 'failed'], request.id);
    require(isDeepStrictEqual(again, first), 'asked again, it gave another pass');
    desk.say({ type: 'kept', id: request.id });
    desk.close();
  },
  'keeps a pass until a desk has kept it': async (subject) => {
    const { address, read } = subject;
    const { desk } = await RawDesk.greeted(address);
    const request = read();
    const first = await measured(subject, desk, request);
    desk.close();
    await desk.ends();
    const { desk: back, hello } = await RawDesk.greeted(address);
    require(hello.waiting.includes(request.id), 'what no desk has kept does not wait');
    back.say(request);
    const again = await back.hears(['measured', 'failed'], request.id);
    require(isDeepStrictEqual(again, first), 'on another line, it gave another pass');
    back.say({ type: 'kept', id: request.id });
    back.say({ type: 'hello', protocol: PROTOCOL, desk: 'conformance' });
    const { waiting } = await back.hears(['hello']);
    require(!waiting.includes(request.id), 'what a desk has kept still waits');
    back.close();
  },
  'gives a pass to the line that asks for it last': async (subject) => {
    const { address, read } = subject;
    const { desk } = await RawDesk.greeted(address);
    const request = read();
    desk.say(request);
    desk.close();
    const { desk: back } = await RawDesk.greeted(address);
    await measured(subject, back, request);
    back.say({ type: 'kept', id: request.id });
    back.close();
  },
  'does one pass at a time': async (subject) => {
    const { address, read, patienceMs } = subject;
    const { desk } = await RawDesk.greeted(address);
    const [first, second] = [read(), read()];
    subject.tell('Draw one strip when it is ready.');
    desk.say(first);
    desk.say(second);
    const answers = [
      await desk.hears(['measured', 'failed'], undefined, patienceMs),
      await desk.hears(['measured', 'failed'], undefined, patienceMs),
    ];
    for (const answer of answers)
      require(answer.type === 'measured' ||
        answer.reason === 'busy', `it said ${JSON.stringify(answer).slice(0, 200)}`);
    require(answers.some(({ type }) => type === 'measured'), 'it did neither');
    for (const { id } of [first, second]) desk.say({ type: 'kept', id });
    desk.close();
  },
  'lets a pass be cancelled, and reads the next': async (subject) => {
    const { address, instrument, read, patienceMs } = subject;
    const { desk } = await RawDesk.greeted(address);
    const request = read();
    if (instrument.begins === 'at-instrument') {
      subject.tell('Draw nothing until you are asked to.');
      desk.say(request);
      await desk.hears(['armed'], request.id, patienceMs);
      desk.say({ type: 'cancel', id: request.id });
      const answer = await desk.hears(['measured', 'failed'], request.id);
      require(answer.type === 'failed' &&
        answer.reason === 'cancelled', 'it went on with what was cancelled');
    } else {
      desk.say(request);
      desk.say({ type: 'cancel', id: request.id });
      await desk.hears(['measured', 'failed'], request.id, patienceMs);
    }
    const next = read();
    await measured(subject, desk, next);
    for (const { id } of [request, next]) desk.say({ type: 'kept', id });
    desk.close();
  },
};

/** A pass as it must be. */
async function measured(
  { instrument, tell, patienceMs }: Subject,
  desk: RawDesk,
  request: ReadMessage,
): Promise<Measured> {
  desk.say(request);
  if (instrument.begins === 'at-instrument') {
    await desk.hears(['armed'], request.id, patienceMs);
    tell(`Draw ${instrument.name} along a strip of ${request.patches} patches.`);
  }
  const answer = await desk.hears(['measured', 'failed'], request.id, patienceMs);
  require(answer.type === 'measured', `it failed: ${JSON.stringify(answer)}`);
  const pass = answer as Measured;
  require(pass.instrument === request.instrument &&
    pass.mode === request.mode, 'it is of another instrument or mode');
  require(pass.spectra.length ===
    request.patches, `it has ${pass.spectra.length} patches, not ${request.patches}`);
  const bands = pass.spectra[0].length;
  require(pass.spectra.every((row) => row.length === bands), 'its patches have different counts of bands');
  const end = pass.startNm + pass.stepNm * (bands - 1);
  require(pass.startNm <= 400 &&
    end >= 700 &&
    pass.stepNm <=
      20, `it reaches from ${pass.startNm} to ${end} nm in steps of ${pass.stepNm} nm; 400 to 700 nm in 20 nm is the least`);
  return pass;
}

function require(right: boolean, wrong: string): void {
  if (!right) throw new Error(wrong);
}
