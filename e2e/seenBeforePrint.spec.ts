import { readFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import type { IccProfile } from '@melto/core/icc/iccTypes';
import { readIcc } from '@melto/core/icc/readIcc';
import { exactPicture } from '@melto/core/proof/exactPicture';
import { samplePicture } from '@melto/core/proof/samplePicture';
import { softProof } from '@melto/core/proof/softProof';
import { unwrap } from '@melto/core/result';
import { transformed } from '@melto/core/transform/transform';
import sharp from 'sharp';
import { test } from './awakePages.ts';

const SRGB = readFileSync('/usr/share/color/icc/sRGB.icc');

/** Paper, solids, their overprints and black of a press, as one measures them. */
const SOLIDS = [
  'CGATS.17',
  'BEGIN_DATA_FORMAT',
  'SAMPLE_ID CMYK_C CMYK_M CMYK_Y CMYK_K LAB_L LAB_A LAB_B',
  'END_DATA_FORMAT',
  'BEGIN_DATA',
  ...[
    '0 0 0 0 95 1 -4',
    '100 0 0 0 55 -36 -51',
    '0 100 0 0 48 74 -3',
    '0 0 100 0 89 -5 93',
    '0 100 100 0 47 68 48',
    '100 0 100 0 50 -66 26',
    '100 100 0 0 24 20 -46',
    '0 0 0 100 16 0 0',
  ].map((row, i) => `${i + 1} ${row}`),
  'END_DATA',
].join('\n');

test('two gamuts stand beside each other, one of them from a file', async ({ page }) => {
  await page.goto('/gamut');
  await expect(
    page.getByText(/of the colours of sRGB is out of reach for .* ΔE00; one would see it/),
  ).toBeVisible();
  await expect(page.getByRole('img', { name: /Chroma of both by hue at L\* 60: sRGB dashed/ })).toBeVisible();
  const slider = page.getByRole('slider', { name: 'Lightness of the cut' });
  await slider.focus();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('img', { name: /at L\* 59/ })).toBeVisible();
  await page.getByLabel('Open a profile').last().setInputFiles({
    name: 'same.icc',
    mimeType: 'application/vnd.iccprofile',
    buffer: SRGB,
  });
  await expect(page.getByText('sRGB holds no colour that same.icc does not.')).toBeVisible();
  await expect(page.getByRole('row', { name: /sRGB.*832 100\.0/ })).toBeVisible();
  await page
    .getByLabel('Open a profile')
    .last()
    .setInputFiles({
      name: 'notes.icc',
      mimeType: 'text/plain',
      buffer: Buffer.from('no profile'),
    });
  await expect(page.getByRole('alert').filter({ hasText: 'notes.icc' })).toBeVisible();

  // A measured chart of solids is a body with straight lines; a third one stands beside both.
  await page
    .getByLabel('Open a profile')
    .last()
    .setInputFiles({ name: 'solids.txt', mimeType: 'text/plain', buffer: Buffer.from(SOLIDS) });
  await expect(
    page.getByRole('row', { name: /solids\.txt.*straight lines between its solids/ }),
  ).toBeVisible();
  await page.getByRole('combobox', { name: 'Beside, dotted' }).click();
  await page.getByRole('option', { name: 'same.icc' }).click();
  await expect(page.getByRole('row', { name: /·· same\.icc.*832/ })).toBeVisible();
  await expect(page).toHaveURL(/more=file-same/);
});

