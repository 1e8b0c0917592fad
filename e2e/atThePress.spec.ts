import { expect } from '@playwright/test';
import { senseSheet } from '@melto/simulator/pressSensor';
import type { PressUnder } from '@melto/simulator/pressSensor';
import { test } from './awakePages.ts';
import { get, post } from './instrument.ts';

interface Choices {
  readonly devices: readonly {
    readonly id: number;
    readonly name: string;
    readonly inkSet: string;
    readonly modes: readonly string[];
    readonly stocks: readonly { readonly id: number; readonly name: string }[];
    readonly points: readonly object[];
  }[];
}

test('a run goes from its make-ready by a feed and moves to an OK sheet, production and its analysis', async ({
  page,
  request,
}) => {
  const { devices } = await get<Choices>(request, '/api/conditions/choices');
  const osprey = devices.find(({ name }) => name === 'Osprey');
  if (osprey === undefined) throw new Error('no Osprey');
  const { inkSet, modes, points, stocks } = osprey;
  const stockId = stocks.find(({ name }) => name === 'Lantern Gloss 150')?.id;
  await post(request, '/api/conditions', { deviceId: osprey.id, stockId, inkSet, mode: modes[0], points });
  const { id: feed } = await post<{ id: number }>(request, '/api/feeds', {
    name: 'Sensor over unit 4',
    kind: 'sensor',
    byItself: true,
  });

  // Begun in the interface, as it stands in the palette.
  await page.goto('/');
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find or do' }).fill('Runs');
  await page.getByRole('option', { name: /jobs on the press/ }).click();
  await expect(page.getByRole('heading', { name: 'Runs' })).toBeVisible();
  await page.getByRole('button', { name: 'New run' }).click();
  await page.getByLabel('Job number').fill('26-0500');
  await page.getByLabel('Title').fill('Harbour chart');
  await page.getByLabel('Zone, mm').fill('19');
  await expect(page.getByRole('alert')).toContainText('room for the 4 solids');
  await page.getByLabel('Zone, mm').fill('32');
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByRole('heading', { name: '26-0500 Harbour chart' })).toBeVisible();
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('menuitem', { name: 'Feed that reads it' }).click();
  await page.getByRole('button', { name: 'Read this run' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);

  // The feed brings half of a sheet, then the rest: to be seen without a click.
  const under = () => get<PressUnder>(request, `/api/feeds/${feed}/under`);
  const deliver = async (key: string, impression: number, part: (at: number) => boolean): Promise<void> => {
    const sheet = senseSheet(await under(), impression);
    await post(request, `/api/feeds/${feed}/readings`, {
      key,
      ...sheet,
      patches: sheet.patches.filter((_, at) => part(at)),
    });
  };
  await deliver('a', 200, (at) => at % 2 === 0);
  await expect(page.getByText(/, 3\d open/)).toBeVisible();
  await deliver('b', 200, (at) => at % 2 === 1);
  await expect(page.getByText(/, [345]\d open/)).toHaveCount(0);

  // Moves until all is left alone.
  const lines = page.getByRole('list', { name: 'Next move of each unit' });
  const moved = page.getByRole('button', { name: 'Keys are moved' });
  let impression = 200;
  for (let sheet = 0; sheet < 6 && (await moved.isEnabled()); sheet++) {
    await moved.click();
    await expect(lines.getByText(/wait for/).first()).toBeVisible();
    impression += 160;
    await deliver(`sheet ${impression}`, impression, () => true);
    await expect(page.getByText(impression.toLocaleString('en-GB'), { exact: true }).first()).toBeVisible();
    await expect(lines.getByText(/wait for/)).toHaveCount(0);
  }
  await expect(lines.getByText('leave it')).toHaveCount(4);

  // A sheet without a gap is approved, and the run judged by it.
  for (let tries = 0; tries < 10 && (await page.getByText(/ open$/).count()) > 0; tries++) {
    impression += 10;
    await deliver(`sheet ${impression}`, impression, () => true);
    await expect(page.getByText(impression.toLocaleString('en-GB'), { exact: true }).first()).toBeVisible();
  }
  await page.getByRole('button', { name: 'OK sheet' }).click();
  await page.getByLabel('Judge the run by this sheet from now on').check();
  await page.getByRole('button', { name: 'Mark it' }).click();
  await expect(page.getByRole('complementary', { name: 'Sheets that were read' })).toContainText('OK sheet');
  await page.getByRole('button', { name: 'Production' }).click();
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Production' })).toHaveCount(0);
  for (let sheet = 1; sheet <= 3; sheet++) await deliver(`p${sheet}`, impression + 100 * sheet, () => true);
  await expect(page.locator('.run-facts')).toContainText('production');

  await page.getByRole('link', { name: 'Analysis' }).click();
  await expect(page.getByRole('heading', { name: 'Analysis' })).toBeVisible();
  await page.getByLabel('Phase').click();
  await page.getByRole('option', { name: 'production' }).click();
  await expect(page.getByText(/of 3 sheets are within in every patch/)).toBeVisible();
  await expect(page.getByRole('row', { name: /^K 0\.\d\d/ })).toContainText('kept');
});
