/** What a PDF has printed on it: the pages and the places to fill, for the desk and for `npm run inspect`. */
import { placeOfField, readPlaces, type PageContent, type PrintedPlace } from '@gatepath/core/reading';
import { openContent, pageContent } from './content';
import { formFields } from './fields';

export interface Inspection {
  pages: { width: number; height: number; rotation: number }[];
  places: PrintedPlace[];
}

/** Reads the places of a file, printed ones and fields of its form. */
export async function inspect(file: string | Uint8Array): Promise<Inspection> {
  const { doc, destroy } = await openContent(file);
  try {
    const contents: PageContent[] = [];
    for (let n = 1; n <= doc.numPages; n++) contents.push(await pageContent(doc, n));
    const fields = (await formFields(doc)).flatMap((f) => placeOfField(f) ?? []);
    const round = (v: number) => Math.round(v * 1000) / 1000;
    return {
      pages: contents.map((c) => ({ width: round(c.width), height: round(c.height), rotation: c.rotation })),
      places: readPlaces(contents, fields),
    };
  } finally {
    await destroy();
  }
}
