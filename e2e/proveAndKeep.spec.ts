import { expect } from '@playwright/test';
import type { Page } from '@playwright/test';
import { test } from './awakePages.ts';
import { newCondition, printAndRead } from './steps.ts';

test.describe.configure({ mode: 'serial' });

async function pick(page: Page, label: string, option: string | RegExp): Promise<void> {
  await page.getByLabel(label).first().click();
  await page.getByRole('option', { name: option }).first().click();
}

let at = '';

test('a wedge does not conform, a new check by substrate-corrected aims does and says so, with a slip', async ({
  page,
  request,
}) => {
  test.setTimeout(900_000);
  const problems: string[] = [];
  page.on('pageerror', (error) => problems.push(error.message));
  at = await newCondition(page, 'Heron', 'Fenland Smooth 120');
  await page.goto(`${at}/conformity`);
  await expect(page.getByText('A control wedge tells whether')).toBeVisible();

  // A press that was never calibrated, against a published condition.
  await page.getByRole('button', { name: 'New check' }).click();
  await pick(page, 'Aims', 'FOGRA29L');
  await page.getByRole('button', { name: 'Go on to print' }).click();
  await printAndRead(page);
  await page.goto(`${at}/conformity`);
  await expect(page.getByText(/^does not conform to ISO 12647-2 production/)).toBeVisible();
  await expect(page.getByRole('heading', { name: 'What decides it' })).toBeVisible();

  // Its reading becomes the standard of the house.
  await page.goto('/library/aims');
  await page.getByRole('button', { name: 'New aim set' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill('Press as it is');
  await dialog.getByRole('button', { name: 'by hand' }).click();
  await dialog.getByLabel(/C M Y K in per cent/).fill('0 0 0 0 95 0 -2\n100 0 0');
  await expect(dialog.getByText(/Line 2: found “100 0 0”/)).toBeVisible();
  await dialog.getByRole('button', { name: 'from a reading' }).click();
  await pick(page, 'Reading', /Proof wedge/);
  await dialog.getByRole('button', { name: 'Make the aim set' }).click();
  await expect(page.getByRole('link', { name: /^Press as it is/ })).toBeVisible();

  // An own tolerance set, tried on the past check while it is written.
  await page.goto('/library/tolerances');
  await page.getByRole('link', { name: /House: photo print/ }).click();
  await expect(page.getByRole('heading', { name: 'House: photo print' })).toBeVisible();
  await page.getByRole('button', { name: 'Write an own set from this' }).click();
  await expect(page.getByText('0 of 1 would conform')).toBeVisible();
  await page.getByLabel('limit').nth(0).fill('40');
  await page.getByLabel('limit').nth(1).fill('90');
  await expect(page.getByText('1 of 1 would conform')).toBeVisible();
  await page.getByLabel('limit').nth(0).fill('nought');
  await expect(page.getByRole('button', { name: 'Save as an own set' })).toBeDisabled();
  // Wide enough for two sheets of one press, so that the paper alone decides.
  await page.getByLabel('limit').nth(0).fill('4,5');
  await page.getByLabel('limit').nth(1).fill('1');
  await page.getByRole('combobox', { name: 'group' }).nth(1).click();
  await page.getByRole('option', { name: 'substrate', exact: true }).click();
  await page.getByLabel('Name').fill('Tight on paper');
  await page.getByRole('button', { name: 'Save as an own set' }).click();
  await expect(page.getByRole('heading', { name: 'Tight on paper' })).toBeVisible();

  // A new lot of stock arrives; the next check fails by the paper alone.
  await page.goto(`${at}/watch`);
  await page.getByText('Simulated device').click();
  await pick(page, 'What happens', 'a new lot of stock');
  await page.getByRole('button', { name: 'Let it happen now' }).click();
  await expect(page.getByText(/a new lot of stock since/)).toBeVisible();
  await page.goto(`${at}/conformity`);
  await page.getByRole('button', { name: 'New check' }).click();
  await pick(page, 'Aims', 'Press as it is');
  await pick(page, 'Tolerances', 'Tight on paper');
  await page.getByRole('button', { name: 'Go on to print' }).click();
  await printAndRead(page);
  await page.goto(`${at}/conformity`);
  await expect(
    page.getByText(/^does not conform to Tight on paper \(own tolerances\): substrate/),
  ).toBeVisible();
  await expect(page.getByText('Against aims corrected for this paper it would conform.')).toBeVisible();

  // A new check of the same reading, by corrected aims.
  await page.getByRole('button', { name: 'Judge a reading' }).click();
  await page.getByRole('dialog').getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Judge', exact: true }).click();
  await expect(
    page.getByText(/^conforms to Tight on paper \(own tolerances, substrate-corrected\)/),
  ).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Aims moved to this paper' })).toBeVisible();
  await expect(page.getByText('after the reading')).toBeVisible();

  // Slip, report and public link.
  const standing = (await (await request.get(`/api${at}/standing`)).json()) as {
    conformity: { resultId: number };
  };
  const id = standing.conformity.resultId;
  const slip = await request.get(`/api/results/${id}/report?format=slip`);
  expect(slip.headers()['content-type']).toBe('application/pdf');
  await page.getByRole('button', { name: 'Report' }).click();
  await expect(page.getByRole('menuitem', { name: /Slip for the proof/ })).toBeVisible();
  const opened = page.context().waitForEvent('page');
  await page.getByRole('menuitem', { name: 'Report as a page' }).click();
  await expect((await opened).getByText('How it was judged')).toBeVisible();
  await page.getByRole('button', { name: 'Report' }).click();
  await page.getByRole('menuitem', { name: 'Make a public link' }).click();
  const shared = /http:\/\/\S+\/shared\/[A-Za-z0-9_-]{32}/.exec(
    (await page.getByText(/^(Copied|Public link): http/).textContent()) ?? '',
  )?.[0];
  const report = await (await request.get(shared ?? '')).text();
  expect(report).toContain('conforms to Tight on paper (own tolerances, substrate-corrected)');
  await page.getByRole('button', { name: 'Report' }).click();
  await page.getByRole('menuitem', { name: 'End the public link' }).click();
  await expect(page.getByText('The link shows nothing any more.')).toBeVisible();
  expect((await request.get(shared ?? '')).status()).toBe(404);
  expect(problems).toEqual([]);
});

test('a watch is started, becomes due and is done', async ({ page, request }) => {
  test.setTimeout(900_000);
  await page.goto(`${at}/watch`);
  await page.getByRole('button', { name: 'Print the watch wedge' }).click();
  await printAndRead(page, 3);
  await page.goto(`${at}/watch`);
  await page.getByRole('button', { name: 'Start the watch' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Expires after, days').fill('3');
  await expect(dialog.getByRole('button', { name: 'Start', exact: true })).toBeDisabled();
  await dialog.getByLabel('Expires after, days').fill('21');
  await dialog.getByRole('button', { name: 'Start', exact: true }).click();
  await expect(page.getByText(/^steady: /)).toBeVisible();
  await expect(page.getByRole('link', { name: /^Watch.*conforms/ })).toBeVisible();

  await page
    .locator('header')
    .getByRole('button', { name: /real time|clock/ })
    .click();
  await page.getByRole('menuitem', { name: /week/i }).click();
  await page.goto('/');
  await expect(page.getByRole('button', { name: /1 check is due/ })).toBeVisible();
  const standing = await (await request.get(`/api${at}/standing`)).json();
  expect(standing.reasons).toContain('A watch check is due.');
  await page.getByRole('link', { name: /Do the watch check/ }).click();
  await expect(page.getByText(/^a check is due since/)).toBeVisible();
  await page.getByRole('button', { name: 'Print the watch wedge' }).click();
  await printAndRead(page);
  await page.goto('/');
  await expect(page.getByRole('button', { name: /check is due/ })).toBeHidden();
  await page.goto(`${at}/watch`);
  await expect(page.getByText(/^steady: .*next check in/)).toBeVisible();
});
