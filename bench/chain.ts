import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chainCause } from '@melto/core/chain/chainCause';
import { chainChart, whiteRows } from '@melto/core/chain/chainChart';
import { chainHypotheses } from '@melto/core/chain/chainHypotheses';
import type { ChainCause } from '@melto/core/chain/chainHypotheses';
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
import { CMYK } from '@melto/core/device/process';
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

/** Prints that went wrong, and prints that did not, over three conditions; converted by LittleCMS, not by Melto. */
export function chain(): void {
  const folder = mkdtempSync(join(tmpdir(), 'melto-chain-'));
  const spaces = [SRGB, ...OTHER_SPACES].map((space, i) => {
    const path = join(folder, `source${i}.icc`);
    writeFileSync(path, writeIcc(sourceProfile(space)));
    return path;
  });
  const { device: rgb } = chainChart();
  const whites = whiteRows(rgb);
  const press = offsetPress(folder);
  const rows: string[][] = [];
  for (const condition of CONDITIONS) {
    const own = profileOf(condition, condition.stock, folder, 1);
    const other = profileOf(condition, condition.otherStock, folder, 2);
    const { process: kind } = simulatedDevice(condition.device);
    const through = (values: Float64Array, from: string, how: ChainIntent): Float64Array => {
      const [intent, black] = JOBS[how];
      return littleCms(
        values.map((v) => v * 255),
        from,
        own.path,
        intent,
        black,
        kind.channels.length,
      );
    };
    const wrong = { named: 0, all: 0, missed: new Map<string, number>() };
    let falseCauses = 0;
    for (let n = 0; n < PRINTS; n++) {
      const seed = FIRST_SEED * 1000 + n;
      const random = createRandom(seed);
      const asked = ASKED[random.below(ASKED.length)];
      const right = through(rgb, spaces[0], asked);
      const judge = (values: Float64Array, stock = condition.stock): ReturnType<typeof chainCause> =>
        chainCause(
          readBack(condition, stock, kind, values, seed),
          chainHypotheses({
            ...{ rgb, profile: own.profile, intent: asked },
            papers: n % 2 === 0 ? [{ name: 'the other', profile: other.profile }] : [],
          }),
          whites,
        );
      if (judge(right).cause !== 'right') falseCauses++;
      const causes: ChainCause[] = ['no-profile', 'twice', 'intent', 'source', 'paper'];
      const cause = causes[n % causes.length];
      // An intent that prints the same within what prints differ by is no wrong chain.
      const others = (Object.keys(JOBS) as ChainIntent[]).filter(
        (how) => how !== asked && apart(own.profile, right, through(rgb, spaces[0], how)) >= VISIBLE,
      );
      const found =
        cause === 'paper'
          ? judge(right, condition.otherStock)
          : judge(
              cause === 'no-profile'
                ? plain(rgb, kind, random.uniform() < 0.5)
                : cause === 'intent'
                  ? through(rgb, spaces[0], others[random.below(others.length)])
                  : cause === 'source'
                    ? through(rgb, spaces[1 + random.below(OTHER_SPACES.length)], asked)
                    : kind.channels.length === 3
                      ? through(right, spaces[0], asked)
                      : twiceInks(right, press.path, own.path, asked),
            );
      wrong.all++;
      if (found.cause === cause) wrong.named++;
      else {
        const key = `${cause}→${found.cause} ${found.fromRight.toFixed(1)}/${found.fromBest.toFixed(1)}/${found.white.toFixed(1)}`;
        wrong.missed.set(key, (wrong.missed.get(key) ?? 0) + 1);
      }
    }
    rows.push([
      condition.device,
      `${wrong.named} of ${wrong.all}`,
      `${falseCauses} of ${PRINTS}`,
      [...wrong.missed].map(([key, count]) => `${count} ${key}`).join(', '),
    ]);
  }
  printTable(
    'Chains',
    ['device', 'cause named', 'false causes in right prints', 'missed (from right/best)'],
    rows,
  );
  rmSync(folder, { recursive: true });
}

function profileOf(
  { device, mode }: Condition,
  stock: string,
  folder: string,
  seed: number,
): { readonly path: string; readonly profile: IccProfile } {
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
function offsetPress(folder: string): { readonly path: string } {
  const text = installedCharacterisations().get('fogra39l');
  if (text === undefined) throw new Error('FOGRA39L is not installed');
  const set = unwrap(readPatchSet(text));
  const xyz = patchXyz(set);
  if (set.device === undefined || xyz === undefined) throw new Error('FOGRA39L without colours');
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
  const path = join(folder, 'offset.icc');
  writeFileSync(path, writeIcc(profile));
  return { path };
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

function plain(rgb: Float64Array, kind: Process, removal: boolean): Float64Array {
  if (kind.channels.length === 3) return rgb;
  const out: number[] = [];
  for (let i = 0; i < rgb.length; i += 3) {
    const inks = [1 - rgb[i], 1 - rgb[i + 1], 1 - rgb[i + 2]];
    const black = removal ? Math.min(...inks) : 0;
    out.push(...inks.map((ink) => ink - black), black);
  }
  return Float64Array.from(out);
}

function twiceInks(inks: Float64Array, from: string, to: string, how: ChainIntent): Float64Array {
  const [intent, black] = JOBS[how];
  return littleCms(
    inks.map((v) => v * 100),
    from,
    to,
    intent,
    black,
    4,
    4,
  );
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
