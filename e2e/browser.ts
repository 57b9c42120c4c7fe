/** Chromium for driving the real interface. */
import { existsSync } from 'node:fs';
import puppeteer, { type Browser, type ElementHandle, type Page } from 'puppeteer-core';

const PLACES = [process.env['CHROMIUM'], '/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];

export function launch(): Promise<Browser> {
  const executablePath = PLACES.find((p) => p && existsSync(p));
  if (!executablePath)
    throw new Error('Chromium is not installed. Install Debian’s package "chromium", or set CHROMIUM.');
  return puppeteer.launch({
    executablePath,
    // The default of 30 s is too short on a busy machine.
    timeout: 120_000,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--font-render-hinting=none',
    ],
  });
}

export const PHONE = { width: 390, height: 844, deviceScaleFactor: 2, isMobile: true, hasTouch: true };
export const WIDE = { width: 1280, height: 800, deviceScaleFactor: 1 };

export async function openPage(browser: Browser, viewport: typeof PHONE | typeof WIDE): Promise<Page> {
  const context = await browser.createBrowserContext();
  const page = await context.newPage();
  await page.setViewport(viewport);
  // On a slow machine, reading a long document can take a minute.
  page.setDefaultTimeout(120_000);
  return page;
}

export const byTestId = (id: string) => `[data-testid="${id}"]`;

export const byLabel = (label: string) => `[aria-label="${label}"]`;

/** Waits for an element, brings it into sight and clicks it like a user. */
export const tap = (page: Page, testId: string): Promise<void> => tapOn(page, byTestId(testId));

/** Taps the element that a selector finds, once it has stopped moving. Repeats a tap that missed because the page moved. */
export async function tapOn(page: Page, selector: string): Promise<void> {
  for (let tries = 0; tries < 5; tries++) {
    const el = await page.waitForSelector(`${selector}:not([aria-disabled="true"])`, { visible: true });
    await el!.scrollIntoView();
    await rests(el!);
    if (!(await touched(el!, selector))) continue;
    did(page, 1, 0);
    return;
  }
  throw new Error(`${selector} did not get the touch: something lies over it, or it does not rest.`);
}

/** Clicks an element. Returns whether the click reached it, or an element that has replaced it. */
async function touched(el: ElementHandle<Element>, selector: string): Promise<boolean> {
  await el.evaluate((_, sought) => {
    const at = document.documentElement;
    at.removeAttribute('data-touched');
    // Not a named function: the runner of scripts adds a helper to those, which the page does not have.
    document.addEventListener(
      'click',
      (e) => at.setAttribute('data-touched', (e.target as Element | null)?.closest(sought) ? 'yes' : 'no'),
      { capture: true, once: true },
    );
  }, selector);
  await el.click();
  // If the click led to another page, this one cannot be asked any more.
  return el.evaluate(() => document.documentElement.getAttribute('data-touched') !== 'no').catch(() => true);
}

/** What a person did on a page: touches, and letters typed. */
const done = new WeakMap<Page, { touches: number; letters: number }>();
export const actsOn = (page: Page) => done.get(page) ?? { touches: 0, letters: 0 };
/** Counts what was done to a page in another way than by `tap` and `type`. */
export function did(page: Page, touches: number, letters: number): void {
  const was = actsOn(page);
  done.set(page, { touches: was.touches + touches, letters: was.letters + letters });
}

/** Waits until an element stays where it is: what still moves, as a menu that opens, is missed by a touch. */
async function rests(el: ElementHandle<Element>): Promise<void> {
  let was = '';
  for (let n = 0; n < 100; n++) {
    const box = JSON.stringify(await el.boundingBox());
    if (box === was) return;
    was = box;
    await el.frame.evaluate('new Promise((next) => requestAnimationFrame(() => requestAnimationFrame(next)))');
  }
}

export async function type(page: Page, testId: string, text: string): Promise<void> {
  const el = await page.waitForSelector(byTestId(testId), { visible: true });
  await el!.click({ clickCount: 3 });
  await el!.type(text);
  did(page, 1, text.length);
}

