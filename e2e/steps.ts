import { expect } from '@playwright/test';
import type { Page } from '@playwright/test';

/** Moves the simulated clock until every sheet has rested. */
export async function restUntilReady(page: Page): Promise<void> {
  await page
    .locator('header')
    .getByRole('button', { name: /real time|clock/ })
    .click();
  await page.getByRole('menuitem', { name: /Rest until ready/ }).click();
}

/** Ticks all points of the settings record and prints. */
export async function tickAndPrint(page: Page): Promise<void> {
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('button', { name: 'Print', exact: true })).toBeDisabled();
  for (const box of await dialog.getByRole('checkbox').all()) await box.check();
  await dialog.getByRole('button', { name: 'Print', exact: true }).click();
  await expect(dialog).toBeHidden();
}

/** Makes a condition; gives its path. */
export async function newCondition(page: Page, device: string, stock: string): Promise<string> {
  await page.goto('/conditions/new');
  await page.getByLabel('Device').click();
  await page.getByRole('option', { name: device }).click();
  await page.getByLabel('Stock').click();
  await page.getByRole('option', { name: stock }).click();
  await page.getByRole('button', { name: 'Make the condition' }).click();
  await expect(page.getByRole('heading', { name: 'Limits', level: 1 })).toBeVisible();
  return new URL(page.url()).pathname.replace(/\/limits$/, '');
}

/** Calibrates on the white tile at the reading desk. */
export async function calibrate(page: Page): Promise<void> {
  await expect(async () => {
    await page.getByLabel(/^Reading desk/).focus();
    await page.keyboard.press('t');
    await expect(page.getByRole('status')).toHaveText('Start on white, move right to white.', {
      timeout: 3000,
    });
  }).toPass();
}

/** Ticks, prints, lets the sheet rest and reads it, one key a strip. */
export async function printAndRead(page: Page, prints = 1): Promise<void> {
  await tickAndPrint(page);
  const waiting = page.locator('.surface .notice a.mono');
  await expect(waiting.nth(prints - 1)).toBeVisible();
  const codes = (await waiting.allTextContents()).slice(-prints);
  await restUntilReady(page);
  for (const code of codes) await readSheet(page, code);
}

export async function readSheet(page: Page, code: string): Promise<void> {
  await page.goto(`/read/${code}`);
  await calibrate(page);
  const strips = Number(
    /of (\d+)/.exec((await page.getByText(/strips \d+ of \d+/).textContent()) ?? '')?.[1],
  );
  for (let strip = 1; strip <= strips; strip++) {
    // A key that comes while the pass before is still being taken in does nothing.
    await expect(async () => {
      await page.keyboard.press('Space');
      await expect(page.getByText(`strips ${strip} of`)).toBeVisible({ timeout: 5000 });
    }).toPass();
  }
}
