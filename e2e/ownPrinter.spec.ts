import { expect } from '@playwright/test';
import { serveBridge } from '@melto/bridge/serveBridge';
import type { Bridge, BridgeInstrument } from '@melto/bridge/serveBridge';
import { readPatchSet } from '@melto/core/cgats/patchSetFromCgats';
import type { ChartLayout } from '@melto/core/charts/layoutChart';
import { layoutFromColumns } from '@melto/core/charts/layoutColumns';
import { unwrap } from '@melto/core/result';
import { simulateSheets } from '@melto/simulator/simulateSheets';
import { test } from './awakePages.ts';
import { post } from './instrument.ts';

test('a printer of one’s own goes from box to reading, by its pages and a file', async ({
  page,
  request,
}) => {
  await page.goto('/conditions/new');
  await page.getByRole('button', { name: 'A device of your own' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('button', { name: 'Add the device' })).toBeDisabled();
  await dialog.getByLabel('Name').fill('Avocet');
  await dialog.getByLabel('Takes').click();
  await page.getByRole('option', { name: /RGB/ }).click();
  await dialog.getByLabel('Ink set').fill('pigment, eight inks');
  await dialog.getByLabel('Print modes').fill('fine, fast');
  await dialog.getByRole('button', { name: 'Add the device' }).click();
  await page.getByRole('button', { name: 'A stock of your own' }).click();
  await dialog.getByLabel('Name').fill('Barn Owl Rag');
  await dialog.getByLabel('Surface').click();
  await page.getByRole('option', { name: 'matt', exact: true }).click();
  await dialog.getByLabel(/Minutes/).fill('30');
  await dialog.getByRole('button', { name: 'Add the stock' }).click();
  await expect(page.getByText('Avocet / Barn Owl Rag / fine')).toBeVisible();
  await page.getByRole('button', { name: 'Make the condition' }).click();
  await page.getByLabel('Patches').fill('100');
  await page.getByRole('button', { name: 'Make the chart' }).click();
  await page.getByRole('button', { name: 'Print RGB 100' }).click();
  await expect(dialog).not.toContainText('Simulated');
  for (const point of await dialog.getByRole('checkbox').all()) await point.check();
  await dialog.getByRole('button', { name: 'Make the pages' }).click();
  const sheet = await dialog.getByRole('listitem').locator('b').textContent();
  const pdf = await request.get(`/api/sheets/${sheet}/file?format=pdf`);
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
  await dialog.getByRole('button', { name: 'Done' }).click();

  // What an instrument's program would have written: a table of per cent and Lab, in an order of its own.
  const file = await page.getByRole('link', { name: 'CGATS' }).first().getAttribute('href');
  const reference = await (await request.get(file ?? '')).text();
  const rows = [...reference.matchAll(/^\d+\t.*\t([\d.]+)\t([\d.]+)\t([\d.]+)$/gm)].map(([, ...rgb]) =>
    rgb.map(Number),
  );
  expect(rows).toHaveLength(100);
  const measured = rows
    .reverse()
    .map(([r = 0, g = 0, b = 0]) => [
      r / 2.55,
      g / 2.55,
      b / 2.55,
      12 + (r + g + b) / 9.5,
      (r - g) / 5,
      (g - b) / 5,
    ])
    .map((row) => row.map((value) => value.toFixed(3)).join(';'));
  await page.goto(`/read/${sheet}`);
  await expect(page.getByRole('heading', { name: `Sheet ${sheet}` })).toBeVisible();
  await page.getByLabel('File of measurements').setInputFiles({
    name: 'house.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`R;G;B;L*;a*;b*\r\n${measured.join('\r\n')}`),
  });
  await expect(dialog).toContainText('All 100 patches, matched by device values as asked');
  await expect(dialog).toContainText('RGB values count from 0 to 100');
  const take = dialog.getByRole('button', { name: 'Take the reading' });
  await expect(take).toBeDisabled();
  await dialog.getByRole('radio', { name: /^M1/ }).check();
  await dialog.getByRole('checkbox', { name: /D50 and the 2° observer/ }).check();
  await take.click();
  await expect(page.getByRole('status').first()).toContainText('All of it is measured');
  await page.getByRole('link', { name: 'Look at the reading' }).click();
  await expect(page.getByText('from a file')).toBeVisible();
});

test('a chart that was measured elsewhere becomes a reading in one dialog', async ({ page, request }) => {
  const post = async (path: string, data: unknown): Promise<number> => {
    const response = await request.post(path, { data });
    expect(response.ok(), await response.text()).toBe(true);
    return ((await response.json()) as { id: number }).id;
  };
  const inkSet = 'pigment, eight inks';
  const deviceId = await post('/api/devices', {
    name: 'Dunlin',
    kind: 'rgb-driver',
    inkSet,
    modes: ['fine'],
  });
  const stockId = await post('/api/stocks', { name: 'Reed Gloss', finish: 'gloss', restMinutes: 0 });
  const points = [{ label: 'Colour management off', value: 'off', tickAtPrint: true }];
  const id = await post('/api/conditions', { deviceId, stockId, inkSet, mode: 'fine', points });
  const levels = [0, 51, 102, 153, 204, 255];
  const rows = levels.flatMap((r) =>
    levels.flatMap((g) =>
      levels.map((b) => [r, g, b, 14 + (r + g + b) / 9.4, (r - g) / 6, (g - b) / 6].map((v) => v.toFixed(2))),
    ),
  );
  await page.goto(`/conditions/${id}/profile`);
  await page.getByLabel('Take one that was measured elsewhere').setInputFiles({
    name: 'from the lab.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      `Measurement condition: M1\nIlluminant: D50\nObserver: 2\nR,G,B,L,a,b\n${rows.map((row) => row.join(',')).join('\n')}`,
    ),
  });
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('M1: all 216 patches');
  const take = dialog.getByRole('button', { name: 'Take the reading' });
  await expect(take).toBeDisabled();
  await dialog.getByRole('checkbox', { name: /as the settings record says/ }).check();
  await take.click();
  await page.waitForURL(/\/readings\/\d+/);
  await expect(page.getByText('from a file')).toBeVisible();
  await page.goto(`/conditions/${id}/profile`);
  await page.getByRole('button', { name: 'Build the profile' }).click();
  await dialog.getByRole('combobox', { name: 'Tables' }).click();
  await page.getByRole('option', { name: 'small' }).click();
  await dialog.getByRole('button', { name: 'Build', exact: true }).click();
  await expect(page.getByText(/fits its \d+ patches/)).toBeVisible({ timeout: 120_000 });
  await expect(page.locator('body')).not.toContainText(/simulat/i);
});

