// Takes a picture of a page of a running Melto: node scripts/screenshot.mjs <path> <file.png> [dark] [wait] [WxH] [selector to click, key:<name> or file:<path> …]
import { chromium } from '@playwright/test';

const [path, file, ...rest] = process.argv.slice(2);
const dark = rest.includes('dark');
const size = rest.find((word) => /^\d+x\d+$/.test(word)) ?? '1280x800';
const [width, height] = size.split('x').map(Number);
// `wait` gives a model in the browser time to be fitted.
const patience = rest.includes('wait') ? 8000 : 1500;
const clicks = rest.filter((word) => !['dark', 'wait', size].includes(word));
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium-headless-shell',
  args: [
    '--no-sandbox',
    // Bodies are drawn without a graphics card.
    '--enable-unsafe-swiftshader',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});
const page = await browser.newPage({ viewport: { width, height }, reducedMotion: 'reduce' });
page.on('console', (message) => message.type() === 'error' && console.error(`console: ${message.text()}`));
page.on('pageerror', (error) => console.error(`page: ${error.message}`));
if (dark) await page.addInitScript(() => localStorage.setItem('mui-mode', 'dark'));
await page.goto(`${process.env['MELTO_URL'] ?? 'http://127.0.0.1:3400'}${path}`);
await page.waitForTimeout(patience);
for (const selector of clicks) {
  if (selector.startsWith('file:'))
    await page.locator('input[type=file]').first().setInputFiles(selector.slice(5));
  else if (selector.startsWith('key:')) await page.keyboard.press(selector.slice(4));
  else await page.locator(selector).first().click();
  await page.waitForTimeout(900);
}
const over = await page.evaluate(
  () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
);
if (over > 0) console.error(`the page is ${over} px too wide`);
await page.screenshot({ path: file });
await browser.close();
