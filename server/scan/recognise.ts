/** Recognizing words in an image without network access, in a worker that keeps its engine. */
import { createRequire } from 'node:module';
import path from 'node:path';
import type { SeenWord } from '@gatepath/core/scan';
import { createWorker, OEM, PSM, type Worker } from 'tesseract.js';

const require = createRequire(import.meta.url);
/** Which of a language's models is used: the exact one, in integers. */
const MODEL = '4.0.0_best_int';
/** Languages that are recognized, as the model names them. */
export const SCAN_LANGUAGES = ['eng', 'spa'] as const;
/** One of `SCAN_LANGUAGES`. */
export type ScanLanguage = (typeof SCAN_LANGUAGES)[number];

let engine: { language: ScanLanguage; worker: Promise<Worker> } | null = null;

async function engineFor(language: ScanLanguage): Promise<Worker> {
  if (engine?.language === language) return engine.worker;
  const was = engine;
  const worker = start(language);
  engine = { language, worker };
  await (await was?.worker)?.terminate();
  return worker;
}

async function start(language: ScanLanguage): Promise<Worker> {
  const langPath = path.join(path.dirname(require.resolve(`@tesseract.js-data/${language}/package.json`)), MODEL);
  const worker = await createWorker(language, OEM.LSTM_ONLY, {
    langPath,
    cacheMethod: 'none',
    gzip: true,
    // The promise reports the error; without this it would also end the process.
    errorHandler: () => undefined,
  });
  await worker.setParameters({
    tessedit_pageseg_mode: PSM.SPARSE_TEXT,
    preserve_interword_spaces: '0',
  });
  return worker;
}

/**
 * Returns the words of an image of a straight page, in no order.
 *
 * @param picture PNG or JPEG
 * @param dpi dots per inch
 */
export async function recognise(picture: Buffer, dpi: number, language: ScanLanguage): Promise<SeenWord[]> {
  const worker = await engineFor(language).catch((error: unknown) => {
    // The next page begins with a fresh one.
    engine = null;
    throw error;
  });
  await worker.setParameters({ user_defined_dpi: String(dpi) });
  const { data } = await worker.recognize(picture, {}, { blocks: true, text: false });
  const out: SeenWord[] = [];
  for (const block of data.blocks ?? [])
    for (const { lines } of block.paragraphs)
      for (const line of lines) {
        const { baseline: b, rowAttributes: row } = line;
        const slope = b.x1 > b.x0 ? (b.y1 - b.y0) / (b.x1 - b.x0) : 0;
        for (const w of line.words) {
          const { x0, y0, x1, y1 } = w.bbox;
          out.push({
            text: w.text,
            x0,
            y0,
            x1,
            y1,
            baseline: b.y0 + slope * ((x0 + x1) / 2 - b.x0),
            high: row.rowHeight,
            confidence: w.confidence / 100,
          });
        }
      }
  return out;
}

/** Ends the engine. */
export async function stopRecognising(): Promise<void> {
  const was = engine;
  engine = null;
  await (await was?.worker)?.terminate();
}
