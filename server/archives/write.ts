/** Writing ZIP archives as streams: binders of hundreds of papers, bundles of forms, a DOCX with one part replaced. */
import { PassThrough, Readable, Writable } from 'node:stream';
import { ZipWriter, configure } from '@zip.js/zip.js';

configure({ useWebWorkers: false });

/** A file that is put into an archive. */
export interface ArchiveEntry {
  path: string;
  /** Opened when those before it are written. */
  open: () => Promise<Readable | Uint8Array> | Uint8Array;
}

/**
 * Returns a ZIP archive as a stream. An entry is opened only when those before it were consumed, and an error of one ends
 * the stream. PDFs are stored as they are: they are compressed already.
 *
 * @param modified  the day the entries bear
 */
export function archiveOf(entries: Iterable<ArchiveEntry>, modified: Date): Readable {
  const out = new PassThrough();
  const writing = async () => {
    const zip = new ZipWriter(Writable.toWeb(out));
    for (const { path, open } of entries) {
      const opened = await open();
      const stream = opened instanceof Uint8Array ? Readable.from([opened]) : opened;
      // An entry is below 4 GB, and older programs can read it then; the archive may be larger.
      const level = path.endsWith('.pdf') ? 0 : 6;
      // One class with two types: Node's own declaration of it lacks an option.
      const readable = Readable.toWeb(stream) as unknown as ReadableStream<Uint8Array>;
      await zip.add(path, readable, { level, lastModDate: modified, zip64: false });
    }
    await zip.close();
  };
  writing().catch((error: unknown) => out.destroy(error instanceof Error ? error : new Error(String(error))));
  return out;
}
