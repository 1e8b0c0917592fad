import { expect } from '@playwright/test';
import type { Page } from '@playwright/test';
import { test } from './awakePages.ts';
import { restUntilReady, tickAndPrint } from './steps.ts';

const CONTROL = 'http://127.0.0.1:3412';

/** Reads strips from the keyboard until the sheet is complete. */
async function readOn(page: Page, from: number, to: number): Promise<void> {
  for (let strip = from; strip <= to; strip++) {
    await page.keyboard.press('Space');
    await expect(page.getByText(`strips ${strip} of`)).toBeVisible();
  }
}

// The second test looks at what the first one has made.
test.describe.configure({ mode: 'serial' });

test('from a blank stock to a proven profile', async ({ page, request }) => {
  const problems: string[] = [];
  page.on('pageerror', (error) => problems.push(error.message));

  // An empty house says what comes next.
  await page.goto('/');
  await expect(page.getByText('No condition yet')).toBeVisible();
  await page.getByRole('link', { name: 'New condition' }).click();

  // New condition; another device brings its own stocks, modes and inks.
  await expect(page.getByLabel('Ink set')).toHaveValue('Process seven');
  await page.getByLabel('Device').click();
  await page.getByRole('option', { name: 'Wren' }).click();
  await expect(page.getByLabel('Ink set')).toHaveValue('Pigment four');
  await page.getByLabel('Ink set').fill('');
  await expect(page.getByText('Name the inks')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Make the condition' })).toBeDisabled();
  await page.getByLabel('Ink set').fill('Pigment four');
  await page.getByLabel('Stock').click();
  await page.getByRole('option', { name: 'Quay Proof 200' }).click();
  await page.getByLabel('Media setting').fill('semi-matt proofing paper');
  await page.getByRole('button', { name: 'Make the condition' }).click();
  await expect(page.getByRole('heading', { name: 'Profile' })).toBeVisible();

  // Chart: a wrong number is said, a right one makes it, its files can be had.
  const patches = page.getByLabel('Patches');
  await patches.fill('50');
  await expect(page.getByText('A whole number from 100 to 3,000.')).toBeVisible();
  await patches.fill('240');
  await page.getByRole('button', { name: 'Make the chart' }).click();
  await expect(page.getByRole('cell', { name: 'RGB 240', exact: true })).toBeVisible();
  for (const [name, start] of [
    ['PDF', '%PDF'],
    ['TIFF', 'II'],
    ['PNG', '\x89PNG'],
    ['CGATS', 'CGATS.17'],
  ] as const) {
    const href = await page.getByRole('link', { name, exact: true }).getAttribute('href');
    const file = await request.get(href ?? '');
    expect((await file.body()).toString('latin1').startsWith(start)).toBe(true);
  }

  // Print, rest.
  await page.getByRole('button', { name: /^Print RGB/ }).click();
  await tickAndPrint(page);
  const slip = page.getByRole('complementary', { name: 'Rack' }).getByRole('link', { name: /WRN-0001-1/ });
  await expect(slip).toContainText('in ');
  await restUntilReady(page);
  await expect(slip).toContainText('ready');
  await slip.click();

  // Read by keyboard alone; the tile first, then one strip fails.
  await expect(page.getByRole('status')).toHaveText('White tile due: press T.');
  await page.keyboard.press('t');
  await expect(page.getByRole('status')).toHaveText('Start on white, move right to white.');
  await page.getByRole('combobox', { name: 'Simulated hand' }).click();
  await page.getByRole('option', { name: 'too fast' }).click();
  await page.getByLabel(/^Reading desk/).focus();
  await page.keyboard.press('Space');
  await expect(page.getByRole('status')).toContainText('Too fast');
  await expect(page.getByText('strips 0 of 12')).toBeVisible();
  await readOn(page, 1, 3);
  await page.keyboard.press('m');
  await expect(page.getByText('Strip 4 is marked for later.')).toBeVisible();
  await page.keyboard.press('m');

  // The server dies in the middle of the sheet: what was confirmed is there afterwards, once.
  await request.get(`${CONTROL}/kill-web`);
  const lost = page.keyboard.press('Space');
  await lost;
  await request.get(`${CONTROL}/start-web`);
  await expect(page.getByText('strips 4 of 12')).toBeVisible();

  // The browser is closed and another one goes on.
  const url = page.url();
  await page.goto('about:blank');
  await page.goto(url);
  await expect(page.getByText('strips 4 of 12')).toBeVisible();
  await expect(page.getByRole('heading', { name: /Strip 5/ })).toBeVisible();
  await page.getByLabel(/^Reading desk/).focus();
  await readOn(page, 5, 7);
  // The instrument's bridge dies and returns: the desk goes on by itself.
  await request.get(`${CONTROL}/kill-bridge`);
  await readOn(page, 8, 11);
  await page.keyboard.press('Space');
  await expect(page.getByRole('heading', { name: 'All read' })).toBeVisible();
  await expect(page.getByText('No fault found so far')).toBeVisible();
  await page.getByRole('link', { name: 'Look at the reading' }).click();
  await expect(page.getByText('240 patches')).toBeVisible();

  // Profile, in the background; its runner is killed once on the way.
  await page.getByRole('link', { name: 'To the profile' }).click();
  await page.getByRole('button', { name: 'Build the profile' }).click();
  await page.getByRole('button', { name: 'Build', exact: true }).click();
  await request.get(`${CONTROL}/kill-runner`);
  await expect(page.getByText(/fits its 240 patches to 0\.\d\d ΔE00/)).toBeVisible({ timeout: 90_000 });
  await page.getByRole('button', { name: 'Download' }).click();
  await expect(page.getByText('ColorSync')).toBeVisible();
  const profile = await request.get(
    (await page.getByRole('link', { name: 'Download the profile' }).getAttribute('href')) ?? '',
  );
  expect((await profile.body()).toString('latin1', 36, 40)).toBe('acsp');
  await page.getByRole('button', { name: 'Close' }).click();

  // Short check.
  await page.getByRole('link', { name: 'Check it' }).click();
  await page.getByRole('button', { name: 'Short check' }).click();
  await page.getByRole('button', { name: 'Go on to print' }).click();
  await tickAndPrint(page);
  await restUntilReady(page);
  const check = page.getByRole('complementary', { name: 'Rack' }).getByRole('link', { name: /WRN-0002-1/ });
  await expect(check).toContainText('ready');
  await check.click();
  await page.keyboard.press('t');
  await expect(page.getByRole('status')).toHaveText('Start on white, move right to white.');
  await page.keyboard.press('Enter');
  await page.getByRole('link', { name: 'See the verdict' }).click();
  await expect(page.getByText(/^conforms/).first()).toBeVisible();
  const opened = page.context().waitForEvent('page');
  await page.getByRole('button', { name: 'Report' }).click();
  await page.getByRole('menuitem', { name: 'Report as a page' }).click();
  const report = await request.get((await opened).url());
  expect(await report.text()).toContain('reached');
  await page.goto('/');
  await expect(page.getByText('Nothing needs you now.')).toBeVisible();
  expect(problems).toEqual([]);
});

test('finds, switches, refuses and keeps to the screen', async ({ page, request }) => {
  await page.goto('/');
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find or do' }).fill('quay');
  await expect(page.getByRole('option', { name: /Quay Proof 200/ }).first()).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Profile' })).toBeVisible();
  const keepsToScreen = async (path: string): Promise<void> => {
    await page.goto(path);
    await expect(page.locator('main')).not.toBeEmpty();
    const over = await page.evaluate(
      () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
    );
    expect(over, `${path} scrolls sideways`).toBeLessThanOrEqual(0);
  };
  for (const path of [
    '/',
    '/conditions/new',
    '/conditions/1/profile',
    '/conditions/1/conformity',
    '/conditions/1/sheets',
    '/conditions/1/settings',
    '/read/WRN-0001-1',
    '/readings/1',
  ])
    await keepsToScreen(path);
  // On a phone what is only looked at keeps to it, too.
  const desktop = page.viewportSize();
  await page.setViewportSize({ width: 390, height: 800 });
  for (const path of ['/', '/readings/1', '/conditions/1/conformity']) await keepsToScreen(path);
  if (desktop !== null) await page.setViewportSize(desktop);
  await page.goto('/read/NONE-1-1');
  await expect(page.getByText('This address leads nowhere.')).toBeVisible();

  // Wrong requests get one clear problem each.
  const bad = await request.post('/api/conditions', { data: { deviceId: 'x' } });
  expect(bad.status()).toBe(400);
  expect(bad.headers()['content-type']).toContain('application/problem+json');
  expect(await bad.json()).toMatchObject({ type: '/problems/bad-input', status: 400 });
  const broken = await request.post('/api/sheets/WRN-0001-1/reading', {
    data: 'CGATS.17\nBEGIN_DATA\n1\nEND_DATA\n',
    headers: { 'content-type': 'application/octet-stream' },
  });
  expect((await broken.json()).title).toContain('line 2');
  const openapi = await (await request.get('/api/openapi.json')).json();
  expect(Object.keys(openapi.paths).length).toBeGreaterThan(20);

  // The same idempotency key is the same change.
  const send = () =>
    request.post('/api/conditions/1/charts', {
      data: { patches: 100, paper: 'a3' },
      headers: { 'idempotency-key': 'twice' },
    });
  expect(await (await send()).json()).toEqual(await (await send()).json());
});
