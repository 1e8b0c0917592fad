import { readFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { samplePicture } from '@melto/core/proof/samplePicture';
import sharp from 'sharp';
import { test } from './awakePages.ts';

const SRGB = readFileSync('/usr/share/color/icc/sRGB.icc');

test('two gamuts stand beside each other, one of them from a file', async ({ page }) => {
  await page.goto('/gamut');
  await expect(
    page.getByText(/of what sRGB prints is out of reach for .* ΔE00; one would see it/),
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
  await expect(page.getByText('sRGB prints nothing that same.icc does not.')).toBeVisible();
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

  await open.setInputFiles({ name: 'story.png', mimeType: 'image/png', buffer: Buffer.from('a story') });
  await expect(page.getByRole('alert').filter({ hasText: 'no picture that can be proofed' })).toBeVisible();
  // Nothing is lost by it.
  await expect(page.getByRole('img', { name: 'The picture as it prints' })).toBeVisible();
});
