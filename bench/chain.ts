import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chainCause } from '@melto/core/chain/chainCause';
import { chainChart, inkChainChart, whiteRows } from '@melto/core/chain/chainChart';
import { chainHypotheses } from '@melto/core/chain/chainHypotheses';
import type { ChainCause } from '@melto/core/chain/chainHypotheses';
import type { InkSource, JobSource } from '@melto/core/chain/jobSource';
import type { ChainIntent } from '@melto/core/chain/chainIntent';
import { sourceProfile } from '@melto/core/icc/testing/sourceProfile';
import { OTHER_SPACES, SRGB } from '@melto/core/chain/sourceSpaces';
import { patchXyz } from '@melto/core/cgats/patchColours';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { fitInkModel } from '@melto/core/characterise/inkModel';
import { fitRgbModel } from '@melto/core/characterise/rgbModel';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { READER_NEEDS } from '@melto/core/charts/pageGeometry';
import { makeRgbChart } from '@melto/core/charts/rgbChart';
import { WHITE_D50_MEASURED } from '@melto/core/colour/whitePoints';
import { xyzRowsToLab } from '@melto/core/colour/xyzToLab';
import { deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import { CMYK, RGB } from '@melto/core/device/process';
import type { Process } from '@melto/core/device/process';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { deviceToLab } from '@melto/core/icc/profileTransform';
import { readIcc } from '@melto/core/icc/readIcc';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { mean } from '@melto/core/numerics/statistics';
import { createRandom } from '@melto/core/numerics/random';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { buildRgbProfile } from '@melto/core/profile/buildRgbProfile';
import { unwrap } from '@melto/core/result';
import { separationOf } from '@melto/core/separate/separation';
import { spectraToXyz } from '@melto/core/spectral/spectrumToXyz';
import { tableIlluminant } from '@melto/core/spectral/illuminant';
import { createXyzWeights } from '@melto/core/spectral/xyzWeights';
import { installedCharacterisations } from '@melto/paper/measured/installedCharacterisations';
import { simulatedDevice } from '@melto/simulator/devices';
import { simulateSheets } from '@melto/simulator/simulateSheets';
import { transicc } from '../core/test/transicc.ts';
import { printTable } from './table.ts';

interface Condition {
  readonly device: string;
  readonly stock: string;
  readonly mode: string;
  readonly otherStock: string;
}

const CONDITIONS: readonly Condition[] = [
  { device: 'wren', stock: 'quay-proof-200', mode: 'fine', otherStock: 'chalk-rag-310' },
  { device: 'osprey', stock: 'lantern-gloss-150', mode: '175 lpi', otherStock: 'fenland-smooth-120' },
  { device: 'heron', stock: 'marsh-silk-130', mode: 'standard', otherStock: 'fenland-smooth-120' },
];
/** How a job is asked to be converted: intent of LittleCMS, and whether black points are brought together. */
const JOBS: Readonly<Record<ChainIntent, readonly [intent: number, black: boolean]>> = {
  'relative-black': [1, true],
  relative: [1, false],
  perceptual: [0, true],
  saturation: [2, true],
  absolute: [3, false],
};
const ASKED: readonly ChainIntent[] = ['relative-black', 'perceptual', 'relative'];
const PRINTS = Number(process.env['PRINTS'] ?? 34);
const FIRST_SEED = Number(process.env['SEED'] ?? 1);
const PATCHES = 500;
/** Mean ΔE00 between two ways that are not one. */
const VISIBLE = 1;
const TOTAL_INK = 3;

/** What a job is: its values, what they are meant by, as Melto and as LittleCMS know it, and what they may be taken for. */
interface Job {
  readonly values: Float64Array;
  readonly process: Process;
  readonly source: JobSource;
  readonly path: string;
  readonly others: readonly string[];
  /** Spaces of inks that the house knows besides. */
  readonly known: readonly InkSource[];
}

/** Prints that went wrong, and prints that did not, over three conditions; converted by LittleCMS, not by Melto. */
export function chain(): void {
  const folder = mkdtempSync(join(tmpdir(), 'melto-chain-'));
  const spaces = [SRGB, ...OTHER_SPACES].map((space, i) => {
    const path = join(folder, `source${i}.icc`);
    writeFileSync(path, writeIcc(sourceProfile(space)));
    return path;
  });
  const press = publishedPress('fogra39l', folder);
  const uncoated = publishedPress('fogra29l', folder);
  const jobs: readonly Job[] = [
    {
      ...{ values: chainChart().device, process: RGB, source: 'sRGB', path: spaces[0] },
      ...{ others: spaces.slice(1), known: [] },
    },
    {
      ...{ values: inkChainChart().device, process: CMYK, path: press.path, others: [uncoated.path] },
      ...{ source: { name: 'offset', profile: press.profile } },
      known: [{ name: 'uncoated', profile: uncoated.profile }],
    },
  ];
  const rows: string[][] = [];
  for (const condition of CONDITIONS) {
    const own = profileOf(condition, condition.stock, folder, 1);
    const other = profileOf(condition, condition.otherStock, folder, 2);
    for (const job of jobs) rows.push(printsOf(condition, job, own, other, spaces[0], press.path));
  }
  printTable(
    'Chains',
    ['device', 'job', 'cause named', 'false causes in right prints', 'missed (from right/best)'],
    rows,
  );
  rmSync(folder, { recursive: true });
}

/** Prints of one job on one condition, half of them gone wrong. */
function printsOf(
  condition: Condition,
  job: Job,
  own: Profiled,
  other: Profiled,
  srgb: string,
  press: string,
): string[] {
  const whites = whiteRows(job.values, job.process);
  const { process: kind } = simulatedDevice(condition.device);
  const convert = (values: Float64Array, from: string, how: ChainIntent, inputs: number): Float64Array => {
    const [intent, black] = JOBS[how];
    const scale = inputs === 4 ? 100 : 255;
    const scaled = values.map((v) => v * scale);
    return littleCms(scaled, from, own.path, intent, black, kind.channels.length, inputs);
  };
  const through = (from: string, how: ChainIntent): Float64Array =>
    convert(job.values, from, how, job.process.channels.length);
  const wrong = { named: 0, all: 0, missed: new Map<string, number>() };
  let falseCauses = 0;
  for (let n = 0; n < PRINTS; n++) {
    const seed = FIRST_SEED * 1000 + n;
    const random = createRandom(seed);
    const asked = ASKED[random.below(ASKED.length)];
    const right = through(job.path, asked);
    const judge = (values: Float64Array, stock = condition.stock): ReturnType<typeof chainCause> =>
      chainCause(
        readBack(condition, stock, kind, values, seed),
        chainHypotheses({
          ...{ values: job.values, source: job.source, profile: own.profile, intent: asked },
          otherInks: job.known,
          papers: n % 2 === 0 ? [{ name: 'the other', profile: other.profile }] : [],
        }),
        whites,
      );
    if (judge(right).cause !== 'right') falseCauses++;
    const causes: ChainCause[] = ['no-profile', 'twice', 'intent', 'source', 'paper'];
    const cause = causes[n % causes.length];
    // An intent that prints the same within what prints differ by is no wrong chain.
    const others = (Object.keys(JOBS) as ChainIntent[]).filter(
      (how) => how !== asked && apart(own.profile, right, through(job.path, how)) >= VISIBLE,
    );
    const found =
      cause === 'paper'
        ? judge(right, condition.otherStock)
        : judge(
            cause === 'no-profile'
              ? plain(job.values, job.process, kind, random.uniform() < 0.5)
              : cause === 'intent'
                ? through(job.path, others[random.below(others.length)])
                : cause === 'source'
                  ? through(job.others[random.below(job.others.length)], asked)
                  : kind.channels.length === 3
                    ? convert(right, srgb, asked, 3)
                    : convert(right, press, asked, 4),
          );
    wrong.all++;
    if (found.cause === cause) wrong.named++;
    else {
      const key = `${cause}→${found.cause} ${found.fromRight.toFixed(1)}/${found.fromBest.toFixed(1)}/${found.white.toFixed(1)}`;
      wrong.missed.set(key, (wrong.missed.get(key) ?? 0) + 1);
    }
  }
  return [
    condition.device,
    job.process.name,
    `${wrong.named} of ${wrong.all}`,
    `${falseCauses} of ${PRINTS}`,
    [...wrong.missed].map(([key, count]) => `${count} ${key}`).join(', '),
  ];
}

/** A profile and the file that it stands in. */
interface Profiled {
  readonly path: string;
  readonly profile: IccProfile;
}

function profileOf({ device, mode }: Condition, stock: string, folder: string, seed: number): Profiled {
  const { process: kind } = simulatedDevice(device);
  const inks = kind.channels.length === 4;
  const chart = inks ? makeCmykChart(PATCHES, seed, TOTAL_INK) : makeRgbChart(PATCHES, seed);
  const xyz = read({ device, mode, stock, kind, values: chart.device, noise: 'accuracy', seed });
  const paperXyz = meanPaperXyz(kind, chart.device, xyz);
  if (paperXyz === undefined) throw new Error('no paper');
  // One of the two versions after the other: programs treat their perceptual tables differently.
  const version = seed % 2 === 0 ? 2 : 4;
  const options = {
    ...({ version, tableSize: 'normal', description: 'p', copyright: '', createdMs: 0, paperXyz } as const),
  };
  const { profile } = inks
    ? buildInkProfile(fitInkModel(chart.device, 4, xyz), {
        ...options,
        separation: separationOf('medium', TOTAL_INK),
      })
    : buildRgbProfile(fitRgbModel(chart.device, xyz), options);
  const bytes = writeIcc(profile);
  const path = join(folder, `${device}-${stock}.icc`);
  writeFileSync(path, bytes);
  return { path, profile: unwrap(readIcc(bytes)) };
}

/** What a second conversion takes inks for: offset on coated paper by its published data, not Melto's own generic press. */
function publishedPress(key: string, folder: string): Profiled {
  const text = installedCharacterisations().get(key);
  if (text === undefined) throw new Error(`${key} is not installed`);
  const set = unwrap(readPatchSet(text));
  const xyz = patchXyz(set);
  if (set.device === undefined || xyz === undefined) throw new Error(`${key} without colours`);
  const paperXyz = meanPaperXyz(CMYK, set.device, xyz);
  if (paperXyz === undefined) throw new Error('no paper');
  const { profile } = buildInkProfile(fitInkModel(set.device, 4, xyz), {
    ...({
      version: 2,
      tableSize: 'small',
      description: 'offset',
      copyright: '',
      createdMs: 0,
      paperXyz,
    } as const),
    separation: separationOf('medium', TOTAL_INK),
  });
  const path = join(folder, `${key}.icc`);
  const bytes = writeIcc(profile);
  writeFileSync(path, bytes);
  return { path, profile: unwrap(readIcc(bytes)) };
}

function readBack(
  { device, mode }: Condition,
  stock: string,
  kind: Process,
  values: Float64Array,
  seed: number,
): Float64Array {
  const xyz = read({ device, mode, stock, kind, values, noise: 'instrument', seed });
  const lab = new Float64Array(xyz.length);
  xyzRowsToLab(xyz, WHITE_D50_MEASURED, lab);
  return lab;
}

function read({
  device,
  mode,
  stock,
  kind,
  values,
  noise,
  seed,
}: {
  device: string;
  mode: string;
  stock: string;
  kind: Process;
  values: Float64Array;
  noise: 'instrument' | 'accuracy';
  seed: number;
}): Float64Array {
  const layout = layoutChart(kind, values, 'a3', seed, READER_NEEDS.strip);
  const { grid, spectra } = simulateSheets({
    ...{ device, stock, printMode: mode, side: 'printing', seed, mode: 'M1', noise, values, layout },
  });
  const xyz = new Float64Array((spectra.length / grid.count) * 3);
  spectraToXyz(createXyzWeights(grid, tableIlluminant('D50'), '2deg'), spectra, xyz);
  return xyz;
}

function apart(profile: IccProfile, one: Float64Array, other: Float64Array): number {
  const to = unwrap(deviceToLab(profile, 'absolute'));
  const [a, b] = [one, other].map((device) => {
    const lab = new Float64Array((device.length / to.inputs) * 3);
    to.apply(device, lab);
    return lab;
  });
  return mean(deltaE2000Rows(a, b));
}

function plain(values: Float64Array, from: Process, kind: Process, removal: boolean): Float64Array {
  if (kind.channels.length === from.channels.length) return values;
  const out: number[] = [];
  if (from === CMYK) {
    for (let i = 0; i < values.length; i += 4)
      for (let c = 0; c < 3; c++)
        out.push(
          removal
            ? (1 - values[i + c]) * (1 - values[i + 3])
            : Math.max(0, 1 - values[i + c] - values[i + 3]),
        );
    return Float64Array.from(out);
  }
  const rgb = values;
  for (let i = 0; i < rgb.length; i += 3) {
    const inks = [1 - rgb[i], 1 - rgb[i + 1], 1 - rgb[i + 2]];
    const black = removal ? Math.min(...inks) : 0;
    out.push(...inks.map((ink) => ink - black), black);
  }
  return Float64Array.from(out);
}

/** Device values 0..1 of a conversion by LittleCMS. */
function littleCms(
  values: Float64Array,
  from: string,
  to: string,
  intent: number,
  black: boolean,
  outputs: number,
  inputs = 3,
): Float64Array {
  const options = [`-t${intent}`, ...(black ? ['-b'] : []), `-i${from}`, `-o${to}`];
  const scale = outputs === 4 ? 100 : 255;
  return transicc(values, inputs, options).map((value) => Math.min(1, Math.max(0, value / scale)));
}
