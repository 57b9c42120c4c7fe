/** Papers that are packed folders (DOCX, XLSX): their parts, never unfolded further than is allowed, whatever they say of themselves. */
import JSZip from 'jszip';
import { numberOf } from '../errors';

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

/** The text of a part, given up as soon as it is longer than allowed: a part can say that it is small. */
export function textOfPart(file: JSZip.JSZipObject, most: number): Promise<string> {
  return new Promise((resolve, reject) => {
    const chunks: Uint8Array[] = [];
    let n = 0;
    const stream = file.internalStream('uint8array');
    stream.on('data', (chunk) => {
      n += chunk.length;
      if (n <= most) chunks.push(chunk);
      else {
        stream.pause();
        reject(new UnfitParts('too_many_parts'));
      }
    });
    stream.on('error', reject);
    stream.on('end', () => resolve(Buffer.concat(chunks).toString('utf8')));
    stream.resume();
  });
}

/** Refuses document types: neither kind of file has any, and entities that grow, or that lie elsewhere, need one. */
export function refuseTypes(xml: string): void {
  if (/<!(?:DOCTYPE|ENTITY)/i.test(xml)) throw new UnfitParts('external');
}
