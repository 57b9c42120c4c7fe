/**
 * Makes the labelled forms: `npx tsx bench/forms/make.ts [written|kept|ways|apart]`. Needs Chromium, a word
 * processor (soffice) and a program for paged print (weasyprint) on this machine; the results are kept with the sources, so that
 * measuring needs neither.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { PDFDocument, degrees } from '@cantoo/pdf-lib';
import { launch } from '../../e2e/browser';
import { printDefinition } from '../../server/typesetting/typeset';
import { kept } from './held-back';
import { takeLabels } from './labels';
import type { FormSource } from './types';
import { otherWays } from './ways';
import { apart } from './ways/apart';
import { written } from './written';

const HERE = path.dirname(fileURLToPath(import.meta.url));

async function browserPdf(markup: string): Promise<Uint8Array> {
  const browser = await launch();
  try {
    const page = await browser.newPage();
    await page.setContent(markup);
    return await page.pdf({
      format: 'letter',
      printBackground: true,
      margin: { top: '0.72in', bottom: '0.72in', left: '0.7in', right: '0.7in' },
    });
  } finally {
    await browser.close();
  }
}

function writerPdf(markup: string): Uint8Array {
  const dir = mkdtempSync(path.join(os.tmpdir(), 'form-'));
  const file = path.join(dir, 'form.fodt');
  writeFileSync(file, markup);
  execFileSync('soffice', ['--headless', '--convert-to', 'pdf', '--outdir', dir, file], { stdio: 'ignore' });
  return new Uint8Array(readFileSync(path.join(dir, 'form.pdf')));
}

function sheetPdf(markup: string): Uint8Array {
  const dir = mkdtempSync(path.join(os.tmpdir(), 'form-'));
  const file = path.join(dir, 'form.html');
  writeFileSync(file, markup);
  execFileSync('weasyprint', [file, path.join(dir, 'form.pdf')], { stdio: 'ignore' });
  return new Uint8Array(readFileSync(path.join(dir, 'form.pdf')));
}

/** Lays the pages of a file on their side; turned upright for display, they look as before. */
async function onTheirSide(bytes: Uint8Array): Promise<Uint8Array> {
  const doc = await PDFDocument.load(bytes, { updateMetadata: false });
  for (const page of doc.getPages()) {
    const { width, height } = page.getSize();
    page.node.normalize();
    const wrap = (ops: string) => doc.context.register(doc.context.flateStream(ops));
    page.node.wrapContentStreams(wrap(`q 0 1 -1 0 ${height} 0 cm\n`), wrap('Q\n'));
    page.setMediaBox(0, 0, height, width);
    page.setCropBox(0, 0, height, width);
    page.setRotation(degrees(90));
  }
  return doc.save();
}

/** Texts of a library form hold the same anchors as HTML; they become links of their own. */
function withLinks(value: unknown): unknown {
  if (typeof value === 'string' && value.includes('<a ')) {
    const m = /^<a href="([^"]+)">([^<]*)<\/a>$/.exec(value);
    if (m) return { text: m[2], link: m[1], color: 'black' };
  }
  if (Array.isArray(value)) return value.map(withLinks);
  if (value && typeof value === 'object')
    return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, withLinks(v)]));
  return value;
}

async function make(form: FormSource): Promise<void> {
  const raw =
    form.how === 'browser'
      ? await browserPdf(form.body as string)
      : form.how === 'sheet'
        ? sheetPdf(form.body as string)
        : form.how === 'writer'
          ? writerPdf(form.body as string)
          : await printDefinition({
              content: withLinks(form.body) as never,
              defaultStyle: { fontSize: 11 },
              pageMargins: [48, 50, 48, 50],
              pageSize: 'LETTER',
            });
  const taken = await takeLabels(raw);
  const linked = taken.places;
  const bytes = form.turned ? await onTheirSide(taken.bytes) : taken.bytes;
  const places = [...linked, ...(form.more ?? [])];
  writeFileSync(path.join(HERE, `${form.name}.pdf`), bytes);
  writeFileSync(path.join(HERE, `${form.name}.json`), `${JSON.stringify(places, null, 1)}\n`);
  console.log(`${form.name}: ${places.length} places`);
}

const SETS = { written, kept, ways: otherWays, apart };
const which = process.argv[2];
for (const [name, forms] of Object.entries(SETS))
  if (!which || which === name) for (const form of forms) await make(form);
