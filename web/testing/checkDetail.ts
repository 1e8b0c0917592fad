import { CMYK } from '@melto/core/device/process';
import { PUBLISHED_CONDITIONS } from '@melto/core/conformity/data/publishedConditions';
import { TOLERANCE_SETS } from '@melto/core/conformity/data/toleranceSets';
import { controlWedge } from '@melto/core/charts/controlWedge';
import type { NamedPatches } from '@melto/core/charts/namedPatches';
import { gatherRows } from '@melto/core/numerics/gatherRows';
import { publishedAims, aimsFor } from '@melto/core/conformity/aims';
import { checkAgainstAims } from '@melto/core/conformity/checkAgainstAims';
import {
  checkedPatches,
  distributionOf,
  groupFigures,
  storedMetric,
} from '@melto/core/conformity/checkDetail';
import type { CheckDetail } from '@melto/core/conformity/checkDetail';
import { unwrap } from '@melto/core/result';

/** Papers, solids, greys and every fourth of the others: as many kinds as the whole wedge has, drawn in a third of the time. */
function someOf({ device, names }: NamedPatches): NamedPatches {
  const kept = names.flatMap((name, row) =>
    /^(paper|[CMYK]{1,3} 100|grey (25|50|75))$/.test(name) || row % 4 === 0 ? [row] : [],
  );
  return { device: gatherRows(device, kept, 4), names: kept.map((row) => names[row]) };
}

/**
 * A check of the proof wedge by ISO 12647-7 against a published condition, all on its aims but for the solid of
 * magenta, which is too light, and a spot colour.
 */
export function checkDetail(change: Partial<CheckDetail> = {}): CheckDetail {
  const { device, names } = someOf(controlWedge('proof'));
  const aims = publishedAims(PUBLISHED_CONDITIONS[0]);
  const xyz = aimsFor(aims, device).xyz.slice();
  const magenta = names.indexOf('M 100');
  for (let axis = 0; axis < 3; axis++) xyz[3 * magenta + axis] *= 1.35;
  const check = unwrap(
    checkAgainstAims(
      { ids: names.map(String), names, process: CMYK, device, xyz, conditions: {}, notes: [] },
      aims,
      TOLERANCE_SETS[0],
      false,
      [{ name: 'Seed red', lab: [52, 48, 26], xyz: [25, 20, 11], device: [0, 0.8, 0.6, 0] }],
    ),
  );
  // Patches of one device value are judged once, by the first of their names.
  const rowsByPair = check.pairs.map((pair) =>
    names.findIndex((_, row) => [0, 1, 2, 3].every((ink) => device[4 * row + ink] === pair.device[ink])),
  );
  const patches = checkedPatches(check, (pair) => names[rowsByPair[pair]]);
  const metrics = check.metrics.map(storedMetric);
  return {
    kind: 'aims',
    header: {
      condition: 'Heron / Lantern Gloss 150 / standard',
      sheet: 'HRN-0009',
      chart: 'Proof wedge',
      instrument: 'Strip reader 2',
      person: 'Ines Marlow',
      madeMs: 0,
      printedMs: 0,
      readMs: 0,
      early: false,
      measured: { mode: 'M1', illuminant: 'D50', observer: '2' },
      aims: { id: 3, name: 'FOGRA28L', version: 1, origin: 'Offset.', conditions: {} },
      tolerances: { id: 7, name: 'ISO 12647-7 proof', version: 1, source: 'as published', notJudged: [] },
      through: 'profile v1, absolute colorimetric',
      chosen: 'before the reading',
    },
    verdict: check.verdict,
    substrateCorrected: false,
    otherwise: [],
    withoutAim: 0,
    metrics,
    patches,
    distribution: distributionOf(patches),
    groups: groupFigures(patches),
    white: null,
    decides: {
      deciding: metrics.flatMap((line, metric) =>
        line.verdict === 'does-not-conform' && line.worst !== null ? [{ metric, rows: [line.worst] }] : [],
      ),
      remedies: [],
      share: 2,
      outOfReach: [],
      drift: null,
    },
    budget: null,
    sheet: [[patches.map((_, i) => i)]],
    ...change,
  };
}