test('a picture is seen before it prints, and says what it does not tell', async ({ page }) => {
  await page.goto('/proof');
  await expect(page.getByRole('img', { name: 'The picture as it prints' })).toBeVisible();
  const ranked = page
    .getByRole('list', { name: 'Where this picture comes out nearest' })
    .getByRole('listitem');
  await expect(ranked.first()).toContainText('ΔE00');
  const means = (await ranked.locator('.small').allTextContents()).map((text) =>
    Number(/ΔE00 ([\d.]+)/.exec(text)?.[1]),
  );
  expect([...means].sort((a, b) => a - b)).toEqual(means);
  const stage = page.locator('.proof-pictures');
  await stage.hover({ position: { x: 300, y: 120 } });
  await expect(page.locator('.proof-foot')).toContainText(/picture .*device .*ΔE00/);
  const divider = page.getByRole('slider', { name: /^Divider/ });
  await divider.focus();
  await page.keyboard.press('Home');
  await expect(divider).toHaveAttribute('aria-valuenow', '0');
  await page.getByRole('button', { name: 'what is lost' }).click();
  await expect(page.getByText(/Grey comes out as asked/)).toBeVisible();

  // A screen is drawn by its own profile, where that is one of a screen; the picture stays where it is not.
  const pick = async (label: string, option: string | RegExp): Promise<void> => {
    await page.getByRole('combobox', { name: label, exact: true }).click();
    await page.getByRole('option', { name: option }).first().click();
  };
  await pick('Screen', 'by its own profile');
  const printers = page.getByRole('listbox').getByRole('option', { name: / \/ .*v1/ });
  await page.getByRole('combobox', { name: 'Profile of this screen' }).click();
  await printers.first().click();
  await expect(page.getByText(/class prtr, RGB.*The picture is drawn for sRGB/)).toBeVisible();
  await expect(page.getByRole('img', { name: 'The picture as it prints' })).toBeVisible();
  await pick('Profile of this screen', 'sRGB');
  await expect(page.getByText(/class prtr/)).toHaveCount(0);
  await pick('Screen', 'sRGB');
  await expect(page.getByRole('combobox', { name: 'Profile of this screen' })).toHaveCount(0);
  await expect(page.getByRole('img', { name: 'The picture as it prints' })).toBeVisible();

  // A picture of one's own without a profile is not taken for anything.
  const pixels = samplePicture('Gallery wall', 90, 60);
  const untold = await sharp(pixels, { raw: { width: 90, height: 60, channels: 3 } })
    .png()
    .toBuffer();
  const open = page.getByLabel('Open a picture').last();
  await open.setInputFiles({ name: 'wall.png', mimeType: 'image/png', buffer: untold });
  await expect(page.getByText(/wall\.png tells no profile/)).toBeVisible();
  await expect(page.getByRole('img', { name: 'The picture as it prints' })).toHaveCount(0);
  await page.getByRole('combobox', { name: 'Its values are meant by' }).click();
  await page.getByRole('option', { name: 'sRGB', exact: true }).click();
  await expect(page.getByRole('img', { name: 'The picture as it prints' })).toBeVisible();
  await expect(page.getByText('90 × 60 pixels, 8 bits')).toBeVisible();

  const told = await sharp(untold).withIccProfile('srgb').png().toBuffer();
  await open.setInputFiles({ name: 'told.png', mimeType: 'image/png', buffer: told });
  await expect(page.getByRole('combobox', { name: 'Its values are meant by' })).toContainText(
    'the profile in the picture',
  );
  await expect(page.getByRole('img', { name: 'The picture as it prints' })).toBeVisible();

  // A copy that is changed is written as the device takes it; the original is not touched.
  const written = async (file: RegExp) => {
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Write a TIFF' }).click();
    await page.getByRole('menuitem', { name: file }).click();
    const bytes = readFileSync(await (await download).path());
    const { width, height, icc } = await sharp(bytes).metadata();
    expect([width, height]).toEqual([90, 60]);
    expect(icc?.length).toBeGreaterThan(300);
    return bytes;
  };
  const lightness = async (tiff: Buffer): Promise<number> => (await sharp(tiff).stats()).channels[1].mean;
  const own = await lightness(await written(/the copy/));
  await page.getByText('A copy that is changed').click();
  await page.getByRole('slider', { name: 'Exposure' }).focus();
  await page.keyboard.press('Home');
  await expect(page.getByText('−2.0')).toBeVisible();
  expect(await lightness(await written(/the copy/))).toBeLessThan(own - 40);
  await written(/values for the device/);
  await page.getByRole('button', { name: 'Back to the original' }).click();
  expect(await lightness(await written(/the copy/))).toBeCloseTo(own, 0);

  await open.setInputFiles({ name: 'story.png', mimeType: 'image/png', buffer: Buffer.from('a story') });
  await expect(page.getByRole('alert').filter({ hasText: 'no picture that can be proofed' })).toBeVisible();
  // Nothing is lost by it.
  await expect(page.getByRole('img', { name: 'The picture as it prints' })).toBeVisible();
});