/** Chooses a file in a hidden field of a page. */
export async function chooseFile(page: Page, testId: string, file: string): Promise<void> {
  const field = await page.waitForSelector(byTestId(testId));
  await (field as never as { uploadFile(f: string): Promise<void> }).uploadFile(file);
}

export async function textOf(page: Page, testId: string): Promise<string> {
  const el = await page.waitForSelector(byTestId(testId));
  return el!.evaluate((e) => e.textContent ?? '');
}

/** Signs in through the form. */
export async function signIn(page: Page, base: string, email: string, password: string): Promise<void> {
  await page.goto(`${base}/sign-in`);
  await type(page, 'field-email', email);
  await type(page, 'field-password', password);
  await tap(page, 'sign-in');
  await page.waitForSelector(byTestId('today-sentence'));
}

/** Asks again until what is expected holds, and returns it: what was done on a page reaches the server when it does. */
export async function eventually<T>(look: () => Promise<T>, seconds = 60): Promise<T> {
  for (const end = Date.now() + seconds * 1000; ; await new Promise((r) => setTimeout(r, 50)))
    try {
      return await look();
    } catch (error) {
      if (Date.now() > end) throw error;
    }
}

/** Waits until pictures and fonts are there. */
export async function settled(page: Page): Promise<void> {
  await page.evaluate(async () => {
    await document.fonts.ready;
    await Promise.all(
      Array.from(document.images, (i) => (i.complete ? null : new Promise((r) => i.addEventListener('load', r)))),
    );
  });
  await still(page);
}

/** As text: a function's names would be looked up in the browser, where the runner that takes the pictures has none. */
const STILL = `new Promise((resolve) => {
  let quiet = 0;
  let frames = 0;
  const moved = () => (quiet = 0);
  const watch = new MutationObserver(moved);
  watch.observe(document, { subtree: true, childList: true, attributes: true });
  document.addEventListener('scroll', moved, true);
  const frame = () => {
    // What never stops (a wheel that turns) is not waited for.
    if (++quiet < 20 && ++frames < 600) return requestAnimationFrame(frame);
    watch.disconnect();
    document.removeEventListener('scroll', moved, true);
    resolve();
  };
  requestAnimationFrame(frame);
})`;

/** Waits until nothing on the page moves: no element changed and nothing scrolled for some frames. */
export async function still(page: Page): Promise<void> {
  await page.evaluate(STILL);
}

/** Opens the item of an open menu that has these words. */
export async function choose(page: Page, words: string): Promise<void> {
  const find = (w: string) =>
    Array.from(document.querySelectorAll('[role="menuitem"]')).find((e) => e.textContent!.includes(w));
  await page.waitForFunction(find, {}, words);
  await page.evaluate((w: string) => {
    const item = Array.from(document.querySelectorAll('[role="menuitem"]')).find((e) => e.textContent!.includes(w));
    (item as HTMLElement).click();
  }, words);
}

export const boxOf = async (page: Page, testId: string) =>
  (await (await page.waitForSelector(byTestId(testId)))!.boundingBox())!;

/** Waits until the desk says that everything is saved. */
export const saved = (page: Page) =>
  page.waitForFunction(() => /· Saved \d/.test(document.querySelector('[data-testid="saving"]')?.textContent ?? ''));

/** Brings a point of an element into sight, given as parts of its width and height, and touches it. */
export async function touchAt(page: Page, testId: string, fx: number, fy: number): Promise<void> {
  await page.waitForSelector(byTestId(testId), { visible: true });
  const at = await page.$eval(
    byTestId(testId),
    (el, x, y) => {
      // Something to scroll to: a page is larger than the window.
      const point = document.createElement('span');
      point.style.cssText = `position:absolute;left:${x * 100}%;top:${y * 100}%;width:1px;height:1px`;
      el.appendChild(point);
      point.scrollIntoView({ block: 'center', inline: 'center', behavior: 'instant' });
      const box = point.getBoundingClientRect();
      point.remove();
      return { x: box.left, y: box.top };
    },
    fx,
    fy,
  );
  await page.touchscreen.tap(at.x, at.y);
}
