/**
 * Files that are ZIP archives (DOCX, XLSX, bundles): their parts, never unpacked beyond limits, whatever they claim.
 */
import JSZip from 'jszip';
import { numberOf } from '../errors';

// The package's types leave it out; unlike its Node streams it exists in every build.
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

/** Opens the archive; its claims are checked before anything is unpacked. */
export async function openParts(bytes: Uint8Array, limits: PartLimits): Promise<JSZip> {
  const zip = await JSZip.loadAsync(bytes);
  const files = Object.values(zip.files);
  const unfolded = files.reduce((n, f) => n + saidSize(f), 0);
  if (unfolded > limits.bytes || files.length > limits.parts) throw new UnfitParts('too_many_parts');
  return zip;
}

function saidSize(file: JSZip.JSZipObject): number {
  // The package stores it where its types do not say.
  const data: unknown = Reflect.get(file, '_data');
  return numberOf(data, 'uncompressedSize') ?? 0;
}

/**
 * Returns the bytes of a part, counted while unpacking, because a part can lie about its size.
 *
 * @throws UnfitParts once there are more than allowed
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

/** Returns the text of a part. */
export const textOfPart = async (part: JSZip.JSZipObject, most: number) =>
  (await unfolded(part, most)).toString('utf8');

/** Refuses document types: these files have none, and growing or external entities need one. */
export function refuseTypes(xml: string): void {
  if (/<!(?:DOCTYPE|ENTITY)/i.test(xml)) throw new UnfitParts('external');
}
