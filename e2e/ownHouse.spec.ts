import { expect } from '@playwright/test';
import type { APIRequestContext, Page } from '@playwright/test';
import { test } from './awakePages.ts';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import type { PatchSet } from '@melto/core/cgats/patchSet';
import { patchSetToCgats } from '@melto/core/cgats/patchSetToCgats';
import { writeCgats } from '@melto/core/cgats/writeCgats';
import { makeCmykChart } from '@melto/core/charts/cmykChart';
import { layoutChart } from '@melto/core/charts/layoutChart';
import { layoutFromColumns } from '@melto/core/charts/layoutColumns';
import type { ChartLayout } from '@melto/core/charts/layoutChart';
import { makeRgbChart } from '@melto/core/charts/rgbChart';
import { CMYK, RGB } from '@melto/core/device/process';
import { unwrap } from '@melto/core/result';
import { simulateSheets } from '@melto/simulator/simulateSheets';

// A house that begins empty and has no simulator: what is measured here comes from outside, as files.
test.describe.configure({ mode: 'serial' });

let at = '';

/** What a measuring program of somebody else's would have written of a sheet of CMYK values. */
function measured(sheet: PatchSet, layout: ChartLayout, seed: number): string {
  const device = sheet.device ?? new Float64Array(0);
  const { grid, spectra } = simulateSheets({
    ...{ device: 'heron', stock: 'lantern-gloss-150', printMode: 'standard', side: 'printing', seed },
    ...{ mode: 'M1', noise: 'instrument', values: device, layout },
  });
  return writeCgats(
    patchSetToCgats({
      ids: sheet.ids.map((_, i) => `P${i + 1}`),
      process: CMYK,
      device,
      spectra: { grid, values: spectra },
      conditions: { mode: 'M1', backing: 'white' },
      notes: [],
    }),
  );
}

async function measuredSheet(request: APIRequestContext, code: string, seed: number): Promise<string> {
  const file = await request.get(`/api/sheets/${code}/file?format=txt`);
  const sent = unwrap(readPatchSet(await file.text()));
  const layout = sent.layout === undefined ? undefined : layoutFromColumns(sent.layout, 'a4');
  if (layout === undefined) throw new Error(`${code} has no layout`);
  return measured(sent, layout, seed);
}

/** Ticks, makes the pages, and gives the file of what was measured of each of them at its sheet. */
async function printAndMeasure(page: Page, request: APIRequestContext, seed: number): Promise<void> {
  const dialog = page.getByRole('dialog');
  for (const box of await dialog.getByRole('checkbox').all()) await box.check();
  await dialog.getByRole('button', { name: 'Make the pages' }).click();
  await expect(dialog.getByRole('listitem').first()).toBeVisible();
  const sheets = await dialog.getByRole('listitem').locator('b').allTextContents();
  await dialog.getByRole('button', { name: 'Done' }).click();
  for (const [i, sheet] of sheets.entries()) {
    await page.goto(`/read/${sheet}`);
    await expect(page.getByRole('heading', { name: `Sheet ${sheet}` })).toBeVisible();
    await page.getByLabel('File of measurements').setInputFiles({
      name: `${sheet}.txt`,
      mimeType: 'text/plain',
      buffer: Buffer.from(await measuredSheet(request, sheet, seed + i)),
    });
    await dialog.getByRole('button', { name: 'Take the reading' }).click();
    await expect(page.getByRole('status').first()).toContainText('All of it is measured');
  }
}

async function pick(page: Page, label: string, option: string | RegExp): Promise<void> {
  await page.getByLabel(label).first().click();
  await page.getByRole('option', { name: option }).first().click();
}

/** No page of such a house speaks of what is simulated. */
async function nothingSimulated(page: Page): Promise<void> {
  await expect(page.locator('body')).not.toContainText(/simulat/i);
}

