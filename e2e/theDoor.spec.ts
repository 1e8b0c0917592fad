import { expect } from '@playwright/test';
import { OWN_SESSION } from './playwright.config.ts';
import { test, waitsUntilAwake } from './awakePages.ts';

const PASSPHRASE = 'three quiet herons wade';

test('an empty house gets its first person, who lets others in by what they may do', async ({
  page,
  browser,
  baseURL,
}) => {
  // Whoever asks again within a minute is still heard on the connection that is open.
  const health = await page.request.get('/api/health');
  expect(health.headers()['keep-alive']).toBe('timeout=70');
  // Whoever comes is led to the door, and sees nothing of the house before.
  await page.goto('/library/devices');
  await expect(page).toHaveURL(/\/first$/);
  await expect(page.getByRole('banner')).toHaveCount(0);
  await page.getByLabel('Name').fill('Ines Marlow');
  await page.getByLabel('Passphrase').fill('short');
  const begin = page.getByRole('button', { name: 'Begin' });
  await expect(begin).toBeDisabled();
  await page.getByLabel('The same again').fill('short');
  await begin.click();
  await expect(page.getByRole('alert').filter({ hasText: '12 to 200 letters' })).toBeVisible();
  await page.getByLabel('Passphrase').fill(PASSPHRASE);
  await page.getByLabel('The same again').fill(PASSPHRASE);
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/$/);
  await expect(page.getByRole('button', { name: 'Ines' })).toBeVisible();
  await page.context().storageState({ path: OWN_SESSION });

  await page.goto('/library/people');
  await page.getByRole('button', { name: 'New person' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill('Tom Aldous');
  await dialog.getByRole('button', { name: 'Add the person' }).click();
  const given = (await dialog.locator('.told-once').textContent()) ?? '';
  await dialog.getByRole('button', { name: 'I have it' }).click();
  await expect(page.getByRole('row', { name: /Tom Aldous.*operator.*not signed in/ })).toBeVisible();

  const other = await browser.newContext({ baseURL });
  const tom = waitsUntilAwake(await other.newPage());
  await tom.goto('/library/stocks');
  await expect(tom).toHaveURL(/\/sign-in$/);
  await tom.getByLabel('Name').fill('Tom Aldous');
  await tom.getByLabel('Passphrase').fill('what it is not, surely');
  await tom.getByRole('button', { name: 'Sign in' }).click();
  await expect(tom.getByRole('alert').filter({ hasText: 'not right' })).toBeVisible();
  await tom.getByLabel('Passphrase').fill(given);
  await tom.getByRole('button', { name: 'Sign in' }).click();
  await expect(tom.getByRole('button', { name: 'Tom' })).toBeVisible();
  // An operator neither keeps people nor changes the library, and is not offered it.
  await tom.goto('/library/people');
  await expect(tom).toHaveURL(/\/$/);
  await tom.goto('/conditions/new');
  await expect(tom).toHaveURL(/\/$/);
  await tom.goto('/library/inks');
  await expect(tom.getByRole('heading', { name: 'Ink sets' })).toBeVisible();
  await expect(tom.getByRole('button', { name: 'New ink set' })).toHaveCount(0);
  await tom.getByRole('button', { name: 'Tom' }).click();
  await tom.getByRole('menuitem', { name: 'Change passphrase' }).click();
  await tom.getByRole('dialog').getByLabel('Until now').fill('begun');

  // Whoever has left is out at once, with whatever stood on their screen.
  await page.reload();
  await page.getByRole('button', { name: 'Tom Aldous has left' }).click();
  await expect(page.getByRole('button', { name: 'Tom Aldous is back' })).toBeVisible();
  // A dialog hides what stands behind it from those who do not see.
  await expect(tom.locator('.signed-out')).toContainText('You are signed out here');
  await expect(tom.getByRole('dialog').getByLabel('Until now')).toHaveValue('begun');
  await other.close();

  await page.goto('/library/acts');
  await page.getByLabel('Find').fill('Tom Aldous');
  await expect(page.getByRole('row', { name: /Ines Marlow.*left the house, or is back/ })).toHaveCount(0);
  await expect(page.getByRole('row', { name: /Ines Marlow.*Make a person/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /Tom Aldous.*Sign-in refused/ })).toBeVisible();
});

test('it is opened from another machine, where the browser has no secure context', async ({
  page,
  baseURL,
}) => {
  const wrong: string[] = [];
  page.on('pageerror', (error) => wrong.push(error.message));
  await page.goto(`http://melto.example:${new URL(baseURL ?? '').port}/library/stocks`);
  expect(await page.evaluate(() => window.isSecureContext)).toBe(false);
  await page.getByLabel('Name').fill('Ines Marlow');
  await page.getByLabel('Passphrase').fill(PASSPHRASE);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('button', { name: 'Ines', exact: true })).toBeVisible();
  await page.goto(`http://melto.example:${new URL(baseURL ?? '').port}/library/stocks`);
  await page.getByRole('button', { name: 'New stock' }).click();
  await page.getByRole('dialog').getByLabel('Name').fill('Fen Board 300');
  await page.getByRole('dialog').getByLabel('Surface').click();
  await page.getByRole('option', { name: 'matt', exact: true }).click();
  await page
    .getByRole('dialog')
    .getByLabel(/Minutes/)
    .fill('20');
  await page.getByRole('button', { name: 'Add the stock' }).click();
  await expect(page.getByRole('row', { name: /Fen Board 300/ })).toBeVisible();
  expect(wrong).toEqual([]);
});

