/** A page's content with something before it and something behind it. */
import {
  decodePDFRawStream,
  PDFArray,
  PDFName,
  PDFRawStream,
  PDFStream,
  type PDFObject,
  type PDFPage,
} from '@cantoo/pdf-lib';
import { countContent } from '../pdf/operators';

const CONTENTS = PDFName.of('Contents');

function streamsOf(page: PDFPage): PDFObject[] {
  const was = page.node.get(CONTENTS);
  if (!was) return [];
  const found = page.node.context.lookup(was);
  return found instanceof PDFArray ? found.asArray() : [was];
}

/** Puts operators around what a page draws; whatever graphics states that leaves open are closed behind it. */
export function wrapContent(page: PDFPage, before: string, after: string): void {
  const { context } = page.node;
  const streams = streamsOf(page);
  const parts = streams.flatMap((ref) => {
    const stream = context.lookup(ref);
    if (stream instanceof PDFRawStream) return [Buffer.from(decodePDFRawStream(stream).decode()), Buffer.from('\n')];
    return stream instanceof PDFStream ? [Buffer.from(stream.getContents()), Buffer.from('\n')] : [];
  });
  const { open } = countContent(new Uint8Array(Buffer.concat(parts)));
  const list = PDFArray.withContext(context);
  list.push(context.register(context.flateStream(`q ${before}\n`)));
  for (const ref of streams) list.push(ref);
  list.push(context.register(context.flateStream(`\n${'Q '.repeat(open + 1)}\n${after}`)));
  page.node.set(CONTENTS, list);
}