/** A hand-held reader behind a bridge: it is drawn along the strip that it is armed for, a moment later; after `strips` of them nobody draws it any more. */
async function bridgeOver(spectra: Float64Array, layout: ChartLayout, strips = Infinity): Promise<Bridge> {
  let drawn = 0;
  const instrument: BridgeInstrument = {
    info: {
      ...{ serial: 'LS-4471', name: 'Lodestar', kind: 'strip', modes: ['M0', 'M1'], begins: 'at-instrument' },
      ...{ tileLifeMs: 7_200_000, apertureMm: 4.5, backing: 'black' },
    },
    calibrate: async () => undefined,
    read: async ({ page = 1, strip = 1, under }, { armed }) => {
      // A real instrument sees for itself.
      if (under !== undefined) return { reason: 'instrument', words: 'It was told what lies under it.' };
      armed();
      await new Promise<void>((resolve) => {
        if (drawn < strips) setTimeout(resolve, 80);
      });
      drawn += 1;
      const rows = layout.pages[page - 1]?.[strip - 1] ?? [];
      return {
        ...{ startNm: 380, stepNm: 10 },
        spectra: rows.map((row) => Array.from(spectra.subarray(36 * row, 36 * row + 36))),
      };
    },
  };
  return serveBridge({ port: 3433, name: 'Lodestar bridge', instruments: [instrument] });
}

test('an instrument of one’s own reads what was printed elsewhere, through its bridge', async ({
  page,
  request,
}) => {
  const floor = (await (await request.get('/api/floor')).json()) as {
    rows: { id: number; device: string }[];
  };
  const id = floor.rows.find(({ device }) => device === 'Dunlin')?.id ?? 0;
  const { id: chart } = await post<{ id: number }>(request, `/api/conditions/${id}/charts`, {
    patches: 100,
    paper: 'a4',
  });
  const { sheets } = await post<{ sheets: string[] }>(request, `/api/charts/${chart}/prints`, {
    ticks: ['Colour management off'],
  });
  const sheet = sheets[0] ?? '';
  const sent = unwrap(readPatchSet(await (await request.get(`/api/sheets/${sheet}/file?format=txt`)).text()));
  const layout = sent.layout === undefined ? undefined : layoutFromColumns(sent.layout, 'a4');
  if (layout === undefined || sent.device === undefined) throw new Error('the sheet has no layout');
  const { spectra } = simulateSheets({
    ...{ device: 'wren', stock: 'quay-proof-200', printMode: 'fine', side: 'printing', seed: 12 },
    ...{ mode: 'M1', noise: 'instrument', values: sent.device, layout },
  });
  let bridge = await bridgeOver(spectra, layout, 1);
  await page.goto(`/read/${sheet}`);
  await page.getByRole('button', { name: 'Connect an instrument' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Address of the bridge').fill('ws://127.0.0.1:3433');
  await dialog.getByRole('button', { name: 'Look there' }).click();
  await expect(page.getByText('Lodestar bridge: Lodestar.')).toBeVisible();
  await expect(dialog).toBeHidden();
  await page.getByRole('button', { name: 'Read it here' }).click();
  await expect(page.getByRole('status')).toHaveText('White tile due: press T.');
  await page.keyboard.press('t');
  await expect(page.getByRole('status')).toHaveText('Press Space, then draw the instrument along the strip.');
  // One key; then the instrument alone, though its bridge dies on the way.
  await page.keyboard.press('Space');
  await expect(page.getByText('strips 1 of 5')).toBeVisible();
  await bridge.close();
  bridge = await bridgeOver(spectra, layout);
  await expect(page.getByRole('heading', { name: 'All read' })).toBeVisible();
  await expect(page.locator('body')).not.toContainText(/simulat/i);
  await bridge.close();
  await page.getByRole('link', { name: 'Look at the reading' }).click();
  await expect(page.getByText('Lodestar').first()).toBeVisible();
  const state = (await (await request.get(`/api/sheets/${sheet}`)).json()) as {
    strips: { measured: unknown }[];
  };
  expect(state.strips.every(({ measured }) => measured !== null)).toBe(true);
  await page.goto('/library/instruments');
  await expect(page.getByRole('cell', { name: 'LS-4471' })).toBeVisible();
});
