import { OWN_PAGE_MM, paperNamed } from '@melto/core/charts/pageGeometry';
import type { DeviceFacts } from '@melto/core/device/deviceFacts';
import { inkNamesProblem } from '@melto/core/device/inkNames';
import { CMYK, inkProcess, RGB, sameProcess } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import type { StockFacts } from '@melto/core/stock/stockFacts';
import { MOST_REST_MINUTES } from '@melto/core/stock/restMinutes';
import { lockHouse } from '@melto/store/houses';
import { insertOwnDevice, insertOwnStock, listDevices } from '@melto/store/devices';
import { keepInkSet } from '@melto/store/inkSets';
import type { StockRow } from '@melto/store/devices';
import { unitOfWork } from '../kernel/context.ts';
import type { Context } from '../kernel/context.ts';
import { named } from '../kernel/named.ts';
import { Problem } from '../kernel/problem.ts';

/** How a device of the house's own is driven. */
export const OWN_DEVICE_KINDS = {
  'rgb-driver': { words: 'printer driver that takes RGB', process: RGB },
  'cmyk-front-end': { words: 'CMYK front end', process: CMYK },
  press: { words: 'offset or other press', process: CMYK },
  // Its inks are told by name, in the order of its channels.
  'ink-front-end': { words: 'front end of named inks', process: null },
} as const;
export type OwnDeviceKind = keyof typeof OWN_DEVICE_KINDS;

/** The kind that is said in some words. */
export function ownKindOf(words: string): OwnDeviceKind | null {
  const kinds = Object.keys(OWN_DEVICE_KINDS) as OwnDeviceKind[];
  return kinds.find((kind) => OWN_DEVICE_KINDS[kind].words === words) ?? null;
}

export interface OwnDevice {
  readonly name: string;
  readonly kind: OwnDeviceKind;
  /** Names of the inks of a front end that takes more or others than C, M, Y, K, in the order of its channels. */
  readonly inks?: readonly string[];
  readonly inkSet: string;
  /** Print modes, at least one. */
  readonly modes: readonly string[];
  readonly facts?: DeviceFacts;
}

export type OwnStock = Pick<StockRow, 'name' | 'finish' | 'restMinutes'> & { readonly facts?: StockFacts };

/** Makes a device of the house's own: its pages are printed elsewhere and measured from files. */
export async function createDevice(context: Context, device: OwnDevice): Promise<{ readonly id: number }> {
  const name = named(device.name, 'name', 'device');
  const inkSet = named(device.inkSet, 'inkSet', 'ink set');
  const modes = modesOf(device.modes);
  const { words } = OWN_DEVICE_KINDS[device.kind];
  const process = processOf(device);
  checkPages(device.facts);
  return unitOfWork(context, async ({ database }) => {
    // Two that are made at once must not find the same code free.
    await lockHouse(database);
    const taken = new Set((await listDevices(database)).map(({ code }) => code));
    const code = codesFor(name).find((own) => !taken.has(own));
    if (code === undefined)
      throw new Problem(
        'conflict',
        'The house has no code left for this device.',
        'Give it another name.',
        'name',
      );
    const id = await insertOwnDevice(
      database,
      { name, code, kind: words, process, inkSet, modes, facts: device.facts ?? {} },
      context.now(),
    );
    if (id === undefined) throw nameTaken(name, 'device');
    await keepInkSet(database, inkSet, context.now());
    return { id };
  });
}

/** Refuses pages that no chart could be laid out on. */
export function checkPages({ pages = [] }: DeviceFacts = {}): void {
  const wrong = pages.find((page) => paperNamed(page) === undefined);
  if (wrong === undefined) return;
  const { least, most } = OWN_PAGE_MM;
  throw new Problem(
    'bad-input',
    `${wrong} is no page.`,
    `Give width and height in whole mm, ${least} to ${most} each, as 610x914.`,
    'pages',
  );
}

/** What the device takes: told by its kind, or by the names of its inks. */
function processOf({ kind, inks }: OwnDevice): Process {
  const { process } = OWN_DEVICE_KINDS[kind];
  if (process !== null) {
    if (inks === undefined) return process;
    throw new Problem(
      'bad-input',
      'Inks are named for a front end of named inks only.',
      'Choose that kind, or leave the inks out.',
      'inks',
    );
  }
  const names = (inks ?? []).map((ink) => ink.trim());
  const problem = inkNamesProblem(names);
  if (problem !== undefined) throw new Problem('bad-input', problem, INK_NAMES_ADVICE, 'inks');
  const made = inkProcess(names);
  return sameProcess(made, CMYK) ? CMYK : made;
}

const INK_NAMES_ADVICE = 'Name them in the order of its channels, as C, M, Y, K, O, G.';

/** Makes a stock of the house's own. */
export async function createStock(context: Context, stock: OwnStock): Promise<{ readonly id: number }> {
  const name = named(stock.name, 'name', 'stock');
  const { restMinutes, finish, facts = {} } = stock;
  checkRest(restMinutes);
  return unitOfWork(context, async ({ database }) => {
    const id = await insertOwnStock(database, { name, finish, restMinutes, facts }, context.now());
    if (id === undefined) throw nameTaken(name, 'stock');
    return { id };
  });
}

/** Print modes without repeats and empty ones; at least one. */
export function modesOf(asked: readonly string[]): string[] {
  const modes = [...new Set(asked.map((mode) => mode.trim()).filter((mode) => mode !== ''))];
  if (modes.length === 0)
    throw new Problem(
      'bad-input',
      'The device has no print mode.',
      'Name at least one, as its driver does.',
      'modes',
    );
  return modes;
}

export function checkRest(restMinutes: number): void {
  if (!Number.isInteger(restMinutes) || restMinutes < 0 || restMinutes > MOST_REST_MINUTES)
    throw new Problem(
      'bad-input',
      `A stock rests 0 to ${MOST_REST_MINUTES} whole minutes.`,
      'Give the minutes until a print is dry.',
      'restMinutes',
    );
}

export function nameTaken(name: string, what: string): Problem {
  return new Problem(
    'conflict',
    `The house has a ${what} "${name}" already.`,
    'Give this one another name.',
    'name',
  );
}

/** Codes of three letters for the sheets of a device, the one that tells its name first. */
function codesFor(name: string): string[] {
  const letters = name
    .normalize('NFD')
    .toUpperCase()
    .replace(/[^A-Z]/g, '');
  const consonants = letters.slice(0, 1) + letters.slice(1).replace(/[AEIOU]/g, '');
  const base = (consonants.length >= 3 ? consonants : `${letters}XXX`).padEnd(3, 'X');
  const first = base.slice(0, 3);
  const alphabet = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];
  return [
    first,
    ...alphabet.map((letter) => `${first.slice(0, 2)}${letter}`),
    ...alphabet.flatMap((a) => alphabet.map((b) => `${first.slice(0, 1)}${a}${b}`)),
  ];
}
