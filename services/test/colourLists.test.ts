import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import { unwrap } from '@melto/core/result';
import {
  changeColourList,
  colourListDetail,
  colourListFile,
  colourListOf,
  colourLists,
  keepColourList,
  removeColourList,
  takeColourList,
} from '../src/lists/colourLists.ts';
import { colourListReport } from '../src/lists/colourListReport.ts';
import { spectralChart } from '../src/lists/spectralChart.ts';
import { search } from '../src/overview/search.ts';
import { heronOn } from '../src/testing/heron.ts';
import { refusal } from '../src/testing/refusal.ts';
import { openTestServices } from '../src/testing/testServices.ts';
import type { TestServices } from '../src/testing/testServices.ts';

let services: TestServices;
beforeAll(async () => {
  services = await openTestServices('melto_colour_lists');
});
afterAll(() => services.database.close());

const csv = (...rows: string[]) => ({ name: 'brand.csv', text: ['name,L,a,b', ...rows].join('\n') });
const take = (name: string, ...rows: string[]) => takeColourList(services, { name }, csv(...rows));

describe('colour lists of the house', () => {
  it('are kept with where they are from, read again as they are, and found by the names of their colours', async () => {
    const { id } = await take('Brand', 'Tide blue,32,4,-41', 'Gorse,80,8,85');
    const list = await colourListDetail(services, id);
    expect(list).toMatchObject({ name: 'Brand', version: 1, count: 2, spectra: 0, changes: null });
    expect(list.origin).toBe('From brand.csv');
    expect(list.colours).toEqual([
      { name: 'Tide blue', lab: [32, 4, -41] },
      { name: 'Gorse', lab: [80, 8, 85] },
    ]);
    const file = await colourListFile(services, id);
    expect(file.name).toBe('Brand v1.txt');
    expect(unwrap(readPatchSet(new TextDecoder().decode(file.content))).names).toEqual([
      'Tide blue',
      'Gorse',
    ]);
    const found = await search(services, 'tide');
    expect(found.filter(({ kind }) => kind === 'colour list')).toEqual([
      { kind: 'colour list', title: 'Brand', detail: 'Tide blue', href: `/library/lists?set=${id}` },
    ]);
    expect((await search(services, 'brand'))[0]).toMatchObject({ title: 'Brand', detail: '2 colours' });
  });

  it('with spectra keep them', async () => {
    const grid = { startNm: 400, stepNm: 20, count: 16 };
    const values = Array.from({ length: 16 }, (_, i) => i / 20);
    const { id } = await keepColourList(services, { name: 'Measured' }, 'Measured', [
      { name: 'one', lab: [50, 0, 0], spectrum: { grid, values } },
      { name: 'two', lab: [60, 0, 0] },
    ]);
    const list = await colourListOf(services, id);
    expect(list.spectra).toBe(1);
    expect(list.colours[0].spectrum).toEqual({ grid, values });
  });

  it('get versions that tell what changed; of two at once each becomes one', async () => {
    const { id } = await take('Seeds', 'a,50,0,0', 'b,60,0,0');
    const both = await Promise.all(
      ['c,70,0,0', 'd,75,0,0'].map((row) =>
        takeColourList(services, { name: 'Seeds', versionOf: id }, csv('a,52,0,0', row)),
      ),
    );
    const details = await Promise.all(both.map((one) => colourListDetail(services, one.id)));
    expect(details.map(({ version }) => version).sort()).toEqual([2, 3]);
    const second = details.find(({ version }) => version === 2);
    expect(second?.changes?.left).toEqual(['b']);
    expect(second?.changes?.moved.map(({ name }) => name)).toEqual(['a']);
    expect(second?.versions.map(({ version }) => version)).toEqual([3, 2, 1]);
    expect((await colourLists(services)).filter(({ name }) => name === 'Seeds')).toHaveLength(1);
    // The first stays as it was.
    expect((await colourListOf(services, id)).colours[1].name).toBe('b');
  });

  it('are named with all their versions, removed and taken back, also by two at once', async () => {
    const { id } = await take('Old name', 'a,50,0,0');
    const { id: later } = await takeColourList(
      services,
      { name: 'Old name', versionOf: id },
      csv('a,51,0,0'),
    );
    await changeColourList(services, id, { name: '  New   name ', note: ' of ours ' });
    // The same words again are no error.
    await changeColourList(services, id, { name: 'New name', note: 'of ours' });
    expect(await colourListOf(services, later)).toMatchObject({ name: 'New name', note: 'of ours' });
    await Promise.all([1, 2].map(() => removeColourList(services, id, true)));
    expect((await colourLists(services)).some(({ name }) => name === 'New name')).toBe(false);
    expect(await search(services, 'new name')).toEqual([]);
    const refused = await refusal(takeColourList(services, { name: 'x', versionOf: id }, csv('a,1,0,0')));
    expect(refused.title).toBe('New name was removed.');
    await removeColourList(services, later, false);
    expect((await colourLists(services)).some(({ name }) => name === 'New name')).toBe(true);
  });

  it.each([
    ['no name', () => take('   ', 'a,50,0,0'), 'The list has no name.'],
    ['no colours', () => take('Empty'), 'The list cannot be used'],
    [
      'an unknown list',
      () => changeColourList(services, 999_999, { name: 'x', note: '' }),
      'colour list 999999',
    ],
    ['an unknown one removed', () => removeColourList(services, 999_999, true), 'colour list 999999'],
    [
      'an unknown version of',
      () => takeColourList(services, { name: 'x', versionOf: 999_999 }, csv('a,1,0,0')),
      'colour list 999999',
    ],
  ] as const)('are refused in a sentence: %s', async (_, act, words) => {
    const before = (await colourLists(services)).length;
    expect((await refusal(act())).title).toContain(words);
    expect(await colourLists(services)).toHaveLength(before);
  });

  it('have no report and no recipes in other lights where no profile is in force', async () => {
    const { id } = await take('Reported', 'a,50,0,0');
    const conditionId = await heronOn(services, 'Lantern Gloss 150');
    expect((await refusal(colourListReport(services, id, conditionId, 'html'))).title).toContain(
      'no profile in force',
    );
    expect((await refusal(spectralChart(services, conditionId))).detail).toBe('Build a profile first.');
  });
});
