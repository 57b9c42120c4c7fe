/** Files that are packed folders (DOCX, XLSX, bundles): their parts, never unfolded further than is allowed, whatever they say of themselves. */
import JSZip from 'jszip';
import { numberOf } from '../errors';

// The package's types leave it out; unlike its streams of Node it is there in every build of it.
declare module 'jszip' {
  interface JSZipObject {
    internalStream(type: 'uint8array'): {
      on(event: 'data', heard: (part: Uint8Array) => void): void;
      on(event: 'error', heard: (error: Error) => void): void;
      on(event: 'end', heard: () => void): void;
      pause(): void;
      resume(): void;
    };
  }
}

/** A file that unpacks to more than it may, or that holds parts which lie elsewhere or grow as they are read. */
export class UnfitParts extends Error {
  constructor(readonly why: 'too_many_parts' | 'external') {
    super(why);
  }
}

/** Most bytes, and most parts, such a file may unpack to. */
export interface PartLimits {
  bytes: number;
  parts: number;
}

/** Opens the folder; what it says of itself is asked before anything is unfolded. */
export async function openParts(bytes: Uint8Array, limits: PartLimits): Promise<JSZip> {
  const zip = await JSZip.loadAsync(bytes);
  const files = Object.values(zip.files);
  const unfolded = files.reduce((n, f) => n + saidSize(f), 0);
  if (unfolded > limits.bytes || files.length > limits.parts) throw new UnfitParts('too_many_parts');
  return zip;
}

function saidSize(file: JSZip.JSZipObject): number {
  // The package keeps it where its types do not say.
  const data: unknown = Reflect.get(file, '_data');
  return numberOf(data, 'uncompressedSize') ?? 0;
}

/**
 * The bytes of a part, counted as they unfold: a part can say that it is small.
 *
 * @throws UnfitParts once they are more than allowed
 */
export function unfolded(part: JSZip.JSZipObject, most: number): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const chunks: Uint8Array[] = [];
    let n = 0;
    const stream = part.internalStream('uint8array');
    stream.on('data', (chunk) => {
      n += chunk.length;
      if (n <= most) chunks.push(chunk);
      else {
        stream.pause();
        reject(new UnfitParts('too_many_parts'));
      }
    });
    stream.on('error', reject);
    stream.on('end', () => resolve(Buffer.concat(chunks)));
    stream.resume();
  });
}

/** The text of a part. */
export const textOfPart = async (part: JSZip.JSZipObject, most: number) =>
  (await unfolded(part, most)).toString('utf8');

/** Refuses document types: neither kind of file has any, and entities that grow, or that lie elsewhere, need one. */
export function refuseTypes(xml: string): void {
  if (/<!(?:DOCTYPE|ENTITY)/i.test(xml)) throw new UnfitParts('external');
}
