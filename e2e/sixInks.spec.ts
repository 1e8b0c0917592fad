import { expect } from '@playwright/test';
import type { Page } from '@playwright/test';
import { test } from './awakePages.ts';
import { calibrate, newCondition, printAndRead, restUntilReady, tickAndPrint } from './steps.ts';

/** Reads a sheet with the reader that moves by itself: one key. */
async function readByItself(page: Page, sheet: string): Promise<void> {
  await restUntilReady(page);
  await page.goto(`/read/${sheet}`);
  await calibrate(page);
  await page.keyboard.press('Space');
  await expect(page.getByText(/strips (\d+) of \1\b/)).toBeVisible({ timeout: 120_000 });
}

/** Prints ramps for the sheet reader and reads them. */
async function printRamps(page: Page, at: string, sheet: string): Promise<void> {
  await page.goto(at);
  await page.getByRole('button', { name: 'Print a sheet' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Read with').click();
  await page.getByRole('option', { name: 'sheet reader' }).click();
  await dialog.getByLabel('Steps').fill('16');
  await dialog.getByRole('button', { name: 'Make the chart' }).click();
  await expect(dialog.getByRole('button', { name: 'Print', exact: true })).toBeVisible();
  await tickAndPrint(page);
  await readByItself(page, `${sheet}-1`);
}

test('six inks from limits to a proven profile', async ({ page, request }) => {
  test.setTimeout(900_000);
  const problems: string[] = [];
  page.on('pageerror', (error) => problems.push(error.message));
  const at = await newCondition(page, 'Tern', 'Quay Proof 200');

  // Limits and curves of all six.
  await printRamps(page, `${at}/limits`, 'TRN-0001');
  await page.goto(`${at}/limits`);
  await page.getByRole('button', { name: 'Propose limits' }).click();
  for (const ink of ['O', 'G'])
    await expect(page.getByRole('slider', { name: `Limit of ${ink}` })).toBeVisible();
  await page.getByRole('link', { name: /^Curves/ }).click();
  await page.getByRole('button', { name: 'Make the curves' }).click();
  await expect(page.getByText('round 1, SCTV')).toBeVisible();

  // A chart of six inks; its file names them.
  await page.getByRole('link', { name: /^Profile/ }).click();
  await page.getByLabel('Patches').fill('399');
  await expect(page.getByText('A whole number from 400 to 3,000.')).toBeVisible();
  await page.getByLabel('Patches').fill('450');
  await page.getByLabel('Read with').click();
  await page.getByRole('option', { name: 'sheet reader' }).click();
  await page.getByRole('button', { name: 'Make the chart' }).click();
  await page.getByRole('button', { name: /^Print CMYKOG/ }).click({ timeout: 60_000 });
  await tickAndPrint(page);
  await readByItself(page, 'TRN-0002-1');

  // The separation is seen before it is built.
  await page.goto(`${at}/profile`);
  await page.getByRole('link', { name: 'Build the profile' }).click();
  await expect(page.getByText(/Mean ink of the seed packet/)).toBeVisible({ timeout: 120_000 });
  const replace = page.getByRole('slider', { name: 'O, G in place of overprints, %' });
  await replace.fill('20');
  await page.getByLabel('most G, 30 to 100 %').fill('29');
  await expect(page.getByRole('button', { name: 'Build', exact: true })).toBeDisabled();
  await page.getByLabel('most G, 30 to 100 %').fill('90');
  await replace.fill('80');
  await page.getByRole('combobox', { name: 'Tables' }).click();
  await page.getByRole('option', { name: 'small' }).click();
  await page.getByRole('button', { name: 'Build', exact: true }).click();
  await expect(page.getByText(/fits its 450 patches/)).toBeVisible({ timeout: 240_000 });
  await expect(page.getByText(/most G 90 %/)).toBeVisible();

  // Proven on paper.
  await page.goto(`${at}/conformity`);
  await page.getByRole('button', { name: 'Short check' }).click();
  await page.getByRole('dialog').getByLabel('Read with').click();
  await page.getByRole('option', { name: 'sheet reader' }).click();
  await page.getByRole('button', { name: 'Go on to print' }).click();
  await tickAndPrint(page);
  await readByItself(page, 'TRN-0003-1');
  await page.goto(`${at}/conformity`);
  await expect(page.getByText(/conforms|near the limit/).first()).toBeVisible();

  // Pages that are printed through the profile name the inks; CMYK as it is would be other colours here.
  const api = `/api${at}`;
  for (const file of ['eye-file', 'study-file']) {
    const pdf = (await (await request.get(`${api}/${file}?paper=a4`)).body()).toString('latin1');
    for (const words of ['/DeviceN', '/Orange', '/Green']) expect(pdf).toContain(words);
  }
  const [{ id: aimSetId }] = (await (await request.get('/api/aim-sets')).json()) as { id: number }[];
  const [{ id: toleranceSetId }] = (await (await request.get('/api/tolerance-sets')).json()) as {
    id: number;
  }[];
  const judgedBy = { aimSetId, toleranceSetId, substrateCorrected: false, through: 'device values' };
  const refused = await request.post(`${api}/wedges`, {
    data: { kind: 'proof', paper: 'a4', reader: 'sheet', judgedBy, ticks: [] },
    headers: { 'idempotency-key': crypto.randomUUID() },
  });
  expect(await refused.text()).toContain('takes CMYKOG; CMYK aims go through its profile');

  // The watch: its wedge goes through the profile, three times.
  await page.goto(`${at}/watch`);
  await page.getByRole('button', { name: 'Print the watch wedge' }).click();
  await printAndRead(page, 3);
  await page.goto(`${at}/watch`);
  await page.getByRole('button', { name: 'Start the watch' }).click();
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  await expect(page.getByText(/steady: /)).toBeVisible();
  expect(problems).toEqual([]);
  expect((await request.get('/api/health')).ok()).toBe(true);
});
