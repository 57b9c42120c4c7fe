/** Accessibility findings of a page, by axe-core. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import type { Page } from 'puppeteer-core';
import { ROOT } from './server';

const source = readFileSync(createRequire(path.join(ROOT, 'package.json')).resolve('axe-core/axe.min.js'), 'utf8');

/** Returns what axe finds wrong, one line per finding with its element; empty if nothing is. */
export async function findings(page: Page): Promise<string[]> {
  // Through the debugger: the page's own security policy allows no foreign scripts, and should not.
  await page.evaluate(source);
  return page.evaluate(async () => {
    const axe = (
      window as unknown as {
        axe: {
          run(
            o: object,
          ): Promise<{ violations: { id: string; help: string; nodes: { html: string; failureSummary: string }[] }[] }>;
        };
      }
    ).axe;
    const { violations } = await axe.run({ resultTypes: ['violations'] });
    return violations.flatMap((v) => v.nodes.map((n) => `${v.id}: ${v.help}: ${n.html.slice(0, 160)}`));
  });
}
