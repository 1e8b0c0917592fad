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
