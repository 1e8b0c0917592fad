import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { describe, expect, it } from 'vitest';

const ROOT = join(import.meta.dirname, '../..');

function sources(...folders: string[]): string[] {
  return folders.flatMap((folder) =>
    readdirSync(join(ROOT, folder), { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile() && /(?<!\.test|\.d)\.tsx?$/.test(entry.name))
      .map((entry) => join(entry.parentPath, entry.name))
      .filter((path) => !path.includes('node_modules') && !path.includes('/.next')),
  );
}

/**
 * Asks whether a process is the one of four inks or the one of light; counting to four counts as asking. Numbers of
 * versions do not.
 */
const ASKS =
  /sameProcess\([^)]*\b(RGB|CMYK)\)|[!=]== (RGB|CMYK)\b|[!=]== '(cmyk|rgb)'|(device|dmax|values|parts|channels|inputs|outputs|curves)(\.length)? [!=]== 4\b/gi;

const STANDARD = 'the standard or the published model is about four inks, or about RGB';
const FILE = 'the file format has this colour space';
const PROFILE = 'the builder of profiles is chosen; one for other inks is still to come';
const WORDS = 'how patches are written';

/** Where it may be asked, how often, and why. A new place has to be argued for here. */
const EXCEPTIONS: Readonly<Record<string, readonly [number, string]>> = {
  'cli/src/chartMake.ts': [5, PROFILE],
  'cli/src/chartPages.ts': [1, FILE],
  'cli/src/namedInks.ts': [1, FILE],
  'cli/src/profileInspect.ts': [1, FILE],
  'cli/src/profileBuild.ts': [1, PROFILE],
  'core/src/cgats/fieldNames.ts': [2, FILE],
  'core/src/characterise/fitReport.ts': [1, PROFILE],
  'core/src/characterise/leastPatches.ts': [3, 'which processes have profiles, in one place'],
  'core/src/characterise/radialSpline.ts': [1, 'a table of four inputs has a quicker way'],
  'core/src/conformity/checkAgainstAims.ts': [1, STANDARD],
  'core/src/conformity/profileAims.ts': [1, STANDARD],
  'core/src/curveFiles/curvesToDeviceLink.ts': [1, FILE],
  'core/src/device/cmykWithin.ts': [2, 'rows of four among more inks, in one place'],
  'core/src/device/deviceValues.ts': [1, WORDS],
  'core/src/gamut/measuredBody.ts': [2, 'of more inks a reading does not tell which print together'],
  'core/src/icc/profileBlack.ts': [1, STANDARD],
  'core/src/link/deviceLink.ts': [2, FILE],
  'core/src/link/linkInks.ts': [1, FILE],
  'core/src/lists/recipes.ts': [1, 'black is what C, M and Y are traded for'],
  'core/src/profile/inkTable.ts': [1, PROFILE],
  'core/src/profile/inspectProfile.ts': [1, 'which ink of a profile of four is black'],
  'core/src/profile/manyInkTable.ts': [1, 'a table of four inputs has a quicker way'],
  'core/src/proof/monitor.ts': [1, 'a screen has red, green and blue'],
  'core/src/transform/profileBlacks.ts': [2, STANDARD],
  'paper/src/chartPdf.ts': [1, FILE],
  'paper/src/namedInks.ts': [1, FILE],
  'paper/src/proofPicture.ts': [2, FILE],
  'services/src/charts/askedValues.ts': [1, STANDARD],
  'services/src/charts/sourceProfiles.ts': [1, FILE],
  'services/src/conformity/aimSets.ts': [1, STANDARD],
  'services/src/conformity/askedTvi.ts': [1, STANDARD],
  'services/src/conformity/checkChoice.ts': [1, STANDARD],
  'services/src/conformity/newAimSet.ts': [1, STANDARD],
  'services/src/house/ownDevices.ts': [1, 'named inks that are C, M, Y and K are the usual four'],
  'services/src/profile/workProfile.ts': [1, PROFILE],
  'services/src/profile/chartJobs.ts': [1, PROFILE],
  'services/src/profile/profilingChart.ts': [2, PROFILE],
  'services/src/wedges/predictedWedge.ts': [1, STANDARD],
  'web/features/charts/SheetFiles.tsx': [1, FILE],
  'web/features/press/LimitsSurface.tsx': [1, WORDS],
  'web/features/proof/ProofSurface.tsx': [1, 'a screen has red, green and blue'],
};

describe('four inks', () => {
  it('are asked for only where a standard, a file or a builder is about them', () => {
    const asked = sources(
      ...['core/src', 'services/src', 'store/src', 'jobs/src', 'cli/src', 'demo/src', 'paper/src'],
      ...['web/app', 'web/endpoints', 'web/features', 'web/server', 'web/ui'],
    )
      .map((path) => [relative(ROOT, path), readFileSync(path, 'utf8').match(ASKS)?.length ?? 0] as const)
      .filter(([path, count]) => count > 0 && path !== 'core/src/device/process.ts');
    const allowed = Object.entries(EXCEPTIONS)
      .map(([path, [count]]) => [path, count] as const)
      .filter(([, count]) => count > 0);
    expect(Object.fromEntries(asked)).toEqual(Object.fromEntries(allowed));
  });

  it('are found by what is looked for', () => {
    const count = (line: string): number => line.match(ASKS)?.length ?? 0;
    expect(count("if (space === 'cmyk') return;")).toBe(1);
    expect(count('if (process !== CMYK || sameProcess(other, RGB)) return;')).toBe(2);
    expect(count('if (device.length === 4) return;')).toBe(1);
    expect(count('if (version === 4 || sameProcess(a, b)) return;')).toBe(0);
  });
});

describe('rooms', () => {
  const all = sources('services/src');

  it('have at most twenty files', () => {
    const rooms = new Map<string, number>();
    for (const path of all) {
      const room = relative(ROOT, join(path, '..'));
      rooms.set(room, (rooms.get(room) ?? 0) + 1);
    }
    expect([...rooms].filter(([, count]) => count > 20)).toEqual([]);
    expect(rooms.size).toBeGreaterThan(10);
  });

  it('have files of at most 250 lines', () => {
    const long = all.filter((path) => readFileSync(path, 'utf8').trimEnd().split('\n').length > 250);
    expect(long.map((path) => relative(ROOT, path))).toEqual([]);
  });
});
