import { expect } from '@playwright/test';
import type { APIRequestContext, Page } from '@playwright/test';
import { test, waitsUntilAwake } from './awakePages.ts';
import { post, readStrips, readTile } from './instrument.ts';

const TICKS = ['Colour management off', 'Scaling'];

interface Printed {
  readonly sheets: readonly string[];
}

/** A condition of its own for each test, made through the API. */
async function condition(request: APIRequestContext, stockId: number, mode: string): Promise<number> {
  const points = [
    { label: 'Colour management off', value: 'off', tickAtPrint: true },
    { label: 'Scaling', value: '100 %', tickAtPrint: true },
  ];
  return (
    await post<{ id: number }>(request, '/api/conditions', {
      deviceId: 1,
      stockId,
      inkSet: `Set ${stockId} ${mode}`,
      mode,
      points,
    })
  ).id;
}

async function printed(
  request: APIRequestContext,
  conditionId: number,
  print: Record<string, unknown> = {},
): Promise<{ chart: number; sheet: string }> {
  const { id } = await post<{ id: number }>(request, `/api/conditions/${conditionId}/charts`, {
    patches: 100,
    paper: 'a4',
  });
  const { sheets } = await post<Printed>(request, `/api/charts/${id}/prints`, { ticks: TICKS, ...print });
  return { chart: id, sheet: sheets[0] };
}

async function hand(page: Page, movement: string): Promise<void> {
  await page.getByRole('combobox', { name: 'Simulated hand' }).click();
  await page.getByRole('option', { name: movement }).click();
  await page.getByLabel(/^Reading desk/).focus();
}

const now = (page: Page) => page.getByRole('status');

test.beforeEach(async ({ request }) => {
  await readTile(request);
});

test('turns a strip, tells strips apart, averages passes, and can be deaf to keys', async ({
  page,
  request,
}) => {
  const { sheet } = await printed(request, await condition(request, 1, 'fine'));
  await page.goto(`/read/${sheet}`);
  await hand(page, 'the next strip');
  await page.keyboard.press('Space');
  await expect(now(page)).toContainText('This looks like strip 2');
  await expect(page.getByText('strips 0 of 5')).toBeVisible();
  await hand(page, 'backwards');
  await page.keyboard.press('Enter');
  await expect(now(page)).toContainText('Strip 1 was read backwards and turned');
  await page.getByLabel('Passes').click();
  await page.getByRole('option', { name: '2' }).click();
  await page.getByLabel(/^Reading desk/).focus();
  await page.keyboard.press('Space');
  await expect(now(page)).toContainText('Pass 1 of 2 is kept');
  await page.keyboard.press('Space');
  await expect(page.getByText(/Strip 2: 2 passes averaged, spread 0\.\d\d ΔE00/)).toBeVisible();
  await expect(page.getByRole('heading', { name: /Strip 3/ })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { name: /Strip 4/ })).toBeVisible();
  await page.keyboard.press('r');
  await expect(page.getByRole('heading', { name: /Strip 2/ })).toBeVisible();
  await page.getByLabel('keys act').uncheck();
  await page.getByLabel(/^Reading desk/).focus();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { name: /Strip 2/ })).toBeVisible();
  await page.getByRole('button', { name: 'leave, all is kept' }).click();
  await expect(page.getByRole('heading', { name: 'Sheets and readings' })).toBeVisible();
});

test('two desks on one sheet see each other and double nothing', async ({ page, browser, request }) => {
  const { sheet } = await printed(request, await condition(request, 2, 'fine'));
  await page.goto(`/read/${sheet}`);
  const other = waitsUntilAwake(await browser.newPage());
  await other.goto(`/read/${sheet}`);
  await page.getByLabel(/^Reading desk/).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText('strips 1 of 5')).toBeVisible();
  await expect(other.getByText('Another desk has read strips 1 of this sheet')).toBeVisible();
  // Both read the same strip at once: it is there once.
  await Promise.all([
    page.keyboard.press('Space'),
    other
      .getByLabel(/^Reading desk/)
      .focus()
      .then(() => other.keyboard.press('Space')),
  ]);
  await expect(page.getByText(/strips [23] of 5/)).toBeVisible();
  const state = (await (await request.get(`/api/sheets/${sheet}`)).json()) as {
    strips: { measured: unknown }[];
    readingId: number;
  };
  const read = state.strips.filter(({ measured }) => measured !== null).length;
  const view = (await (await request.get(`/api/readings/${state.readingId}`)).json()) as {
    patches: { row: number }[];
  };
  expect(new Set(view.patches.map(({ row }) => row)).size).toBe(view.patches.length);
  expect(view.patches.length).toBe(read * 20);
  await other.close();
});