test('a passkey opens the door, and a desk is taken over by a code', async ({ browser, baseURL }) => {
  // Passkeys are of names: a number has none.
  const own = await browser.newContext({ baseURL: `http://localhost:${new URL(baseURL ?? '').port}` });
  const page = waitsUntilAwake(await own.newPage());
  const device = await own.newCDPSession(page);
  await device.send('WebAuthn.enable');
  await device.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      ...{ protocol: 'ctap2', transport: 'internal', hasResidentKey: true, hasUserVerification: true },
      ...{ isUserVerified: true, automaticPresenceSimulation: true },
    },
  });
  await page.goto('/sign-in');
  await page.getByLabel('Name').fill('Ines Marlow');
  await page.getByLabel('Passphrase').fill(PASSPHRASE);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  const menu = async (name: string, item: string): Promise<void> => {
    await page.getByRole('button', { name }).click();
    await page.getByRole('menuitem', { name: item, exact: true }).click();
  };
  const dialog = page.getByRole('dialog');
  await menu('Ines', 'Passkeys');
  await dialog.getByLabel('Name of this device').fill('Tablet');
  await page.keyboard.press('Enter');
  await expect(dialog.getByText('Tablet', { exact: true })).toBeVisible();
  await dialog.getByRole('button', { name: 'Done' }).click();
  await menu('Ines', 'Sign out');
  await page.getByRole('button', { name: 'Sign in by a passkey' }).click();

  await menu('Ines', 'Code for desks');
  await dialog.getByLabel('Code, six digits').fill('402913');
  await dialog.getByLabel('The same again').fill('402913');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Set. Desks take you by it from now on.')).toBeVisible();
  await menu('Ines', 'Make this browser a desk');
  await dialog.getByLabel('Name of the desk').fill('Press desk');
  await page.keyboard.press('Enter');
  // It shows, and changes nothing, until somebody takes it over; then as an operator does.
  await expect(page.getByRole('link', { name: 'New condition' })).toHaveCount(0);
  await menu('Press desk · nobody', 'Take over');
  await dialog.getByRole('combobox', { name: 'You are' }).click();
  await page.getByRole('option', { name: 'Ines Marlow' }).click();
  await dialog.getByLabel('Code').fill('402913');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Ines' }).click();
  await expect(page.getByText('operator at Press desk')).toBeVisible();
  expect((await page.request.put('/api/house', { data: {} })).status()).toBe(403);
  await own.close();
});
