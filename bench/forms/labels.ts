/** The labels of a printed form: its links, whose addresses say what each blank is. */
import { PDFArray, PDFDict, PDFDocument, PDFHexString, PDFName, PDFString } from '@cantoo/pdf-lib';
import { LABEL } from './blank';
import type { Labelled } from './types';

/** Takes the labels out of a file: the rectangles of its links, joined where one link was cut in pieces. */
export async function takeLabels(bytes: Uint8Array): Promise<{ bytes: Uint8Array; places: Labelled[] }> {
  const doc = await PDFDocument.load(bytes, { updateMetadata: false });
  const places: Labelled[] = [];
  doc.getPages().forEach((page, i) => {
    const { height } = page.getSize();
    const annots = page.node.Annots();
    for (const ref of annots?.asArray() ?? []) {
      const a = doc.context.lookup(ref);
      if (!(a instanceof PDFDict)) continue;
      const action = a.lookup(PDFName.of('A'));
      const uri = action instanceof PDFDict ? action.lookup(PDFName.of('URI')) : undefined;
      const url = uri instanceof PDFString || uri instanceof PDFHexString ? uri.decodeText() : '';
      if (!url.startsWith(LABEL)) continue;
      const [kind, role, ordinal] = url.slice(LABEL.length).split('/');
      const r = (a.lookup(PDFName.of('Rect')) as PDFArray).asArray().map((n) => Number(n.toString()));
      const x = Math.min(r[0]!, r[2]!);
      const y = Math.min(r[1]!, r[3]!);
      const t = (n: number) => Math.round(n * 10) / 10;
      places.push({
        page: i + 1,
        kind: kind!,
        role: role === '-' ? 'unknown' : role!,
        ordinal: ordinal === '-' || ordinal === 'undefined' ? null : Number(ordinal),
        rect: [t(x), t(height - y - Math.abs(r[3]! - r[1]!)), t(Math.abs(r[2]! - r[0]!)), t(Math.abs(r[3]! - r[1]!))],
      });
    }
    page.node.delete(PDFName.of('Annots'));
  });
  return { bytes: await doc.save(), places: joined(places) };
}

/** Where the text of a page begins and ends, in points: a blank cut there goes on over the next line. */
const TEXT = { from: 80, to: 540 };

/** Joins the pieces of a broken link into one blank: all of it on one line, the longer piece over two lines. */
function joined(places: Labelled[]): Labelled[] {
  const out: Labelled[] = [];
  for (const p of places) {
    const last = out[out.length - 1];
    const touches =
      last &&
      last.page === p.page &&
      last.kind === p.kind &&
      last.role === p.role &&
      last.ordinal === p.ordinal &&
      Math.abs(last.rect[1] - p.rect[1]) < 1 &&
      Math.abs(last.rect[0] + last.rect[2] - p.rect[0]) < 1.5;
    const goesOn =
      last &&
      last.page === p.page &&
      `${last.kind} ${last.role} ${last.ordinal}` === `${p.kind} ${p.role} ${p.ordinal}` &&
      p.rect[1] - last.rect[1] > 8 &&
      p.rect[1] - last.rect[1] < 30 &&
      last.rect[0] + last.rect[2] > TEXT.to &&
      p.rect[0] < TEXT.from &&
      last.rect[0] > p.rect[0] + 1;
    // Chromium repeats the links of a page footer: every page gets the links of all pages. Duplicates are dropped.
    const again = out.some(
      (o) => o.page === p.page && o.kind === p.kind && o.rect.every((n, i) => Math.abs(n - p.rect[i]!) < 1),
    );
    if (again) continue;
    if (goesOn) {
      if (p.rect[2] > last.rect[2]) last.rect = [...p.rect];
    } else if (touches) last.rect[2] = Math.round((p.rect[0] + p.rect[2] - last.rect[0]) * 10) / 10;
    else out.push({ ...p, rect: [...p.rect] });
  }
  return out;
}