test('takes a dropped file, and says what is wrong with a bad one', async ({ page, request }) => {
  const { chart, sheet } = await printed(request, await condition(request, 3, 'fine'));
  await page.goto(`/read/${sheet}`);
  const drop = async (text: string): Promise<void> => {
    const transfer = await page.evaluateHandle((content) => {
      const data = new DataTransfer();
      data.items.add(new File([content], 'measured.txt', { type: 'text/plain' }));
      return data;
    }, text);
    await page.getByLabel(/^Reading desk/).dispatchEvent('drop', { dataTransfer: transfer });
  };
  await drop(
    'CGATS.17\nBEGIN_DATA_FORMAT\nRGB_R RGB_G RGB_B LAB_L\nEND_DATA_FORMAT\nBEGIN_DATA\n1 2\nEND_DATA\n',
  );
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('alert')).toContainText('line 6');
  await expect(dialog.getByRole('alert')).toContainText('Nothing was stored');
  await expect(dialog.getByRole('button', { name: 'Take the reading' })).toBeDisabled();
  await dialog.getByRole('button', { name: 'Not now' }).click();
  const reference = await (await request.get(`/api/charts/${chart}/file?format=txt`)).text();
  const measured = reference
    .replace(/NUMBER_OF_FIELDS (\d+)/, (_, count: string) => `NUMBER_OF_FIELDS ${Number(count) + 3}`)
    .replace('RGB_B\n', 'RGB_B\tLAB_L\tLAB_A\tLAB_B\n')
    .replace(
      /^(\d+\t.*\t(\d+\.\d+)\t(\d+\.\d+)\t(\d+\.\d+))$/gm,
      (_, row: string, r: string, g: string, b: string) =>
        `${row}\t${(10 + (Number(r) + Number(g) + Number(b)) / 9).toFixed(2)}\t${((Number(r) - Number(g)) / 5).toFixed(2)}\t${((Number(g) - Number(b)) / 5).toFixed(2)}`,
    );
  await drop(measured);
  // What the file does not tell is asked; nothing is stored before it is answered.
  await expect(dialog).toContainText('matched by device values as asked');
  await expect(dialog.getByRole('button', { name: 'Take the reading' })).toBeDisabled();
  await dialog.getByRole('radio', { name: /^M1/ }).check();
  await dialog.getByRole('checkbox', { name: /D50 and the 2° observer/ }).check();
  await dialog.getByRole('button', { name: 'Take the reading' }).click();
  await expect(page.getByRole('heading', { name: 'All read' })).toBeVisible();
  await page.getByRole('link', { name: 'Look at the reading' }).click();
  await expect(page.getByText('from a file')).toBeVisible();
  // No spectra came with the file: the inspector shows colour without them.
  await expect(page.getByRole('heading', { name: /^Patch/ })).toBeVisible();
  await expect(page.getByText('Density, status E')).toBeHidden();
  // The same patches as a table that can be sorted.
  await page.getByRole('button', { name: 'as table' }).click();
  await page.getByRole('columnheader', { name: 'L*' }).click();
  const first = page.getByRole('gridcell').first();
  const darkest = await first.textContent();
  await page.getByRole('columnheader', { name: 'L*' }).click();
  await expect(first).not.toHaveText(darkest ?? '');
});

test('shows faults before the reading is used, and carries them to the profile form', async ({
  page,
  request,
}) => {
  const id = await condition(request, 1, 'fast');
  const { sheet } = await printed(request, id, { conversion: 'office vivid' });
  await readStrips(request, sheet);
  await page.goto(`/read/${sheet}`);
  await expect(page.getByText('The sheet looks as if colour management was left on')).toBeVisible();
  await expect(page.getByText('The sheet was read before its rest was over')).toBeVisible();
  await page.goto('/');
  await page.getByRole('link', { name: 'Print again: colour management was on' }).first().click();
  await expect(page.getByText(/confidence \d\d %/).first()).toBeVisible();
  await page.goto(`/conditions/${id}/profile`);
  await page.getByRole('button', { name: 'Build the profile' }).click();
  await expect(page.getByText('This reading shows a fault (colour management on, read early)')).toBeVisible();
  // A build can be cancelled while it waits or runs.
  await page.getByLabel('Tables').click();
  await page.getByRole('option', { name: 'large' }).click();
  await page.getByRole('button', { name: 'Build', exact: true }).click();
  await page.getByRole('main').getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('main').getByRole('button', { name: 'Cancel' })).toBeHidden();
  const jobs = (await (await request.get('/api/jobs')).json()) as { conditionId: number; state: string }[];
  expect(jobs.find(({ conditionId }) => conditionId === id)?.state).toBe('cancelled');
});

test('throws a sheet away and takes it back; a withdrawn reading can be taken back', async ({
  page,
  request,
}) => {
  const id = await condition(request, 2, 'fast');
  const { sheet } = await printed(request, id);
  await page.goto(`/conditions/${id}/sheets`);
  await page.getByRole('button', { name: 'Throw away' }).click();
  await expect(page.getByText('thrown away', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByRole('cell', { name: 'resting' })).toBeVisible();
  await readStrips(request, sheet, { count: 1, mode: 'M2' });
  await page.reload();
  await page.getByRole('button', { name: 'Withdraw' }).click();
  await expect(page.getByRole('cell', { name: 'withdrawn' })).toBeVisible();
  await page.getByRole('button', { name: 'Take back' }).click();
  await expect(page.getByRole('cell', { name: 'in progress' })).toBeVisible();
});

test('holds on a tablet and in the dark', async ({ page, request }) => {
  const { sheet } = await printed(request, await condition(request, 3, 'fast'));
  await page.addInitScript(() => localStorage.setItem('mui-mode', 'dark'));
  await page.setViewportSize({ width: 1024, height: 768 });
  for (const path of ['/', `/read/${sheet}`]) {
    await page.goto(path);
    await expect(page.locator('main')).not.toBeEmpty();
    await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
    const over = await page.evaluate(
      () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
    );
    expect(over, `${path} scrolls sideways`).toBeLessThanOrEqual(0);
  }
  await page.getByRole('button', { name: 'start pass' }).click();
  await expect(page.getByText('strips 1 of 5')).toBeVisible();
});