test('an empty house gets a press of its own, with a profile from a measured file', async ({ page }) => {
  await page.goto('/');
  await nothingSimulated(page);
  await page.getByRole('link', { name: 'Name your house' }).click();
  await page.getByLabel('Name of the house').fill('Reed Press');
  await page.getByLabel('Who works here').fill('Jo Sedge');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('Kept.')).toBeVisible();
  await page.goto('/');
  await expect(page.getByText('Reed Press')).toBeVisible();
  await page.goto('/conditions/new');
  const dialog = page.getByRole('dialog');
  await page.getByRole('button', { name: 'Add a device' }).click();
  await dialog.getByLabel('Name').fill('Kestrel');
  await pick(page, 'Takes', 'CMYK front end');
  await dialog.getByLabel('Ink set').fill('toner, CMYK');
  await dialog.getByLabel('Print modes').fill('standard');
  await dialog.getByRole('button', { name: 'Add the device' }).click();
  await page.getByRole('button', { name: 'A stock of your own' }).click();
  await dialog.getByLabel('Name').fill('Quarry Gloss 150');
  await pick(page, 'Surface', 'gloss');
  await dialog.getByLabel(/Minutes/).fill('0');
  await dialog.getByRole('button', { name: 'Add the stock' }).click();
  await page.getByRole('button', { name: 'Make the condition' }).click();
  await page.waitForURL(/\/conditions\/\d+\/\w+/);
  at = new URL(page.url()).pathname.replace(/\/\w+$/, '');
  await nothingSimulated(page);

  const chart = makeCmykChart(400, 11, 3.2);
  const layout = layoutChart(CMYK, chart.device, 'a4', 5);
  const text = measured({ ids: chart.names, device: chart.device, conditions: {}, notes: [] }, layout, 21);
  await page.goto(`${at}/profile`);
  await page.getByLabel('Take one that was measured elsewhere').setInputFiles({
    name: 'press chart.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from(text),
  });
  await expect(dialog).toContainText('M1: all 400 patches');
  await dialog.getByRole('checkbox', { name: /as the settings record says/ }).check();
  await dialog.getByRole('button', { name: 'Take the reading' }).click();
  await page.waitForURL(/\/readings\/\d+/);
  await nothingSimulated(page);
  await page.goto(`${at}/profile/build`);
  await page.getByRole('combobox', { name: 'Tables' }).click();
  await page.getByRole('option', { name: 'small' }).click();
  await page.getByRole('button', { name: 'Build', exact: true }).click();
  await expect(page.getByText(/fits its \d+ patches/)).toBeVisible({ timeout: 120_000 });
  await nothingSimulated(page);
});

