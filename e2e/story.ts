/** One story told in several tests: once a step fails, those after it have nothing to stand on. */
import path from 'node:path';
import type { Browser } from 'puppeteer-core';

/** Runs the steps of a story in a browser. If one fails, pictures of all open windows are saved in `dir`. */
export function story(dir: string, browser: () => Browser) {
  let broken = false;
  const pictures = async () => {
    let n = 0;
    for (const context of browser().browserContexts())
      for (const page of await context.pages()) {
        const file = path.join(dir, `failed-${++n}.png`) as `${string}.png`;
        await page.screenshot({ path: file }).catch(() => undefined);
        console.log(file, page.url().replace(/sign\/.+/, 'sign/…'));
      }
  };
  return (name: string, run: () => Promise<void> | void): void => {
    test(name, async () => {
      if (broken) throw new Error('an earlier step failed');
      broken = true;
      try {
        await run();
      } catch (error) {
        await pictures();
        throw error;
      }
      broken = false;
    });
  };
}
