/** The desk in a browser: its panels and tools, on a phone and on a wide screen. */
import type { Page } from 'puppeteer-core';
import { byTestId, tap } from './browser';

/** Shows a panel: behind a tab on a phone, beside the pages on a wide screen. Does nothing if it is shown already. */
export async function openPanel(page: Page, panel: 'printed' | 'ledger' | 'path' | 'check'): Promise<void> {
  const tab = (await page.waitForSelector(byTestId(`tab-${panel}`), { visible: true }))!;
  const isOpen = await tab.evaluate(
    (e) => e.getAttribute('aria-expanded') === 'true' || e.getAttribute('aria-selected') === 'true',
  );
  if (!isOpen) await tap(page, `tab-${panel}`);
}

/** Takes a person or a tool by their test ids. On a phone they are behind one line. */
export async function take(page: Page, ...testIds: string[]): Promise<void> {
  await page.waitForSelector(`${byTestId('tools')}, ${byTestId('tool-rail')}, ${byTestId('let-go')}`);
  for (const testId of testIds) {
    if (!(await page.$(byTestId(testId)))) await tap(page, (await page.$(byTestId('tools'))) ? 'tools' : 'let-go');
    if (!(await page.$(byTestId(testId)))) await tap(page, 'tools');
    await tap(page, testId);
  }
}