test('its proof conforms through the profile, judged from a file', async ({ page, request }) => {
  await page.goto('/library/aims');
  await page.getByRole('button', { name: 'New aim set' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill('Kestrel on gloss');
  await dialog.getByRole('button', { name: 'from a reading' }).click();
  await pick(page, 'Reading', /press chart/);
  await dialog.getByRole('button', { name: 'Make the aim set' }).click();
  await expect(page.getByRole('link', { name: /^Kestrel on gloss/ })).toBeVisible();

  await page.goto(`${at}/conformity`);
  await page.getByRole('button', { name: 'New check' }).click();
  await expect(dialog.getByLabel('Way to the device')).toContainText('absolute colorimetric');
  await pick(page, 'Aims', 'Kestrel on gloss');
  await page.getByRole('button', { name: 'Go on to print' }).click();
  await expect(dialog).not.toContainText('Simulated');
  await printAndMeasure(page, request, 31);
  await page.goto(`${at}/conformity`);
  await expect(page.getByText(/^conforms to ISO 12647-7 proof/)).toBeVisible();
  await nothingSimulated(page);
});

test('it is watched, from three sheets that were measured elsewhere', async ({ page, request }) => {
  await page.goto(`${at}/watch`);
  await page.getByRole('button', { name: 'Print the watch wedge' }).click();
  await expect(page.getByRole('dialog')).toContainText('3 prints for the zero reading');
  await printAndMeasure(page, request, 41);
  await page.goto(`${at}/watch`);
  await nothingSimulated(page);
  await page.getByRole('button', { name: 'Start the watch' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Start', exact: true }).click();
  await expect(page.getByText(/^steady: /)).toBeVisible();
  const standing = (await (await request.get(`/api${at}/standing`)).json()) as { mark: string };
  expect(standing.mark).not.toBe('stop');
  for (const path of ['/', `${at}/conformity`, `${at}/sheets`, `${at}/settings`, '/library/tolerances']) {
    await page.goto(path);
    await nothingSimulated(page);
  }
});

/** A chart on a bright paper as an instrument elsewhere read it. */
function brightSheet(mode: 'M1' | 'M2'): string {
  const { device, roles } = makeRgbChart(300, 7);
  const layout = layoutChart(RGB, device, 'a4', 7);
  const { grid, spectra } = simulateSheets({
    ...{ device: 'wren', stock: 'lantern-gloss-150', printMode: 'fine', side: 'printing', seed: 61 },
    ...{ mode, noise: 'instrument', values: device, layout },
  });
  return writeCgats(
    patchSetToCgats({
      ids: roles.map((_, i) => `${i + 1}`),
      process: RGB,
      device,
      spectra: { grid, values: spectra },
      conditions: { mode },
      notes: [],
    }),
  );
}

test('a measured file on the floor becomes a condition and its RGB profile', async ({ page }) => {
  await page.goto('/');
  await page.getByLabel('take a measured file').setInputFiles({
    name: 'rag.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from(brightSheet('M1')),
  });
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('M1: all 300 patches');
  // The house's press takes CMYK: what takes RGB is new.
  await dialog.getByLabel('Its name').fill('Sanderling');
  await dialog.getByLabel('Ink set').fill('pigment');
  await dialog.getByLabel('Print mode').fill('fine');
  await dialog.getByLabel('Stock').click();
  await page.getByRole('option', { name: 'a new one' }).click();
  await dialog.getByLabel('Its name').last().fill('Tern Lustre');
  await dialog.getByLabel('Surface').click();
  await page.getByRole('option', { name: 'semi-matt' }).click();
  await dialog.getByRole('checkbox', { name: /^It was printed without colour/ }).check();
  await dialog.getByRole('button', { name: 'Take the reading' }).click();
  await page.waitForURL(/\/conditions\/\d+\/profile/);
  await page.getByRole('button', { name: 'Build the profile' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Build', exact: true }).click();
  await expect(page.getByText(/fits its \d+ patches/)).toBeVisible({ timeout: 120_000 });
  await nothingSimulated(page);
  await page.goto('/');
  await page.getByLabel('Find').fill('tern lus');
  await expect(page.getByRole('link', { name: /Tern Lustre/ })).toBeVisible();
  await expect(page.getByRole('link', { name: /Quarry Gloss/ })).toBeHidden();
});

test('a bright paper gets a profile for the light that its prints hang in', async ({ page, request }) => {
  // The same sheet once more, without ultraviolet.
  const floor = (await (await request.get('/api/floor?find=Tern')).json()) as { rows: { id: number }[] };
  const id = floor.rows[0].id;
  const { rows } = (await (await request.get(`/api/conditions/${id}/sheets`)).json()) as {
    rows: { code: string }[];
  };
  await page.goto(`/read/${rows[0].code}`);
  await page.getByLabel('File of measurements').setInputFiles({
    name: 'bright-m2.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from(brightSheet('M2')),
  });
  await page.getByRole('dialog').getByRole('button', { name: 'Take the reading' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.getByRole('link', { name: 'Look at the reading' }).click();
  await expect(page.getByRole('heading', { name: 'Brightener' })).toBeVisible();
  await expect(page.getByText(/depends on the ultraviolet/)).toBeVisible();

  await page.goto('/library/lights');
  const lamp = Array.from({ length: 41 }, (_, i) => `${380 + 10 * i},${20 + 2 * i}`);
  await page.getByLabel('Take a measured light').setInputFiles({
    name: 'hall.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(['nm,North hall', ...lamp].join('\n')),
  });
  await expect(page.getByRole('heading', { name: 'North hall' })).toBeVisible();
  await expect(page.getByText(/Warmer than daylight/)).toBeVisible();

  await page.goto(`/conditions/${id}/study`);
  await page.getByRole('combobox', { name: 'Light' }).click();
  await page.getByRole('option', { name: 'North hall' }).click();
  // The same field each time: what is neutral without any ultraviolet lies near it.
  for (let i = 0; i < 12; i++) await page.getByRole('button', { name: 'Field 9', exact: true }).click();
  await page.getByRole('button', { name: 'Keep it with the light' }).click();

  await page.getByRole('button', { name: 'Build another' }).click();
  const form = page.getByRole('dialog');
  await form.getByLabel('For the light').click();
  await page.getByRole('option', { name: 'North hall, 2°' }).click();
  await expect(form.getByText(/^A study told 0\.\d\d of this light/)).toBeVisible();
  await form.getByLabel('Share of ultraviolet').fill('0.4');
  await form.getByRole('button', { name: 'Build', exact: true }).click();
  await expect(page.getByRole('button', { name: /^v2/ })).toBeVisible({ timeout: 120_000 });
  await page.getByRole('button', { name: /^v2/ }).click();
  await expect(
    page.getByText(/^for North hall, 2°, ultraviolet 0\.40, beside the one in force/),
  ).toBeVisible();
  await expect(page.getByRole('button', { name: /in force/ })).toHaveCount(0);

  // An eye looks at a printed page in that light.
  await page.goto(`/conditions/${id}/eye`);
  await page.getByRole('combobox', { name: 'Looked at in' }).click();
  await page.getByRole('option', { name: 'North hall' }).click();
  const eye = await request.get(`/api/conditions/${id}/eye-file`);
  expect((await eye.body()).subarray(0, 5).toString()).toBe('%PDF-');
  for (const name of ['lighter', 'yellower']) {
    await page.getByRole('button', { name, exact: true }).click();
    await page.getByRole('button', { name: `Note it: ${name}` }).click();
  }
  for (let i = 0; i < 18; i++) await page.getByRole('button', { name: 'The same' }).click();
  await expect(page.getByText('All 20 colours are noted.')).toBeVisible();
  await expect(page.getByText(/^What speaks for each/)).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Keep this look' }).click();
  await expect(page.getByRole('heading', { name: 'Earlier looks' })).toBeVisible();
  await expect(page.getByRole('cell', { name: '18 of 20' })).toBeVisible();
  await nothingSimulated(page);
});

test('a colour list is taken, found where it prints, and reported', async ({ page, request }) => {
  await page.goto('/library/lists');
  await expect(page.getByText('The house has no list yet')).toBeVisible();
  await page.getByLabel('Take a list').setInputFiles({
    name: 'Brand.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('name,L,a,b\nSand,79,3,18\nToo vivid,60,95,-70\n'),
  });
  await expect(page.getByRole('heading', { name: 'Brand' })).toBeVisible();
  await page.getByLabel('Take a list').setInputFiles({
    name: 'none.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('no list'),
  });
  await expect(page.getByText(/the columns name, L, a, b/)).toBeVisible();
  await page.getByRole('link', { name: 'Where does it come out?' }).click();
  await expect(page.getByText(/^1 of 2 can be reached/)).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Sand', exact: true }).click();
  await expect(page.getByRole('table', { name: 'Tints of Sand' })).toBeVisible({ timeout: 30_000 });
  const report = await page.getByRole('link', { name: 'page', exact: true }).getAttribute('href');
  expect(await (await request.get(report ?? '')).text()).toContain('1 of 2 reached');
});
