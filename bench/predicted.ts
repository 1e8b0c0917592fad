import { readFileSync } from 'node:fs';
import { fitInkModel } from '@melto/core/characterise/inkModel';
import type { InkModel } from '@melto/core/characterise/inkModel';
import { inkUncertainty } from '@melto/core/characterise/modelUncertainty';
import { uncertaintyMap } from '@melto/core/characterise/uncertaintyMap';
import { controlWedge } from '@melto/core/charts/controlWedge';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { deltaE2000, deltaE2000Rows } from '@melto/core/colour/deltaE2000';
import { WHITE_D50_MEASURED, WHITE_ICC } from '@melto/core/colour/whitePoints';
import { labToXyz, xyzToLab } from '@melto/core/colour/xyzToLab';
import { aimsFor, publishedAims } from '@melto/core/conformity/aims';
import type { Aims } from '@melto/core/conformity/aims';
import { layBesideAims, judgeSheet } from '@melto/core/conformity/checkAgainstAims';
import { PUBLISHED_CONDITIONS } from '@melto/core/conformity/data/publishedConditions';
import { TOLERANCE_SETS } from '@melto/core/conformity/data/toleranceSets';
import { measuredXyz } from '@melto/core/conformity/profileAims';
import { predictConformity } from '@melto/core/conformity/predictConformity';
import { CMYK } from '@melto/core/device/process';
import { meanPaperXyz } from '@melto/core/device/meanPaperXyz';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { deviceToLab, labToDevice } from '@melto/core/icc/profileTransform';
import { readIcc } from '@melto/core/icc/readIcc';
import { writeIcc } from '@melto/core/icc/writeIcc';
import { createRandom } from '@melto/core/numerics/random';
import { mean } from '@melto/core/numerics/statistics';
import { buildInkProfile } from '@melto/core/profile/buildInkProfile';
import { predictPrint } from '@melto/core/proof/predictPrint';
import { softProof } from '@melto/core/proof/softProof';
import { unwrap } from '@melto/core/result';
import { separationOf } from '@melto/core/separate/separation';
import { transformed } from '@melto/core/transform/transform';
import { cmykConditions, labOf, noisyXyz } from './cmykConditions.ts';
import type { CmykCondition } from './cmykConditions.ts';
import { otherDevices } from './otherDevices.ts';
import { printTable } from './table.ts';

const SEED = Number(process.env.SEED ?? 21);
const PATCHES = 400;
const TOTAL_INK = 3;
const NOISE = 0.2;
const JOBS = 100;
const JOB_COLOURS = 400;
/** Sheets differ by this in all patches alike. */
const SHEET = 0.25;

interface Built extends CmykCondition {
  readonly profile: IccProfile;
  /** Expected error of the model. */
  readonly error: number;
}

/** Verdicts and means predicted before printing, and the best condition for a job, beside what the devices print. */
export function predicted(): void {
  const built = [...otherDevices(SEED), ...cmykConditions()].map(build);
  conformity(built);
  if (process.env.RANKING !== 'off') ranking(built.slice(0, 6));
}

function build(condition: CmykCondition, place: number): Built {
  const random = createRandom(SEED * 100 + place);
  const { device } = makeCmykChart(PATCHES, SEED, TOTAL_INK);
  const xyz = noisyXyz(condition.truth(device), NOISE, random);
  const model = fitInkModel(device, 4, xyz, SEED);
  const paperXyz = meanPaperXyz(CMYK, device, xyz);
  if (paperXyz === undefined) throw new Error('no paper');
  const { profile } = buildInkProfile(model, {
    ...{
      version: 2,
      tableSize: 'normal',
      description: condition.name,
      copyright: '',
      createdMs: 0,
      paperXyz,
    },
    separation: separationOf('medium', TOTAL_INK),
  });
  return {
    ...condition,
    profile: unwrap(readIcc(writeIcc(profile))),
    error: claimed(model),
  };
}

/** What the model claims of its errors on average. */
function claimed(model: InkModel): number {
  return uncertaintyMap(inkUncertainty(model), CMYK, TOTAL_INK).mean;
}

