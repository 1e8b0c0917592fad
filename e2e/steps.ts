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
