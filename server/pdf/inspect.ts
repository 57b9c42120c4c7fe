/** What a PDF has printed on it: the pages and the places to fill, for the desk and for `npm run inspect`. */
import { placeOfField, readPlaces, type PageContent, type PrintedPlace } from '@gatepath/core/reading';
import { readStored } from '../files/stored';
import { addDrawn } from '../scan/page';
import { readWhole } from '../scan/whole';
import { openContent, pageContent } from './content';
import { pdfium } from './draw';
import { formFields } from './fields';

export interface Inspection {
  pages: { width: number; height: number; rotation: number }[];
  places: PrintedPlace[];
}

/** Reads the places of a file, printed ones and fields of its form; of pages that are pictures, too. */
export async function inspect(file: string | Uint8Array): Promise<Inspection> {
  const bytes = typeof file === 'string' ? await readStored(file) : file;
  const came = await contentsOf(bytes);
  const bare = came.contents.flatMap((c, i) => (c.scan === 'bare' ? [i + 1] : []));
  const read = bare.length ? await readWhole(bytes, bare) : null;
  const { contents, fields } = read ? await contentsOf(read.bytes) : came;
  await addPictures(read?.bytes ?? bytes, contents);
  const round = (v: number) => Math.round(v * 1000) / 1000;
  const places = readPlaces(contents, fields);
  return {
    pages: came.contents.map((c) => ({ width: round(c.width), height: round(c.height), rotation: c.rotation })),
    places: read ? places.map(read.asItCame) : places,
  };
}

async function contentsOf(bytes: Uint8Array): Promise<{ contents: PageContent[]; fields: PrintedPlace[] }> {
  const { doc, destroy } = await openContent(bytes);
  try {
    const contents: PageContent[] = [];
    for (let n = 1; n <= doc.numPages; n++) contents.push(await pageContent(doc, n));
    return { contents, fields: (await formFields(doc)).flatMap((f) => placeOfField(f) ?? []) };
  } finally {
    await destroy();
  }
}

/** The lines and boxes of pages that are pictures. */
async function addPictures(bytes: Uint8Array, contents: PageContent[]): Promise<void> {
  if (!contents.some((c) => c.scan)) return;
  const doc = await (await pdfium()).loadDocument(Buffer.from(bytes));
  try {
    for (const [i, content] of contents.entries()) if (content.scan) await addDrawn(doc, i + 1, content);
  } finally {
    doc.destroy();
  }
}
