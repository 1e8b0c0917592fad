import { expect, test as base } from '@playwright/test';
import type { Page } from '@playwright/test';

/**
 * Makes a page wait, wherever it is sent, until it answers to clicks and keys: what the server drew can be seen
 * before it can be pressed, and on a busy machine long before.
 */
export function waitsUntilAwake(page: Page): Page {
  const awake = () => page.locator('html[data-awake]').waitFor({ state: 'attached' });
  const goto = page.goto.bind(page);
  page.goto = async (url, options) => {
    const response = await goto(url, options);
    if (url !== 'about:blank') await awake();
    return response;
  };
  const reload = page.reload.bind(page);
  page.reload = async (options) => {
    const response = await reload(options);
    await awake();
    return response;
  };
  return page;
}

export const test = base.extend({
  page: async ({ page }, use) => {
    // What breaks in a page is shown by its boundary and told on the console; a test that looks elsewhere must not miss it.
    const broken: string[] = [];
    page.on('pageerror', ({ message }) => broken.push(message));
    page.on('console', (message) => {
      if (message.type() === 'error' && /^(Type|Range|Reference)Error/.test(message.text()))
        broken.push(message.text());
    });
    await use(waitsUntilAwake(page));
    expect(broken, 'errors of the pages').toEqual([]);
  },
});
