/**
 * Ordinary documents, with nothing to sign: what packages say of themselves, printed as pages. They are by many other hands,
 * and full of what looks like blanks: tables, rules, code with underscores, boxes in lists.
 */
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import markdown from 'markdown-it';
import { launch } from '../../e2e/browser';

const MODULES = path.join(path.dirname(fileURLToPath(import.meta.url)), '../../node_modules');
/** Sizes in bytes between which a text fills some pages and not a hundred. */
const SIZES = [9_000, 60_000] as const;
const KEPT = path.join(os.tmpdir(), 'gatepath-ordinary');

/** Returns the paths of a number of texts, in alphabetical order, spread over all packages. */
function texts(count: number): string[] {
  const all = readdirSync(MODULES, { withFileTypes: true })
    .filter((d) => d.isDirectory() && !d.name.startsWith('.'))
    .flatMap((d) =>
      d.name.startsWith('@')
        ? readdirSync(path.join(MODULES, d.name)).map((n) => path.join(d.name, n, 'README.md'))
        : [path.join(d.name, 'README.md')],
    )
    .filter((file) => {
      const stat = statSync(path.join(MODULES, file), { throwIfNoEntry: false });
      return stat !== undefined && stat.size > SIZES[0] && stat.size < SIZES[1];
    })
    .sort();
  return Array.from({ length: Math.min(count, all.length) }, (_, i) => all[Math.floor((i * all.length) / count)]!);
}

const PAGE = `body{font:10pt "DejaVu Serif",serif;line-height:1.4}table{border-collapse:collapse}td,th{border:0.7pt solid #444;padding:3pt 6pt}pre,code{font:8pt monospace}pre{border:0.5pt solid #999;padding:4pt;white-space:pre-wrap}hr{border:0;border-top:0.7pt solid #333}img{display:none}`;

/** Prints a number of ordinary documents: one half set with tables and headings, the other as it was typed. */
export async function ordinary(count: number): Promise<{ name: string; bytes: Uint8Array }[]> {
  mkdirSync(KEPT, { recursive: true });
  const md = markdown({ html: false, linkify: false });
  const files = texts(count).map((text, i) => ({
    text,
    isSet: i % 2 === 0,
    file: path.join(KEPT, `${text.replace(/[^\w-]+/g, '_')}-${i % 2}.pdf`),
  }));
  const wanted = files.filter((f) => !existsSync(f.file));
  if (wanted.length) {
    const browser = await launch();
    try {
      const page = await browser.newPage();
      await page.setJavaScriptEnabled(false);
      for (const { text, isSet, file } of wanted) {
        const words = readFileSync(path.join(MODULES, text), 'utf8');
        const body = isSet ? md.render(words) : `<pre>${md.utils.escapeHtml(words)}</pre>`;
        await page.setContent(`<!doctype html><meta charset="utf-8"><style>${PAGE}</style>${body}`);
        writeFileSync(file, await page.pdf({ format: 'Letter', printBackground: true }));
      }
    } finally {
      await browser.close();
    }
  }
  return files.map(({ text, file }) => ({ name: text, bytes: new Uint8Array(readFileSync(file)) }));
}
