/** The bytes of a stream, piece by piece. */
import type { Readable } from 'node:stream';

/** Yields a stream's buffers. */
export async function* chunksOf(stream: Readable): AsyncGenerator<Buffer> {
  for await (const chunk of stream) {
    const bytes: Buffer = chunk;
    yield bytes;
  }
}
