/**
 * Reading ZIP archives (DOCX, XLSX, bundles): their parts, never unpacked beyond limits, whatever they claim.
 */
import { ERR_INVALID_UNCOMPRESSED_SIZE, Uint8ArrayReader, ZipReader, configure, type FileEntry } from '@zip.js/zip.js';
import { messageOf } from '../errors';

// Archives of others are read in a worker process already.
configure({ useWebWorkers: false });

/** The file unpacks to more than allowed, or has parts that are elsewhere or grow while being read. */
export class UnfitParts extends Error {
  constructor(readonly why: 'too_many_parts' | 'external') {
    super(why);
  }
}

/** Maximum bytes and parts such a file may unpack to. */
export interface PartLimits {
  bytes: number;
  parts: number;
}

/** A file within an archive. */
export interface Part {
  name: string;
  /**
   * Returns its bytes, counted while unpacking, because a part can lie about its size.
   *
   * @throws UnfitParts once there are more than allowed
   */
  bytes(most: number): Promise<Buffer>;
  /** Returns its text. @throws UnfitParts like `bytes` */
  text(most: number): Promise<string>;
}

/** The files within an archive by their names; the last of a name counts. */
export type Archive = ReadonlyMap<string, Part>;

/**
 * Opens an archive; its claims are checked before anything is unpacked.
 *
 * @throws UnfitParts if it claims to unpack to more than allowed, Error if it is no ZIP archive or damaged
 */
export async function openArchive(bytes: Uint8Array, limits: PartLimits): Promise<Archive> {
  const out = new Map<string, Part>();
  let [parts, unpacked] = [0, 0];
  for await (const entry of new ZipReader(new Uint8ArrayReader(bytes)).getEntriesGenerator()) {
    unpacked += entry.uncompressedSize;
    if (++parts > limits.parts || unpacked > limits.bytes) throw new UnfitParts('too_many_parts');
    if (!entry.directory) out.set(entry.filename, partOf(entry));
  }
  return out;
}

function partOf(entry: FileEntry): Part {
  const bytes = (most: number) => unpacked(entry, most);
  return { name: entry.filename, bytes, text: async (most) => (await bytes(most)).toString('utf8') };
}

async function unpacked(entry: FileEntry, most: number): Promise<Buffer> {
  const chunks: Uint8Array[] = [];
  let n = 0;
  const sink = new WritableStream<Uint8Array>({
    write(chunk) {
      n += chunk.length;
      if (n > most) throw new UnfitParts('too_many_parts');
      chunks.push(chunk);
    },
  });
  try {
    await entry.getData(sink);
  } catch (error) {
    // The package itself stops at the size a part claims.
    throw messageOf(error) === ERR_INVALID_UNCOMPRESSED_SIZE || n > most ? new UnfitParts('too_many_parts') : error;
  }
  return Buffer.concat(chunks);
}

/** Refuses document types: these files have none, and growing or external entities need one. */
export function refuseTypes(xml: string): void {
  if (/<!(?:DOCTYPE|ENTITY)/i.test(xml)) throw new UnfitParts('external');
}