function conformity(built: readonly Built[]): void {
  const wedge = controlWedge('proof').device;
  const tolerances = ['iso12647-7-proof', 'iso12647-2-production-00'].flatMap((id) =>
    TOLERANCE_SETS.filter((set) => set.id === id),
  );
  const random = createRandom(SEED);
  let checks = 0;
  let right = 0;
  let passed = 0;
  const off: number[] = [];
  let inside = 0;
  const scored: { chance: number; conformed: boolean }[] = [];
  const every = (xyz: Float64Array): Aims => ({ conditions: {}, device: wedge, xyz });
  for (const own of built) {
    // Against published conditions, and against what it prints itself a little off.
    const aimSets = [
      ...PUBLISHED_CONDITIONS.map((published) => aimsFor(publishedAims(published), wedge).xyz),
      ...Array.from({ length: 14 }, (_, i) => moved(own.truth(wedge), 0.35 * i, random)),
    ].map(every);
    for (const aims of aimSets)
      for (const set of tolerances) {
        const asked = iccLab(aims.xyz);
        const inks = transformed(unwrap(labToDevice(own.profile, 'absolute')), asked);
        const expected = measuredXyz(transformed(unwrap(deviceToLab(own.profile, 'absolute')), inks));
        const lay = (xyz: Float64Array) =>
          unwrap(
            layBesideAims(
              {
                ids: Array.from(wedge.subarray(0, wedge.length / 4), String),
                process: CMYK,
                device: wedge,
                xyz,
                conditions: {},
                notes: [],
              },
              aims,
            ),
          );
        const said = unwrap(
          predictConformity(lay(expected), set, false, { model: own.error, reading: NOISE, sheet: SHEET }),
        );
        // The mean size of a normal value is 0.8.
        const shift = (SHEET / 0.8) * random.normal();
        const read = noisyXyz(own.truth(inks), NOISE, random);
        const lab = labOf(read);
        for (let i = 0; i < lab.length; i += 3) lab[i] += shift;
        const measured = measuredOf(lab);
        const found = unwrap(judgeSheet(lay(measured), set, false));
        const passes = (verdict: string): boolean => verdict === 'conforms' || verdict === 'near';
        checks++;
        if (passes(found.verdict)) passed++;
        if (passes(found.verdict) === passes(said.check.verdict)) right++;
        scored.push({ chance: said.chance, conformed: passes(found.verdict) });
        const meanFound = mean(found.pairs.map(({ aim, measured: m }) => deltaE2000(aim, m)));
        off.push(Math.abs(meanFound - said.expectedMean));
        if (meanFound >= said.meanBetween[0] && meanFound <= said.meanBetween[1]) inside++;
      }
  }
  const sure = scored.filter(({ chance }) => chance <= 0.1 || chance >= 0.9);
  printTable(
    `Conformity predicted from ${PATCHES}-patch profiles of ${built.length} devices, seed ${SEED}`,
    [
      'checks',
      'conform',
      'verdict right',
      'of the sure ones',
      'mean ΔE00 off',
      '95 %',
      'between what was said',
    ],
    [
      [
        String(checks),
        String(passed),
        `${((100 * right) / checks).toFixed(1)} %`,
        `${((100 * sure.filter(({ chance, conformed }) => chance > 0.5 === conformed).length) / sure.length).toFixed(1)} % of ${sure.length}`,
        mean(off).toFixed(3),
        off.sort((a, b) => a - b)[Math.floor(0.95 * off.length)].toFixed(3),
        `${((100 * inside) / checks).toFixed(0)} %`,
      ],
    ],
  );
}

function ranking(built: readonly Built[]): void {
  const srgb = unwrap(readIcc(readFileSync('/usr/share/color/icc/sRGB.icc')));
  const random = createRandom(SEED + 1);
  const proofs = built.map(({ profile }) =>
    unwrap(
      softProof(srgb, profile, { intent: 'relative', blackPoint: true, paperWhite: true, inkBlack: true }),
    ),
  );
  let first = 0;
  const regrets: number[] = [];
  for (let job = 0; job < JOBS; job++) {
    const values = jobColours(random);
    const said = proofs.map((proof) => predictPrint(proof, values).mean);
    const true_ = proofs.map((proof, i) => {
      const inks = transformed(proof.toDevice, values);
      const printed = built[i].truth(inks);
      const paper = built[i].truth(new Float64Array(4));
      // Relative to the paper, as the picture is to its white.
      const relative = printed.map((value, at) => (value / paper[at % 3]) * WHITE_D50_MEASURED[at % 3]);
      return mean(deltaE2000Rows(transformed(proof.original, values), labOf(relative)));
    });
    const [chosen, best] = [said.indexOf(Math.min(...said)), true_.indexOf(Math.min(...true_))];
    if (chosen === best) first++;
    regrets.push(true_[chosen] - true_[best]);
  }
  printTable(
    `Where ${JOBS} jobs go, ${built.length} conditions, seed ${SEED}`,
    ['best named first', 'regret, mean ΔE00', 'largest'],
    [[`${first} of ${JOBS}`, mean(regrets).toFixed(3), Math.max(...regrets).toFixed(3)]],
  );
}

/** Colours of a picture: some clouds round colours of sRGB. */
function jobColours(random: { uniform: () => number; normal: () => number }): Float64Array {
  const centres = Array.from({ length: 3 }, () => [random.uniform(), random.uniform(), random.uniform()]);
  return Float64Array.from({ length: 3 * JOB_COLOURS }, (_, i) =>
    Math.min(1, Math.max(0, centres[Math.floor(i / 3) % 3][i % 3] + 0.15 * random.normal())),
  );
}

/** Aims that are off by about so much ΔE00, all patches in one direction. */
function moved(xyz: Float64Array, size: number, random: { normal: () => number }): Float64Array {
  const direction = [random.normal(), random.normal(), random.normal()];
  const length = Math.hypot(...direction);
  const lab = labOf(xyz).map((value, i) => value + (size * direction[i % 3]) / length);
  return measuredOf(lab);
}

function measuredOf(lab: Float64Array): Float64Array {
  const out = new Float64Array(lab.length);
  for (let i = 0; i < lab.length; i += 3)
    out.set(labToXyz([lab[i], lab[i + 1], lab[i + 2]], WHITE_D50_MEASURED), i);
  return out;
}

function iccLab(xyz: Float64Array): Float64Array {
  const out = new Float64Array(xyz.length);
  for (let i = 0; i < xyz.length; i += 3) {
    const at = (axis: number): number => (xyz[i + axis] / WHITE_D50_MEASURED[axis]) * WHITE_ICC[axis];
    out.set(xyzToLab([at(0), at(1), at(2)], WHITE_ICC), i);
  }
  return out;
}
