import { expect } from '@playwright/test';
import type { Page } from '@playwright/test';
import { test } from './awakePages.ts';
import { calibrate, newCondition, restUntilReady, tickAndPrint } from './steps.ts';

test.describe.configure({ mode: 'serial' });

/** Prints a sheet for the reader that moves by itself, lets it rest and reads it. */
async function printAndRead(page: Page, at: string, sheet: string, steps?: string): Promise<void> {
  await page.goto(at);
  await page.getByRole('button', { name: 'Print a sheet' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Read with').click();
  await page.getByRole('option', { name: 'sheet reader' }).click();
  if (steps !== undefined) {
    await dialog.getByLabel('Steps').fill('70');
    await expect(dialog.getByRole('button', { name: 'Make the chart' })).toBeDisabled();
    await dialog.getByLabel('Steps').fill(steps);
  }
  await dialog.getByRole('button', { name: 'Make the chart' }).click();
  await expect(dialog.getByRole('button', { name: 'Print', exact: true })).toBeVisible();
  await tickAndPrint(page);
  await restUntilReady(page);
  await page.goto(`/read/${sheet}-1`);
  // One key: the sheet reader goes on from row to row.
  await calibrate(page);
  await page.keyboard.press('Space');
  await expect(page.getByText(/strips (\d+) of \1\b/)).toBeVisible({ timeout: 120_000 });
}

/** Reads a page with the strip reader, one key a strip. */
async function readPage(page: Page): Promise<void> {
  await calibrate(page);
  const strips = Number(
    /of (\d+)/.exec((await page.getByText(/strips \d+ of \d+/).textContent()) ?? '')?.[1],
  );
  for (let strip = 1; strip <= strips; strip++) {
    await page.keyboard.press('Space');
    await expect(page.getByText(`strips ${strip} of`)).toBeVisible();
  }
}

test('a press comes to a known state in two rounds, with an undo, and gets a refined profile', async ({
  page,
  request,
}) => {
  test.setTimeout(900_000);
  const problems: string[] = [];
  page.on('pageerror', (error) => problems.push(error.message));
  const at = await newCondition(page, 'Heron', 'Lantern Gloss 150');
  await expect(page.getByText('Print ramps with a linear front end')).toBeVisible();

  // Limits: proposed with reasons, moved by the keys, kept as a new version.
  await printAndRead(page, `${at}/limits`, 'HRN-0001', '16');
  await page.goto(`${at}/limits`);
  await page.getByRole('button', { name: 'Propose limits' }).click();
  const limit = page.getByRole('slider', { name: 'Limit of total ink' });
  await expect(limit).toBeVisible();
  const proposed = Number(await limit.getAttribute('aria-valuenow'));
  await limit.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(limit).toHaveAttribute('aria-valuenow', String(proposed - 10));
  await page.getByRole('button', { name: 'Keep these limits' }).click();
  await expect(page.getByText('set by hand, device values')).toBeVisible();

  // Curves, round by round.
  await page.getByRole('link', { name: /^Curves/ }).click();
  await page.getByRole('button', { name: 'Make the curves' }).click();
  await expect(page.getByText('round 1, TVI')).toBeVisible();
  await printAndRead(page, `${at}/curves`, 'HRN-0002', '16');
  await page.goto(`${at}/curves`);
  await expect(page.getByText(/steps within [\d.]+ % of the aim/)).toBeVisible();
  await page.getByRole('button', { name: 'Make another round' }).click();
  await expect(page.getByText('round 2, TVI')).toBeVisible();

  // Undo, and back again.
  await page.getByRole('button', { name: /^v1/ }).click();
  await page.getByRole('button', { name: 'put v1 in force' }).click();
  await expect(page.getByText('round 1, TVI')).toBeVisible();
  await expect(page.getByRole('button', { name: 'put v1 in force' })).toBeHidden();
  await page.getByRole('button', { name: /^v2/ }).click();
  await page.getByRole('button', { name: 'put v2 in force' }).click();
  await expect(page.getByText('round 2, TVI')).toBeVisible();

  // Files out, and a wrong one that is refused in words and changes nothing.
  await page.getByRole('button', { name: 'Files' }).click();
  const href = await page.getByRole('link', { name: 'Download' }).getAttribute('href');
  expect((await (await request.get(href ?? '')).body()).subarray(36, 40).toString()).toBe('acsp');
  await page.getByLabel('CSV file of curves').setInputFiles({
    name: 'own.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('input,C\n0,0\n50,90\n100,40\n'),
  });
  await expect(page.getByText(/line 4: C: found 40 after 90/)).toBeVisible();
  await page.getByRole('button', { name: 'Close' }).click();

  // Balance: the greys of a fresh sheet conform.
  await printAndRead(page, `${at}/balance`, 'HRN-0003');
  await page.goto(`${at}/balance`);
  await page.getByRole('button', { name: 'Balance the greys' }).click();
  await expect(page.getByText('Before the correction:')).toBeVisible();
  await printAndRead(page, `${at}/balance`, 'HRN-0004');
  await page.goto(`${at}/balance`);
  // One sheet in twenty is nearer to a limit than 80 %; none of sixty was over it.
  await expect(page.locator('.surface-head').getByText(/^(conforms|near the limit)$/)).toBeVisible();
  await expect(page.getByText('Steps as reached on HRN-0004')).toBeVisible();
  // Profile: a chart through the balance, a changed separation, built in the background.
  await page.getByRole('link', { name: /^Profile/ }).click();
  await page.getByLabel('Patches').fill('150');
  await expect(page.getByText('A whole number from 200 to 3,000.')).toBeVisible();
  await page.getByLabel('Patches').fill('200');
  await page.getByRole('button', { name: 'Make the chart' }).click();
  await page.getByRole('button', { name: /^Print CMYK/ }).click();
  await expect(page.getByRole('dialog')).toContainText('The front end applies Balance v1');
  await tickAndPrint(page);
  await restUntilReady(page);
  await page.goto('/read/HRN-0005-1');
  await readPage(page);

  // A second chart, worked out from the first reading: where the model is least sure.
  await page.goto(`${at}/profile`);
  await page.getByRole('button', { name: 'Second chart' }).click();
  const second = page.getByRole('dialog');
  await second.getByLabel('Patches where the model is least sure').fill('900');
  await expect(second.getByText('A whole number from 0 to 800.')).toBeVisible();
  await second.getByLabel('Patches where the model is least sure').fill('60');
  await second.getByRole('button', { name: 'Make the chart' }).click();
  await printNewest(page, 'second, 60 unsure', 'HRN-0006');

  // Both sheets, with another separation, whose effect is seen before it is built.
  await page.goto(`${at}/profile`);
  await page.getByRole('link', { name: 'Build the profile' }).click();
  await expect(page.getByRole('checkbox', { name: /with HRN-0006/ })).toBeChecked();
  await expect(page.getByText(/Mean ink of the seed packet/)).toBeVisible({ timeout: 60_000 });
  const mostInk = page.getByText(/^most/).first();
  const before = await mostInk.textContent();
  await page.getByRole('combobox', { name: 'Black for' }).click();
  await page.getByRole('option', { name: 'steady greys' }).click();
  await page.getByRole('slider', { name: 'Total ink, %' }).fill('240');
  await expect(mostInk).not.toHaveText(before ?? '');
  await page.getByLabel('most K, 30 to 100 %').fill('20');
  await expect(page.getByLabel('most K, 30 to 100 %')).toHaveAttribute('aria-invalid', 'true');
  await expect(page.getByRole('button', { name: 'Build', exact: true })).toBeDisabled();
  await page.getByLabel('most K, 30 to 100 %').fill('100');
  await page.getByRole('combobox', { name: 'Tables' }).click();
  await page.getByRole('option', { name: 'small' }).click();
  await page.getByRole('textbox', { name: 'Note' }).fill('for the seed catalogue');
  await page.getByRole('button', { name: 'Build', exact: true }).click();
  await expect(page.getByText(/fits its 2[78]\d patches/)).toBeVisible({ timeout: 120_000 });
  await expect(page.getByText(/total ink 2(40\.0|39\.\d) %/)).toBeVisible();
  await expect(page.getByText('for the seed catalogue')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Where it is sure' })).toBeVisible();

  // Refinement: a list that cannot be read is refused in words; a good one goes on one more sheet.
  await page.getByRole('button', { name: 'Refine' }).click();
  const refine = page.getByRole('dialog');
  const csv = (text: string) => ({ name: 'house.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  await refine.getByLabel('colour list file').setInputFiles(csv('name,L,a,b\nSeed red,46,x,38\n'));
  await expect(refine.getByText(/line 2: .*found Seed red, 46, x, 38/)).toBeVisible();
  await refine
    .getByLabel('colour list file')
    .setInputFiles(csv('name,L,a,b\nSeed red,50,52,28\nTide blue,42,0,-30\n'));
  await expect(refine.getByText('2 colours')).toBeVisible();
  await refine.getByLabel('Patches where the model is least sure').fill('20');
  await refine.getByRole('button', { name: 'Make the chart' }).click();
  await printNewest(page, /^refinement/, 'HRN-0007');
  await page.goto(`${at}/profile`);
  await page.getByRole('link', { name: 'Build another' }).click();
  // It begins with the separation of the version in force.
  await expect(page.getByRole('combobox', { name: 'Black for' })).toHaveText('steady greys');
  await expect(page.getByRole('checkbox', { name: /with HRN-0007/ })).toBeChecked();
  await page.getByRole('button', { name: 'Build', exact: true }).click();
  await expect(page.getByText(/2 wanted colours: printed/)).toBeVisible({ timeout: 120_000 });
  await expect(page.getByText(/Beside v1, the same inks/)).toBeVisible();
  await expect(page.getByRole('cell', { name: 'Tide blue', exact: true }).first()).toBeVisible();
  for (const link of ['limits', 'curves', 'balance', 'profile']) {
    await page.goto(`${at}/${link}`);
    const wide = await page.evaluate(() => document.documentElement.scrollWidth);
    expect(wide).toBeLessThanOrEqual(1280);
  }
  expect(problems).toEqual([]);
});

test('a borrowed calibration says when its lender has a newer one', async ({ page }) => {
  const at = await newCondition(page, 'Heron', 'Marsh Silk 130');
  await page.getByRole('button', { name: 'Borrow' }).click();
  await expect(page.getByRole('dialog')).toContainText('curves v2');
  await page.getByRole('dialog').getByRole('button', { name: 'Borrow' }).click();
  await expect(page.getByText('Borrowed from')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Keep these limits' })).toBeHidden();

  // The lender gets other limits.
  await page.getByRole('link', { name: /Heron \/ Lantern Gloss 150/ }).click();
  await expect(page.getByText('Borrowed from')).toBeHidden();
  const limit = page.getByRole('slider', { name: 'Limit of C' });
  await limit.focus();
  await page.keyboard.press('ArrowLeft');
  await page.getByRole('button', { name: 'Keep these limits' }).click();
  await expect(page.getByRole('button', { name: /^v3/ })).toBeVisible();

  // Stale, why, and the shortest way back.
  await page.goto(`${at}/limits`);
  await expect(page.getByText('the condition that lends it has newer Limits')).toBeVisible();
  await expect(page.getByRole('link', { name: /^Limits.*stale/ })).toBeVisible();
  await page.getByRole('button', { name: 'Take over the newer ones' }).click();
  await expect(page.getByText('borrowed v3')).toBeVisible();
  await expect(page.getByText('the condition that lends it')).toBeHidden();

  // The floor tells the balance, which stood on the older limits.
  await page.goto('/');
  await expect(page.getByRole('link', { name: /see why stale/ }).first()).toBeVisible();
});

/** Waits for a chart of that title, prints it, lets it rest and reads its one page. */
async function printNewest(page: Page, title: string | RegExp, code: string): Promise<void> {
  const row = page.getByRole('row').filter({ has: page.getByRole('cell', { name: title }) });
  await row.getByRole('button', { name: 'Print' }).click({ timeout: 60_000 });
  await tickAndPrint(page);
  await restUntilReady(page);
  await page.goto(`/read/${code}-1`);
  await readPage(page);
}