test('a GPU draws the print as the exact way has it', async ({ page }) => {
  await page.setViewportSize({ width: 1640, height: 1900 });
  const kept = async (path: string): Promise<IccProfile> =>
    unwrap(readIcc(await (await page.request.get(path)).body()));
  const rows = (await (await page.request.get('/api/catalogue')).json()) as {
    readonly profile: { readonly key: string } | null;
  }[];
  const keys = rows.flatMap(({ profile }) => (profile === null ? [] : [profile.key])).slice(0, 1);
  expect(keys.length).toBeGreaterThan(0);
  const srgb = await kept('/api/standard-profiles/sRGB/file');
  for (const key of keys) {
    await page.goto(`/proof?device=${key}`);
    const canvas = page.getByRole('img', { name: 'The picture as it prints' });
    await expect(canvas).toHaveAttribute('data-fineness', 'finest');
    await page.getByRole('slider', { name: /^Divider/ }).focus();
    await page.keyboard.press('Home');
    const { x = 0, y = 0, width = 0, height = 0 } = (await canvas.boundingBox()) ?? {};
    expect([width, Math.round(height)]).toEqual([1200, 744]);
    const drawn = sharp(await page.screenshot())
      .extract({ left: Math.round(x), top: Math.round(y), width: 1200, height: 744 })
      .removeAlpha();
    const device = await kept(`/api/results/${key.replace('result-', '')}/file`);
    const choice = { intent: 'relative', blackPoint: true, paperWhite: true, inkBlack: true } as const;
    const proof = unwrap(softProof(srgb, device, choice));
    const pixels = samplePicture('Seed catalogue', 1200, 744);
    const exact = exactPicture(pixels, 3, 3, (values) =>
      transformed(proof.shown, transformed(proof.toDevice, values)),
    );
    const seen = await drawn.raw().toBuffer();
    // A divider of two pixels stands at the edge.
    const off: number[] = [];
    exact.forEach((value, i) => {
      // A divider of two pixels stands at the edge.
      if (Math.floor(i / 3) % 1200 > 5) off.push(Math.abs(seen[i] - Math.round(255 * value)));
    });
    expect(off.reduce((sum, own) => sum + own, 0) / off.length, key).toBeLessThan(1);
    expect(
      off.reduce((most, own) => Math.max(most, own), 0),
      key,
    ).toBeLessThanOrEqual(3);
  }
});

test('a colour list finds its condition, and a profile from outside its place on the shelf', async ({
  page,
}) => {
  await page.goto('/where');
  const list = (text: string) => ({ name: 'own.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  const open = page.getByLabel('Open a colour list').last();
  await open.setInputFiles(list('name,L,a,b\nSeed red,x,50,30\n'));
  await expect(page.getByRole('alert').filter({ hasText: 'line 2' })).toBeVisible();
  await open.setInputFiles(list('name,L,a,b\nquiet grey,60,0,0\nno ink,55,95,-90\n'));
  await expect(page.getByText('own.csv, 2 colours')).toBeVisible();
  const farthest = page.locator('.list-colours tbody tr').first();
  await expect(farthest).toContainText('no ink');
  await expect(farthest.getByRole('cell', { name: 'no', exact: true })).toBeVisible();
  await expect(page.getByText('1 of 2 can be reached, within 1 ΔE00')).toBeVisible();

  // The pictures of a page are ranked together; one that tells no profile is not taken for anything.
  const plain = await sharp(samplePicture('Gallery wall', 60, 40), {
    raw: { width: 60, height: 40, channels: 3 },
  })
    .png()
    .toBuffer();
  const told = await sharp(plain).withIccProfile('srgb').png().toBuffer();
  const picture = (name: string, buffer: Buffer) => ({ name, mimeType: 'image/png', buffer });
  const openPictures = page.getByLabel('Open pictures').last();
  await openPictures.setInputFiles([picture('one.png', told), picture('two.png', plain)]);
  await expect(page.getByRole('alert').filter({ hasText: 'two.png tells no profile' })).toBeVisible();
  await openPictures.setInputFiles([picture('one.png', told), picture('two.png', told)]);
  await expect(page.getByText('2 pictures, by what each pixel comes to')).toBeVisible();
  await expect(page.locator('.list-colours tbody tr')).toHaveCount(2);
  await expect(page.getByRole('alert').filter({ hasText: 'two.png' })).toHaveCount(0);

  await page.goto('/library/profiles');
  await page
    .getByLabel('Look into a file')
    .last()
    .setInputFiles({ name: 'seller.icc', mimeType: 'application/vnd.iccprofile', buffer: SRGB });
  await page.getByRole('combobox', { name: 'It is from' }).click();
  await page.getByRole('option', { name: 'the paper’s seller' }).click();
  const keep = page.getByRole('button', { name: 'Keep it on the shelf' });
  await keep.click();
  // What is on its way when a page is left may not arrive.
  await expect(keep).toHaveCount(0);
  await page.reload();
  await page.getByRole('button', { name: /kept, from the paper’s seller/ }).click();
  await page.getByRole('button', { name: 'Take it off the shelf' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: /kept, from the paper’s seller/ })).toBeVisible();

  await page.goto('/library/catalogue');
  await page.getByRole('button', { name: /^Gamut/ }).click();
  const volumes = await page.locator('.catalogue tbody tr td:nth-child(6)').allTextContents();
  expect(volumes.length).toBeGreaterThan(0);
  expect([...volumes].map(Number).sort((a, b) => b - a)).toEqual(volumes.map(Number));
});
