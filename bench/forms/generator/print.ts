/** Prints generated forms with Chromium and takes their labels: `npx tsx bench/forms/generator/print.ts FROM TO DIR`. */
import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { launch } from '../../../e2e/browser';
import { takeLabels } from '../labels';
import { writeForm } from './form';

/** Prints forms of these seeds into a folder; those that are there already are kept. */
export async function printForms(seeds: readonly number[], dir: string): Promise<void> {
  mkdirSync(dir, { recursive: true });
  const wanted = seeds.filter((s) => !existsSync(path.join(dir, `made-${s}.json`)));
  if (!wanted.length) return;
  const browser = await launch();
  try {
    const page = await browser.newPage();
    for (const seed of wanted) {
      const form = writeForm(seed);
      await page.setContent(form.html);
      const raw = await page.pdf({ ...form.size, margin: form.margin, printBackground: true });
      const { bytes, places } = await takeLabels(raw);
      writeFileSync(path.join(dir, `${form.name}.pdf`), bytes);
      writeFileSync(
        path.join(dir, `${form.name}.json`),
        JSON.stringify({ signing: form.signing, foot: form.foot, places }),
      );
    }
  } finally {
    await browser.close();
  }
}
