/** A client at a ceremony, driven as by thumb or keyboard. */
import type { Page } from 'puppeteer-core';
import { byTestId, tap } from './browser';

/** Agrees, sets a typed hand and goes from place to place up to Finish; returns how many places there were. */
export async function signThrough(page: Page, stopAt = Infinity): Promise<number> {
  await page.waitForSelector(`${byTestId('agree')}, ${byTestId('fill')}`);
  if (await page.$(byTestId('agree'))) {
    await tap(page, 'agree-tick');
    await tap(page, 'agree');
    await tap(page, 'save-hand');
  }
  let n = 0;
  for (; n < stopAt; n++) {
    await page.waitForSelector(`${byTestId('fill')}, ${byTestId('finish')}`);
    if (await page.$(byTestId('finish'))) break;
    await tap(page, 'fill');
  }
  return n;
}

/** Waits until the device keeps no act that the server has not taken. */
export const nothingWaits = (page: Page) =>
  page.waitForFunction(() => !Object.keys(localStorage).some((k) => k.startsWith('gatepath.acts')), {
    timeout: 15_000,
  });

export async function finish(page: Page): Promise<void> {
  await tap(page, 'finish');
  await page.waitForSelector(byTestId('ended'));
  await nothingWaits(page);
}

/** Presses the button with these words, once it is there: an act's answer may come before what is drawn of it. */
export async function press(page: Page, words: string): Promise<void> {
  await page.waitForFunction(
    (w: string) => {
      const all = Array.from(document.querySelectorAll<HTMLElement>('[role="button"]'));
      const found = all.find((e) => e.textContent === w);
      found?.click();
      return !!found;
    },
    {},
    words,
  );
}

/** Goes on with Tab until the element with this name has the focus. */
export async function tabTo(page: Page, testId: string): Promise<void> {
  for (let i = 0; i < 60; i++) {
    const here = await page.evaluate(() => document.activeElement?.getAttribute('data-testid'));
    if (here === testId) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`Tab never comes to ${testId}`);
}
